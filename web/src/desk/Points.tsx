// The points of a drawn path on the page. Handles are always shown; a stretch is bent by dragging it and gets a point
// where it is pressed twice. All is painted on one canvas, so that a path of a thousand points follows the pointer.
import { useLayoutEffect, useMemo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { XY } from '../engine/types'
import type { View } from '../engine/painter'
import { run } from '../project/commands'
import { set, useDesk } from '../project/desk'
import { beside, knotsOf, lineOf, middlesOf, outlineNow, someKnots, type Knot } from '../actions/outline'
import { toDesk, toPage, type Start } from './view'

/** How near a press counts as on a point, and on the line, in px. */
const near = 10
const reach = 6.5

/** With more points in view than this, they are smaller, and handles are shown of those that are selected alone. */
const crowd = 300

const brass = '#A8731A'
const paper = '#FFFDF8'

function begin(c: HTMLCanvasElement, ratio: number, size: { w: number; h: number }) {
  const ctx = c.getContext('2d')!
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0)
  ctx.clearRect(0, 0, size.w, size.h)
  return ctx
}

function stroke(ctx: CanvasRenderingContext2D, p: Path2D, colour: string, width: number) {
  ctx.strokeStyle = colour
  ctx.lineWidth = width
  ctx.stroke(p)
}

function paintLine(ctx: CanvasRenderingContext2D, p: Path2D, crowded: boolean) {
  if (!crowded) stroke(ctx, p, paper, 3.5)
  stroke(ctx, p, brass, 1.4)
}

function paintKnots(ctx: CanvasRenderingContext2D, list: Knot[], picked: Set<string>, crowded: boolean) {
  const arms = new Path2D()
  const ends = new Path2D()
  for (const k of list) {
    for (const h of !crowded || picked.has(k.id) ? [k.before, k.after] : []) {
      if (!h) continue
      arms.moveTo(...k.at)
      arms.lineTo(...h)
      ends.moveTo(h[0] + 4.5, h[1])
      ends.arc(h[0], h[1], 4.5, 0, 7)
    }
  }
  stroke(ctx, arms, paper, 3)
  stroke(ctx, arms, brass, 1.2)
  ctx.fillStyle = brass
  ctx.fill(ends)
  stroke(ctx, ends, paper, 1.6)
  // Boxes one by one: a thousand of them in one path take a browser ten times as long.
  const box = ([x, y]: XY, half: number, colour: string) => {
    ctx.fillStyle = colour
    ctx.fillRect(x - half, y - half, 2 * half, 2 * half)
  }
  const rounds = new Path2D()
  const fulls = new Path2D()
  for (const k of list) {
    if (k.smooth && !crowded) {
      for (const p of picked.has(k.id) ? [rounds, fulls] : [rounds]) {
        p.moveTo(k.at[0] + 5.5, k.at[1])
        p.arc(k.at[0], k.at[1], 5.5, 0, 7)
      }
      continue
    }
    box(k.at, crowded ? 3.5 : 6, brass)
    if (!picked.has(k.id)) box(k.at, crowded ? 2.2 : 4, paper)
  }
  ctx.fillStyle = paper
  ctx.fill(rounds)
  stroke(ctx, rounds, brass, 2)
  ctx.fillStyle = brass
  ctx.fill(fulls)
}

/** The bend handles: a small lozenge in the middle of every stretch that is long enough to hold one. */
function paintMiddles(ctx: CanvasRenderingContext2D, list: { at: XY }[]) {
  const p = new Path2D()
  for (const {
    at: [x, y],
  } of list) {
    p.moveTo(x, y - 5)
    p.lineTo(x + 5, y)
    p.lineTo(x, y + 5)
    p.lineTo(x - 5, y)
    p.closePath()
  }
  ctx.fillStyle = paper
  ctx.fill(p)
  stroke(ctx, p, brass, 1.3)
}

/** What the pointer is over: a point or a handle, the line, or nothing. */
function under(
  knots: Knot[],
  shown: (k: Knot) => boolean,
  line: Path2D,
  ctx: CanvasRenderingContext2D,
  [x, y]: XY,
): { id: string; knot: Knot | null } | 'line' | null {
  let best: { id: string; knot: Knot | null } | null = null
  let least = near
  const look = (id: string, q: XY, knot: Knot | null) => {
    const d = Math.hypot(q[0] - x, q[1] - y)
    if (d < least) [best, least] = [{ id, knot }, d]
  }
  for (const k of knots) look(k.id, k.at, k)
  if (best) return best // a point before the handles that lie over it
  for (const k of knots) {
    if (!shown(k)) continue
    if (k.before) look(`${k.id}.in`, k.before, null)
    if (k.after) look(`${k.id}.out`, k.after, null)
  }
  if (best) return best
  ctx.lineWidth = 2 * reach
  const scale = ctx.getTransform().a
  return ctx.isPointInStroke(line, x * scale, y * scale) ? 'line' : null
}

