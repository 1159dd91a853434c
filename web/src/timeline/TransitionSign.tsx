// The sign of a transition, drawn into the gap between two scenes.
import type { TransitionKind } from '../engine/types'
import { strand } from './shape'

export function TransitionSign({
  kind,
  width: w,
  height,
  direction,
  goesOn,
}: {
  kind: TransitionKind
  width: number
  height: number
  direction: number
  goesOn: boolean
}) {
  const mid = height * 0.42
  const [a, b] = strand(2, Math.max(w - 2, 3), mid, 9)
  const c = w / 2
  return (
    <svg width={w} height={height} aria-hidden className="absolute inset-0">
      {kind === 'morph' && (
        <g fill="none" strokeWidth="1.8">
          <path d={b} stroke="#4C9AB8" />
          <path d={a} stroke="#EAF2EC" />
        </g>
      )}
      {kind === 'crossfade' && (
        <g fill="none" strokeWidth="1.8">
          <path d={`M2 ${mid + 9}L${w - 2} ${mid - 9}`} stroke="#4C9AB8" />
          <path d={`M2 ${mid - 9}L${w - 2} ${mid + 9}`} stroke="#EAF2EC" />
        </g>
      )}
      {kind === 'cut' && <path d={`M${c} 8V${height - 8}`} stroke="#8FA8A1" strokeWidth="1.2" strokeDasharray="2 3" />}
      {kind === 'wipe' && (
        <g transform={`rotate(${direction} ${c} ${mid})`} fill="none" strokeWidth="1.8">
          <path d={`M${c - 7} ${mid - 8}v16`} stroke="#4C9AB8" />
          <path d={`M${c - 1} ${mid - 8}v16M${c + 3} ${mid - 4}l4 4l-4 4`} stroke="#EAF2EC" />
        </g>
      )}
      {kind === 'push' && (
        <g transform={`rotate(${direction} ${c} ${mid})`} fill="none" strokeWidth="1.8">
          <path d={`M${c - 9} ${mid - 6}h7v12h-7`} stroke="#EAF2EC" />
          <path d={`M${c + 9} ${mid - 6}h-7v12h7`} stroke="#4C9AB8" />
        </g>
      )}
      {goesOn && <path d={`M1 ${mid - 14}h${w - 2}`} stroke="#C99A3B" strokeWidth="2" strokeLinecap="round" />}
    </svg>
  )
}
