// The fields of one move: when it starts and ends, how long it takes, and what it does.
import type { Move } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check, Choice, Label, NumberField } from '../ui/controls'
import { filmTime } from '../ui/time'
import { DirectionField } from './DirectionField'
import { EasingField } from './EasingField'

export function MoveFields({ move }: { move: Move }) {
  const set = (patch: object) => run('move.set', { move: move.id, patch })
  const timed = move.effect !== 'at-once' || !!move.unit
  const whole = move.kind === 'loop' && move.lasts === 'scene'
  return (
    <div className="grid grid-cols-[62px_1fr] items-center gap-x-2 gap-y-2 px-2 pb-2 pt-1">
      {move.lasts !== 'thread' && <StartFields move={move} whole={whole} />}
      {timed && <LengthFields move={move} set={set} whole={whole} />}
      {timed && !whole && move.lasts !== 'thread' && <EndFields move={move} />}
      {move.kind === 'path' && <PathFields move={move} set={set} />}
      <EffectFields move={move} set={set} />
      {move.units.length > 0 && <UnitFields move={move} set={set} />}
      {timed && move.effect !== 'at-once' && move.effect !== 'scroll' && (
        <>
          <Label>Easing</Label>
          <EasingField name="Easing" value={move.easing || move.easingUsed} onSet={(easing) => set({ easing })} />
        </>
      )}
      <p className="col-span-2 text-[11px] leading-snug text-ink-600" data-when>
        {move.lasts === 'thread' ? 'Goes on in every scene its thread lives in.' : (
          <>
            Scene clock <b className="font-mono">{(move.begin / 1000).toFixed(2)} → {(move.finish / 1000).toFixed(2)} s</b><br />
            Film time <b className="font-mono">{filmTime(move.film)} → {filmTime(move.film + move.finish - move.begin)}</b>
            {move.cut > 0 && <span className="text-coral-700"><br />The scene ends {(move.cut / 1000).toFixed(2)} s before it does.</span>}
          </>
        )}
      </p>
    </div>
  )
}

type Set = (patch: object) => boolean

/** The other moves of the scene, to hang on. */
function useOthers(move: Move) {
  const rows = useDesk((d) => d.rows)
  const scene = useDesk((d) => d.scene)
  return rows.flatMap((r) => r.bars.filter((b) => b.scene === scene && b.move !== move.id).map((b) => ({ bar: b, label: `${b.name} of ${r.name}` })))
}

function StartFields({ move, whole }: { move: Move; whole: boolean }) {
  const others = useOthers(move)
  const cues = useDesk((d) => d.film?.scenes[d.scene]?.cues ?? none)
  const set = (patch: object) => run('move.set', { move: move.id, patch })
  const hangs = move.start.when === 'begins' || move.start.when === 'ends'
  const ending = others.filter((o) => !o.bar.whole)
  const solved = !!move.end && !move.end.stretches // its begin comes from its end
  if (whole) return null
  if (solved) return <p className="col-span-2 text-[11px] text-ink-600">It begins in time to end as said below.</p>
  const of = [
    { value: 'at', label: 'at a time' },
    ...(others.length ? [{ value: 'begins', label: 'when … begins' }] : []), ...(ending.length ? [{ value: 'ends', label: 'when … ends' }] : []),
    { value: 'scene-end', label: 'before the scene ends' }, ...(cues.length ? [{ value: 'cue', label: 'at a cue' }] : []),
  ]
  const start = (when: string) => {
    const target = { begins: others[0]?.bar.move, ends: ending[0]?.bar.move, cue: cues[0]?.id }[when] ?? ''
    run('move.start', { move: move.id, when, of: hangs && (when === 'begins' || when === 'ends') ? move.start.of : target })
  }
  return (
    <>
      <Label>Starts</Label>
      <Choice name="Starts" value={move.start.when} of={of} onSet={start} />
      {hangs && (
        <>
          <Label>of</Label>
          <Choice name="Hangs on" value={move.start.of ?? ''} of={(move.start.when === 'ends' ? ending : others).map((o) => ({ value: o.bar.move, label: o.label }))} onSet={(of) => run('move.start', { move: move.id, when: move.start.when, of })} />
        </>
      )}
      {move.start.when === 'cue' && (
        <>
          <Label>Cue</Label>
          <Choice name="Cue" value={move.start.of ?? ''} of={cues.map((q) => ({ value: q.id, label: q.name }))} onSet={(of) => run('move.start', { move: move.id, when: 'cue', of })} />
        </>
      )}
      <NumberField
        label={hangs || move.start.when === 'cue' ? 'Offset' : move.start.when === 'scene-end' ? 'Before' : 'At'} name="Start" unit="s" digits={2} step={0.1}
        value={(move.start.offset ?? 0) / 1000} onSet={(v) => set({ start: { offset: Math.round(v * 1000) } })}
      />
    </>
  )
}

