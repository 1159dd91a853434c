// The file of a picture: what it is, that it is missing, and another one in its place.
import { ImageUp } from 'lucide-react'
import { useRef } from 'react'
import { replacePicture } from '../actions/pictures'
import type { Selected } from '../engine/types'
import { useDesk } from '../project/desk'
import { Button, Label } from '../ui/controls'
import { shared } from './shared'

export function PictureFields({ selected }: { selected: Selected[] }) {
  const missing = useDesk((d) => d.missing)
  const input = useRef<HTMLInputElement>(null)
  const hash = shared(selected.map((s) => s.layer.picture!.media))
  if (hash === null) return null
  const gone = missing.includes(hash)
  return (
    <div className="mb-1.5">
      {gone && (
        <p className="mb-1.5 rounded-md bg-coral-700 px-2 py-1 text-[0.75rem] text-paper" role="alert">
          The file of this picture is missing. Replace it here; it changes wherever it is used.
        </p>
      )}
      <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
        <Label>File</Label>
        <Button onClick={() => input.current?.click()}>
          <ImageUp size={15} strokeWidth={1.5} />
          Replace file …
        </Button>
      </div>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg"
        hidden
        data-replace-input
        aria-label="File in place of this picture"
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file)
            void replacePicture(
              hash,
              selected.map((s) => s.layer.thread),
              file,
            )
          e.target.value = ''
        }}
      />
    </div>
  )
}
