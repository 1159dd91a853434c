// A mark that lies over a file: words or a picture of the project, in a corner.
import { engine } from '../engine/engine'
import type { FileMark } from '../engine/types'
import { useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { Label } from '../ui/controls'
import { TextField } from '../ui/TextField'

export function MarkFields({ mark, onMark }: { mark?: FileMark; onMark: (m: FileMark | undefined) => void }) {
  const pictures = useDesk((d) => d.film)!.credits
  const { corners } = engine.choices()
  const kind = mark ? mark.picture || 'words' : 'none'
  return (
    <>
      <Label>Mark</Label>
      <span className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-1.5">
        <Choice
          name="Mark over the film"
          value={kind}
          of={[
            { value: 'none', label: 'none' },
            { value: 'words', label: 'words' },
            ...pictures.map((c) => ({ value: c.hash, label: c.name })),
          ]}
          onSet={(v) =>
            onMark(
              v === 'none'
                ? undefined
                : v === 'words'
                  ? { corner: mark?.corner, words: engine.film().name }
                  : { corner: mark?.corner, picture: v },
            )
          }
        />
        {mark && (
          <Choice
            name="Corner of the mark"
            value={mark.corner ?? corners[0]}
            of={corners.map((c) => ({ value: c, label: c }))}
            onSet={(corner) => onMark({ ...mark, corner })}
          />
        )}
        {mark && !mark.picture && (
          <TextField
            name="Words of the mark"
            className="col-span-2"
            value={mark.words ?? ''}
            onSet={(words) => onMark({ ...mark, words })}
          />
        )}
      </span>
    </>
  )
}
