// Masks: one layer of a group shows the others inside it, or punches itself out of them; windows cut in what lies
// beneath.
import type { Mask, Row, Selected, Through } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { cutWindow, maskSelection } from '../actions/layers'
import { Choice } from '../ui/Choice'
import { Button, Label } from '../ui/controls'

const ways: { value: Mask | ''; label: string }[] = [
  { value: '', label: 'like the others' },
  { value: 'inside', label: 'the others show in it' },
  { value: 'outside', label: 'punched out of them' },
]

export function MaskFields({ selected }: { selected: Selected[] }) {
  const one = selected.length === 1 ? selected[0] : null
  const masked = selected.some((s) => s.layer.mask)
  return (
    <div className="mt-1.5 grid grid-cols-[3.25rem_1fr_1fr] items-center gap-x-2 gap-y-1.5">
      {one?.in && (
        <>
          <Label>Mask</Label>
          <Choice
            name="What it is to its group"
            className="col-span-2"
            value={one.layer.mask ?? ''}
            of={ways}
            onSet={maskSelection}
          />
        </>
      )}
      {!one && (
        <>
          <Label>Mask</Label>
          <Button
            className="!px-1"
            title="The front one becomes a mask: the others show inside it. They are put into one group."
            onClick={() => maskSelection('inside')}
          >
            Show within
          </Button>
          <Button
            className="!px-1"
            title="The front one is punched out of the others. They are put into one group."
            onClick={() => maskSelection('outside')}
          >
            Punch out
          </Button>
        </>
      )}
      {!masked && (
        <>
          <Label>Window</Label>
          <Button
            className="!px-1"
            title="Cut out of what lies right beneath, as what it is; what is added next goes behind"
            onClick={() => cutWindow()}
          >
            Beneath
          </Button>
          <Button
            className="!px-1"
            title="Cut out of everything below, as what it is; what is added next goes behind"
            onClick={() => cutWindow(true)}
          >
            All below
          </Button>
        </>
      )}
      {one && <SeenThrough one={one} />}
    </div>
  )
}

/** Another layer of the scene that masks this one, wherever it moves. */
function SeenThrough({ one }: { one: Selected }) {
  const rows = useDesk((d) => d.rows)
  const { thread, through, kind } = one.layer
  const self = rows.find((r) => r.thread === thread)
  if (!self || kind === 'view') return null
  // Not itself, nothing in it, and nothing that it lies in.
  const within = (r: Row | undefined, of: string): boolean =>
    !!r &&
    (r.thread === of ||
      within(
        rows.find((k) => k.thread === r.parent),
        of,
      ))
  const others = rows.filter((r) => r.here && r.kind !== 'view' && !within(r, thread) && !within(self, r.thread))
  const set = (v: Partial<Through> | null) =>
    run('set', { threads: [thread], patch: { through: v && { ...through, ...v } } })
  const named =
    through && !others.some((r) => r.thread === through.thread)
      ? [{ value: through.thread, label: 'one that is not here' }]
      : []
  return (
    <>
      <Label>Through</Label>
      <Choice
        name="The layer it is seen through"
        className="col-span-2"
        value={through?.thread ?? 'none'}
        of={[{ value: 'none', label: 'nothing' }, ...named, ...others.map((r) => ({ value: r.thread, label: r.name }))]}
        onSet={(v) => set(v === 'none' ? null : { thread: v })}
      />
      {through && (
        <>
          <span />
          <Choice
            name="How it is seen through it"
            className="col-span-2"
            value={`${through.light ? 'light' : 'cover'} ${through.outside ? 'out' : 'in'}`}
            of={[
              { value: 'cover in', label: 'where that covers' },
              { value: 'cover out', label: 'where it does not cover' },
              { value: 'light in', label: 'where that is light' },
              { value: 'light out', label: 'where it is not light' },
            ]}
            onSet={(v) => set({ light: v.startsWith('light'), outside: v.endsWith('out') })}
          />
        </>
      )}
    </>
  )
}
