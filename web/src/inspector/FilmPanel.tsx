// The film as a whole: its page, rate and length, and whether it goes round.
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import type { Film } from '../engine/types'
import { apply, run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { Section } from '../ui/Section'
import { Label } from '../ui/controls'
import { TransitionFields } from './TransitionFields'

const rates = ['24/1', '25/1', '30/1', '50/1', '60/1', '24000/1001', '30000/1001']

export function FilmPanel({ film }: { film: Film }) {
  const rate = `${film.rate.num}/${film.rate.den}`
  const c = film.closing
  return (
    <Section title="Film">
      <div className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
        <Label>Page</Label>
        <span className="font-mono text-[0.75rem]">
          {film.width} × {film.height} px
        </span>
        <Label>Frames</Label>
        <Choice
          name="Frames a second"
          value={rate}
          onSet={(v) => {
            const [num, den] = v.split('/').map(Number)
            apply({ op: 'film.set', patch: { rate: { num, den } } })
          }}
          of={[...new Set([...rates, rate])].map((r) => {
            const [n, d] = r.split('/').map(Number)
            return { value: r, label: `${d === 1 ? n : (n / d).toFixed(3)} a second` }
          })}
        />
        <Label>Length</Label>
        <span className="font-mono text-[0.75rem]">
          {(film.length / 1000).toFixed(2)} s · {film.frames} frames
        </span>
        <Check
          name="Begins again at its end"
          on={film.loop}
          onSet={(v) => apply({ op: 'film.set', patch: v ? { loop: true } : { loop: null, closing: null } })}
        />
      </div>
      {film.loop && <Closes film={film} />}
      {film.loop && film.shown > 1 && (
        <div className="mt-2" data-closing-fields>
          <p className="mb-1.5 text-[0.75rem] font-semibold">From the last scene back to the first</p>
          <TransitionFields
            name="Closing transition"
            kind={c?.kind ?? 'cut'}
            duration={c?.duration ?? 0}
            easing={c?.easing ?? ''}
            params={c?.params}
            goesOn={!!c?.goesOn}
            runs={0}
            mayGoOn={film.scenes[film.shown - 1].transition === 'morph' && film.scenes[film.shown - 1].stay === 0}
            onSet={(patch) => run('film.closing', { patch })}
          />
        </div>
      )}
    </Section>
  )
}

/** Whether the film's end meets its start, and what does not. */
function Closes({ film }: { film: Film }) {
  const version = useDesk((d) => d.version)
  const dragging = useDesk((d) => d.dragging)
  const c = useMemo(() => (dragging ? null : engine.closes()), [version, dragging])
  if (!c) return null
  const last = film.scenes[film.shown - 1]
  return (
    <p
      className={`mt-2 rounded-md px-2 py-1 text-[0.75rem] ${c.closes ? 'text-ink-600' : 'bg-brass-200 text-ink-900'}`}
      data-closes={c.closes}
    >
      {c.words}{' '}
      {c.stay > 0 && (
        <button
          type="button"
          className="font-semibold underline"
          onClick={() => run('scene.stay', { ids: [last.id], stay: c.stay })}
        >
          Let it stay so long
        </button>
      )}
    </p>
  )
}
