// Rings on a shape: its numbers, dragged on the page. Name and value are told on hover and while it is dragged.
import { useState } from 'react'
import type { Ring } from '../engine/types'
import type { View } from '../engine/painter'
import { toDesk } from './view'

export function Rings({
  rings,
  view,
  quiet,
  onGesture,
}: {
  rings: Ring[]
  view: View
  quiet: boolean
  onGesture: (kind: string, handle: string, move: string, e: React.PointerEvent) => void
}) {
  const [over, setOver] = useState('')
  return (
    <>
      {rings.map((r) => {
        const [x, y] = toDesk(view, r.at)
        return (
          <g key={r.id} transform={`translate(${x} ${y})`} opacity={quiet ? 0.85 : 1}>
            <circle r="5" fill="none" stroke="#FFFDF8" strokeWidth="5" />
            <circle r="5" fill="#FFFDF8" fillOpacity="0.7" stroke="#A8731A" strokeWidth="2" />
            {over === r.id && !quiet && <Tag text={`${r.name} ${r.value}`.trim()} />}
            <circle
              r="12"
              fill="transparent"
              style={{ pointerEvents: 'all', cursor: 'pointer' }}
              data-ring={r.id}
              onPointerEnter={() => setOver(r.id)}
              onPointerLeave={() => setOver('')}
              onPointerDown={(e) => {
                if (e.button !== 0) return
                e.stopPropagation()
                onGesture('shape', r.id, '', e)
              }}
            />
          </g>
        )
      })}
    </>
  )
}

function Tag({ text }: { text: string }) {
  const w = text.length * 6.7 + 14
  return (
    <g transform="translate(12 -26)">
      <rect width={w} height="20" rx="4" fill="#FFFDF8" stroke="#D8CEBA" />
      <text x="7" y="14" fontSize="11" fontFamily="Spline Sans Mono" fill="#1A2421">
        {text}
      </text>
    </g>
  )
}
