// The file of a picture: what it is, that it is missing, and another one in its place.
import { pictureFiles } from '../server/server'
import { ImageUp } from 'lucide-react'
import { useRef } from 'react'
import { leaveCrop, openCrop } from '../actions/cropping'
import { readAnew, replacePicture } from '../actions/pictures'
import { engine } from '../engine/engine'
import type { File, Selected } from '../engine/types'
import { apply, run } from '../project/commands'
import { useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { ShapeSign } from '../ui/ShapeSign'
import { TextField } from '../ui/TextField'
import { Button, Label, Sign } from '../ui/controls'
import { shared } from './shared'

export function PictureFields({ selected }: { selected: Selected[] }) {
  const missing = useDesk((d) => d.missing)
  const scale = useDesk((d) => d.scale)
  const input = useRef<HTMLInputElement>(null)
  const hash = shared(selected.map((s) => s.layer.picture!.media))
  if (hash === null) return <ManyPictures threads={selected.map((s) => s.layer.thread)} />
  const gone = missing.includes(hash)
  const threads = selected.map((s) => s.layer.thread)
  const file = selected.length === 1 ? selected[0].file : null
  return (
    <div className="mb-1.5">
      {gone && (
        <p className="mb-1.5 rounded-md bg-coral-700 px-2 py-1 text-[0.75rem] text-paper" role="alert">
          The file of this picture is missing. Replace it here; it changes wherever it is used.
        </p>
      )}
      <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
        {file && (
          <p className="col-span-2 mb-1 text-[0.75rem] text-ink-600" data-file>
            {file.words}
            {file.enlarged > 0 && (
              <span className="mt-0.5 block rounded-md bg-brass-200 px-2 py-1 text-ink-900">
                Shown at {file.enlarged} % of its own pixels: it may look soft.
              </span>
            )}
            {file.scale * scale * devicePixelRatio <= 0.5 && file.scale > 0.5 && (
              <span className="mt-0.5 block" data-smaller>
                The page paints a smaller copy at this zoom; a file shows more of it.
              </span>
            )}
            {file.old && (
              <span className="mt-0.5 flex items-center justify-between gap-2">
                It was read by an older Capstan.
                <Button
                  className="!h-6 !px-2 text-[0.75rem]"
                  title="As pictures are read now: its colours may change a little, wherever it is used"
                  onClick={() => void readAnew(hash)}
                >
                  Read anew
                </Button>
              </span>
            )}
          </p>
        )}
        <Label>File</Label>
        <Button onClick={() => input.current?.click()}>
          <ImageUp size={15} strokeWidth={1.5} />
          Replace file …
        </Button>
      </div>
      {selected.length > 1 && <ManyPictures threads={threads} />}
      {file && <CropFields threads={threads} file={file} />}
      {file && (
        <Fold title="Source and licence" folded={!file.source && !file.licence}>
          <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5 py-1">
            <Label>Source</Label>
            <TextField
              clears
              name="Who made this picture, or where it is from"
              value={file.source}
              onSet={(source) => apply({ op: 'media.credit', hash, source, licence: file.licence })}
            />
            <Label>Licence</Label>
            <TextField
              clears
              name="How this picture may be used"
              value={file.licence}
              onSet={(licence) => apply({ op: 'media.credit', hash, source: file.source, licence })}
            />
          </div>
        </Fold>
      )}
      <input
        ref={input}
        type="file"
        accept={pictureFiles}
        hidden
        data-replace-input
        aria-label="File in place of this picture"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) void replacePicture(hash, threads, file)
          e.target.value = ''
        }}
      />
    </div>
  )
}

const ratios: [string, number, number][] = [
  ['1 : 1', 1, 1],
  ['4 : 3', 4, 3],
  ['3 : 2', 3, 2],
  ['16 : 9', 16, 9],
  ['4 : 5', 4, 5],
  ['9 : 16', 9, 16],
]

