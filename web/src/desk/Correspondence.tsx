// Over the page: which points of an outline become which of the next scene's. Points are dragged along their outline; a
// line drawn from one outline to the other makes two points, and two parts, the same. Meanwhile the outline goes there
// and back, slowly.
import { useEffect, useRef, useState } from 'react'
import type { Outline, OutlineMark, XY } from '../engine/types'
import { engine } from '../engine/engine'
import { endRehearsal, rehearse, run } from '../project/commands'
import { desk, set, useDesk } from '../project/desk'
import { hold, letGo } from '../ui/drags'
import type { View } from '../engine/painter'
import { toDesk, toPage } from './view'

const ink = '#17403C'
const brass = '#8A5B10'
const paper = '#FFFDF8'

/** How long it takes on its way there, in ms. */
const slowly = 3200

interface Shown {
  outline: Outline
  view: View
  size: { w: number; h: number }
}

/** What is drawn from one outline to the other: where it began, and where the pointer is. */
interface Line {
  from: XY
  to: XY
  off: boolean // nothing is there to pair it with
}

export function Correspondence({ outline, view, size }: Shown) {
  const [line, setLine] = useState<Line | null>(null)
  const picked = useDesk((d) => d.mark)
  const film = useDesk((d) => d.film)!
  const into = { scene: outline.scene, thread: outline.thread }
  const shift = `translate(${view.x} ${view.y}) scale(${view.scale})`
  const at = (e: { clientX: number; clientY: number; currentTarget: Element }): XY => {
    const r = (e.currentTarget.closest('[data-correspondence]') ?? e.currentTarget).getBoundingClientRect()
    return toPage(view, e.clientX - r.left, e.clientY - r.top)
  }
  /** Follows the pointer until it is let go: what it comes to is shown meanwhile, and done then. */
  const follow = (e: React.PointerEvent, does: (to: XY) => boolean, moves: (to: XY | null, done: boolean) => void) => {
    if (e.button !== 0) return
    e.stopPropagation()
    // What is dragged may be drawn anew under another number meanwhile: the whole of it follows.
    const on = e.currentTarget.closest('[data-correspondence]')! as SVGElement
    on.setPointerCapture(e.pointerId)
    const begun = [e.clientX, e.clientY]
    let last: XY | null = null
    const move = (m: PointerEvent) => {
      if (!last && Math.hypot(m.clientX - begun[0], m.clientY - begun[1]) < 3) return
      last = at({ clientX: m.clientX, clientY: m.clientY, currentTarget: on })
      const to = last
      set({ dragging: true })
      let done = false
      rehearse(() => void (done = does(to)), true)
      moves(to, done)
    }
    const stop = () => {
      on.removeEventListener('pointermove', move)
      on.removeEventListener('pointerup', up)
      on.removeEventListener('pointercancel', stop)
      letGo()
      set({ dragging: false })
      endRehearsal()
      moves(null, false)
    }
    const up = () => {
      const to = last
      stop()
      if (to) does(to)
    }
    on.addEventListener('pointermove', move)
    on.addEventListener('pointerup', up)
    on.addEventListener('pointercancel', stop)
    hold(stop)
  }
  const draw = (e: React.PointerEvent) => {
    const from = at(e)
    follow(
      e,
      (to) => run('outline.pair', { ...into, from, to }),
      (to, done) => setLine(to && { from, to, off: !done }),
    )
  }
  // What was found has become given, under another number: it stays the one that is selected.
  const pick = (later: boolean, [x, y]: XY) => {
    const far = (m: OutlineMark) => {
      const [px, py] = later ? m.b : m.a
      return m.given ? Math.hypot(px - x, py - y) : Infinity
    }
    const { marks } = desk().outline ?? outline
    set({ mark: marks.reduce((best, m, k) => (far(m) < far(marks[best]) ? k : best), 0) })
    return true
  }
  const page = toDesk(view, [0, 0])
  const shown = distinct(outline.marks, view, picked)
  return (
    <svg
      className="absolute inset-0"
      width={size.w}
      height={size.h}
      role="group"
      aria-label="What becomes what"
      data-correspondence={outline.marks.length}
      onPointerDown={(e) => {
        if (e.button === 0) set({ mark: -1 })
      }}
    >
      <rect
        x={page[0]}
        y={page[1]}
        width={film.width * view.scale}
        height={film.height * view.scale}
        fill={paper}
        fillOpacity="0.95"
      />
      <Travelling outline={outline} shift={shift} />
      {[outline.from, outline.to].map((d, i) => (
        <g key={i}>
          <path d={d} transform={shift} fill="none" stroke={paper} strokeWidth="4" vectorEffect="non-scaling-stroke" />
          <path
            d={d}
            transform={shift}
            fill="none"
            stroke={i ? brass : ink}
            strokeWidth="1.8"
            vectorEffect="non-scaling-stroke"
          />
          <path
            d={d}
            transform={shift}
            fill="none"
            stroke="transparent"
            strokeWidth="16"
            vectorEffect="non-scaling-stroke"
            style={{ pointerEvents: 'stroke', cursor: 'crosshair' }}
            data-outline={i ? 'to' : 'from'}
            onPointerDown={draw}
          >
            <title>Draw from here onto the other outline: these points become each other</title>
          </path>
        </g>
      ))}
      {shown.map((i) => {
        const m = outline.marks[i]
        const [a, b] = [toDesk(view, m.a), toDesk(view, m.b)]
        return (
          <path
            key={i}
            d={`M${a}L${b}`}
            stroke={m.given ? brass : ink}
            strokeOpacity={i === picked ? 1 : m.given ? 0.85 : 0.3}
            strokeWidth={i === picked ? 2 : 1.2}
            strokeDasharray={m.given ? undefined : '3 4'}
          />
        )
      })}
      {shown.map((i) =>
        [false, true].map((later) => (
          <Mark
            key={`${i}${later}`}
            number={i + 1}
            at={toDesk(view, later ? outline.marks[i].b : outline.marks[i].a)}
            given={outline.marks[i].given}
            picked={i === picked}
            later={later}
            onDown={(e) => {
              set({ mark: i })
              follow(
                e,
                (to) => run('outline.point', { ...into, mark: i, later, x: to[0], y: to[1] }) && pick(later, to),
                () => {},
              )
            }}
            onPick={() => desk().mark !== i && set({ mark: i })}
            onNudge={(by) => run('outline.nudge', { ...into, mark: i, later, by })}
            onLoose={() => outline.marks[i].given && run('outline.loose', { ...into, mark: i }) && set({ mark: -1 })}
          />
        )),
      )}
      {line && (
        <g className="pointer-events-none">
          <path d={`M${toDesk(view, line.from)}L${toDesk(view, line.to)}`} stroke={paper} strokeWidth="4" />
          <path
            d={`M${toDesk(view, line.from)}L${toDesk(view, line.to)}`}
            stroke={brass}
            strokeWidth="1.6"
            strokeDasharray={line.off ? '2 4' : undefined}
            data-drawn={line.off ? 'off' : 'on'}
          />
        </g>
      )}
    </svg>
  )
}

