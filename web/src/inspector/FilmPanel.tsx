// The film as a whole: its page, rate and length, and whether it goes round.
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import type { Film } from '../engine/types'
import { apply, run } from '../project/commands'
import { fail, say, useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { ColourField } from '../ui/ColourField'
import { Choice } from '../ui/Choice'
import { Fold, Section } from '../ui/Section'
import { notice } from '../words'
import { Button, Label } from '../ui/controls'
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
      <div className="mt-2 grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
        <span className="col-span-2" title="No background is painted; PNG and animated PNG stay clear">
          <Check
            name="Clear ground"
            on={film.clear}
            onSet={(v) => apply({ op: 'film.set', patch: { clear: v || null } })}
          />
        </span>
        {film.clear && (
          <>
            <Label>Else filled</Label>
            <ColourField
              plain
              name="What fills it in files that cannot be clear"
              value={{ colour: film.under }}
              onSet={(v) => v && apply({ op: 'film.set', patch: { under: v.colour } })}
            />
          </>
        )}
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
      {film.credits.length > 0 && <Credits film={film} />}
    </Section>
  )
}

/** Who made the pictures that the film shows, and how they may be used: a list to be handed on. */
function Credits({ film }: { film: Film }) {
  const line = (c: Film['credits'][number]) => [c.name, c.source, c.licence].filter(Boolean).join(' · ')
  return (
    <div className="mt-2">
      <Fold title="Sources and licences">
        <ul className="text-[0.75rem] leading-snug" aria-label="Sources and licences">
          {film.credits.map((c) => (
            <li key={c.hash} className="border-b border-sailcloth-300 py-1 last:border-0">
              <span className="font-semibold">{c.name}</span>
              <br />
              {c.source || c.licence ? (
                [c.source, c.licence].filter(Boolean).join(' · ')
              ) : (
                <span className="text-ink-600">Nothing is said of where it is from.</span>
              )}
            </li>
          ))}
        </ul>
        <Button
          className="mt-1 !h-7 w-full text-[0.75rem]"
          onClick={() =>
            navigator.clipboard
              .writeText(film.credits.map(line).join('\n'))
              .then(() => say(notice('credits.copied')))
              .catch(fail)
          }
        >
          Copy the list
        </Button>
      </Fold>
    </div>
  )
}

/** Whether the film's end meets its start, and what does not. */
function Closes({ film }: { film: Film }) {
  const version = useDesk((d) => d.version)
  const dragging = useDesk((d) => d.dragging)
  const c = useMemo(() => (dragging ? null : engine.closes()), [version, dragging])
  const fits = useMemo(() => (c && !c.closes && c.stay < 0 ? engine.fits() : []), [c])
  if (!c) return null
  const last = film.scenes[film.shown - 1]
  return (
    <div
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
      {fits.length > 0 && (
        <>
          <Button
            className="my-1 !h-7 w-full text-[0.75rem]"
            title="Cycle times change by as little as it takes"
            onClick={() => {
              if (run('film.fit'))
                say(notice(engine.closes().closes ? 'film.fitted' : 'film.fitted-partly', fits.join('; ')))
            }}
          >
            Fit to loop
          </Button>
          <ul className="text-[0.6875rem] leading-snug" aria-label="What fitting changes">
            {fits.slice(0, 4).map((f) => (
              <li key={f}>{f}</li>
            ))}
            {fits.length > 4 && <li>and {fits.length - 4} more</li>}
          </ul>
        </>
      )}
    </div>
  )
}