const none: never[] = []

function LengthFields({ move, set, whole }: { move: Move; set: Set; whole: boolean }) {
  const others = useOthers(move)
  const loop = move.kind === 'loop'
  const scroll = move.effect === 'scroll'
  const lasts = move.until ? 'until' : move.lasts === 'scene' && move.keeps === 'speed' ? 'speed' : move.lasts || 'time'
  const of = [
    { value: 'time', label: loop && !scroll ? 'a number of times' : 'a time of its own' },
    { value: 'scene', label: loop ? 'the whole scene' : 'as long as the scene' },
    ...(move.kind === 'path' ? [{ value: 'speed', label: 'the scene, at its speed' }, { value: 'thread', label: 'as long as its thread' }] : []),
    ...((loop || move.kind === 'path') && others.length ? [{ value: 'until', label: 'until … begins' }] : []),
  ]
  const choose = (v: string) => {
    const clear = { lasts: null, keeps: null, until: null }
    const own = move.duration ? {} : { duration: 1000 }
    if (v === 'time') set({ ...clear, ...own, ...(loop && !scroll ? { repeat: move.repeat || 1 } : {}) })
    else if (v === 'until') set({ ...clear, ...own, until: others[0].bar.move })
    else set({ ...clear, ...(v === 'speed' ? own : {}), lasts: v === 'speed' ? 'scene' : v, keeps: v === 'speed' ? 'speed' : null, end: null, ...(loop ? { repeat: null } : {}) })
  }
  const ownTime = lasts === 'time' || lasts === 'until' || lasts === 'speed' || (loop && !scroll)
  return (
    <>
      {(move.kind !== 'entrance' && move.kind !== 'exit' || move.lasts) && (
        <>
          <Label>Lasts</Label>
          <Choice name="Lasts" value={lasts} of={of} onSet={choose} />
        </>
      )}
      {lasts === 'until' && (
        <>
          <Label>of</Label>
          <Choice name="Until" value={move.until ?? ''} of={others.map((o) => ({ value: o.bar.move, label: o.label }))} onSet={(until) => set({ until })} />
        </>
      )}
      {ownTime && !(move.end?.stretches) && (
        <NumberField
          label={loop && !scroll ? (move.effect === 'spin' ? 'One turn' : 'One cycle') : 'Takes'} name="Duration" unit="s" digits={2} step={0.1} min={0.01} max={3600}
          value={(move.duration ?? 0) / 1000} onSet={(v) => set({ duration: Math.round(v * 1000) })}
        />
      )}
      {!whole && lasts === 'time' && move.kind !== 'entrance' && move.kind !== 'exit' && !scroll && (
        <NumberField label={move.effect === 'spin' ? 'Turns' : 'Passes'} name="Repeat" digits={2} step={1} min={0.01} max={10000} value={move.repeat || 1} onSet={(v) => set({ repeat: v })} />
      )}
      {whole && move.before && <Check name="Goes on from the scene before" on={move.continues === move.before} onSet={(v) => set({ continues: v ? move.before : null })} />}
      {move.kind !== 'entrance' && move.kind !== 'exit' && !scroll && <Check name="There and back" on={!!move.alternate} onSet={(v) => set({ alternate: v || null })} />}
    </>
  )
}

