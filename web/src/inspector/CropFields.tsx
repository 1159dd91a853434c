// What part of its file a picture shows, by numbers, to ratios and frames, and within shapes.
import { leaveCrop, openCrop } from '../actions/cropping'
import { engine } from '../engine/engine'
import type { File } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { ShapeSign } from '../ui/ShapeSign'
import { Button, Sign } from '../ui/controls'

/** What part of its file a picture shows: what is cut off stays out of sight, and comes back when it is asked for. */
export function CropFields({ threads, file }: { threads: string[]; file: File }) {
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
      {engine.fields().ratios.map(({ words, across, down }) => (
        <Button
          key={words}
          className="!h-7 !px-1 text-[0.75rem]"
          title="Cut to this ratio, about its middle"
          onClick={() => run('crop.ratio', { threads, across, down })}
        >
          {words}
        </Button>
      ))}
    </div>
  )
}

/** What several pictures are cut to together. */
export function ManyPictures({ threads }: { threads: string[] }) {
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
