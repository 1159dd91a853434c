// When a move starts and ends: at a time, or hung on others, on cues, on the scene's end.
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import type { Move, Target } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'

/** A list of moves to hang on: those that cannot be say why. */
export const listed = (targets: Target[]) =>
  targets.map((t) => ({ value: t.move, label: t.why ? `${t.name}: ${t.why}` : t.name, disabled: t.why !== '' }))

export const possible = (targets: Target[]) => targets.filter((t) => !t.why)

/** The moves that one may hang on, asked anew with every change of the document. */
export function useTargets(move: Move, part: 'start' | 'end' | 'until') {
  const version = useDesk((d) => d.version)
  return useMemo(
    () => ({
      begins: engine.targets(move.id, part, 'begins'),
      ends: part === 'until' ? [] : engine.targets(move.id, part, 'ends'),
    }),
    [move.id, part, version],
  )
}

export function StartFields({ move, whole }: { move: Move; whole: boolean }) {
  const targets = useTargets(move, 'start')
  const cues = useDesk((d) => d.film?.scenes[d.scene]?.cues ?? none)
  const scene = useDesk((d) => d.scene)
  const all = useDesk((d) => d.sounds.rows)
  const sounds = all.filter((r) => r.scene === scene && r.move !== move.id) // what hangs on it cannot carry it
  const set = (patch: object) => run('move.set', { move: move.id, patch })
  const onSound = move.start.when === 'heard' || move.start.when === 'silent'
  const hangs = move.start.when === 'begins' || move.start.when === 'ends'
  const solved = !!move.end && !move.end.stretches // its begin comes from its end
  if (whole) return null
  if (solved) return <p className="col-span-2 text-[0.6875rem] text-ink-600">It begins in time to end as said below.</p>
  const way = (value: 'begins' | 'ends', label: string) => {
    const some = possible(targets[value]).length > 0
    return targets[value].length
      ? [
          {
            value,
            label: some ? label : `${label} (there is none that can)`,
            disabled: !some && move.start.when !== value,
          },
        ]
      : []
  }
  const of = [
    { value: 'at', label: 'at a time' },
    ...way('begins', 'when … begins'),
    ...way('ends', 'when … ends'),
    { value: 'scene-end', label: 'before the scene ends' },
    ...(cues.length ? [{ value: 'cue', label: 'at a cue' }] : []),
    ...(sounds.length || move.start.when === 'heard' ? [{ value: 'heard', label: 'when … is heard' }] : []),
    ...(sounds.length || move.start.when === 'silent' ? [{ value: 'silent', label: 'when … falls silent' }] : []),
  ]
  const start = (when: string) => {
    const kept =
      (when === 'begins' || when === 'ends') && hangs && possible(targets[when]).some((t) => t.move === move.start.of)
    const target =
      when === 'begins' || when === 'ends'
        ? possible(targets[when])[0]?.move
        : when === 'cue'
          ? cues[0]?.id
          : when === 'heard' || when === 'silent'
            ? sounds[0]?.id
            : ''
    run('move.start', { move: move.id, when, of: kept ? move.start.of : (target ?? '') })
  }
  return (
    <>
      <Label>Starts</Label>
      <Choice name="Starts" value={move.start.when} of={of} onSet={start} />
      {hangs && (
        <>
          <Label>of</Label>
          <Choice
            name="Hangs on"
            value={move.start.of ?? ''}
            of={listed(targets[move.start.when as 'begins' | 'ends'])}
            onSet={(of) => run('move.start', { move: move.id, when: move.start.when, of })}
          />
        </>
      )}
      {move.start.when === 'cue' && (
        <>
          <Label>Cue</Label>
          <Choice
            name="Cue"
            value={move.start.of ?? ''}
            of={cues.map((q) => ({ value: q.id, label: q.name }))}
            onSet={(of) => run('move.start', { move: move.id, when: 'cue', of })}
          />
        </>
      )}
      {onSound && (
        <>
          <Label>of</Label>
          <Choice
            name="Sound it starts with"
            value={move.start.of ?? ''}
            of={sounds.flatMap((r) => [
              { value: r.id, label: r.name },
              ...(move.start.when === 'heard'
                ? r.marks.map((m) => ({ value: m.id, label: `“${m.name}” of ${r.name}` }))
                : []),
            ])}
            onSet={(of) => run('move.start', { move: move.id, when: move.start.when, of })}
          />
        </>
      )}
      <NumberField
        label={
          hangs || onSound || move.start.when === 'cue' ? 'Offset' : move.start.when === 'scene-end' ? 'Before' : 'At'
        }
        name="Start"
        unit="s"
        digits={2}
        step={0.1}
        value={(move.start.offset ?? 0) / 1000}
        onSet={(v) => set({ start: { offset: Math.round(v * 1000) } })}
      />
    </>
  )
}

const none: never[] = []

/** How two moves can be made to end together, live: the later one is stretched, shortened, delayed or begun earlier. */
export function MeetFields({ moves }: { moves: string[] }) {
  const version = useDesk((d) => d.version)
  const ways = useMemo(() => (moves.length === 2 ? engine.meets(moves) : []), [moves, version])
  if (ways.length === 0) return null
  return (
    <>
      <Label>Meet</Label>
      <span className="grid gap-1">
        {ways.map((w) => (
          <Button
            key={w.words}
            className="!h-7 !px-1 text-[0.75rem]"
            title="Both end together then, also after either is changed"
            onClick={() => run('move.end', { move: w.move, when: 'ends', of: w.of, stretches: w.stretches })}
          >
            <span className="truncate">{w.words}</span>
          </Button>
        ))}
      </span>
    </>
  )
}

export function EndFields({ move }: { move: Move }) {
  const targets = useTargets(move, 'end')
  if (move.lasts || move.until) return null
  const when = move.end?.when ?? ''
  const way = (value: 'begins' | 'ends', label: string) => {
    const some = possible(targets[value]).length > 0
    return targets[value].length
      ? [{ value, label: some ? label : `${label} (there is none that can)`, disabled: !some && when !== value }]
      : []
  }
  const of = [
    { value: 'time', label: 'after its time' },
    ...way('begins', 'when … begins'),
    ...way('ends', 'when … ends'),
    { value: 'scene-end', label: 'with the scene' },
  ]
  const end = (to: Partial<{ when: string; of: string; stretches: boolean }>) =>
    run('move.end', { move: move.id, when, of: move.end?.of ?? '', stretches: !!move.end?.stretches, ...to })
  return (
    <>
      <Label>Ends</Label>
      <Choice
        name="Ends"
        value={when || 'time'}
        of={of}
        onSet={(v) =>
          end({
            when: v === 'time' ? '' : v,
            of: v === 'ends' || v === 'begins' ? (possible(targets[v])[0]?.move ?? '') : '',
          })
        }
      />
      {(when === 'begins' || when === 'ends') && (
        <>
          <Label>of</Label>
          <Choice name="Ends with" value={move.end?.of ?? ''} of={listed(targets[when])} onSet={(of) => end({ of })} />
        </>
      )}
      {when && (
        <>
          <Label>so that</Label>
          <Choice
            name="What the live end changes"
            value={move.end?.stretches ? 'length' : 'begin'}
            of={[
              { value: 'begin', label: 'its begin follows' },
              { value: 'length', label: 'its length follows' },
            ]}
            onSet={(v) => end({ stretches: v === 'length' })}
          />
        </>
      )}
    </>
  )
}
