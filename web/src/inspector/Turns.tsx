// What lets layers come, stay a while and go: from one time to another, or in turn.
import { useState } from 'react'
import { engine } from '../engine/engine'
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { Button, Label } from '../ui/controls'

export function Turns({ selected }: { selected: Selected[] }) {
  return (
    <Fold title="Turns">
      <TurnFields selected={selected} />
    </Fold>
  )
}

// By itself, since it follows the playhead while it is unfolded.
function TurnFields({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const scene = useDesk((d) => d.film!.scenes[d.scene])
  const at = useDesk((d) => d.moment.time)
  const [from, setFrom] = useState<number | null>(null)
  const [to, setTo] = useState<number | null>(null)
  const [comes, setComes] = useState('')
  const [goes, setGoes] = useState('')
  const [total, setTotal] = useState(4)
  const [equal, setEqual] = useState(false)
  const here = Math.min(Math.max(0, Math.round((at - scene.start - scene.into) / 10) * 10), scene.stay)
  const begin = from ?? here
  const end = to ?? Math.min(scene.stay, begin + 2000)
  const effects = (kind: string) => [
    { value: '', label: 'as the last one' },
    ...engine
      .fields()
      .moves.flatMap((o) => o.moves.filter((v) => v.kind === kind && !v.variant))
      .map((v) => ({ value: v.effect, label: v.words.toLowerCase() })),
  ]
  const takesTurns = threads.length > 1 || (threads.length === 1 && selected[0].layer.kind === 'text')
  const time = (name: string, value: number, set: (v: number) => void) => (
    <NumberField
      quiet
      name={name}
      unit="s"
      digits={2}
      step={0.1}
      min={0}
      max={3600}
      value={value / 1000}
      onSet={(v) => set(Math.round(v * 1000))}
    />
  )
  return (
    <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">
      <Label>Only from</Label>
      <span className="grid grid-cols-[1fr_auto_1fr] items-center gap-1 text-[0.75rem]">
        {time('Only from', begin, setFrom)} to {time('Only to', end, setTo)}
      </span>
      <Button
        className="col-span-2 !h-7 text-[0.75rem]"
        title="Appears at once, vanishes at once"
        onClick={() => run('moves.only', { threads, from: begin, to: end })}
      >
        Show only then
      </Button>
      <Label>Come by</Label>
      <Choice name="How they come" value={comes} of={effects('entrance')} onSet={setComes} />
      <Label>Go by</Label>
      <Choice name="How they go" value={goes} of={effects('exit')} onSet={setGoes} />
      <Button
        className="col-span-2 !h-7 text-[0.75rem]"
        disabled={!takesTurns}
        title="Each comes, stays as long as it takes to read, and goes: layers, or the lines of a text"
        onClick={() => run('moves.inTurn', { threads, in: comes, out: goes })}
      >
        In turn
      </Button>
      <Label>Drawn in</Label>
      <span className="grid grid-cols-2 items-center gap-1 text-[0.75rem]">
        <NumberField
          quiet
          name="Time in which they are drawn"
          unit="s"
          digits={1}
          step={0.5}
          min={0.1}
          max={600}
          value={total}
          onSet={setTotal}
        />
        <Check className="" name="Equally" on={equal} onSet={setEqual} />
      </span>
      <Button
        className="col-span-2 !h-7 text-[0.75rem]"
        title="Each is drawn for its share of the time, in the order in which they were selected"
        onClick={() =>
          run('moves.draw', { threads, total: Math.round(total * 1000), equal, ground: true, pointer: '' })
        }
      >
        Draw one after another
      </Button>
      <Button
        className="col-span-2 !h-7 text-[0.75rem]"
        disabled={threads.length !== 2}
        title="The two sides of a sign: the first that was selected turns away, the other comes round"
        onClick={() => run('moves.turnOver', { threads, level: false })}
      >
        Turn over
      </Button>
    </div>
  )
}
