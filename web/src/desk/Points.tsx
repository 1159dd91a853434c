// Points of a drawn path on the page, and the line that the pen draws. Handles are always shown; a stretch is bent by dragging it
// and gets a point where it is pressed twice.
import { useMemo, useRef } from 'react'
import { engine } from '../engine/engine'
import type { Dot, PenView, XY } from '../engine/types'
import type { View } from '../engine/painter'
import { run } from '../project/commands'
import { set, useDesk } from '../project/desk'
import { toDesk, toPage } from './view'

type Start = (kind: string, handle: string, move: string, e: React.PointerEvent) => void

export function Pen({ pen, view, size }: { pen: PenView; view: View; size: { w: number; h: number } }) {
  const t = `translate(${view.x} ${view.y}) scale(${view.scale})`
  return (
    <svg className="pointer-events-none absolute inset-0" width={size.w} height={size.h} aria-hidden data-pen={pen.knots.filter((k) => !k.handle).length}>
      <path d={pen.d} transform={t} fill="none" stroke="#FFFDF8" strokeWidth="4.5" vectorEffect="non-scaling-stroke" />
      <path d={pen.d} transform={t} fill="none" stroke="#A8731A" strokeWidth="2" vectorEffect="non-scaling-stroke" />
      {pen.next && <path d={pen.next} transform={t} fill="none" stroke="#A8731A" strokeWidth="1.4" strokeDasharray="5 4" vectorEffect="non-scaling-stroke" />}
      {pen.knots.map((k) => <Knot key={k.id} k={k} view={view} chosen={pen.closes && k.id === '0.0'} />)}
    </svg>
  )
}

function Knot({ k, view, chosen }: { k: Dot; view: View; chosen: boolean }) {
  const [p, of] = [toDesk(view, k.at), toDesk(view, k.of)]
  if (k.handle) {
    return (
      <>
        <path d={`M${of}L${p}`} stroke="#FFFDF8" strokeWidth="3" />
        <path d={`M${of}L${p}`} stroke="#A8731A" strokeWidth="1.2" />
        <circle cx={p[0]} cy={p[1]} r="4.5" fill="#A8731A" stroke="#FFFDF8" strokeWidth="1.6" />
      </>
    )
  }
  const fill = chosen ? '#A8731A' : '#FFFDF8'
  return k.smooth
    ? <circle cx={p[0]} cy={p[1]} r="5.5" fill={fill} stroke="#A8731A" strokeWidth="2" />
    : <rect x={p[0] - 5} y={p[1] - 5} width="10" height="10" rx="1.5" fill={fill} stroke="#A8731A" strokeWidth="2" />
}

export function Points({ thread, view, onGesture }: { thread: string; view: View; onGesture: Start }) {
  const moment = useDesk((d) => d.moment)
  const version = useDesk((d) => d.version)
  const chosen = useDesk((d) => d.points)
  const outline = useMemo(() => engine.outlineOf(moment, thread), [moment, version, thread])
  const t = `translate(${view.x} ${view.y}) scale(${view.scale})`
  // A press seizes the pointer for a drag, so that the second of two has to be told here.
  const press = useRef({ at: 0, x: 0, y: 0 })
  const twice = (e: React.PointerEvent) => {
    const was = press.current
    press.current = { at: e.timeStamp, x: e.clientX, y: e.clientY }
    const second = e.timeStamp - was.at < 400 && Math.hypot(e.clientX - was.x, e.clientY - was.y) < 6
    if (second) press.current.at = 0
    return second
  }
  const on = (e: React.MouseEvent): XY => {
    const r = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
    return toPage(view, e.clientX - r.left, e.clientY - r.top)
  }
  return (
    <g data-points={outline.count}>
      <path d={outline.d} transform={t} fill="none" stroke="#FFFDF8" strokeWidth="3.5" vectorEffect="non-scaling-stroke" />
      <path d={outline.d} transform={t} fill="none" stroke="#A8731A" strokeWidth="1.4" vectorEffect="non-scaling-stroke" />
      <path
        d={outline.d} transform={t} fill="none" stroke="transparent" strokeWidth="13" vectorEffect="non-scaling-stroke" style={{ pointerEvents: 'stroke', cursor: 'grab' }} data-outline
        onPointerDown={(e) => {
          if (e.button !== 0) return
          e.stopPropagation()
          const [x, y] = on(e)
          if (twice(e)) run('points.insert', { thread, x, y })
          else onGesture('points', engine.spotAt(moment, thread, x, y), '', e)
        }}
        onDoubleClick={(e) => e.stopPropagation()}
      />
      {outline.knots.filter((k) => k.handle).map((k) => <Knot key={k.id} k={k} view={view} chosen={false} />)}
      {outline.knots.filter((k) => !k.handle).map((k) => <Knot key={k.id} k={k} view={view} chosen={chosen.includes(k.id)} />)}
      {[...outline.knots].sort((a, b) => Number(b.handle) - Number(a.handle)).map((k) => {
        const [x, y] = toDesk(view, k.at)
        return (
          <circle
            key={k.id} cx={x} cy={y} r="10" fill="transparent" style={{ pointerEvents: 'all', cursor: 'move' }} data-point={k.id}
            onPointerDown={(e) => {
              if (e.button !== 0) return
              e.stopPropagation()
              if (twice(e) && !k.handle) {
                run(k.smooth ? 'points.corner' : 'points.smooth', { thread, ids: [k.id] })
                return
              }
              let list = chosen
              if (!k.handle) {
                list = e.shiftKey ? (chosen.includes(k.id) ? chosen.filter((c) => c !== k.id) : [...chosen, k.id]) : chosen.includes(k.id) ? chosen : [k.id]
                set({ points: list })
              }
              onGesture('points', k.id, k.handle ? '' : list.join(','), e)
            }}
            onDoubleClick={(e) => e.stopPropagation()}
          />
        )
      })}
    </g>
  )
}
