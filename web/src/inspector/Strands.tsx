// How the selected layers go through the morphs into this scene and, of the last, back to the first.
import type { Selected, Strand } from '../engine/types'
import { run } from '../project/commands'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Label } from '../ui/controls'
import { EasingField } from './EasingField'
import { Reshape } from './Reshape'
import { shared } from './shared'

export function Strands({ selected }: { selected: Selected[] }) {
  const ways = [...new Map(selected.flatMap((s) => s.strands).map((s) => [s.scene + s.alone, s])).values()]
  const stands = selected.length === 1 ? selected[0].stands : ''
  if (ways.length === 0 && !stands) return null
  return (
    <Section
      title="Through the morph"
      folded={
        !stands &&
        !selected.some((s) =>
          s.strands.some(
            (v) =>
              v.by !== 0 || v.turn || v.turns || v.easing || v.delay || v.arc || v.wing || v.outline === 'outlines',
          ),
        )
      }
    >
      <div data-strands className="grid gap-2">
        {stands && (
          <p className="text-[0.75rem] text-coral-700" data-stands>
            In “{stands}” it stands where it was in the scene before, though it moves into all the others.
          </p>
        )}
        {ways.map((one) => {
          const goes = (v: Strand) => v.scene === one.scene && v.alone === one.alone
          const own = selected.filter((s) => s.strands.some(goes))
          const strands = own.map((s) => s.strands.find(goes)!)
          const threads = own.map((s) => s.layer.thread)
          const Fields = one.alone ? Wing : Way
          return (
            <Fields
              key={one.scene + one.alone}
              into={one}
              own={strands}
              threads={threads}
              set={(args) => run('strand.set', { threads, scene: one.scene, ...args })}
            />
          )
        })}
      </div>
    </Section>
  )
}

const as = 'as' // the easing of the transition
const percent = (v: number | null) => (v === null ? null : Math.round(v * 1000) / 10)

interface OneWay {
  into: Strand
  own: Strand[] // of the selected layers
  threads: string[]
  set: (args: object) => void
}

const sides = [
  { value: 'fade', label: 'by fading' },
  { value: 'left', label: 'by the left side' },
  { value: 'right', label: 'by the right side' },
  { value: 'top', label: 'by the upper side' },
  { value: 'bottom', label: 'by the lower side' },
]

/** What only one of the two scenes has. */
function Wing({ into, own, set }: OneWay) {
  const comes = into.alone === 'in'
  return (
    <div data-wing={into.alone}>
      <p className="mb-1 text-[0.75rem] text-ink-600">
        {comes ? `It comes in as “${into.from}” becomes this scene` : `It goes out as this scene becomes “${into.to}”`}
      </p>
      <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
        <Label>{comes ? 'Comes' : 'Goes'}</Label>
        <span className="col-span-3">
          <Choice
            name={comes ? 'How it comes in with the morph' : 'How it goes out with the morph'}
            value={shared(own.map((v) => v.wing || 'fade')) ?? ''}
            of={sides}
            onSet={(v) => set({ wing: v === 'fade' ? '' : v })}
          />
        </span>
        <Times own={own} set={set} where={comes ? 'it comes in with' : 'it goes out with'} />
      </div>
    </div>
  )
}

/** When it goes through the morph: its easing, and what it waits. */
function Times({ own, set, where }: { own: Strand[]; set: (args: object) => void; where: string }) {
  return (
    <>
      <Label className="mt-1.5 self-start">Easing</Label>
      <span className="col-span-3">
        <EasingField
          name={`Its easing ${where}`}
          value={shared(own.map((v) => v.easing || as)) ?? ''}
          plain={{ value: as, label: 'as the others' }}
          shown="ease-in-out"
          onSet={(v) => set({ easing: v === as ? '' : v })}
        />
      </span>
      <NumberField
        label="Waits"
        name={`What it waits of the morph ${where}`}
        unit="%"
        min={0}
        max={95}
        value={percent(shared(own.map((v) => v.delay)))}
        onSet={(v) => set({ delay: v / 100 })}
      />
    </>
  )
}

function Way({ into, own, threads, set }: OneWay) {
  const where = into.closing ? 'back to the first scene' : 'into this scene'
  const by = shared(own.map((v) => v.by))
  const ways: { value: string; label: string }[] = [
    { value: 'as', label: into.closing ? 'as the morphs before it' : 'as numbered' },
    ...(into.closing ? [{ value: 'numbered', label: 'as numbered' }] : []),
    { value: 'short', label: 'the short way' },
    { value: 'clockwise', label: '↻ clockwise' },
    { value: 'anticlockwise', label: '↺ anticlockwise' },
  ]
  const turn = shared(own.map((v) => (v.turn === '' || (!into.closing && v.turn === 'numbered') ? 'as' : v.turn)))
  return (
    <div>
      <p className="mb-1 text-[0.75rem] text-ink-600">
        {into.closing ? <>From “{into.from}” back to the first scene</> : <>From “{into.from}” into this scene</>}
        {': '}
        <b className="font-semibold text-ink-900" data-turns-by>
          {by === null
            ? 'different turns'
            : by === 0
              ? 'no turn'
              : `${by > 0 ? '↻' : '↺'} ${Math.round(Math.abs(by) * 10) / 10}°`}
        </b>
      </p>
      <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
        <Label>Turns</Label>
        <span className="col-span-3">
          <Choice
            name={`Which way it turns ${where}`}
            value={turn ?? ''}
            of={ways}
            onSet={(v) => set({ turn: v === 'as' ? '' : v })}
          />
        </span>
        <NumberField
          label="More"
          name="Whole turns more"
          min={0}
          max={100}
          value={shared(own.map((v) => v.turns))}
          onSet={(v) => set({ turns: Math.round(v) })}
        />
        <span className="col-span-2 text-[0.75rem] text-ink-600">whole turns</span>
        <Times own={own} set={set} where={where} />
        <NumberField
          label="Arc"
          name={`How high its arc is ${where}, of its way; above 0 to the right of its way`}
          unit="%"
          step={5}
          min={-100}
          max={100}
          disabled={!own.some((v) => v.moves)}
          value={percent(shared(own.map((v) => v.arc)))}
          onSet={(v) => set({ arc: v / 100 })}
        />
        {own.some((v) => v.words) && (
          <span className="col-span-4">
            <Check
              name="Letter by letter: those that both words have fly"
              on={own.every((v) => v.letters)}
              onSet={(letters) => set({ letters })}
            />
          </span>
        )}
        {own.some((v) => v.outline) && <Reshape into={into} own={own} threads={threads} />}
      </div>
    </div>
  )
}
