// What moves do: the numbers of their effects, paths, and how they go by unit.
import { engine } from '../engine/engine'
import type { Field, Move } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold } from '../ui/Section'
import { Button, Label } from '../ui/controls'
import { changeAt, DescribedField, valueAt } from './Described'
import type { Edited } from './edited'

export function PathLine({ move }: { move: Move }) {
  const line = move.line
  const bend = (args: object) => run('path.bend', { move: move.id, shape: line?.shape ?? 'straight', ...args })
  const number = (
    of: 'height' | 'width' | 'count' | 'start',
    label: string,
    name: string,
    more: { unit?: string; min?: number; max?: number; step?: number },
  ) => <NumberField label={label} name={name} value={line?.[of] ?? 0} onSet={(v) => bend({ [of]: v })} {...more} />
  const shape = move.path?.axis || line?.shape
  return (
    <>
      <Label>Line</Label>
      <Choice
        name="Line of the path"
        value={shape ?? 'free'}
        of={[
          { value: 'straight', label: 'straight' },
          { value: 'level', label: 'straight, kept level' },
          { value: 'upright', label: 'straight, kept upright' },
          { value: 'arc', label: 'an arc' },
          { value: 'wave', label: 'a wave' },
          { value: 'ellipse', label: 'an ellipse' },
          { value: 'free', label: 'free, by its points' },
        ]}
        onSet={(v) => bend({ shape: v })}
      />
      {line?.shape === 'arc' && number('height', 'Height', 'Height of the arc', { unit: 'px' })}
      {line?.shape === 'wave' && number('height', 'Height', 'Height of the waves', { unit: 'px' })}
      {line?.shape === 'wave' && number('count', 'Waves', 'How many waves', { min: 0.5, max: 100, step: 0.5 })}
      {line?.shape === 'ellipse' && (
        <>
          {number('width', 'Width', 'Width of the ellipse', { unit: 'px', min: 0 })}
          {number('height', 'Height', 'Height of the ellipse', { unit: 'px', min: 0 })}
          {number('start', 'Begins', 'Where it begins, from its top', { unit: '°', step: 15 })}
          <Label>Sense</Label>
          <Choice
            name="Sense of the ellipse"
            value={line.back ? 'back' : 'on'}
            of={[
              { value: 'on', label: 'clockwise' },
              { value: 'back', label: 'anticlockwise' },
            ]}
            onSet={(v) => bend({ back: v === 'back' })}
          />
        </>
      )}
      {(move.others.length > 0 || move.path?.along) && (
        <>
          <Label>Along</Label>
          <Choice
            name="Layer whose outline it goes along"
            value={move.path?.along || 'own'}
            of={[
              { value: 'own', label: 'a line of its own' },
              ...move.others.map((o) => ({ value: o.move, label: o.words })),
              ...(move.path?.along && !move.others.some((o) => o.move === move.path?.along)
                ? [{ value: move.path.along, label: 'one that is gone' }]
                : []),
            ]}
            onSet={(v) => run('path.along', { move: move.id, thread: v === 'own' ? '' : v })}
          />
        </>
      )}
    </>
  )
}

/** Where a path leads to, how fast, and how its layer goes along it. */
export function PathDetails({ move, set }: { move: Move; set: (patch: object) => boolean }) {
  return (
    <>
      {move.reach && move.line?.shape !== 'ellipse' && (
        <>
          <NumberField
            label="Across by"
            name="Path: across by"
            value={Math.round(move.reach[0] * 10) / 10}
            onSet={(x) => run('path.reach', { move: move.id, x, y: move.reach![1] })}
          />
          <NumberField
            label="Down by"
            name="Path: down by"
            value={Math.round(move.reach[1] * 10) / 10}
            onSet={(y) => run('path.reach', { move: move.id, x: move.reach![0], y })}
          />
        </>
      )}
      {move.speed > 0 && (
        <>
          <Label>Speed</Label>
          <span className="font-mono text-[0.75rem]">{Math.round(move.speed)} px/s</span>
        </>
      )}
      <Label>At rest</Label>
      <Choice
        name="Where on its path the layer is at rest"
        value={move.path?.rest || 'departs'}
        of={[
          { value: 'departs', label: 'at the begin of the path' },
          { value: 'arrives', label: 'at the end of the path' },
          { value: 'passes', label: 'on its way' },
        ]}
        onSet={(rest) => set({ path: { rest, share: rest === 'passes' ? move.path?.share || 0.5 : null } })}
      />
      {move.path?.rest === 'passes' && (
        <NumberField
          label="after"
          name="Share of the path before the rest pose"
          unit="%"
          min={0}
          max={100}
          value={Math.round((move.path.share ?? 0) * 1000) / 10}
          onSet={(v) => set({ path: { share: v / 100 } })}
        />
      )}
      <Check
        name="Turn along the path"
        on={!!move.path?.turnAlong}
        onSet={(v) => set({ path: { turnAlong: v || null } })}
      />
    </>
  )
}

