// An easing as a curve: time goes right, progress up. Its two handles are dragged, or moved by arrow keys.
import { useRef } from 'react'
import type { EasingCurve as Curve } from '../engine/types'
import { hold, letGo } from '../ui/drags'

const [wide, high] = [196, 132]
const [left, top, w, h] = [14, 30, 168, 72] // of the square of 0..1; beyond it the curve may overshoot

const x = (v: number) => left + v * w
const y = (v: number) => top + (1 - v) * h
const path = (at: number[]) =>
  at.map((v, i) => `${i ? 'L' : 'M'}${x(i / (at.length - 1)).toFixed(1)} ${y(v).toFixed(1)}`).join('')
const css = (v: number[]) => `cubic-bezier(${v.map((n) => Number(n.toFixed(2))).join(', ')})`
const clamp = (v: number, a: number, b: number) => Math.max(a, Math.min(b, v))

/** The small sign of a curve. */
export function EasingSign({ curve }: { curve: Curve | null }) {
  if (!curve) return null
  const d = curve.at.map((v, i) => `${i ? 'L' : 'M'}${2 + (i / (curve.at.length - 1)) * 18} ${17 - v * 12}`).join('')
  return (
    <svg width="22" height="22" viewBox="0 0 22 22" aria-hidden>
      <path d={d} fill="none" stroke="currentColor" strokeWidth="1.5" strokeLinejoin="round" />
    </svg>
  )
}

export function EasingCurve({ name, curve, onSet }: { name: string; curve: Curve; onSet: (css: string) => void }) {
  const svg = useRef<SVGSVGElement>(null)
  const drag = useRef(-1)
  // What is no single curve begins as an even one.
  const v = curve.handles ?? [1 / 3, 1 / 3, 2 / 3, 2 / 3]
  const put = (i: number, px: number, py: number) => {
    const n = [...v]
    n[2 * i] = clamp(px, 0, 1)
    n[2 * i + 1] = clamp(py, -1, 2)
    onSet(css(n))
  }
  return (
    <svg
      ref={svg}
      width="100%"
      viewBox={`0 0 ${wide} ${high}`}
      className="touch-none select-none rounded-md border border-sailcloth-300 bg-paper"
      data-easing={name}
      onPointerMove={(e) => {
        if (drag.current < 0) return
        const r = svg.current!.getBoundingClientRect()
        const k = wide / r.width
        put(drag.current, ((e.clientX - r.left) * k - left) / w, 1 - ((e.clientY - r.top) * k - top) / h)
      }}
      onPointerUp={() => {
        if (drag.current < 0) return
        drag.current = -1
        letGo()
      }}
    >
      <rect x={left} y={top} width={w} height={h} fill="#F3ECDD" />
      <path d={`M${x(0)} ${y(0)}L${x(1)} ${y(1)}`} stroke="#C9BFA8" strokeDasharray="3 3" />
      <path d={path(curve.at)} fill="none" stroke="#17403C" strokeWidth="2" strokeLinejoin="round" />
      {curve.handles && (
        <>
          <path d={`M${x(0)} ${y(0)}L${x(v[0])} ${y(v[1])}M${x(1)} ${y(1)}L${x(v[2])} ${y(v[3])}`} stroke="#8A5B10" />
          {[0, 1].map((i) => (
            <circle
              key={i}
              cx={x(v[2 * i])}
              cy={y(v[2 * i + 1])}
              r="6"
              tabIndex={0}
              role="slider"
              aria-label={`${name}: ${i === 0 ? 'first' : 'second'} handle`}
              aria-valuenow={Number(v[2 * i + 1].toFixed(2))}
              aria-valuetext={`${v[2 * i].toFixed(2)} of the time, ${v[2 * i + 1].toFixed(2)} of the way`}
              fill="#E0B658"
              stroke="#17403C"
              strokeWidth="1.5"
              className="cursor-grab"
              onPointerDown={(e) => {
                if (e.button !== 0) return
                drag.current = i
                svg.current!.setPointerCapture(e.pointerId)
                hold(() => {
                  drag.current = -1
                  letGo()
                })
              }}
              onKeyDown={(e) => {
                const step = e.shiftKey ? 0.1 : 0.01
                const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, step], ArrowDown: [0, -step] }[
                  e.key
                ]
                if (!by) return
                e.preventDefault()
                e.stopPropagation()
                put(i, v[2 * i] + by[0], v[2 * i + 1] + by[1])
              }}
            />
          ))}
        </>
      )}
    </svg>
  )
}
