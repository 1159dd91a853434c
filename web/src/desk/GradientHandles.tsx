// A gradient on the shape that has it: its line with an end to take at either side, its colours along it, and of a
// radial one the rim and the focus.
import type { GradientLine, XY } from '../engine/types'
import type { View } from '../engine/painter'
import { toDesk } from './view'

export function Gradient({
  line,
  view,
  quiet,
  onGesture,
}: {
  line: GradientLine
  view: View
  quiet: boolean
  onGesture: (kind: string, handle: string, move: string, e: React.PointerEvent) => void
}) {
  const [from, to, focus] = [line.from, line.to, line.focus].map((p) => toDesk(view, p))
  const begin = line.radial ? focus : from
  // A focus in the middle is taken beside it, opposite the rim.
  const inMiddle = Math.hypot(focus[0] - from[0], focus[1] - from[1]) < 6
  const l = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1
  const focusAt: XY = inMiddle
    ? [from[0] - ((to[0] - from[0]) / l) * 22, from[1] - ((to[1] - from[1]) / l) * 22]
    : focus
  const start = (handle: string) => (e: React.PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    onGesture('gradient', handle, '', e)
  }
  const grip = (handle: string, p: XY, r: number, words: string) => (
    <circle
      cx={p[0]}
      cy={p[1]}
      r={r}
      fill="transparent"
      style={{ pointerEvents: 'all', cursor: 'move' }}
      data-handle={`gradient-${handle}`}
      onPointerDown={start(handle)}
    >
      <title>{words}</title>
    </circle>
  )
  const stroke = (d: string, width = 1.6) => (
    <>
      <path d={d} fill="none" stroke="#FFFDF8" strokeWidth={width + (width > 1 ? 2.6 : 1.6)} />
      <path d={d} fill="none" stroke="#A8731A" strokeWidth={width} />
    </>
  )
  const inner = line.stops
    .map((s, i) => ({ ...s, i, p: toDesk(view, s.at) }))
    .filter((s) => {
      // Colours at the ends are taken by the strip: here they would lie under the ends.
      return Math.hypot(s.p[0] - begin[0], s.p[1] - begin[1]) > 14 && Math.hypot(s.p[0] - to[0], s.p[1] - to[1]) > 14
    })
  const ring = (p: XY, r = 6.5) => (
    <>
      <circle cx={p[0]} cy={p[1]} r={r} fill="#FFFDF8" stroke="#FFFDF8" strokeWidth="4.5" />
      <circle cx={p[0]} cy={p[1]} r={r} fill="#FFFDF8" stroke="#A8731A" strokeWidth="2" />
    </>
  )
  const dot = (p: XY, colour: string) => <circle cx={p[0]} cy={p[1]} r="3.4" fill={colour} />
  const last = line.stops[line.stops.length - 1]
  return (
    <g opacity={quiet ? 0.8 : 1}>
      {line.radial && stroke(`M${line.rim.map((p) => toDesk(view, p)).join('L')}Z`, 1)}
      {stroke(`M${begin}L${to}`)}
      {line.radial && ring(from, 4)}
      {ring(to)}
      {dot(to, last.colour)}
      {!line.radial && (
        <>
          {ring(from)}
          {dot(from, line.stops[0].colour)}
        </>
      )}
      {line.radial && (
        <g transform={`translate(${focusAt}) rotate(45)`}>
          <rect x="-5" y="-5" width="10" height="10" fill={line.stops[0].colour} stroke="#FFFDF8" strokeWidth="5" />
          <rect x="-5" y="-5" width="10" height="10" fill={line.stops[0].colour} stroke="#A8731A" strokeWidth="2" />
        </g>
      )}
      {inner.map((s) => (
        <g key={s.i}>
          <circle cx={s.p[0]} cy={s.p[1]} r="5" fill={s.colour} stroke="#FFFDF8" strokeWidth="4" />
          <circle cx={s.p[0]} cy={s.p[1]} r="5" fill={s.colour} stroke="#A8731A" strokeWidth="1.6" />
        </g>
      ))}
      {inner.map((s) => (
        <g key={s.i}>{grip(`stop${s.i}`, s.p, 10, 'Place of this colour')}</g>
      ))}
      {line.radial && grip('from', from, 10, 'Middle of the gradient')}
      {line.radial
        ? grip('focus', focusAt, 11, 'Focus: where the first colour is')
        : grip('from', from, 12, 'Begin of the gradient')}
      {grip('to', to, 12, line.radial ? 'Rim of the gradient' : 'End of the gradient')}
    </g>
  )
}
