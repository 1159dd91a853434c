// The ruler above the scenes: time, the playhead, cues as flags, and the two marks to play between.
import { clsx } from 'clsx'
import { useEffect, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Command, Film, Flag, Heading } from '../engine/types'
import { apply } from '../project/commands'
import { desk, goTo, goToTime, dropDraft, showDraft, set, useDesk, type Desk } from '../project/desk'
import { filmTime, seconds } from '../time'
import { headOf, ms, px, type Scale } from './scale'
import { grain } from '../sound/listening'
import { hold, letGo } from '../ui/drags'

/** Frames wider than this, in px, are met by the playhead. */
const snapsFrom = 3

export function Ruler({ film, scale, height }: { film: Film; scale: Scale; height: number }) {
  const zoomed = useDesk((d) => d.zoomed)
  const scene = useDesk((d) => d.scene)
  const marks = useDesk((d) => d.marks)
  const drawing = useRef<number | null>(null)
  const dragged = useRef(false)
  const host = useRef<HTMLDivElement>(null)
  // What it says is what the clock says; the ruler is not drawn anew for every frame.
  useEffect(() => {
    const says = ({ moment, scene, zoomed, film }: Desk) => {
      const at = film?.scenes[scene]
      const clock = zoomed === 'scene' && at ? (moment.time - at.start - at.into) / 1000 : null
      host.current?.setAttribute('aria-valuenow', String(Math.round(moment.time) / 1000))
      host.current?.setAttribute(
        'aria-valuetext',
        filmTime(moment.time) + (clock === null ? '' : `, ${clock.toFixed(2)} s on the scene’s clock`),
      )
    }
    says(desk())
    return useDesk.subscribe((d, was) => {
      if (d.moment !== was.moment || d.zoomed !== was.zoomed || d.film !== was.film) says(d)
    })
  }, [])
  const s = film.scenes[scene]
  // Zoomed to a scene it counts on that scene's clock.
  const zero = zoomed === 'scene' ? s.start + s.into : 0
  const [from, to] = zoomed === 'scene' ? [s.start, s.start + s.into + s.stay] : [0, film.length]
  const step =
    [10, 20, 50, 100, 200, 500, 1000, 2000, 5000, 10000, 30000, 60000].find((m) => m * scale.perMs > 56) ?? 60000
  const ticks = []
  for (let t = Math.ceil((from - zero) / step) * step; t <= to - zero + step * 0.01; t += step) ticks.push(t)
  const time = (e: React.PointerEvent) => {
    const r = e.currentTarget.getBoundingClientRect()
    const at = Math.min(film.length, Math.max(0, ms(scale, e.clientX - r.left)))
    const frame = ((1000 * film.rate.den) / film.rate.num) * scale.perMs
    return frame > snapsFrom ? Math.min(film.length, engine.step(at, 0)) : at // frames that can be told apart are met
  }
  return (
    <div className="relative" style={{ height }}>
      <div
        className="absolute inset-0 cursor-ew-resize"
        data-ruler
        title="Drag to look; with Shift, to mark a stretch to play"
        role="slider"
        tabIndex={0}
        aria-label="Playhead"
        aria-valuemin={0}
        aria-valuemax={film.length / 1000}
        aria-valuenow={0}
        ref={host}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId)
          drawing.current = e.shiftKey ? time(e) : null
          const { moment, marks } = desk()
          dragged.current = true
          hold(() => {
            dragged.current = false
            goTo(moment)
            set({ marks })
          })
          if (!e.shiftKey) goToTime(time(e))
        }}
        onPointerUp={() => {
          dragged.current = false
          letGo()
        }}
        onPointerMove={(e) => {
          if (!dragged.current) return
          if (drawing.current === null) {
            goToTime(time(e))
            grain(time(e))
          } else set({ marks: [Math.min(drawing.current, time(e)), Math.max(drawing.current, time(e))] })
        }}
        onKeyDown={(e) => {
          const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
          if (!by) return
          e.preventDefault()
          e.stopPropagation()
          const now = desk().moment.time
          goToTime(e.shiftKey ? now + by * 100 : engine.step(now, by))
        }}
      >
        {ticks.map((t) => (
          <span
            key={t}
            className={clsx(
              'pointer-events-none absolute bottom-0 whitespace-nowrap border-l border-foam-500/50 pl-1',
              'font-mono text-[0.6875rem] leading-[0.875rem] text-foam-500',
            )}
            style={{ left: px(scale, t + zero), height: 14 }}
          >
            {step < 1000 ? (t / 1000).toFixed(step < 100 ? 2 : 1) : t / 1000}
          </span>
        ))}
        {marks[0] !== null && (
          <div
            className="pointer-events-none absolute inset-y-0 border-x-2 border-brass-200 bg-brass-200/25"
            data-marks
            style={{
              left: px(scale, marks[0]) - 1,
              width: Math.max(2, ((marks[1] ?? marks[0]) - marks[0]) * scale.perMs),
            }}
          />
        )}
      </div>
      {film.scenes
        .slice(0, film.shown)
        .flatMap((h, i) =>
          zoomed === 'film' || i === scene
            ? h.cues.map((q) => <CueFlag key={q.id} cue={q} scene={h} scale={scale} />)
            : [],
        )}
    </div>
  )
}