/** How near to another number one may lie at both of its ends, in px. */
const apart = 17

/** The pairs that can be told apart at this size: what is given or selected, and of the others those that hide none. */
function distinct(marks: OutlineMark[], view: View, picked: number): number[] {
  const near = (a: XY, b: XY) => Math.hypot(a[0] - b[0], a[1] - b[1]) * view.scale < apart
  const list: number[] = []
  const take = (must: boolean) =>
    marks.forEach((m, i) => {
      if ((m.given || i === picked) !== must) return
      if (must || !list.some((k) => near(marks[k].a, m.a) || near(marks[k].b, m.b))) list.push(i)
    })
  take(true)
  take(false)
  return list.sort((a, b) => a - b)
}

/** The outline on its way there and back. Where people ask for little motion it stands half way. */
function Travelling({ outline, shift }: { outline: Outline; shift: string }) {
  const line = useRef<SVGPathElement>(null)
  const version = useDesk((d) => d.version)
  useEffect(() => {
    const show = (share: number) => {
      line.current?.setAttribute('d', engine.outlineAt(outline.scene, outline.thread, share))
      line.current?.setAttribute('data-share', share.toFixed(3))
    }
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) {
      show(0.5)
      return
    }
    let frame = 0
    const tick = (now: number) => {
      const round = (now / slowly) % 2
      const there = round < 1 ? round : 2 - round
      show(there * there * (3 - 2 * there))
      frame = requestAnimationFrame(tick)
    }
    tick(performance.now())
    return () => cancelAnimationFrame(frame)
  }, [outline.scene, outline.thread, version])
  return (
    <path
      ref={line}
      transform={shift}
      fill="#D9A441"
      fillOpacity="0.28"
      stroke="#A8731A"
      strokeOpacity="0.6"
      strokeWidth="1"
      vectorEffect="non-scaling-stroke"
      className="pointer-events-none"
      data-travelling
    />
  )
}

/** One end of a pair of points. */
function Mark({
  number,
  at,
  given,
  picked,
  later,
  onDown,
  onPick,
  onNudge,
  onLoose,
}: {
  number: number
  at: XY
  given: boolean
  picked: boolean
  later: boolean
  onDown: (e: React.PointerEvent) => void
  onPick: () => void
  onNudge: (by: number) => void
  onLoose: () => void
}) {
  const where = later ? 'in the later outline' : 'in the earlier outline'
  return (
    <g
      transform={`translate(${at})`}
      role="button"
      tabIndex={0}
      aria-label={`Point ${number} ${where}${given ? ', given' : ''}`}
      aria-pressed={picked}
      data-mark={`${number}${later ? 'b' : 'a'}`}
      data-given={given || undefined}
      className="mark pointer-events-auto cursor-move"
      onPointerDown={onDown}
      onFocus={onPick}
      onKeyDown={(e) => {
        const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key]
        if (by) onNudge(by * (e.shiftKey ? 0.05 : 0.005))
        else if (e.key === 'Delete' || e.key === 'Backspace') onLoose()
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      <circle r="13" fill="transparent" />
      <circle
        r={picked ? 10 : 8.5}
        fill={given ? brass : paper}
        stroke={picked ? '#D8573A' : later ? brass : ink}
        strokeWidth={picked ? 2.5 : 1.5}
      />
      <text
        textAnchor="middle"
        y="3.6"
        fontSize="10.5"
        fontWeight="600"
        fontFamily="Spline Sans Mono"
        fill={given ? paper : ink}
      >
        {number}
      </text>
    </g>
  )
}