export function ParamFields({ of }: { of: Edited }) {
  const { move, mixed, set, change } = of
  const effect = mixed.has('effect') ? '' : move.effect
  const exit = move.kind === 'exit'
  // Of an exit that goes back the direction is that in which it goes, too.
  const turned = exit && move.back ? 180 : 0
  const list = engine.fields().effects[effect] ?? []
  const shown = list
    .filter((f) => !(f.noUnit && move.unit))
    .filter((f) => {
      const needed = f.needs ? valueAt(move, f.needs) : undefined
      return !f.needs || mixed.has(f.needs) || (f.needsIs ? needed === f.needsIs : needed !== undefined)
    })
  const field = (f: Field) => {
    const differs = mixed.has(f.path)
    if (f.control === 'direction')
      return (
        <DescribedField
          key={f.name}
          field={f}
          words={(exit && f.out) || f.words}
          value={differs || mixed.has('back') ? null : Number(valueAt(move, f.path) ?? f.usual ?? 0) + turned}
          onSet={(v) => set({ ...changeAt(f.path, v), ...(exit ? { back: null } : {}) })}
        />
      )
    return (
      <DescribedField
        key={f.name}
        field={f}
        words={(exit && f.out) || f.words}
        value={differs ? null : valueAt(move, f.path)}
        onSet={(v) => set(changeAt(f.path, v))}
        moves={move.others}
        onBy={change(f.path)}
      />
    )
  }
  // Edges that other layers drive: they fold away until one does.
  const edges = move.others.length || move.tied ? shown.filter((f) => f.noPage) : []
  return (
    <>
      {shown.filter((f) => !f.noPage).map(field)}
      {edges.length > 0 && (
        <div className="col-span-2">
          <Fold title="Tied to another layer’s edge" folded={!move.tied}>
            <div className="grid grid-cols-[3.875rem_1fr] items-center gap-x-2 gap-y-2 pt-1">{edges.map(field)}</div>
          </Fold>
        </div>
      )}
      {move.chance && move.order !== 'shuffled' && (
        <NumberField
          label="Chance"
          name="Number that its chance comes from"
          min={0}
          max={1e9}
          value={mixed.has('seed') ? null : (move.seed ?? 0)}
          onSet={(v) => set({ seed: Math.round(v) })}
        />
      )}
      {move.wheel && <WheelSeems of={of} wheel={move.wheel} />}
      {move.first && <FirstWay of={of} />}
      {move.rounds && <Rounds of={of} />}
    </>
  )
}

/** What a wheel seems to do at the film's rate, and speeds at which it does not. */
function WheelSeems({ of, wheel }: { of: Edited; wheel: NonNullable<Move['wheel']> }) {
  return (
    <div className="col-span-2 text-[0.6875rem] leading-snug text-coral-700" data-wheel>
      {wheel.words}
      <span className="mt-1 flex gap-1.5">
        {wheel.cycles.map((ms) => (
          <Button key={ms} className="!h-7 !px-2 text-[0.75rem]" onClick={() => of.set({ duration: ms })}>
            A turn in {(ms / 1000).toFixed(2)} s
          </Button>
        ))}
      </span>
    </div>
  )
}

/** To which side a loop goes first. */
function FirstWay({ of: { move, ids, mixed } }: { of: Edited }) {
  return (
    <>
      <Label>First</Label>
      <span className="flex items-center justify-between gap-2 text-[0.75rem]">
        <span data-first-way>{mixed.has('first') ? 'mixed' : move.first}</span>
        <Button
          className="!px-2 text-[0.75rem]"
          title="Each begins to its other side: wings beat together"
          onClick={() => run('moves.mirror', { moves: ids })}
        >
          The other way
        </Button>
      </span>
    </>
  )
}

