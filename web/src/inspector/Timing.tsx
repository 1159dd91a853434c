// Timing: what arranges several moves in time, and what carries moves from layer to layer.
import { useState } from 'react'
import type { Selected } from '../engine/types'
import { copyMoves, movesHeld, pasteMoves } from '../actions/clipboard'
import { closing } from '../project/closing'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button, Label } from '../ui/controls'
import { Turns } from './Turns'
import { counted } from '../words'

/** The bars a tool is for: those selected, when they are several; else all moves of the selected layers. */
function useChosen(selected: Selected[]): string[] {
  const moves = useDesk((d) => d.moves)
  const all = selected.flatMap((s) => s.moves.map((m) => m.id))
  return moves.length > 1 ? moves : all
}

/** In which order tools of timing take moves. */
const orders = [
  { value: 'begin', label: 'as they begin now' },
  { value: 'front', label: 'front to back' },
  { value: 'back', label: 'back to front' },
  { value: 'left', label: 'left to right' },
  { value: 'right', label: 'right to left' },
  { value: 'top', label: 'top to bottom' },
  { value: 'bottom', label: 'bottom to top' },
  { value: 'selected', label: 'as they were selected' },
  { value: 'outwards', label: 'outwards from the middle' },
  { value: 'columns', label: 'column by column' },
  { value: 'rows', label: 'row by row' },
  { value: 'point', label: 'by distance from a point' },
  { value: 'shuffled', label: 'at random' },
]

