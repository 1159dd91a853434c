// How the outline of the selected layers becomes that of the next scene: how its points go, and which of them are the
// same.
import type { Outline, Strand } from '../engine/types'
import { run } from '../project/commands'
import { look, set, useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { Button, Label } from '../ui/controls'
import { shared } from './shared'

const ways = [
  { value: 'straight', label: 'straight' },
  { value: 'turned', label: 'turned as a whole' },
  { value: 'bent', label: 'bent' },
]
const found = (goes: string) => ways.find((w) => w.value === goes)?.label ?? ''

export function Reshape({ into, own, threads }: { into: Strand; own: Strand[]; threads: string[] }) {
  const open = useDesk((d) => d.corresponds === into.scene && threads.length === 1)
  const outline = useDesk((d) => (open ? d.outline : null))
  const numbers = own.every((v) => v.outline !== 'outlines')
  const one = threads.length === 1 ? own[0] : null
  const plain = numbers ? 'by its numbers' : outline && !one?.way ? `as fits: ${found(outline.goes)}` : 'as fits'
  return (
    <>
      <Label>Outline</Label>
      <span className="col-span-3">
        <Choice
          name="How the points of its outline go"
          value={shared(own.map((v) => v.way || 'fits')) ?? ''}
          of={[{ value: 'fits', label: plain }, ...ways]}
          onSet={(v) => run('outline.way', { threads, scene: into.scene, way: v === 'fits' ? '' : v })}
        />
      </span>
      {one && (!numbers || one.way !== '' || one.given > 0) && (
        <span className="col-span-4 flex items-center justify-between text-[0.75rem] text-ink-600">
          <span>{one.given === 0 ? 'Points found by Capstan' : `${one.given} given, the others found`}</span>
          <Button
            aria-pressed={open}
            title="Shows on the page which points become which, and lets them be changed"
            onClick={() => look({ corresponds: open ? '' : into.scene, mark: -1 })}
          >
            {open ? 'Done' : 'What becomes what'}
          </Button>
        </span>
      )}
      {open && outline && <Given outline={outline} given={one?.given ?? 0} />}
      {open && !outline && (
        <p className="col-span-4 text-[0.75rem] text-ink-600">
          Nothing is to be paired here: its parts, or letters, find their way by themselves.
        </p>
      )}
    </>
  )
}

function Given({ outline, given }: { outline: Outline; given: number }) {
  const picked = useDesk((d) => d.mark)
  const mark = outline.marks[picked]
  const both = outline.parts.filter((p) => p.from >= 0 && p.to >= 0)
  const part = mark ? mark.part : both.length === 1 ? outline.parts.indexOf(both[0]) : -1
  const into = { scene: outline.scene, thread: outline.thread }
  const froms = outline.parts.filter((p) => p.from >= 0)
  const tos = outline.parts.filter((p) => p.to >= 0).sort((a, b) => a.to - b.to)
  return (
    <div className="col-span-4 grid gap-2" data-given-points={given}>
      <p className="text-[0.75rem] text-ink-600">
        Drag a number along its outline, or draw from one outline onto the other.
        {outline.apart && ' They are drawn side by side, since one would hide the other.'}
      </p>
      {(outline.changed || outline.lost > 0) && (
        <p className="text-[0.75rem] text-coral-700" data-outline-changed={outline.lost}>
          An outline was changed since points were given
          {outline.lost > 0 ? `: ${outline.lost} of them no longer fit.` : '; all of them still fit.'}{' '}
          <button
            type="button"
            className="font-semibold text-brass-700 underline"
            onClick={() => run('outline.keep', into)}
          >
            Keep what fits
          </button>
        </p>
      )}
      <div className="grid grid-cols-2 gap-1.5">
        <Button onClick={() => run('outline.pair', into)}>Add a pair</Button>
        <Button
          className="!px-1 whitespace-nowrap"
          disabled={part < 0}
          title={part < 0 ? 'Select a point of the part first' : 'Its points go round against those of the other'}
          onClick={() => run('outline.turn', { ...into, part })}
        >
          Other way round
        </Button>
        <Button
          disabled={!mark?.given}
          title="The selected pair is no longer given (Delete)"
          onClick={() => {
            run('outline.loose', { ...into, mark: picked })
            set({ mark: -1 })
          }}
        >
          Let go
        </Button>
        <Button disabled={given === 0} onClick={() => run('outline.forget', into)}>
          Find anew
        </Button>
      </div>
      {froms.length + tos.length > 2 && froms.length <= 12 && (
        <div className="grid grid-cols-[auto_1fr] items-center gap-x-2 gap-y-1" data-parts>
          {froms.map((p) => (
            <PartRow key={p.from} from={p.from} to={p.to} tos={tos.map((t) => t.to)} into={into} />
          ))}
        </div>
      )}
    </div>
  )
}

function PartRow({
  from,
  to,
  tos,
  into,
}: {
  from: number
  to: number
  tos: number[]
  into: { scene: string; thread: string }
}) {
  return (
    <>
      <span className="text-[0.75rem] text-ink-600">Part {from + 1} becomes</span>
      <Choice
        name={`What part ${from + 1} becomes`}
        value={String(to)}
        of={[
          ...(to < 0 ? [{ value: '-1', label: 'nothing: it shrinks' }] : []),
          ...tos.map((t) => ({ value: String(t), label: `part ${t + 1}` })),
        ]}
        onSet={(v) => run('outline.parts', { ...into, from, to: Number(v) })}
      />
    </>
  )
}