function EndFields({ move }: { move: Move }) {
  const others = useOthers(move)
  const ending = others.filter((o) => !o.bar.whole)
  if (move.lasts || move.until) return null
  const when = move.end?.when ?? ''
  const of = [
    { value: '', label: 'after its time' }, ...(others.length ? [{ value: 'begins', label: 'when … begins' }] : []), ...(ending.length ? [{ value: 'ends', label: 'when … ends' }] : []),
    { value: 'scene-end', label: 'with the scene' },
  ]
  const end = (to: Partial<{ when: string; of: string; stretches: boolean }>) => run('move.end', { move: move.id, when, of: move.end?.of ?? '', stretches: !!move.end?.stretches, ...to })
  return (
    <>
      <Label>Ends</Label>
      <Choice name="Ends" value={when || 'time'} of={of.map((o) => ({ ...o, value: o.value || 'time' }))} onSet={(v) => end({ when: v === 'time' ? '' : v, of: v === 'ends' ? ending[0]?.bar.move : others[0]?.bar.move ?? '' })} />
      {(when === 'begins' || when === 'ends') && (
        <>
          <Label>of</Label>
          <Choice name="Ends with" value={move.end?.of ?? ''} of={(when === 'ends' ? ending : others).map((o) => ({ value: o.bar.move, label: o.label }))} onSet={(of) => end({ of })} />
        </>
      )}
      {when && (
        <>
          <Label>so that</Label>
          <Choice name="What the live end changes" value={move.end?.stretches ? 'length' : 'begin'} of={[{ value: 'begin', label: 'its begin follows' }, { value: 'length', label: 'its length follows' }]} onSet={(v) => end({ stretches: v === 'length' })} />
        </>
      )}
    </>
  )
}

function PathFields({ move, set }: { move: Move; set: Set }) {
  const steps = (move.path?.d.match(/[CLQ]/gi) ?? []).length
  const shape = steps > 1 ? 'free' : /C/i.test(move.path?.d ?? '') ? 'arc' : 'straight'
  return (
    <>
      <Label>Line</Label>
      <Choice name="Line of the path" value={shape} of={[{ value: 'straight', label: 'straight' }, { value: 'arc', label: 'an arc' }, { value: 'free', label: 'free, by its points' }]} onSet={(v) => run('path.bend', { move: move.id, shape: v })} />
      {move.reach && (
        <>
          <NumberField label="Across by" name="Path: across by" value={Math.round(move.reach[0] * 10) / 10} onSet={(x) => run('path.reach', { move: move.id, x, y: move.reach![1] })} />
          <NumberField label="Down by" name="Path: down by" value={Math.round(move.reach[1] * 10) / 10} onSet={(y) => run('path.reach', { move: move.id, x: move.reach![0], y })} />
        </>
      )}
      {move.speed > 0 && <><Label>Speed</Label><span className="font-mono text-[12px]">{Math.round(move.speed)} px/s</span></>}
      <Label>Rest pose</Label>
      <Choice name="Rest pose" value={move.path?.rest || 'departs'} of={[{ value: 'departs', label: 'departs from it' }, { value: 'arrives', label: 'arrives at it' }, { value: 'passes', label: 'passes through it' }]} onSet={(rest) => set({ path: { rest, share: rest === 'passes' ? move.path?.share || 0.5 : null } })} />
      {move.path?.rest === 'passes' && <NumberField label="after" name="Share of the path before the rest pose" unit="%" min={0} max={100} value={Math.round((move.path.share ?? 0) * 1000) / 10} onSet={(v) => set({ path: { share: v / 100 } })} />}
      <Check name="Turn along the path" on={!!move.path?.turnAlong} onSet={(v) => set({ path: { turnAlong: v || null } })} />
    </>
  )
}

