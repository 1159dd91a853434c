// How long a move takes, how often it goes, and what it lasts as long as.
import type { Edited } from './edited'
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import type { Move } from '../engine/types'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Label } from '../ui/controls'
import { listed, possible, useTargets } from './Hanging'

/** What a move lasts as long as; empty: several differ. */
const lastsOf = (move: Move, mixed: Set<string>) =>
  mixed.has('lasts') || mixed.has('until')
    ? ''
    : move.until
      ? 'until'
      : move.lasts === 'scene' && move.keeps === 'speed'
        ? 'speed'
        : move.lasts || 'time'

export function LengthFields({ of: { move, ids, mixed, set, change } }: { of: Edited }) {
  const loop = move.kind === 'loop'
  const comes = move.kind === 'entrance' || move.kind === 'exit'
  const lasts = lastsOf(move, mixed)
  const choose = (v: string) => {
    const clear = { lasts: null, keeps: null, until: null }
    const own = move.duration || move.counted ? {} : { duration: 1000 }
    if (v === 'time') set({ ...clear, ...own, ...(loop && !move.runs ? { repeat: move.repeat || 1 } : {}) })
    else if (v === 'until')
      set({ ...clear, ...own, until: possible(engine.targets(ids[0], 'until', 'begins'))[0]?.move })
    else
      set({
        ...clear,
        ...(v === 'speed' ? own : {}),
        lasts: v === 'speed' ? 'scene' : v,
        keeps: v === 'speed' ? 'speed' : null,
        end: null,
        ...(loop ? { repeat: null } : {}),
      })
  }
  const ownTime = lasts === '' || lasts === 'time' || lasts === 'until' || lasts === 'speed' || (loop && !move.runs)
  const single = ids.length === 1
  return (
    <>
      {(!comes || !!move.lasts) && !mixed.has('kind') && (
        <>
          <Label>Lasts</Label>
          <LastsChoice move={move} single={single} value={lasts} onSet={choose} />
        </>
      )}
      {lasts === 'until' && single && <UntilChoice move={move} onSet={(until) => set({ until })} />}
      {ownTime && !move.counted && !move.end?.stretches && (
        <NumberField
          label={loop && !move.runs ? move.cycles || 'One cycle' : 'Takes'}
          name="Duration"
          unit="s"
          digits={2}
          step={0.1}
          min={0.01}
          max={3600}
          value={mixed.has('duration') ? null : (move.duration ?? 0) / 1000}
          onSet={(v) => set({ duration: Math.round(v * 1000) })}
          onBy={change('duration', 1000)}
        />
      )}
    </>
  )
}

/** How often a move goes, whether it comes back, and whether it goes on from the scene before. */
export function LengthDetails({ of: { move, ids, mixed, set, change }, whole }: { of: Edited; whole: boolean }) {
  const comes = move.kind === 'entrance' || move.kind === 'exit'
  const lasts = lastsOf(move, mixed)
  const single = ids.length === 1
  return (
    <>
      {!whole && (lasts === 'time' || lasts === '') && !comes && !mixed.has('kind') && !move.runs && (
        <NumberField
          label={move.times || 'Times'}
          name="Repeat"
          digits={2}
          step={1}
          min={0.01}
          max={10000}
          value={mixed.has('repeat') ? null : move.repeat || 1}
          onSet={(v) => set({ repeat: v })}
          onBy={change('repeat', 1)}
        />
      )}
      {whole && single && move.before && (
        <Check
          name="Goes on from the scene before"
          on={move.continues === move.before}
          onSet={(v) => set({ continues: v ? move.before : null })}
        />
      )}
      {!comes && !mixed.has('kind') && !move.runs && (
        <Check
          name={`There and back${mixed.has('alternate') ? ' (mixed)' : ''}`}
          on={!!move.alternate}
          onSet={(v) => set({ alternate: v || null })}
        />
      )}
    </>
  )
}

function LastsChoice({
  move,
  single,
  value,
  onSet,
}: {
  move: Move
  single: boolean
  value: string
  onSet: (v: string) => void
}) {
  const loop = move.kind === 'loop'
  const until = useMemo(
    () => (single && (loop || move.kind === 'path') ? engine.targets(move.id, 'until', 'begins') : []),
    [single, loop, move],
  )
  const of = [
    { value: 'time', label: loop && !move.runs ? 'a number of times' : 'a time of its own' },
    { value: 'scene', label: loop ? 'the whole scene' : 'as long as the scene' },
    ...(move.kind === 'path' ? [{ value: 'speed', label: 'the scene, at its speed' }] : []),
    ...(move.drifts ? [{ value: 'thread', label: 'all scenes of its thread' }] : []),
    ...(until.length
      ? [{ value: 'until', label: 'until … begins', disabled: !possible(until).length && value !== 'until' }]
      : []),
  ]
  return <Choice name="Lasts" value={value} of={of} onSet={onSet} />
}

function UntilChoice({ move, onSet }: { move: Move; onSet: (until: string) => void }) {
  const targets = useTargets(move, 'until')
  return (
    <>
      <Label>of</Label>
      <Choice name="Until" value={move.until ?? ''} of={listed(targets.begins)} onSet={onSet} />
    </>
  )
}
