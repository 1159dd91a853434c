// The course of a sound's volume on its bar: points that are added, dragged and taken away.
import { useRef } from 'react'
import { engine } from '../engine/engine'
import type { SoundRow } from '../engine/types'
import { draft, run } from '../project/commands'
import { dropDraft, refresh, set } from '../project/desk'
import { grouped } from '../project/steps'
import { hold, letGo } from '../ui/drags'
import { soundHeight, type Scale } from './scale'

/** How far down a volume lies in a bar, in px, and back: 0 dB lies high, -36 at the floor, as the line is drawn. */
const downOf = (db: number) => 4 + (soundHeight - 13) * Math.min(1, Math.max(0, -db / 36))
const dbOf = (y: number) => Math.round(-36 * Math.min(1, Math.max(0, (y - 4) / (soundHeight - 13))) * 2) / 2

// A double press on a bar adds a point to the course of its volume.
export function addPoint(e: React.MouseEvent<HTMLElement>, r: SoundRow, scale: Scale) {
  e.stopPropagation()
  if ((e.target as Element).closest('[data-point], [data-grip]')) return
  const box = e.currentTarget.getBoundingClientRect()
  const at = Math.round((e.clientX - box.left) / scale.perMs)
  run('point.add', { id: r.id, at, gain: dbOf(e.clientY - box.top) })
}

/** The points of the course of a volume: dragged along time and up and down; a double press takes one away. */
export function Points({ row: r, scale }: { row: SoundRow; scale: Scale }) {
  const press = useRef<{ x: number; y: number; index: number; of: SoundRow; by: number; louder: number } | null>(null)
  const cancel = () => {
    press.current = null
    letGo()
    set({ dragging: false })
    dropDraft(true)
  }
  return r.points.map((p, i) => (
    <span
      key={i}
      role="button"
      tabIndex={0}
      data-point={i}
      aria-label={`Volume of ${r.name} at ${(p.at / 1000).toFixed(2)} s: ${p.gain} dB`}
      title="Drag to change the volume there; double press to take it away"
      className="absolute flex h-4 w-4 cursor-move items-center justify-center"
      style={{ left: p.at * scale.perMs - 8, top: downOf(p.gain) - 8 }}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        e.stopPropagation()
        e.currentTarget.setPointerCapture(e.pointerId)
        press.current = { x: e.clientX, y: e.clientY, index: i, of: r, by: 0, louder: 0 }
        set({ dragging: true })
        hold(cancel)
      }}
      onPointerMove={(e) => {
        const d = press.current
        if (!d) return
        const was = downOf(d.of.points[d.index].gain)
        d.louder = dbOf(was + e.clientY - d.y) - dbOf(was)
        d.by = Math.round((e.clientX - d.x) / scale.perMs)
        draft('point.move', { id: d.of.id, index: d.index, by: d.by, louder: d.louder }, true)
      }}
      onPointerUp={() => {
        const d = press.current
        press.current = null
        letGo()
        if (!d) return
        set({ dragging: false })
        engine.clearDraft()
        const { of, index, by, louder } = d
        if ((!by && !louder) || !run('point.move', { id: of.id, index, by, louder })) refresh()
      }}
      onPointerCancel={cancel}
      onDoubleClick={(e) => {
        e.stopPropagation()
        run('point.delete', { id: r.id, index: i })
      }}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -50, ArrowRight: 50 }[e.key] ?? 0
        const louder = { ArrowUp: 0.5, ArrowDown: -0.5 }[e.key] ?? 0
        if (by || louder) grouped('volume', () => run('point.move', { id: r.id, index: i, by, louder }))
        else if (e.key === 'Delete' || e.key === 'Backspace') run('point.delete', { id: r.id, index: i })
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      <span className="h-2 w-2 rotate-45 border-[1.5px] border-brass-200 bg-spruce-950" />
    </span>
  ))
}
