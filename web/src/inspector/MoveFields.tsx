// The fields of one move, or of several at once: when they start and end, how long they take, and what they do.
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import { blankMove } from '../engine/many'
import type { Move, Target } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { Label } from '../ui/controls'
import { filmTime } from '../time'
import { EasingField } from './EasingField'
import { ParamFields, PathDetails, PathLine, UnitFields } from './MoveParams'

/** What the fields are of: a move, or what several have in common. */
export interface Edited {
  move: Move
  ids: string[]
  mixed: Set<string> // fields, by their path, in which several differ
  set: (patch: object) => boolean
  // By a sum or a factor, each from what it is.
  change: (field: string, scale?: number) => ((how: '+' | '*', by: number) => void) | undefined
}

export function MoveFields({ move }: { move: Move }) {
  const of: Edited = {
    move,
    ids: [move.id],
    mixed: new Set(),
    set: (patch) => run('move.set', { move: move.id, patch }),
    change: () => undefined,
  }
  const timed = move.effect !== 'at-once' || !!move.unit
  const whole = move.kind === 'loop' && move.lasts === 'scene'
  const effects = engine.fields().moves.flatMap((o) => o.moves.filter((v) => v.kind === move.kind))
  const eased = timed && move.effect !== 'at-once' && move.effect !== 'scroll'
  return (
    <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 px-2 pb-2 pt-1">
      {effects.length > 1 && (
        <>
          <Label>Effect</Label>
          <Choice
            name="Effect"
            value={move.effect}
            of={effects.map((v) => ({ value: v.effect, label: v.words.toLowerCase() }))}
            onSet={(effect) => run('move.effect', { move: move.id, effect })}
          />
        </>
      )}
      {move.lasts !== 'thread' && <StartFields move={move} whole={whole} />}
      {timed && <LengthFields of={of} />}
      {move.kind === 'path' && <PathLine move={move} />}
      <ParamFields of={of} />
      {eased && <EasingRow of={of} />}
      {move.kind === 'path' && (
        <div className="col-span-2">
          <Fold title="Reach, rest and turning">
            <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">
              <PathDetails move={move} set={of.set} />
            </div>
          </Fold>
        </div>
      )}
      {((timed && !whole && move.lasts !== 'thread') || move.units.length > 0 || move.kind !== 'entrance') && (
        <div className="col-span-2">
          <Fold title="End, units and more" folded={!finer(move)}>
            <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">
              {timed && <LengthDetails of={of} whole={whole} />}
              {timed && !whole && move.lasts !== 'thread' && <EndFields move={move} />}
              {move.units.length > 0 && <UnitFields of={of} />}
            </div>
          </Fold>
        </div>
      )}
      <p className="col-span-2 text-[0.6875rem] leading-snug text-ink-600" data-when>
        {move.lasts === 'thread' ? (
          'Goes on in every scene its thread lives in: a thread is one layer through the scenes.'
        ) : (
          <>
            Scene clock{' '}
            <b className="font-mono">
              {(move.begin / 1000).toFixed(2)} → {(move.finish / 1000).toFixed(2)} s
            </b>
            <br />
            Film time{' '}
            <b className="font-mono">
              {filmTime(move.film)} → {filmTime(move.film + move.finish - move.begin)}
            </b>
            {move.cut > 0 && (
              <span className="text-coral-700">
                <br />
                The scene ends {(move.cut / 1000).toFixed(2)} s before it does.
              </span>
            )}
          </>
        )}
      </p>
    </div>
  )
}

/** The fields that several moves share; what differs says so, and one edit changes all of them. */
export function SharedFields({ ids }: { ids: string[] }) {
  const version = useDesk((d) => d.version)
  const shared = useMemo(() => engine.shared(ids), [ids, version])
  const move: Move = { ...blankMove, ...shared.move }
  const of: Edited = {
    move,
    ids,
    mixed: new Set(shared.mixed),
    set: (patch) => run('moves.set', { moves: ids, patch }),
    change:
      (field, scale = 1) =>
      (how, by) => {
        run('moves.change', { moves: ids, field, how, by: how === '+' ? by * scale : by })
      },
  }
  const timeless = move.effect === 'at-once' && !move.unit && !of.mixed.has('unit')
  const loops = move.kind === 'loop'
  return (
    <div className="mb-2 rounded-md border border-brass-400 bg-brass-200/55" data-shared>
      <p className="px-2 pt-1.5 font-semibold">{ids.length} moves</p>
      <p className="px-2 text-[0.6875rem] leading-tight text-ink-600">
        {shared.kinds.slice(0, 4).join('; ')}
        {shared.kinds.length > 4 ? ' …' : ''}. What is typed is set in all of them; +0.2 and *1.5 change each from what
        it is.
      </p>
      <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 px-2 pb-2 pt-1.5">
        {!(loops && move.lasts === 'scene') && (
          <NumberField
            label="At"
            name="Start"
            unit="s"
            digits={2}
            step={0.1}
            value={of.mixed.has('start.offset') ? null : (move.start.offset ?? 0) / 1000}
            onSet={(v) => of.set({ start: { offset: Math.round(v * 1000) } })}
            onBy={of.change('start.offset', 1000)}
          />
        )}
        {!timeless && <LengthFields of={of} />}
        {!timeless && <LengthDetails of={of} whole={loops && move.lasts === 'scene'} />}
        <ParamFields of={of} />
        {(move.units.length > 0 || of.mixed.has('unit')) && move.units.length > 0 && <UnitFields of={of} />}
        {!timeless && move.effect !== 'scroll' && <EasingRow of={of} />}
      </div>
    </div>
  )
}

