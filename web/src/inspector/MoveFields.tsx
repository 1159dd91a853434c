// The fields of one move, or of several at once: when they start and end, how long they take, and what they do.
import type { Edited } from './edited'
import { useMemo } from 'react'
import { engine } from '../engine/engine'
import { blankMove } from '../engine/many'
import type { Move } from '../engine/types'
import { rehearsingDrag, run } from '../project/commands'
import { useDesk } from '../project/desk'
import { playOver } from '../project/play'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { Label } from '../ui/controls'
import { filmTime } from '../time'
import { EasingField } from './EasingField'
import { ParamFields, PathDetails, PathLine, UnitFields } from './MoveParams'
import { BecomesFields } from './BecomesFields'
import { StartFields, EndFields, MeetFields } from './Hanging'
import { LengthFields, LengthDetails } from './Lasting'

export function MoveFields({ move }: { move: Move }) {
  const of: Edited = {
    move,
    ids: [move.id],
    mixed: new Set(),
    set: (patch) => playing(run('move.set', { move: move.id, patch })),
    change: () => undefined,
  }
  const timed = move.timed
  const whole = move.kind === 'loop' && move.lasts === 'scene'
  const effects = engine.fields().moves.flatMap((o) => o.moves.filter((v) => v.kind === move.kind && !v.variant))
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
      {move.lasts !== 'thread' && !move.tied && <StartFields move={move} whole={whole} />}
      {timed && <LengthFields of={of} />}
      {move.kind === 'path' && <PathLine move={move} />}
      {move.kind === 'change' && <BecomesFields move={move} />}
      <ParamFields of={of} />
      {move.eased && <EasingRow of={of} />}
      {move.kind === 'path' && (
        <div className="col-span-2">
          <Fold title="Reach, rest and turning">
            <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">
              <PathDetails move={move} set={of.set} />
            </div>
          </Fold>
        </div>
      )}
      {((timed && !whole && move.lasts !== 'thread') || move.units.length > 0 || move.kind !== 'entrance') &&
        !move.tied && (
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
    set: (patch) => playing(run('moves.set', { moves: ids, patch })),
    change:
      (field, scale = 1) =>
      (how, by) => {
        run('moves.change', { moves: ids, field, how, by: how === '+' ? by * scale : by })
      },
  }
  const timeless = !move.timed && !of.mixed.has('unit')
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
        {!timeless && move.eased && <EasingRow of={of} />}
        <MeetFields moves={ids} />
      </div>
    </div>
  )
}

/** While a number is dragged the move plays on the page, over and over. */
function playing(done: boolean): boolean {
  if (done && rehearsingDrag() && !matchMedia('(prefers-reduced-motion: reduce)').matches) {
    const [from, to] = engine.tried()
    if (to > from) playOver(from - 100, to + 300)
  }
  return done
}

function EasingRow({ of }: { of: Edited }) {
  return (
    <>
      <Label className="mt-1.5 self-start">Easing</Label>
      <EasingField
        name="Easing"
        value={of.mixed.has('easingUsed') ? '' : of.move.easing || of.move.easingUsed}
        onSet={(easing) => of.set({ easing })}
      />
    </>
  )
}

/** Whether something is set that lies folded away. */
const finer = (move: Move) =>
  !!move.unit || !!move.end || !!move.alternate || !!move.continues || (!!move.repeat && move.repeat !== 1)
