// The file of a picture: what it is, that it is missing, and another one in its place.
import { pictureFiles } from '../server/server'
import { ImageUp } from 'lucide-react'
import { useRef } from 'react'
import { readAnew, replacePicture } from '../actions/pictures'
import type { Selected } from '../engine/types'
import { apply } from '../project/commands'
import { useDesk } from '../project/desk'
import { Fold } from '../ui/Section'
import { TextField } from '../ui/TextField'
import { Button, Label } from '../ui/controls'
import { CutoutFields } from './CutoutFields'
import { CropFields, ManyPictures } from './CropFields'
import { shared } from './shared'
import { TableName } from './TableName'

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
    <div className="mb-1.5 flex flex-col">
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
            {scale * devicePixelRatio <= file.shrinks && (
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
        <TableName selected={selected} />
        <Label>File</Label>
        <Button onClick={() => input.current?.click()}>
          <ImageUp size={15} strokeWidth={1.5} />
          Replace file …
        </Button>
      </div>
      {selected.length > 1 && <ManyPictures threads={threads} />}
      {file && <CutoutFields one={selected[0]} />}
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