/** What part of its file a picture shows: what is cut off stays out of sight, and comes back when it is asked for. */
function CropFields({ threads, file }: { threads: string[]; file: File }) {
  const { crop } = file
  const cropping = useDesk((d) => d.cropping === threads[0])
  const side = (k: number, of: 'left' | 'top' | 'right' | 'bottom', label: string) => (
    <NumberField
      label={label}
      name={`Crop: cut off ${label.toLowerCase()}`}
      unit="%"
      digits={1}
      min={0}
      max={99.9}
      value={Math.round(crop[k] * 1000) / 10}
      onSet={(v) => run('crop.sides', { threads, [of]: v / 100 })}
    />
  )
  const cut = crop.some((v) => v > 0) || file.turned !== 0
  return (
    <Fold key={cropping ? 1 : 0} title="Crop" folded={!cut && !cropping}>
      <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-1.5 gap-y-1.5 py-1">
        {side(0, 'left', 'Left')}
        {side(2, 'right', 'Right')}
        {side(1, 'top', 'Above')}
        {side(3, 'bottom', 'Below')}
        <NumberField
          label="Zoom"
          name="How large it is in its frame; 100: it just covers it"
          unit="%"
          min={100}
          max={100000}
          value={Math.round(file.zoom * 1000) / 10}
          onSet={(v) => run('crop.zoom', { threads, zoom: v / 100 })}
        />
        <NumberField
          label="Turn"
          name="How far it is turned in its frame"
          unit="°"
          digits={1}
          min={-180}
          max={180}
          value={file.turned}
          onSet={(turn) => run('crop.turn', { threads, turn })}
        />
      </div>
      {file.trims && (
        <Button
          className="mb-1 !h-7 w-full !px-1 text-[0.75rem]"
          title="What is seen of it stays where it is"
          onClick={() => run('crop.trim', { threads })}
        >
          Cut off its clear margins
        </Button>
      )}
      <Ratios threads={threads} />
      <WithinShape threads={threads} />
      <div className="grid grid-cols-2 gap-1 pb-1">
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="Also by a double press on it, or by Enter"
          aria-pressed={cropping}
          onClick={() => (cropping ? leaveCrop() : openCrop())}
        >
          {cropping ? 'Done' : 'On the page'}
        </Button>
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="All of it, in the largest frame of its proportions within the one it has"
          onClick={() => run('crop.fit', { threads })}
        >
          Fit in the frame
        </Button>
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="In its own proportions, over all of the frame that it has"
          onClick={() => run('crop.fill', { threads })}
        >
          Fill the frame
        </Button>
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          disabled={!cut}
          onClick={() => run('crop.ratio', { threads, across: 0, down: 0 })}
        >
          The whole picture
        </Button>
      </div>
    </Fold>
  )
}

function Ratios({ threads }: { threads: string[] }) {
  return (
    <div className="grid grid-cols-3 gap-1 pb-1">
      {ratios.map(([word, across, down]) => (
        <Button
          key={word}
          className="!h-7 !px-1 text-[0.75rem]"
          title="Cut to this ratio, about its middle"
          onClick={() => run('crop.ratio', { threads, across, down })}
        >
          {word}
        </Button>
      ))}
    </div>
  )
}

/** What several pictures are cut to together. */
function ManyPictures({ threads }: { threads: string[] }) {
  return (
    <Fold title="Crop">
      <Ratios threads={threads} />
      <div className="grid grid-cols-2 gap-1 pb-1">
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="Frames as large as that of the picture selected first; each fills its own"
          onClick={() => run('crop.same', { threads })}
        >
          Frames of one size
        </Button>
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="In their own proportions, over all of the frames that they have"
          onClick={() => run('crop.fill', { threads })}
        >
          Fill the frames
        </Button>
      </div>
    </Fold>
  )
}

/** Shapes that pictures are seen within: each becomes a mask, which is a layer of its own. */
function WithinShape({ threads }: { threads: string[] }) {
  const kinds = engine.shapes().filter((s) => s.closed)
  return (
    <div className="flex flex-wrap gap-0.5 pb-1" role="group" aria-label="Seen within a shape">
      {kinds.map((s) => (
        <Sign
          key={s.kind}
          name={`Seen within: ${s.name.toLowerCase()}`}
          className="!h-7 !w-7 hover:bg-sailcloth-200"
          onClick={() => run('mask.shape', { threads, kind: s.kind })}
        >
          <ShapeSign d={s.d} />
        </Sign>
      ))}
    </div>
  )
}
