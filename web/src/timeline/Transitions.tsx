// Transitions as they lie between scenes, and the way back to the first.
import type { Film } from '../engine/types'
import { goToScene, select } from '../project/desk'
import { px, type Scale } from './scale'
import { TransitionSign } from './TransitionSign'
import { Edge } from './Edge'

/** The direction a transition goes in, degrees clockwise from the right. */
const directionOf = (params: Record<string, unknown> | undefined) => Number(params?.direction ?? 0)

export function Transition({
  film,
  index,
  x,
  w,
  height,
  scale,
}: {
  film: Film
  index: number
  x: number
  w: number
  height: number
  scale: Scale
}) {
  const s = film.scenes[index]
  const open = () => {
    goToScene(index)
    select([], '')
  }
  return (
    <>
      <Stretch
        x={x}
        w={w}
        height={height}
        ms={s.into}
        kind={s.transition}
        direction={directionOf(s.params)}
        goesOn={s.goesOn && s.run > 1}
        into={`into ${s.name}`}
        data={{ 'data-transition': index }}
        onOpen={open}
      />
      {s.into > 0 && (
        <Edge
          name={`Transition into ${s.name}`}
          left={x + w - 3}
          room={w}
          height={height}
          scale={scale}
          value={s.into}
          min={10}
          intent="scene.transition"
          args={(duration) => ({ ids: [s.id], patch: { duration } })}
        />
      )}
    </>
  )
}

/** The way back from the last scene to the first, of a film that goes round: a stretch of time like any other. */
export function Closing({
  film,
  closing,
  scale,
  height,
}: {
  film: Film
  closing: NonNullable<Film['closing']>
  scale: Scale
  height: number
}) {
  const ms = closing.duration ?? 0
  const [x, w] = [px(scale, closing.begin), ms * scale.perMs]
  const open = () => {
    goToScene(film.shown - 1)
    select([], '')
    setTimeout(() => document.querySelector('[data-closing-fields]')?.scrollIntoView({ block: 'center' }), 30)
  }
  return (
    <>
      <Stretch
        x={x}
        w={w}
        height={height}
        ms={ms}
        kind={closing.kind}
        direction={directionOf(closing.params)}
        goesOn={!!closing.goesOn}
        into={`back to ${film.scenes[0].name}`}
        data={{ 'data-closing': true }}
        onOpen={open}
      />
      <Edge
        name={`Transition back to ${film.scenes[0].name}`}
        left={x + w - 3}
        room={w}
        height={height}
        scale={scale}
        value={ms}
        min={10}
        intent="film.closing"
        args={(duration) => ({ patch: { duration } })}
      />
    </>
  )
}

/** A transition as it lies between two scenes: pressed, its fields are shown. */
function Stretch({
  x,
  w,
  height,
  ms,
  kind,
  direction,
  goesOn,
  into,
  data,
  onOpen,
}: {
  x: number
  w: number
  height: number
  ms: number
  kind: string
  direction: number
  goesOn: boolean
  into: string
  data: object
  onOpen: () => void
}) {
  const time = (ms / 1000).toFixed(ms % 100 ? 2 : 1)
  return (
    <button
      type="button"
      onClick={onOpen}
      title={`${kind} ${into}`}
      aria-label={`${time} ${kind} ${into}: transition`}
      {...data}
      className="absolute top-0 rounded-md hover:bg-spruce-900"
      style={w < 24 ? { left: x - (24 - w) / 2, width: 24, height } : { left: x, width: w, height }}
    >
      <TransitionSign kind={kind} width={Math.max(w, 24)} height={height} direction={direction} goesOn={goesOn} />
      {w > 34 && (
        <span className="absolute inset-x-0 bottom-1 text-center font-mono text-[0.6875rem] text-foam-300">
          {time}
          {w > 84 ? ` ${kind}` : ''}
        </span>
      )}
    </button>
  )
}
