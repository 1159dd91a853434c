// Where the selected layers were and will be, and how they stand when their moves begin and end.
import type { Ghost, XY } from '../engine/types'
import { useDesk } from '../project/desk'
import type { View } from '../engine/painter'
import { toDesk } from './view'

/** Outlines of where the selected layers were and will be, at even times. */
export function Ghosts({ ghosts, view }: { ghosts: Ghost[]; view: View }) {
  const now = useDesk((d) => d.moment.time)
  return ghosts.map((g, i) => {
    const c = g.corners.map((p) => toDesk(view, p))
    return (
      <g key={i} data-ghost={g.time} opacity={g.time <= now ? 0.5 : 0.85}>
        <path d={`M${c.join('L')}Z`} fill="#A8731A" fillOpacity="0.06" stroke="#FFFDF8" strokeWidth="2" />
        <path
          d={`M${c.join('L')}Z`}
          fill="none"
          stroke="#8A5B10"
          strokeWidth="1"
          strokeDasharray={g.time <= now ? '2 3' : undefined}
        />
      </g>
    )
  })
}

/** When the selected layers stand as they are shown faintly: at the begin and at the end of their moves. */
export function Ends({ ends, view }: { ends: Ghost[]; view: View }) {
  return ends.map((g, i) => {
    const c = g.corners.map((p) => toDesk(view, p))
    const x = (Math.min(...c.map((p) => p[0])) + Math.max(...c.map((p) => p[0]))) / 2
    return (
      <g key={i} data-end={g.time}>
        <path d={`M${c.join('L')}Z`} fill="none" stroke="#FFFDF8" strokeWidth="2" strokeOpacity="0.7" />
        <path
          d={`M${c.join('L')}Z`}
          fill="none"
          stroke="#8A5B10"
          strokeWidth="1"
          strokeDasharray={i % 2 ? undefined : '2 3'}
        />
        <TimeTag at={[x, Math.min(...c.map((p) => p[1])) - 12]} text={(g.time / 1000).toFixed(2)} />
      </g>
    )
  })
}

export function TimeTag({ at, text }: { at: XY; text: string }) {
  return (
    <g transform={`translate(${at})`}>
      <rect x="-19" y="-9" width="38" height="18" rx="3" fill="#FFFDF8" />
      <text textAnchor="middle" y="4" fontSize="11" fontFamily="Spline Sans Mono" fontWeight="600" fill="#8A5B10">
        {text}
      </text>
    </g>
  )
}
