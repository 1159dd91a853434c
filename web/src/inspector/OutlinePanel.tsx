// What a layer's outline can become, and what it was made of.
import { openPoints } from '../actions/drawing'
import type { Selected } from '../engine/types'
import { takeApart } from '../actions/combining'
import { run } from '../project/commands'
import { desk } from '../project/desk'
import { useState } from 'react'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button, Label } from '../ui/controls'
import { MergeButton } from './CombinePanel'

export function OutlinePanel({ selected }: { selected: Selected }) {
  const { layer, kept, made } = selected
  const plain = ['picture', 'inset', 'marker'].includes(layer.kind)
  const hasPoints = !plain && !['group', 'text', 'path'].includes(layer.kind)
  const becomesPath = layer.kind === 'text' || layer.kind === 'group'
  if (!hasPoints && !becomesPath && kept.length === 0) return null
  return (
    <Section title="Outline" folded={kept.length === 0}>
      {hasPoints && (
        <Button
          className="w-full"
          title="Makes it a path with points; undo gives its numbers back (Enter)"
          onClick={openPoints}
        >
          Open points
        </Button>
      )}
      {becomesPath && (
        <Button
          className="w-full"
          title={
            layer.kind === 'text'
              ? 'Its letters become one drawn path. The words are kept inside: Take apart gives them back.'
              : 'All that is in it becomes one drawn path. The layers are kept inside: Take apart gives them back.'
          }
          onClick={() => run('outline', { threads: desk().selection })}
        >
          Make a drawn path
        </Button>
      )}
      {layer.kind === 'group' && <MergeButton />}
      {made === 'split' && <Parts thread={layer.thread} />}
      {kept.length > 0 && (
        <div className={`flex items-center gap-2 ${hasPoints || becomesPath ? 'mt-2' : ''}`}>
          <span className="min-w-0 flex-1 truncate text-[0.75rem] text-ink-600" title={kept.join(', ')}>
            {made === 'split' ? 'Split from' : 'Made of'} {kept.join(', ')}
          </span>
          <Button title="The layers it was made of come back in its place" onClick={takeApart}>
            {made === 'split' ? 'Join again' : 'Take apart'}
          </Button>
        </div>
      )}
    </Section>
  )
}

/** The parts of a split text move apart, together, or anywhere, at their size. */
function Parts({ thread }: { thread: string }) {
  const [seed, setSeed] = useState(1)
  const threads = [thread]
  return (
    <div className="mt-2 grid grid-cols-[3.5rem_1fr_3.5rem_1fr] items-center gap-x-2">
      <Label>Spread</Label>
      <NumberField
        quiet
        name="Spread the parts to"
        unit="%"
        min={1}
        max={10000}
        value={100}
        onSet={(v) => run('parts.spread', { threads, by: v / 100 })}
      />
      <Label>Scatter</Label>
      <NumberField
        quiet
        name="Scatter the parts by up to"
        unit="px"
        min={0}
        max={10000}
        value={0}
        onSet={(amount) => {
          run('parts.scatter', { threads, amount, seed })
          setSeed(seed + 1)
        }}
      />
    </div>
  )
}
