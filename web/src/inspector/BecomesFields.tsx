// What a change makes of its layer: which fields it names, and the way to change them.
import { X } from 'lucide-react'
import type { Move } from '../engine/types'
import { run } from '../project/commands'
import { editAfter, useDesk } from '../project/desk'
import { NumberField } from '../ui/NumberField'
import { Button, Label, Sign } from '../ui/controls'

export function BecomesFields({ move }: { move: Move }) {
  const edited = useDesk((d) => !!d.after?.moves.includes(move.id))
  const scale = move.change?.to?.scale
  return (
    <>
      <Button
        className="col-span-2 !h-7"
        title={edited ? 'Back to how it rests' : 'What is done to it then is what it becomes'}
        onClick={() => editAfter(edited ? [] : [move.id])}
      >
        {edited ? 'Done changing it' : 'Edit what it becomes'}
      </Button>
      {move.becomes.length > 0 ? (
        <>
          <Label>Changes</Label>
          <ul className="flex flex-wrap gap-1" aria-label="What it changes">
            {move.becomes.map((b) => (
              <li
                key={b.words}
                className="flex items-center rounded-md border border-sailcloth-300 bg-paper pl-1.5 text-[0.75rem]"
              >
                {b.words}
                <Sign
                  name={`Leave ${b.words} as it is`}
                  className="!h-6 !w-6 text-ink-600 hover:bg-sailcloth-200"
                  onClick={() => run('change.drop', { move: move.id, fields: b.fields })}
                >
                  <X size={12} strokeWidth={1.5} />
                </Sign>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="col-span-2 text-[0.75rem] leading-snug text-ink-600">
          Nothing yet. Move it, size it, colour it: what is done while it is edited is what it becomes.
        </p>
      )}
      <NumberField
        label="Scale"
        name="Scale it comes to"
        unit="%"
        min={0}
        max={100000}
        value={Math.round((scale ?? 1) * 1000) / 10}
        onSet={(v) =>
          run('move.set', { move: move.id, patch: { change: { to: { scale: v === 100 ? null : v / 100 } } } })
        }
      />
      {move.parted && (
        <NumberField
          label="Apart"
          name="How far apart its letters or parts come to lie"
          unit="%"
          min={0}
          max={100000}
          value={Math.round((move.change?.to?.apart ?? 1) * 1000) / 10}
          onSet={(v) =>
            run('move.set', { move: move.id, patch: { change: { to: { apart: v === 100 ? null : v / 100 } } } })
          }
        />
      )}
    </>
  )
}
