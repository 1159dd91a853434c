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

const setPoints = (r: SoundRow, points: SoundRow['points'], done: boolean) =>
  done
    ? run('sound.set', { ids: [r.id], patch: { points: points.length ? points : null } })
    : draft('sound.set', { ids: [r.id], patch: { points: points.length ? points : null } }, true) === ''

// A double press on a bar adds a point to the course of its volume.
export function addPoint(e: React.MouseEvent<HTMLElement>, r: SoundRow, scale: Scale) {
  e.stopPropagation()
  if ((e.target as Element).closest('[data-point], [data-grip]')) return
  const box = e.currentTarget.getBoundingClientRect()
  const at = Math.round((e.clientX - box.left) / scale.perMs)
  const gain = dbOf(e.clientY - box.top)
  setPoints(
    r,
    [...r.points.filter((p) => p.at !== at), { at, gain }].sort((a, b) => a.at - b.at),
    true,
  )
}

/** The points of the course of a volume: dragged along time and up and down; a double press takes one away. */
export function Points({ row: r, scale }: { row: SoundRow; scale: Scale }) {
  const press = useRef<{ x: number; y: number; i: number; of: SoundRow; to: SoundRow['points'] } | null>(null)
  const moved = (of: SoundRow, i: number, ms: number, db: number) => {
    const [least, most] = [(of.points[i - 1]?.at ?? -1) + 1, (of.points[i + 1]?.at ?? of.end - of.begin + 1) - 1]
    return of.points.map((p, k) =>
      k === i
        ? { at: Math.round(Math.max(least, Math.min(most, p.at + ms))), gain: Math.max(-60, Math.min(24, p.gain + db)) }
        : p,
    )
  }
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
        press.current = { x: e.clientX, y: e.clientY, i, of: r, to: r.points }
        set({ dragging: true })
        hold(cancel)
      }}
      onPointerMove={(e) => {
        const d = press.current
        if (!d) return
        const db = dbOf(downOf(d.of.points[d.i].gain) + e.clientY - d.y) - dbOf(downOf(d.of.points[d.i].gain))
        d.to = moved(d.of, d.i, (e.clientX - d.x) / scale.perMs, db)
        setPoints(d.of, d.to, false)
      }}
      onPointerUp={() => {
        const d = press.current
        press.current = null
        letGo()
        if (!d) return
        set({ dragging: false })
        engine.clearDraft()
        if (d.to === d.of.points || !setPoints(d.of, d.to, true)) refresh()
      }}
      onPointerCancel={cancel}
      onDoubleClick={(e) => {
        e.stopPropagation()
        setPoints(
          r,
          r.points.filter((_, k) => k !== i),
          true,
        )
      }}
      onKeyDown={(e) => {
        const ms = { ArrowLeft: -50, ArrowRight: 50 }[e.key]
        const db = { ArrowUp: 0.5, ArrowDown: -0.5 }[e.key]
        if (ms || db) grouped('volume', () => setPoints(r, moved(r, i, ms ?? 0, db ?? 0), true))
        else if (e.key === 'Delete' || e.key === 'Backspace')
          setPoints(
            r,
            r.points.filter((_, k) => k !== i),
            true,
          )
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      <span className="h-2 w-2 rotate-45 border-[1.5px] border-brass-200 bg-spruce-950" />
    </span>
  ))
}
