// Place: where the layer rests, its size and turn; stacking order and groups.
import { DepthFields } from './ViewFields'
import { clsx } from 'clsx'
import {
  BringToFront,
  Copy,
  Group as GroupIcon,
  Link2,
  Link2Off,
  SendToBack,
  StepBack,
  StepForward,
  Trash2,
  Ungroup,
} from 'lucide-react'
import type { ReactNode } from 'react'
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { set, setGrows, useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold, Section } from '../ui/Section'
import { MergeButton } from './CombinePanel'
import { Button, Label, Sign } from '../ui/controls'
import { deleteSelection, duplicateSelection, groupSelection, ungroupSelection } from '../actions/layers'
import { Arrange } from './Arrange'
import { Copies } from './Copies'
import { MaskFields } from './MaskFields'
import { shared } from './shared'
import { keyed } from '../ui/keymap'

const references = [
  'upper left corner',
  'upper side',
  'upper right corner',
  'left side',
  'middle',
  'right side',
  'lower left corner',
  'lower side',
  'lower right corner',
]

export function Place({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const film = useDesk((d) => d.film)
  const reference = useDesk((d) => d.reference)
  const keep = useDesk((d) => d.keep)
  const place = (args: object) =>
    run('place', { threads, ref: [(reference % 3) / 2, Math.floor(reference / 3) / 2], keep, ...args })
  const at = (axis: 0 | 1) =>
    selected.every((s) => s.refs.length)
      ? shared(selected.map((s) => Math.round(s.refs[reference][axis] * 100) / 100))
      : null
  const box = (i: number) => shared(selected.map((s) => Math.round(s.box[i] * 100) / 100))
  const one = selected.length === 1 ? selected[0] : null
  const act = (name: string, icon: ReactNode, f: () => void, disabled = false) => (
    <Sign name={name} disabled={disabled} className="hover:bg-sailcloth-200" onClick={f}>
      {icon}
    </Sign>
  )
  const icon = { size: 17, strokeWidth: 1.5 }
  return (
    <Section title="Place">
      <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
        <NumberField
          label="Across"
          name={`Across: ${references[reference]}, from the left`}
          value={at(0)}
          whole={film?.width}
          onSet={(x) => place({ x })}
        />
        <NumberField
          label="Down"
          name={`Down: ${references[reference]}, from the top`}
          value={at(1)}
          whole={film?.height}
          onSet={(y) => place({ y })}
        />
        <NumberField label="Wide" name="Wide" min={1} value={box(2)} whole={film?.width} onSet={(w) => place({ w })} />
        <NumberField label="High" name="High" min={1} value={box(3)} whole={film?.height} onSet={(h) => place({ h })} />
        <NumberField
          label="Turn"
          name="Turn"
          unit="°"
          digits={1}
          value={shared(selected.map((s) => s.layer.place.turn ?? 0))}
          onSet={(turn) => place({ turn })}
        />
        {one && !one.now && <span className="col-span-2" />}
        {one?.now && (
          <span
            className="col-span-2 whitespace-nowrap font-mono text-[0.6875rem] font-semibold text-brass-700"
            title="Where it is at this time"
          >
            now {Math.round(one.now[0])}, {Math.round(one.now[1])}
          </span>
        )}
      </div>
      {one && one.bares && (
        <p className="mt-1.5 rounded-md bg-brass-200 px-2 py-1 text-[0.75rem]">
          {one.bares}.{' '}
          <button type="button" className="font-semibold underline" onClick={() => run('ground.cover', { threads })}>
            Give it room to move
          </button>
        </p>
      )}
      {selected.every((s) => s.layer.kind !== 'view') && <DepthFields selected={selected} />}
      <div className="mt-1.5 grid grid-cols-[2.75rem_1fr_auto] items-center gap-x-2">
        <Label>Point</Label>
        <Choice
          name="Point that the numbers are of"
          value={String(reference)}
          of={references.map((label, i) => ({ value: String(i), label }))}
          onSet={(v) => set({ reference: Number(v) })}
        />
        <Sign
          name="Keep proportions, when one side is typed"
          pressed={keep}
          className={keep ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}
          onClick={() => set({ keep: !keep })}
        >
          {keep ? <Link2 {...icon} /> : <Link2Off {...icon} />}
        </Sign>
      </div>
      <div className="-mx-1 mt-1 flex flex-wrap items-center" role="toolbar" aria-label="Order and groups">
        {act('To the front (Ctrl+PageUp)', <BringToFront {...icon} />, () => run('order', { threads, to: 'front' }))}
        {act('One forward (PageUp)', <StepForward {...icon} className="-rotate-90" />, () =>
          run('order', { threads, to: 'up' }),
        )}
        {act('One back (PageDown)', <StepBack {...icon} className="-rotate-90" />, () =>
          run('order', { threads, to: 'down' }),
        )}
        {act('To the back (Ctrl+PageDown)', <SendToBack {...icon} />, () => run('order', { threads, to: 'back' }))}
        <span className="mx-1 h-4 w-px bg-sailcloth-300" />
        {act('Group (Ctrl+G)', <GroupIcon {...icon} />, groupSelection)}
        {act(
          'Ungroup (Ctrl+Shift+G)',
          <Ungroup {...icon} />,
          () => ungroupSelection(),
          !selected.some((s) => s.layer.kind === 'group'),
        )}
        {act('Duplicate (Ctrl+D)', <Copy {...icon} />, duplicateSelection)}
        {act('Delete from this scene (Delete)', <Trash2 {...icon} />, deleteSelection)}
      </div>
      <MaskFields selected={selected} />
      {selected.every((s) => s.grounds) && (
        <div className="mt-1.5 grid grid-cols-2 gap-2">
          <Button
            className="!px-1"
            title="Covers the page, goes to the back, and is locked"
            onClick={() => run('ground.make', { threads })}
          >
            Make ground
          </Button>
          <Button
            className="!px-1"
            title="Covers the page where it lies in the order"
            onClick={() => run('ground.cover', { threads })}
          >
            Cover the page
          </Button>
        </div>
      )}
      <Arrange threads={threads} />
      <Fold title={one ? 'Pivot and copies' : 'Growing, copies, merging'}>
        {one && (
          <div className="grid grid-cols-[2.75rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
            <PivotButton />
            <NumberField
              name="Pivot across, in % of the box"
              unit="%"
              value={Math.round(one.pivot[0] * 1000) / 10}
              onSet={(x) => run('pivot', { threads, x: x / 100 })}
            />
            <NumberField
              label="down"
              name="Pivot down, in % of the box"
              unit="%"
              value={Math.round(one.pivot[1] * 1000) / 10}
              onSet={(y) => run('pivot', { threads, y: y / 100 })}
            />
          </div>
        )}
        {(selected.length > 1 || one?.layer.kind === 'group') && <GrowsAlong />}
        <Copies key={threads.join()} selected={selected} />
        {!one && <MergeButton />}
      </Fold>
    </Section>
  )
}

/** Shows the pivot on the page, where it is dragged then, or hides it again. */
function PivotButton() {
  const on = useDesk((d) => d.pivots)
  return (
    <button
      type="button"
      aria-pressed={on}
      title={keyed(
        `${on ? 'Hide' : 'Show'} the pivot on the page, to drag it; pressed twice there it goes back to the middle (P)`,
      )}
      onClick={() => set({ pivots: !on })}
      className={clsx(
        '-mx-1.5 h-6 rounded-md px-1.5 text-left text-[0.75rem] underline decoration-dotted',
        'underline-offset-2',
        on ? 'bg-brass-200 text-ink-900' : 'text-ink-600 hover:bg-sailcloth-200',
      )}
    >
      Pivot
    </button>
  )
}

const growth = [
  ['strokes', 'strokes'],
  ['effects', 'effects'],
  ['letters', 'letters'],
] as const

/** What grows along when several layers, or a group, are resized on the page. */
function GrowsAlong() {
  const grows = useDesk((d) => d.grows)
  return (
    <div
      className="mt-1.5 flex flex-wrap items-center gap-x-2 text-[0.75rem]"
      role="group"
      aria-label="What grows along when they are resized"
    >
      <span className="w-10.5">
        <Label>Grow</Label>
      </span>
      {growth.map(([what, word]) => (
        <Check
          key={what}
          name={said[what]}
          className="gap-1"
          on={grows.includes(what)}
          onSet={(on) => setGrows(on ? [...grows, what] : grows.filter((g) => g !== what))}
        >
          <span title={said[what]}>{word}</span>
        </Check>
      ))}
    </div>
  )
}

const said = {
  strokes: 'Strokes and corners',
  effects: 'Blurs, soft borders, shadows and glows',
  letters: 'The letters of texts',
}