function EffectFields({ move, set }: { move: Move; set: Set }) {
  const directed = move.effect === 'wipe' || move.effect === 'slide' || move.effect === 'scroll'
  const params = { wipe: move.wipe, slide: move.slide, scroll: move.scroll }[move.effect]
  return (
    <>
      {directed && (
        <>
          <Label>Travels</Label>
          <DirectionField name="Direction of travel" value={params?.direction ?? 0} four={move.effect === 'scroll'} onSet={(direction) => set({ [move.effect]: { direction: direction || null } })} />
        </>
      )}
      {move.effect === 'wipe' && <NumberField label="Soft by" name="Softness of the edge" unit="px" min={0} max={4000} value={move.wipe?.softness ?? 0} onSet={(v) => set({ wipe: { softness: v || null } })} />}
      {move.effect === 'slide' && !move.unit && (
        <>
          <Label>From</Label>
          <Choice name="How far it slides" value={move.slide?.distance ? 'by' : 'off'} of={[{ value: 'off', label: 'off the page' }, { value: 'by', label: 'a distance, with a fade' }]} onSet={(v) => set({ slide: { distance: v === 'by' ? 200 : null } })} />
          {!!move.slide?.distance && <NumberField label="Distance" name="Distance of the slide" unit="px" min={1} value={move.slide.distance} onSet={(v) => set({ slide: { distance: v } })} />}
        </>
      )}
      {move.kind === 'exit' && (move.effect === 'wipe' || move.effect === 'slide') && (
        <>
          <Label>Goes</Label>
          <Choice name="Which way it goes out" value={move.back ? 'back' : 'on'} of={[{ value: 'on', label: 'on through' }, { value: 'back', label: 'back' }]} onSet={(v) => set({ back: v === 'back' || null })} />
        </>
      )}
      {move.effect === 'spin' && (
        <>
          <Label>Sense</Label>
          <Choice name="Sense" value={move.spin?.anticlockwise ? 'anti' : 'clock'} of={[{ value: 'clock', label: 'clockwise' }, { value: 'anti', label: 'anticlockwise' }]} onSet={(v) => set({ spin: { anticlockwise: v === 'anti' || null } })} />
        </>
      )}
      {move.effect === 'rock' && <NumberField label="Strength" name="Angle to either side" unit="°" digits={1} min={0} max={360} value={move.rock?.angle ?? 0} onSet={(v) => set({ rock: { angle: v } })} />}
      {move.effect === 'scroll' && (
        <>
          <NumberField label="Speed" name="Speed in px a second" min={1} max={100000} value={move.scroll?.speed ?? 0} onSet={(v) => set({ scroll: { speed: v } })} />
          <NumberField label="Gap" name="Gap between two copies" unit="px" min={0} value={move.scroll?.gap ?? 0} onSet={(v) => set({ scroll: { gap: v || null } })} />
        </>
      )}
    </>
  )
}

const unitWords: Record<string, string> = { line: 'line by line', word: 'word by word', letter: 'letter by letter', part: 'part by part' }

function UnitFields({ move, set }: { move: Move; set: Set }) {
  return (
    <>
      <Label>Unit</Label>
      <Choice name="Unit" value={move.unit || 'whole'} of={[{ value: 'whole', label: 'the whole' }, ...move.units.map((u) => ({ value: u, label: unitWords[u] }))]} onSet={(v) => run('move.unit', { move: move.id, unit: v === 'whole' ? '' : v })} />
      {move.unit && (
        <>
          <Label>Order</Label>
          <Choice
            name="Order of the units" value={move.order || 'forwards'}
            of={[{ value: 'forwards', label: 'forwards' }, { value: 'backwards', label: 'backwards' }, { value: 'middle', label: 'from the middle' }, { value: 'shuffled', label: 'shuffled' }]}
            onSet={(v) => set({ order: v === 'forwards' ? null : v, seed: v === 'shuffled' ? Math.floor(Math.random() * 1e6) : null })}
          />
          {move.order === 'shuffled' && <NumberField label="Shuffle" name="Seed of the shuffle" min={0} max={1e9} value={move.seed ?? 0} onSet={(v) => set({ seed: Math.round(v) })} />}
          <NumberField label="Overlap" name="Overlap of neighbours" unit="%" min={0} max={100} step={5} value={Math.round((move.overlap ?? 0) * 100)} onSet={(v) => set({ overlap: v / 100 || null })} />
        </>
      )}
    </>
  )
}