function EasingRow({ of }: { of: Edited }) {
  return (
    <>
      <Label>Easing</Label>
      <EasingField
        name="Easing"
        value={of.mixed.has('easingUsed') ? '' : of.move.easing || of.move.easingUsed}
        onSet={(easing) => of.set({ easing })}
      />
    </>
  )
}

/** A list of moves to hang on: those that cannot be say why. */
const listed = (targets: Target[]) =>
  targets.map((t) => ({ value: t.move, label: t.why ? `${t.name}: ${t.why}` : t.name, disabled: t.why !== '' }))

const possible = (targets: Target[]) => targets.filter((t) => !t.why)

/** The moves that one may hang on, asked anew with every change of the document. */
function useTargets(move: Move, part: 'start' | 'end' | 'until') {
  const version = useDesk((d) => d.version)
  return useMemo(
    () => ({
      begins: engine.targets(move.id, part, 'begins'),
      ends: part === 'until' ? [] : engine.targets(move.id, part, 'ends'),
    }),
    [move.id, part, version],
  )
}

function StartFields({ move, whole }: { move: Move; whole: boolean }) {
  const targets = useTargets(move, 'start')
  const cues = useDesk((d) => d.film?.scenes[d.scene]?.cues ?? none)
  const set = (patch: object) => run('move.set', { move: move.id, patch })
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
  ]
  const start = (when: string) => {
    const kept =
      (when === 'begins' || when === 'ends') && hangs && possible(targets[when]).some((t) => t.move === move.start.of)
    const target =
      when === 'begins' || when === 'ends' ? possible(targets[when])[0]?.move : when === 'cue' ? cues[0]?.id : ''
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
      <NumberField
        label={hangs || move.start.when === 'cue' ? 'Offset' : move.start.when === 'scene-end' ? 'Before' : 'At'}
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

/** What a move lasts as long as; empty: several differ. */
const lastsOf = (move: Move, mixed: Set<string>) =>
  mixed.has('lasts') || mixed.has('until')
    ? ''
    : move.until
      ? 'until'
      : move.lasts === 'scene' && move.keeps === 'speed'
        ? 'speed'
        : move.lasts || 'time'

function LengthFields({ of: { move, ids, mixed, set, change } }: { of: Edited }) {
  const loop = move.kind === 'loop'
  const scroll = move.effect === 'scroll'
  const comes = move.kind === 'entrance' || move.kind === 'exit'
  const lasts = lastsOf(move, mixed)
  const choose = (v: string) => {
    const clear = { lasts: null, keeps: null, until: null }
    const own = move.duration ? {} : { duration: 1000 }
    if (v === 'time') set({ ...clear, ...own, ...(loop && !scroll ? { repeat: move.repeat || 1 } : {}) })
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
  const ownTime = lasts === '' || lasts === 'time' || lasts === 'until' || lasts === 'speed' || (loop && !scroll)
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
      {ownTime && !move.end?.stretches && (
        <NumberField
          label={loop && !scroll ? (move.effect === 'spin' ? 'One turn' : 'One cycle') : 'Takes'}
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
function LengthDetails({ of: { move, ids, mixed, set, change }, whole }: { of: Edited; whole: boolean }) {
  const scroll = move.effect === 'scroll'
  const comes = move.kind === 'entrance' || move.kind === 'exit'
  const lasts = lastsOf(move, mixed)
  const single = ids.length === 1
  return (
    <>
      {!whole && (lasts === 'time' || lasts === '') && !comes && !mixed.has('kind') && !scroll && (
        <NumberField
          label={move.effect === 'spin' ? 'Turns' : 'Times'}
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
      {!comes && !mixed.has('kind') && !scroll && (
        <Check
          name={`There and back${mixed.has('alternate') ? ' (mixed)' : ''}`}
          on={!!move.alternate}
          onSet={(v) => set({ alternate: v || null })}
        />
      )}
    </>
  )
}

/** Whether something is set that lies folded away. */
const finer = (move: Move) =>
  !!move.unit || !!move.end || !!move.alternate || !!move.continues || (!!move.repeat && move.repeat !== 1)

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
    { value: 'time', label: loop && move.effect !== 'scroll' ? 'a number of times' : 'a time of its own' },
    { value: 'scene', label: loop ? 'the whole scene' : 'as long as the scene' },
    ...(move.kind === 'path'
      ? [
          { value: 'speed', label: 'the scene, at its speed' },
          { value: 'thread', label: 'all scenes of its thread' },
        ]
      : []),
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

function EndFields({ move }: { move: Move }) {
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