/** How often a scroll comes round: its speed is chosen by that. */
function Rounds({ of: { move, ids, mixed } }: { of: Edited }) {
  const loop = useDesk((d) => d.film!.loop)
  const rounds = (film: boolean) => (v: number) => run('scroll.rounds', { moves: ids, rounds: v, film })
  const told = (i: 0 | 1) => (mixed.has('rounds') || !move.rounds ? null : Math.round(move.rounds[i] * 100) / 100)
  return (
    <>
      <Label>Rounds</Label>
      <span className="grid grid-cols-[1fr_auto_1fr_auto] items-center gap-1 text-[0.6875rem] text-ink-600">
        <NumberField
          name="Rounds in the scene"
          digits={0}
          min={0.01}
          max={10000}
          value={told(0)}
          onSet={rounds(false)}
        />
        scene
        <NumberField name="Rounds in the film" digits={0} min={0.01} max={10000} value={told(1)} onSet={rounds(true)} />
        film
      </span>
      {told(1) !== null && loop && told(1)! % 1 !== 0 && (
        <p className="col-span-2 text-[0.6875rem] leading-snug text-ink-600">
          The film goes round: whole rounds in it meet its start.
        </p>
      )}
    </>
  )
}

const unitWords: Record<string, string> = {
  line: 'line by line',
  word: 'word by word',
  letter: 'letter by letter',
  part: 'part by part',
}

const orders = [
  { value: 'forwards', label: 'forwards' },
  { value: 'backwards', label: 'backwards' },
  { value: 'middle', label: 'from the middle of the list' },
  { value: 'outwards', label: 'outwards, by place' },
  { value: 'columns', label: 'by column' },
  { value: 'rows', label: 'by row' },
  { value: 'point', label: 'from a point' },
  { value: 'shuffled', label: 'at random' },
]

export function UnitFields({ of: { move, ids, mixed, set, change } }: { of: Edited }) {
  const unit = mixed.has('unit') ? '' : move.unit || 'whole'
  const from = move.from ?? [0, 0]
  const setUnit = (v: string) => {
    for (const id of ids) run('move.unit', { move: id, unit: v === 'whole' ? '' : v })
  }
  return (
    <>
      <Label>Unit</Label>
      <Choice
        name="Unit"
        value={unit}
        of={[{ value: 'whole', label: 'the whole' }, ...move.units.map((u) => ({ value: u, label: unitWords[u] }))]}
        onSet={setUnit}
      />
      {move.unit && (
        <>
          <Label>Order</Label>
          <Choice
            name="Order of the units"
            value={mixed.has('order') ? '' : move.order || 'forwards'}
            of={orders}
            onSet={(order) => set({ order })}
          />
          {move.order === 'shuffled' && (
            <NumberField
              label="Shuffle"
              name="Seed of the shuffle"
              min={0}
              max={1e9}
              value={mixed.has('seed') ? null : (move.seed ?? 0)}
              onSet={(v) => set({ seed: Math.round(v) })}
            />
          )}
          {move.order === 'point' && (
            <>
              <Label>Point</Label>
              <span className="grid grid-cols-2 gap-1">
                <NumberField
                  name="Point: across its box"
                  unit="%"
                  value={mixed.has('from') ? null : Math.round(from[0] * 100)}
                  onSet={(v) => set({ from: [v / 100, from[1]] })}
                />
                <NumberField
                  name="Point: down its box"
                  unit="%"
                  value={mixed.has('from') ? null : Math.round(from[1] * 100)}
                  onSet={(v) => set({ from: [from[0], v / 100] })}
                />
              </span>
            </>
          )}
          <NumberField
            label="Overlap"
            name="Overlap of neighbours"
            unit="%"
            min={0}
            max={100}
            step={5}
            value={mixed.has('overlap') ? null : Math.round((move.overlap ?? 0) * 100)}
            onSet={(v) => set({ overlap: v / 100 || null })}
            onBy={change('overlap', 0.01)}
          />
        </>
      )}
    </>
  )
}
