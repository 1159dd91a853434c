// The frame of a scene's view, at rest: what part of the page is seen. Its line is seized to move it.
import type { View } from '../engine/painter'
import { select, useDesk } from '../project/desk'
import { toDesk, type Start } from './view'

export function ViewFrame({ view, onGesture }: { view: View; onGesture: Start }) {
  const frame = useDesk((d) => d.frame)
  const chosen = useDesk((d) => !!d.frame && d.selection.includes(d.frame.thread))
  const armed = useDesk((d) => d.tool !== 'select' || !!d.picking || d.ordering !== null)
  if (!frame) return null
  const at = frame.corners.map((c) => toDesk(view, c))
  const line = `M${at.map((c) => c.join(' ')).join('L')}Z`
  const [x, y] = at[0]
  const words = `${frame.name} ${Math.round(frame.zoom * 100)} %`
  return (
    <g data-frame={frame.thread}>
      <path d={line} fill="none" stroke="#FFFDF8" strokeWidth="3.5" strokeOpacity="0.85" />
      <path d={line} fill="none" stroke="#8A5B10" strokeWidth={chosen ? 2 : 1.5} strokeDasharray="9 5" />
      <g transform={`translate(${x} ${y - 7})`}>
        <rect x={0} y={-13} width={words.length * 6.4 + 10} height="17" rx="4" fill="#FFFDF8" fillOpacity="0.9" />
        <text x={5} y={0} fontSize="11" fontWeight="600" fill="#8A5B10">
          {words}
        </text>
      </g>
      <path
        d={line}
        fill="none"
        stroke="transparent"
        strokeWidth="12"
        className={armed ? undefined : 'pointer-events-auto cursor-move'}
        onPointerDown={(e) => {
          if (e.button !== 0 || armed) return
          e.stopPropagation()
          if (!chosen) select([frame.thread], '')
          onGesture('move', '', '', e)
        }}
      >
        <title>What part of the page is seen. Drag it; its corners size it once it is selected.</title>
      </path>
    </g>
  )
}
