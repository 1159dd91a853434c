// A motion path on the page, with the points of a free one.
import type { Away, OverlayPath, XY } from '../engine/types'
import { run } from '../project/commands'
import type { View } from '../engine/painter'
import { toDesk, type Start } from './view'
import { TimeTag } from './Ghosts'

const Dashed = ({ corners, view }: { corners: XY[]; view: View }) => {
  const d = corners.map((p) => toDesk(view, p)).join('L')
  return (
    <>
      <path d={`M${d}Z`} fill="none" stroke="#FFFDF8" strokeWidth="2.5" />
      <path d={`M${d}Z`} fill="none" stroke="#A8731A" strokeWidth="1.2" strokeDasharray="5 4" />
    </>
  )
}

/** Where a layer is when a move of it begins or ends that has it elsewhere than at rest, with when that is. */
export function AwayOutline({ away, view }: { away: Away; view: View }) {
  const at = toDesk(view, away.corners[0])
  return (
    <g data-away={away.move}>
      <Dashed corners={away.corners} view={view} />
      <TimeTag at={[at[0] + 18, at[1] - 8]} text={(away.at / 1000).toFixed(2)} />
    </g>
  )
}

export function MotionPath({ path, view, onGesture }: { path: OverlayPath; view: View; onGesture: Start }) {
  const t = `translate(${view.x} ${view.y}) scale(${view.scale})`
  const [from, to, mid] = [path.from, path.to, path.mid].map((p) => toDesk(view, p))
  const seconds = (ms: number) => (ms / 1000).toFixed(2)
  const start = (handle: string) => (e: React.PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    onGesture('path', handle, path.move, e)
  }
  const grip = (handle: string, p: XY, cursor = 'move') => (
    <circle
      cx={p[0]}
      cy={p[1]}
      r="12"
      fill="transparent"
      style={{ pointerEvents: 'all', cursor }}
      data-path={handle}
      onPointerDown={start(handle)}
    />
  )
  return (
    <g>
      <Dashed corners={path.ghost} view={view} />
      <path d={path.d} transform={t} fill="none" stroke="#FFFDF8" strokeWidth="5" vectorEffect="non-scaling-stroke" />
      <path d={path.d} transform={t} fill="none" stroke="#A8731A" strokeWidth="2" vectorEffect="non-scaling-stroke" />
      {path.dots.map((p, i) => {
        const [x, y] = toDesk(view, p)
        return <circle key={i} cx={x} cy={y} r="2.6" fill="#A8731A" stroke="#FFFDF8" strokeWidth="1.2" />
      })}
      {path.knots.length === 0 && (
        <circle cx={mid[0]} cy={mid[1]} r="4.5" fill="#FFFDF8" stroke="#A8731A" strokeWidth="1.6" />
      )}
      <circle cx={from[0]} cy={from[1]} r="6" fill="#FFFDF8" stroke="#A8731A" strokeWidth="2" />
      <g transform={`translate(${to}) rotate(${path.angle})`}>
        <path d="M7 0L-4 -6L-1 0L-4 6Z" fill="#A8731A" stroke="#FFFDF8" strokeWidth="1.5" strokeLinejoin="round" />
      </g>
      <TimeTag at={[from[0] - 18, from[1] + 24]} text={seconds(path.begin)} />
      <TimeTag at={[to[0] + 28, to[1] + 6]} text={seconds(path.end)} />
      {path.knots.length === 0 ? (
        grip('mid', mid, 'grab')
      ) : (
        <path
          d={path.d}
          transform={t}
          fill="none"
          stroke="transparent"
          strokeWidth="14"
          vectorEffect="non-scaling-stroke"
          style={{ pointerEvents: 'stroke', cursor: 'copy' }}
          data-path="line"
          onDoubleClick={(e) => {
            const r = e.currentTarget.ownerSVGElement!.getBoundingClientRect()
            e.stopPropagation()
            run('path.knot.add', {
              move: path.move,
              x: (e.clientX - r.left - view.x) / view.scale,
              y: (e.clientY - r.top - view.y) / view.scale,
            })
          }}
        />
      )}
      <Knots path={path} view={view} start={start} />
      {grip('from', from)}
      {grip('to', to)}
    </g>
  )
}

/**
 * Points of a free path and their handles. Pressed twice, a point is taken out; pressed twice, the line gets a new
 * one.
 */
function Knots({
  path,
  view,
  start,
}: {
  path: OverlayPath
  view: View
  start: (handle: string) => (e: React.PointerEvent) => void
}) {
  return path.knots.map((k) => {
    const p = toDesk(view, k.at)
    const of = toDesk(view, k.of)
    return (
      <g key={k.index}>
        {k.handle && <path d={`M${of}L${p}`} stroke="#A8731A" strokeWidth="1.2" />}
        {k.handle ? (
          <circle cx={p[0]} cy={p[1]} r="3.6" fill="#A8731A" stroke="#FFFDF8" strokeWidth="1.4" />
        ) : (
          <rect
            x={p[0] - 4.5}
            y={p[1] - 4.5}
            width="9"
            height="9"
            rx="2"
            fill="#FFFDF8"
            stroke="#A8731A"
            strokeWidth="1.6"
          />
        )}
        <circle
          cx={p[0]}
          cy={p[1]}
          r="12"
          fill="transparent"
          style={{ pointerEvents: 'all', cursor: 'move' }}
          data-path={`knot${k.index}`}
          onPointerDown={start(`knot${k.index}`)}
          onDoubleClick={(e) => {
            e.stopPropagation()
            if (!k.handle) run('path.knot.remove', { move: path.move, index: k.index })
          }}
        />
      </g>
    )
  })
}
