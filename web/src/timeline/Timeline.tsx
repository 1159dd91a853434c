// The timeline: the film along time, a row for every thread.
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Film, Row } from '../engine/types'
import { desk, goToTime, useDesk } from '../project/desk'
import { Heads } from './RowHead'
import { Bars } from './Bars'
import { Scenes } from './Scenes'
import { Transport } from './Transport'

/** Width of the row heads, height of a row, of the ruler and of the scenes, in px. */
export const head = 204
export const rowHeight = 25
const ruler = 18
const scenesHeight = 58

/** From film time to px and back. */
export interface Scale { perMs: number; width: number }

export function Timeline() {
  const film = useDesk((d) => d.film)
  const rows = useDesk((d) => d.rows)
  const scroller = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  const [zoom, setZoom] = useState(1) // 1: the film fits
  const [folded, setFolded] = useState<Set<string> | null>(null) // null: all groups are
  const [all, setAll] = useState(false)

  useLayoutEffect(() => {
    const o = new ResizeObserver(([e]) => setWidth(e.contentRect.width - head))
    o.observe(scroller.current!)
    return () => o.disconnect()
  }, [])

  const scale = useMemo<Scale>(() => {
    const length = Math.max(film?.length ?? 1, 1)
    const fit = Math.max(width - 72, 100) / length
    return { perMs: fit * zoom, width: Math.max(width, length * fit * zoom + 72) }
  }, [film, width, zoom])

  const shown = useMemo(() => visible(rows, folded, all), [rows, folded, all])

  // The wheel zooms at the pointer over the scenes and with Ctrl; elsewhere it scrolls.
  useEffect(() => {
    const el = scroller.current!
    const wheel = (e: WheelEvent) => {
      const r = el.getBoundingClientRect()
      if (!(e.ctrlKey || e.metaKey || e.clientY - r.top < ruler + scenesHeight)) return
      e.preventDefault()
      const x = e.clientX - r.left - head
      setZoom((z) => {
        const next = Math.min(60, Math.max(1, z * Math.exp(-e.deltaY * 0.002)))
        const at = (el.scrollLeft + x) / z
        requestAnimationFrame(() => { el.scrollLeft = at * next - x })
        return next
      })
    }
    el.addEventListener('wheel', wheel, { passive: false })
    return () => el.removeEventListener('wheel', wheel)
  }, [])

  if (!film) return <div ref={scroller} />
  const fold = (thread: string) => {
    const now = folded ?? new Set(rows.filter((r) => r.group).map((r) => r.thread))
    const next = new Set(now)
    if (!next.delete(thread)) next.add(thread)
    setFolded(next)
  }
  const height = ruler + scenesHeight
  return (
    <section aria-label="Timeline" className="on-spruce relative flex min-h-0 min-w-0 flex-1 bg-spruce-950 text-foam-100">
      <div ref={scroller} data-timeline className="thin-scroll relative min-w-0 flex-1 overflow-auto">
        <div className="relative" style={{ width: head + scale.width, minHeight: '100%' }}>
          <div className="sticky top-0 z-20 flex bg-spruce-950" style={{ height }}>
            <div className="sticky left-0 z-10 bg-spruce-950" style={{ width: head }}>
              <Transport all={all} onAll={setAll} onFit={() => setZoom(1)} fitted={zoom === 1} />
            </div>
            <div className="relative" style={{ width: scale.width }}>
              <Ruler film={film} scale={scale} height={ruler} />
              <Scenes film={film} scale={scale} top={ruler} height={scenesHeight - 6} />
              <Playhead scale={scale} marked />
            </div>
          </div>
          <div className="relative flex" style={{ minHeight: `calc(100% - ${height}px)` }}>
            <div className="sticky left-0 z-10 shrink-0 bg-spruce-950" style={{ width: head }}>
              <Heads rows={shown} folded={folded} onFold={fold} />
            </div>
            <div className="relative min-h-full">
              <Bars rows={shown} film={film} scale={scale} />
              <Playhead scale={scale} />
            </div>
          </div>
        </div>
      </div>
    </section>
  )
}

/** Rows that are shown: not inside a folded group, and with the filter here only those of the scene. */
function visible(rows: Row[], folded: Set<string> | null, all: boolean): Row[] {
  const hidden = new Set<string>()
  return rows.filter((r) => {
    const inside = r.parent !== '' && (hidden.has(r.parent) || folded === null || folded.has(r.parent))
    if (inside) hidden.add(r.thread)
    return !inside && (all || r.here)
  })
}

function Ruler({ film, scale, height }: { film: Film; scale: Scale; height: number }) {
  const step = [10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 30000, 60000].find((s) => s * scale.perMs > 56) ?? 60000
  const marks = []
  for (let t = 0; t <= film.length + step * 0.01; t += step) marks.push(t)
  const scrub = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect()
    goToTime(Math.min(film.length, Math.max(0, (e.clientX - r.left) / scale.perMs)))
  }
  return (
    <div
      className="relative cursor-ew-resize" style={{ height }} data-ruler
      role="slider" tabIndex={0} aria-label="Playhead" aria-valuemin={0} aria-valuemax={film.length / 1000} aria-valuenow={Math.round(desk().moment.time) / 1000}
      onPointerDown={(e) => { e.currentTarget.setPointerCapture(e.pointerId); scrub(e) }}
      onPointerMove={(e) => e.buttons & 1 && scrub(e)}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        const now = desk().moment.time
        goToTime(e.shiftKey ? now + by * 100 : engine.step(now, by))
      }}
    >
      {marks.map((t) => (
        <span key={t} className="pointer-events-none absolute bottom-0 border-l border-foam-500/50 pl-1 font-mono text-[11px] leading-[14px] text-foam-500" style={{ left: t * scale.perMs, height: 14 }}>
          {step < 1000 ? (t / 1000).toFixed(step < 100 ? 2 : 1) : t / 1000}
        </span>
      ))}
    </div>
  )
}

/** The playhead follows every frame without rendering anything else. */
function Playhead({ scale, marked = false }: { scale: Scale; marked?: boolean }) {
  const ref = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const place = () => {
      const m = desk().moment
      if (!ref.current) return
      ref.current.style.transform = `translateX(${m.time * scale.perMs}px)`
      ref.current.style.opacity = m.rest ? '0.45' : '1'
    }
    place()
    return useDesk.subscribe((d, was) => { if (d.moment !== was.moment) place() })
  }, [scale])
  return (
    <div ref={ref} data-playhead={marked || undefined} className="pointer-events-none absolute inset-y-0 left-0 z-[15] w-0">
      <div className="absolute inset-y-0 -left-px w-[2px] bg-brass-400" />
      {marked && <svg className="absolute -left-[7px] top-0" width="14" height="16" viewBox="0 0 14 16" aria-hidden>
        <path d="M1 1h12v8l-6 6-6-6z" fill="#C99A3B" />
      </svg>}
    </div>
  )
}