export function Timing({ selected }: { selected: Selected[] }) {
  const chosen = useChosen(selected)
  const picked = useDesk((d) => d.moves)
  const beats = useDesk((d) => d.sounds.rows.some((r) => r.beats.length > 0 && !r.muted))
  const [by, setBy] = useState<'move' | 'layer' | 'all'>('move')
  const [step, setStep] = useState(150)
  const [length, setLength] = useState(2000)
  const [order, setOrder] = useState('begin')
  const [from, setFrom] = useState<[number, number] | null>(null)
  const film = useDesk((d) => d.film)!
  const point = from ?? [film.width / 2, film.height / 2]
  const sequence = {
    order: order === 'begin' ? '' : order,
    ...(order === 'shuffled' ? { seed: Math.floor(Math.random() * 1e6) } : {}),
    ...(order === 'point' ? { from: point } : {}),
  }
  // As they were selected: the bars, or the layers that have them.
  const listed = picked.length > 1 ? picked : chosen
  const tool = (name: string, args: object = {}) => run('time', { tool: name, moves: listed, by, ...sequence, ...args })
  const among = new Set(chosen) // there may be a thousand
  const times = selected
    .flatMap((s) => s.moves)
    .filter((m) => among.has(m.id) && !!m.duration)
    .map((m) => m.duration!)
  const several = chosen.length > 1 && by !== 'all'
  const one = picked.length ? picked : chosen
  const act = (word: string, title: string, f: () => void, on = several) => (
    <Button className="!h-7 whitespace-nowrap !px-1 text-[0.75rem]" disabled={!on} title={title} onClick={f}>
      {word}
    </Button>
  )
  const these = selected.length === 1 ? 'this layer' : counted(selected.length, 'layer')
  return (
    <Section title="Timing" folded={chosen.length < 2 && !movesHeld()}>
      <p className="mb-2 text-[0.75rem] text-ink-600">
        {chosen.length === 0
          ? 'No moves yet.'
          : picked.length > 1
            ? `${picked.length} selected bars`
            : `${counted(chosen.length, 'move')} of ${these}`}
      </p>
      <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2">
        <Label>Arrange</Label>
        <Choice
          name="What is arranged"
          value={by}
          of={[
            { value: 'move', label: 'each bar' },
            { value: 'layer', label: 'each layer’s bars as one' },
            { value: 'all', label: 'all as one' },
          ]}
          onSet={setBy}
        />
        <Label>Order</Label>
        <Choice name="Order in which they are taken" value={order} of={orders} onSet={setOrder} />
        {order === 'point' && (
          <>
            <Label>Point</Label>
            <span className="grid grid-cols-2 gap-1">
              <NumberField
                quiet
                name="Point: across the page"
                unit="px"
                whole={film.width}
                value={point[0]}
                onSet={(x) => setFrom([x, point[1]])}
              />
              <NumberField
                quiet
                name="Point: down the page"
                unit="px"
                whole={film.height}
                value={point[1]}
                onSet={(y) => setFrom([point[0], y])}
              />
            </span>
          </>
        )}
        <NumberField
          quiet
          label="Takes"
          name="How long each of them takes"
          unit="s"
          digits={2}
          step={0.1}
          min={0.01}
          max={3600}
          disabled={times.length === 0}
          value={times.length ? (times.every((t) => t === times[0]) ? times[0] / 1000 : null) : 0}
          onSet={(v) => run('bars.takes', { moves: chosen, ms: Math.round(v * 1000) })}
        />
        <NumberField
          quiet
          label="Step"
          name="Step between them"
          unit="s"
          digits={2}
          step={0.05}
          min={-60}
          max={600}
          value={step / 1000}
          onSet={(v) => setStep(Math.round(v * 1000))}
        />
      </div>
      <div className="mt-2 grid grid-cols-2 gap-1.5">
        {act('Start together', 'They hang on the begin of the first', () => tool('together'))}
        {act('End together', 'They end when the last one does, also after it is changed', () => tool('end-together'))}
        {act(
          'One after another',
          'Each begins when the one before ends; drag one past another to change the order',
          () => tool('one-after-another', { step: 0 }),
        )}
        {act('Cascade', 'Each begins a step after the one before', () => tool('cascade', { step }))}
        {act('Spread over', 'First and last stay, the rest begins at equal steps', () => tool('spread'))}
        {beats && act('On the beats', 'Each begins on the next beat of the music', () => tool('beats'))}
        {act('Reverse order', 'What came first comes last', () => tool('reverse'))}
        {act('Fit to scene', 'Scaled to the whole stay of the scene', () => tool('fit'), chosen.length > 0)}
        {act('Mirror', 'The opposite direction', () => run('moves.mirror', { moves: one }), one.length > 0)}
      </div>
      <div className="mt-1.5 grid grid-cols-[1fr_5.25rem] gap-1.5">
        {act(
          'Stretch to',
          'Scaled to this length, with the gaps between them',
          () => tool('stretch', { ms: length }),
          chosen.length > 0,
        )}
        <NumberField
          quiet
          name="Length to stretch to"
          unit="s"
          digits={2}
          step={0.1}
          min={0.01}
          max={3600}
          value={length / 1000}
          onSet={(v) => setLength(Math.round(v * 1000))}
        />
      </div>
      <div className="mt-1.5 grid grid-cols-2 gap-1.5">
        {act(
          'Swap in and out',
          'Entrances become exits with the same effect, and the other way round',
          () => run('moves.turn', { moves: one }),
          one.length > 0,
        )}
        {act('Copy moves', 'To paste them on other layers', copyMoves, chosen.length > 0)}
        {act('Paste moves', 'On the selected layers, as they were', () => pasteMoves(0), true)}
        {act(
          'Paste staggered',
          'On the selected layers, each a step later than the one before',
          () => pasteMoves(step),
          true,
        )}
      </div>
      <Turns selected={selected} />
      <Button
        className="mt-1.5 !h-7 w-full text-[0.75rem]"
        disabled={chosen.length === 0}
        title="The layers stand still then; what hung on these moves keeps its times"
        onClick={() => closing(() => run('moves.clear', { threads: selected.map((s) => s.layer.thread) }))}
      >
        Clear all moves of {selected.length === 1 ? 'this layer' : 'these layers'}
      </Button>
    </Section>
  )
}
