// The line that the pen draws, with the points it has so far and the next stretch.
import type { Dot, PenView } from '../engine/types'
import type { View } from '../engine/painter'
import { toDesk } from './view'

export function Pen({ pen, view, size }: { pen: PenView; view: View; size: { w: number; h: number } }) {
  const t = `translate(${view.x} ${view.y}) scale(${view.scale})`
  return (
    <svg
      className="pointer-events-none absolute inset-0"
      width={size.w}
      height={size.h}
      aria-hidden
      data-pen={pen.knots.filter((k) => !k.handle).length}
    >
      <path d={pen.d} transform={t} fill="none" stroke="#FFFDF8" strokeWidth="4.5" vectorEffect="non-scaling-stroke" />
      <path d={pen.d} transform={t} fill="none" stroke="#A8731A" strokeWidth="2" vectorEffect="non-scaling-stroke" />
      {pen.next && (
        <path
          d={pen.next}
          transform={t}
          fill="none"
          stroke="#A8731A"
          strokeWidth="1.4"
          strokeDasharray="5 4"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {pen.knots.map((k) => (
        <Knot key={k.id} k={k} view={view} chosen={pen.closes && k.id === '0.0'} />
      ))}
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
  return k.smooth ? (
    <circle cx={p[0]} cy={p[1]} r="5.5" fill={fill} stroke="#A8731A" strokeWidth="2" />
  ) : (
    <rect x={p[0] - 5} y={p[1] - 5} width="10" height="10" rx="1.5" fill={fill} stroke="#A8731A" strokeWidth="2" />
  )
}
