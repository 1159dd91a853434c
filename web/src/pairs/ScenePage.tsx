// A scene as it rests, with its layers to be dragged from and to.
import { clsx } from 'clsx'
import { useEffect, useRef } from 'react'
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import type { Mate } from '../engine/types'
import { useDesk } from '../project/desk'
import { chequers } from '../ui/ColourField'

/** How large a page is here: px a page px, and px. */
export interface Placing {
  scale: number
  w: number
  h: number
}

/** What of a layer lies on the page, px here; what lies in the wings is at the page's edge. */
function boxOf(m: Mate, { scale, w, h }: Placing) {
  const clamp = (v: number, most: number) => Math.max(0, Math.min(most, v))
  const least = 8
  const x = clamp(m.box[0] * scale, w - least)
  const y = clamp(m.box[1] * scale, h - least)
  return {
    x,
    y,
    w: Math.max(least, clamp((m.box[0] + m.box[2]) * scale, w) - x),
    h: Math.max(least, clamp((m.box[1] + m.box[3]) * scale, h) - y),
  }
}

export const middleOf = (m: Mate, placing: Placing) => {
  const b = boxOf(m, placing)
  return { x: b.x + b.w / 2, y: b.y + b.h / 2 }
}

export function ScenePage({
  scene,
  name,
  left,
  placing,
  mates,
  over,
  onOver,
  onGrab,
  onDrop,
}: {
  scene: number
  name: string
  left: number
  placing: Placing
  mates: Mate[]
  over: string | null
  onOver: (thread: string | null) => void
  onGrab: (m: Mate, e: React.PointerEvent) => void
  onDrop: (m: Mate) => void
}) {
  const ref = useRef<HTMLCanvasElement>(null)
  const version = useDesk((d) => d.version)
  useEffect(() => {
    const c = ref.current!
    const dpr = window.devicePixelRatio || 1
    c.width = Math.round(placing.w * dpr)
    c.height = Math.round(placing.h * dpr)
    const scale = placing.scale * dpr
    paint(c.getContext('2d')!, engine.thumb(scene, scale), { scale, x: 0, y: 0 })
  }, [scene, version, placing.w, placing.h])
  // Small ones lie on top: each can be reached.
  const list = mates.toSorted((a, b) => b.box[2] * b.box[3] - a.box[2] * a.box[3])
  return (
    <div className="absolute top-0" style={{ left, width: placing.w }}>
      <canvas
        ref={ref}
        aria-hidden
        className="rounded-[4px] outline outline-1 outline-sailcloth-300"
        style={{ width: placing.w, height: placing.h, background: chequers }}
      />
      {list.map((m) => {
        const b = boxOf(m, placing)
        return (
          <div
            key={m.id}
            title={m.name}
            data-mate={m.thread}
            className={clsx(
              'absolute rounded-[2px] hover:outline hover:outline-2 hover:outline-brass-600',
              over === m.thread && 'outline outline-2 outline-brass-600',
              !m.paired && !m.inside && over !== m.thread && 'outline-dashed outline-[1.5px] outline-coral-700',
            )}
            style={{ left: b.x, top: b.y, width: b.w, height: b.h }}
            onPointerEnter={() => onOver(m.thread)}
            onPointerLeave={() => onOver(null)}
            onPointerDown={(e) => {
              e.preventDefault()
              onGrab(m, e)
            }}
            onPointerUp={() => onDrop(m)}
          />
        )
      })}
      <p className="mt-1 truncate text-[0.75rem] text-ink-600">{name}</p>
    </div>
  )
}
