// Masks: one layer of a group shows the others inside it, or punches itself out of them; windows cut in what lies
// beneath.
import type { Mask, Selected } from '../engine/types'
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
    </div>
  )
}