/** A cue as a pennant on the ruler: dragged along time, named by a double press, deleted with its key. */
function CueFlag({ cue, scene, scale }: { cue: Flag; scene: Heading; scale: Scale }) {
  const press = useRef<{ x: number; at: number; now: number } | null>(null)
  const [naming, setNaming] = useState(false)
  const change = (patch: object): Command => ({ op: 'cue.set', scene: scene.id, id: cue.id, patch })
  const clock = cue.passed - scene.start - scene.into
  const cancel = () => {
    press.current = null
    letGo()
    set({ dragging: false })
    dropDraft(true)
  }
  const waits = cue.wait ? `, waits ${seconds(cue.wait)}` : ''
  const words = `Cue ${cue.name}, ${seconds(clock)} on the clock of ${scene.name}${waits}`
  if (naming) {
    return (
      <input
        autoFocus
        defaultValue={cue.name}
        aria-label="Name of the cue"
        className="absolute top-0 z-20 h-5.5 w-30 rounded-sm bg-paper px-1 text-[0.6875rem] text-ink-900"
        style={{ left: px(scale, cue.passed) }}
        onFocus={(e) => e.currentTarget.select()}
        onBlur={(e) => {
          setNaming(false)
          const name = e.currentTarget.value.trim()
          if (name && name !== cue.name) apply(change({ name }))
        }}
        onKeyDown={(e) => {
          e.stopPropagation()
          if (e.key === 'Enter') e.currentTarget.blur()
          if (e.key === 'Escape') {
            e.currentTarget.value = cue.name
            e.currentTarget.blur()
          }
        }}
      />
    )
  }
  return (
    <button
      type="button"
      data-cue={cue.id}
      title={`${words}. Drag it; press twice to name it.`}
      aria-label={words}
      className="absolute top-0 z-[16] flex h-6 max-w-32.5 min-w-6 cursor-ew-resize items-end pb-[3px]"
      style={{ left: px(scale, cue.passed) }}
      onPointerDown={(e) => {
        if (e.button !== 0) return
        e.currentTarget.setPointerCapture(e.pointerId)
        press.current = { x: e.clientX, at: cue.at, now: cue.at }
        hold(cancel)
      }}
      onPointerMove={(e) => {
        const p = press.current
        if (!p) return
        const at = Math.max(0, Math.round((p.at + (e.clientX - p.x) / scale.perMs) / 10) * 10)
        if (at === p.now) return
        p.now = at
        set({ dragging: true })
        showDraft(engine.draft(change({ at }), true))
      }}
      onPointerUp={() => {
        const p = press.current
        cancel()
        if (p && p.now !== p.at) apply(change({ at: p.now }))
      }}
      onPointerCancel={cancel}
      onDoubleClick={() => setNaming(true)}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -100, ArrowRight: 100 }[e.key]
        if (by) apply(change({ at: Math.max(0, cue.at + by) }))
        else if (e.key === 'Delete' || e.key === 'Backspace') apply({ op: 'cue.delete', scene: scene.id, id: cue.id })
        else if (e.key === 'Enter') setNaming(true)
        else return
        e.preventDefault()
        e.stopPropagation()
      }}
    >
      <svg width="12" height="20" viewBox="0 0 12 20" aria-hidden className="-mb-[3px] shrink-0">
        <path d="M1 20V2l10 4.5L1 11" fill="#4C9AB8" stroke="#B9CEC5" strokeWidth="1.2" strokeLinejoin="round" />
      </svg>
      <span className="truncate bg-spruce-950 px-0.5 text-[0.6875rem] leading-[0.875rem] text-foam-100">
        {cue.name}
      </span>
    </button>
  )
}

/** Thin lines down from the cues, so that bars can be seen to begin at them. */
export function CueLines({ film, scale }: { film: Film; scale: Scale }) {
  const zoomed = useDesk((d) => d.zoomed)
  const scene = useDesk((d) => d.scene)
  return film.scenes
    .slice(0, film.shown)
    .flatMap((h, i) =>
      zoomed === 'film' || i === scene
        ? h.cues.map((q) => (
            <div
              key={q.id}
              className="pointer-events-none absolute inset-y-0 border-l border-dashed border-sea-500/70"
              style={{ left: px(scale, q.passed) }}
            />
          ))
        : [],
    )
}

/** The playhead follows every frame without rendering anything else; while the film plays the timeline follows it. */
export function Playhead({ scale, marked = false }: { scale: Scale; marked?: boolean }) {
  const ref = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const place = () => {
      const { moment: m, playing } = desk()
      const el = ref.current
      if (!el) return
      const x = px(scale, m.time)
      el.style.transform = `translateX(${x}px)`
      el.style.opacity = x < -1 ? '0' : m.rest ? '0.45' : '1'
      const view = el.closest<HTMLElement>('[data-timeline]')
      if (marked && playing && view) {
        const width = view.clientWidth - headOf(view.clientWidth)
        if (x < view.scrollLeft || x > view.scrollLeft + width - 20) view.scrollLeft = x - 40
      }
    }
    place()
    return useDesk.subscribe((d, was) => {
      if (d.moment !== was.moment) place()
    })
  }, [scale, marked])
  return (
    <div
      ref={ref}
      data-playhead={marked || undefined}
      className="pointer-events-none absolute inset-y-0 left-0 z-[15] w-0"
    >
      <div className="absolute inset-y-0 -left-px w-[2px] bg-brass-400" />
      {marked && (
        <svg className="absolute -left-1.75 top-0" width="14" height="16" viewBox="0 0 14 16" aria-hidden>
          <path d="M1 1h12v8l-6 6-6-6z" fill="#C99A3B" />
        </svg>
      )}
    </div>
  )
}
