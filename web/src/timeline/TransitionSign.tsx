// The sign of a transition, drawn into the gap between two scenes.
import { engine } from '../engine/engine'
import { strand } from './shape'

export function TransitionSign({
  kind,
  width: w,
  height,
  direction,
  goesOn,
}: {
  kind: string
  width: number
  height: number
  direction: number
  goesOn: boolean
}) {
  const mid = height * 0.42
  const [a, b] = strand(2, Math.max(w - 2, 3), mid, 9)
  const c = w / 2
  const page = engine.fields().pages.find((v) => v.kind === kind && v.leaves)
  return (
    <svg width={w} height={height} aria-hidden className="absolute inset-0">
      {kind === 'morph' && (
        <g fill="none" strokeWidth="1.8">
          <path d={b} stroke="#4C9AB8" />
          <path d={a} stroke="#EAF2EC" />
        </g>
      )}
      {kind === 'cut' && <path d={`M${c} 8V${height - 8}`} stroke="#8FA8A1" strokeWidth="1.2" strokeDasharray="2 3" />}
      {page && (
        <g transform={`translate(${c} ${mid}) rotate(${page.turns ? direction : 0})`} fill="none" strokeWidth="1.8">
          <path d={page.leaves} stroke="#4C9AB8" />
          <path d={page.comes} stroke="#EAF2EC" />
        </g>
      )}
      {goesOn && <path d={`M1 ${mid - 14}h${w - 2}`} stroke="#C99A3B" strokeWidth="2" strokeLinecap="round" />}
    </svg>
  )
}