export function Points({
  thread,
  view,
  size,
  onGesture,
}: {
  thread: string
  view: View
  size: { w: number; h: number }
  onGesture: Start
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const moment = useDesk((d) => d.moment)
  const version = useDesk((d) => d.version)
  const chosen = useDesk((d) => d.points)
  const snap = useDesk((d) => d.snap)
  const [seized, setSeized] = useState('') // what a drag began on
  const dragging = useDesk((d) => d.dragging) ? seized : ''
  const [over, setOver] = useState('')
  const outline = outlineNow(moment, version, thread)
  const onDesk = (q: XY) => toDesk(view, q)
  // Dragging some of a crowd, all others are where they were.
  const [of, at, part] = dragging.split('.')
  const held = dragging
    ? [
        ...chosen,
        `${of}.${at}`,
        ...(part === 'on' ? [`${of}.${(Number(at) + 1) % outline.lines[Number(of)].n}`] : []),
      ].join()
    : ''
  const before = useRef<{ seen: Knot[]; view: View }>({ seen: [], view })
  const quick = held !== '' && before.current.view === view && before.current.seen.length > crowd
  const seen = useMemo(() => {
    if (quick) return before.current.seen
    return knotsOf(outline, (q) => toDesk(view, q)).filter(
      (k) => k.at[0] > -20 && k.at[1] > -20 && k.at[0] < size.w + 20 && k.at[1] < size.h + 20,
    )
  }, [quick || outline, quick, view, size])
  before.current = { seen, view }
  const picked = new Set(chosen)
  const crowded = seen.length > crowd
  const middles = useMemo(
    () => (crowded || held !== '' ? [] : middlesOf(outline, (q) => toDesk(view, q)).filter((m) => m.long)),
    [outline, crowded, held !== '', view],
  )
  const withHandles = (k: Knot) => !crowded || picked.has(k.id)
  // While some points are dragged, what stands still is painted once and laid under the rest.
  const still = useRef<{ canvas: HTMLCanvasElement; view: View; ids: string } | null>(null)
  useLayoutEffect(() => {
    const c = canvas.current!
    const ratio = devicePixelRatio
    if (c.width !== size.w * ratio || c.height !== size.h * ratio)
      [c.width, c.height] = [size.w * ratio, size.h * ratio]
    const ctx = begin(c, ratio, size)
    if (!quick) {
      still.current = null
      paintLine(ctx, lineOf(outline, onDesk), crowded)
      paintMiddles(ctx, middles)
      paintKnots(ctx, seen, picked, crowded)
    } else {
      const moves = new Set(held.split(','))
      if (!still.current || still.current.view !== view || still.current.ids !== held) {
        const under = document.createElement('canvas')
        ;[under.width, under.height] = [c.width, c.height]
        const u = begin(under, ratio, size)
        paintLine(u, lineOf(outline, onDesk, moves), crowded)
        paintKnots(
          u,
          seen.filter((k) => !moves.has(k.id)),
          picked,
          crowded,
        )
        still.current = { canvas: under, view, ids: held }
      }
      ctx.setTransform(1, 0, 0, 1, 0, 0)
      ctx.drawImage(still.current.canvas, 0, 0)
      ctx.setTransform(ratio, 0, 0, ratio, 0, 0)
      paintLine(ctx, beside(outline, moves, onDesk), crowded)
      paintKnots(ctx, someKnots(outline, moves, onDesk), picked, crowded)
    }
    // What a drag snapped to.
    for (const [x0, y0, x1, y1] of snap) {
      const p = new Path2D()
      p.moveTo(...toDesk(view, [x0, y0]))
      p.lineTo(...toDesk(view, [x1, y1]))
      stroke(ctx, p, paper, 3)
      ctx.setLineDash([4, 3])
      stroke(ctx, p, brass, 1.2)
      ctx.setLineDash([])
    }
  })
  // A press seizes the pointer for a drag, so that the second of two has to be told here. One that dragged something is
  // none.
  const press = useRef({ at: 0, x: 0, y: 0, version: 0 })
  const twice = (e: React.PointerEvent) => {
    const was = press.current
    press.current = { at: e.timeStamp, x: e.clientX, y: e.clientY, version }
    const second =
      e.timeStamp - was.at < 400 && was.version === version && Math.hypot(e.clientX - was.x, e.clientY - was.y) < 6
    if (second) press.current.at = 0
    return second
  }
  const on = (e: React.MouseEvent): XY => {
    const r = canvas.current!.getBoundingClientRect()
    return [e.clientX - r.left, e.clientY - r.top]
  }
  const begins = (id: string, more: string, e: React.PointerEvent) => {
    setSeized(id)
    onGesture('points', id, more, e)
  }
  const find = (e: React.MouseEvent) =>
    under(
      seen,
      withHandles,
      lineOf(outline, (q) => toDesk(view, q)),
      canvas.current!.getContext('2d')!,
      on(e),
    )
  const handles = seen.reduce((n, k) => n + (k.before ? 1 : 0) + (k.after ? 1 : 0), 0)
  return (
    <canvas
      ref={canvas}
      className="absolute inset-0"
      style={{ width: size.w, height: size.h, cursor: over }}
      aria-hidden
      data-points={outline.count}
      data-handles={handles}
      data-snap={snap.length}
      onPointerMove={(e) => {
        if (e.buttons) return
        const u = find(e)
        setOver(u === 'line' ? 'grab' : u ? 'move' : '')
      }}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        const u = find(e)
        if (!u) return
        e.stopPropagation()
        if (u === 'line') {
          const [x, y] = toPage(view, ...on(e))
          if (twice(e)) run('points.insert', { thread, x, y })
          else {
            const middle = middles.find((m) => Math.hypot(m.at[0] - on(e)[0], m.at[1] - on(e)[1]) < near)
            begins(middle?.id ?? engine.spotAt(moment, thread, x, y), '', e)
          }
          return
        }
        const { id, knot } = u
        if (twice(e) && knot) {
          run(knot.smooth ? 'points.corner' : 'points.smooth', { thread, ids: [id] })
          return
        }
        let list = chosen
        if (knot) {
          list = e.shiftKey
            ? chosen.includes(id)
              ? chosen.filter((c) => c !== id)
              : [...chosen, id]
            : chosen.includes(id)
              ? chosen
              : [id]
          set({ points: list })
        }
        begins(id, knot ? list.join(',') : '', e)
      }}
      onDoubleClick={(e) => {
        if (find(e)) e.stopPropagation()
      }}
    />
  )
}
