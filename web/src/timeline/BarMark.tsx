// One bar: what it looks like, and everything a pointer and the keyboard do to it.
import { useRef } from 'react'
import { engine } from '../engine/engine'
import type { Bar, Row, Snap } from '../engine/types'
import { barMenu } from '../actions/menus'
import { draft, run } from '../project/commands'
import { desk, dropDraft, goToScene, refresh, selectMoves, set } from '../project/desk'
import { grouped } from '../project/steps'
import { closing } from '../project/closing'
import { hitchTo, tieTo, type Drawing, type Saying } from './hitching'
import { px, rowHeight, type Scale } from './scale'
import { barShape, profileOf } from './shape'
import { hold, letGo } from '../ui/drags'
import { returns } from '../ui/typing'

/** How near a bar comes to something before it snaps, in px. */
const near = 6

// While the selection is extended by keyboard, a bar that gets the keyboard does not take it over.
let extending = false

/** How much of what is cut off is shown in the film, in px. */
const cutShown = 34

interface Press {
  x: number
  part: 'whole' | 'begin' | 'end'
  by: number
  perMs: number
  moves: string[]
  far: boolean
  snap: Snap | null
  after: 'same' | 'less' | 'alone'
}

export function BarMark({
  bar,
  row,
  tint,
  scale,
  y,
  top,
  chosen,
  alone,
  wholeCut,
  onSay,
  onDraw,
}: {
  bar: Bar
  row: Row
  tint: string
  scale: Scale
  y: number
  top: number
  chosen: boolean
  alone: boolean
  wholeCut: boolean
  onSay: (s: Saying | null) => void
  onDraw: (d: Drawing | null) => void
}) {
  const press = useRef<Press | null>(null)
  const drawing = useRef(false) // a hitch from one of its ends
  const x0 = px(scale, bar.begin)
  const x1 = px(scale, bar.end - bar.cut)
  // What is cut off is shown for a little beyond the scene's end, so that it does not lie over others.
  const end = bar.cut > 0 && !wholeCut ? Math.min(px(scale, bar.end), Math.max(x1, x0) + cutShown) : px(scale, bar.end)
  const floor = rowHeight - 4
  const wide = Math.max(end - x0, 6)
  const grip = Math.min(7, wide / 3)

  const down = (part: Press['part']) => (e: React.PointerEvent<SVGElement>) => {
    if (e.button !== 0) return
    e.stopPropagation()
    e.currentTarget.setPointerCapture(e.pointerId)
    if (bar.scene !== desk().scene) goToScene(bar.scene)
    const { moves } = desk()
    const held = moves.includes(bar.move)
    const more = e.shiftKey || e.ctrlKey || e.metaKey
    if (!held) selectMoves(more ? [...moves, bar.move] : [bar.move])
    const others = desk().moves.filter((m) => m !== bar.move)
    press.current = {
      x: e.clientX,
      part,
      by: 0,
      perMs: scale.perMs,
      moves: [bar.move, ...others],
      far: false,
      snap: null,
      after: held ? (more ? 'less' : 'alone') : 'same',
    }
    set({ dragging: true })
    hold(cancel)
  }
  const cancel = () => {
    if (!press.current) return
    press.current = null
    letGo()
    onSay(null)
    set({ dragging: false })
    dropDraft(true)
  }
  const move = (e: React.PointerEvent<SVGElement>) => {
    const p = press.current
    if (!p) return
    p.far = p.far || Math.abs(e.clientX - p.x) > 3
    if (!p.far || (bar.drivers && p.moves.length === 1)) return // its driver says when it is
    let by = Math.round((e.clientX - p.x) / p.perMs / 10) * 10
    p.snap = null
    if (!e.altKey) {
      const s = engine.snapBar(desk().moment, p.moves, p.part, by, Math.round(near / p.perMs))
      by = s.by
      if (s.at >= 0) p.snap = s
    }
    if (by !== p.by) {
      p.by = by
      draft('bars', { moves: p.moves, part: p.part, by }, true)
    }
    const r = e.currentTarget.ownerSVGElement!.getBoundingClientRect()
    onSay({
      x: e.clientX - r.left,
      bar: bar.move,
      snap: p.snap,
      hangs: (e.ctrlKey || e.metaKey) && !!p.snap?.when && p.moves.length === 1,
    })
  }
  const up = (e: React.PointerEvent) => {
    const p = press.current
    press.current = null
    letGo()
    onSay(null)
    if (!p) return
    set({ dragging: false })
    engine.clearDraft()
    // With Ctrl it hangs on what it has snapped to.
    const hang = (e.ctrlKey || e.metaKey) && p.far && p.moves.length === 1 && p.snap?.when ? p.snap : null
    if (hang && run(hang.part === 'end' ? 'move.end' : 'move.start', { move: bar.move, when: hang.when, of: hang.of }))
      return
    if (p.by !== 0 && run('bars', { moves: p.moves, part: p.part, by: p.by })) return
    refresh()
    // Pressed without dragging, a bar that was selected already stays alone, or goes out of the selection.
    if (!p.far && p.after === 'alone') selectMoves([bar.move])
    if (!p.far && p.after === 'less') selectMoves(desk().moves.filter((m) => m !== bar.move))
  }
  const handlers = { onPointerMove: move, onPointerUp: up, onPointerCancel: cancel }

  const keys = (e: React.KeyboardEvent) => {
    const sign = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
    const { moves } = desk()
    const list = moves.includes(bar.move) ? [bar.move, ...moves.filter((m) => m !== bar.move)] : [bar.move]
    if (sign)
      grouped(e.shiftKey ? 'ends of bars' : 'bars', () =>
        run('bars.nudge', {
          moves: list,
          part: e.shiftKey ? 'end' : 'whole',
          ...(e.ctrlKey || e.metaKey ? { by: sign * 100 } : { frames: sign }),
        }),
      )
    else if (e.key === 'Delete' || e.key === 'Backspace') closing(() => run('moves.delete', { moves: list }))
    else if (e.key === 'Enter') {
      selectMoves([bar.move])
      typeValues(e.currentTarget as SVGGElement)
    } else if (e.key === 'ArrowDown' || e.key === 'ArrowUp') {
      const all = [...document.querySelectorAll<SVGGElement>('[data-bar]')]
      const next = all[all.indexOf(e.currentTarget as SVGGElement) + (e.key === 'ArrowDown' ? 1 : -1)]
      extending = e.shiftKey
      next?.focus()
      extending = false
      if (next && e.shiftKey) selectMoves([...new Set([...moves, bar.move, next.dataset.bar!])])
    } else return
    e.preventDefault()
    e.stopPropagation()
  }

  // A hitch is drawn from the ring beside an end.
  const draw = (part: Drawing['part'], x: number) => ({
    onPointerDown: (e: React.PointerEvent<SVGElement>) => {
      if (e.button !== 0) return
      e.stopPropagation()
      e.currentTarget.setPointerCapture(e.pointerId)
      onDraw({ move: bar.move, part, x0: x, y0: top + y + rowHeight / 2, x, y: top + y + rowHeight / 2 })
      drawing.current = true
      hold(() => {
        drawing.current = false
        onDraw(null)
      })
    },
    onPointerMove: (e: React.PointerEvent<SVGElement>) => {
      if (!drawing.current) return
      const r = e.currentTarget.ownerSVGElement!.getBoundingClientRect()
      onDraw({
        move: bar.move,
        part,
        x0: x,
        y0: top + y + rowHeight / 2,
        x: e.clientX - r.left,
        y: top + e.clientY - r.top,
      })
    },
    onPointerUp: (e: React.PointerEvent) => {
      letGo()
      onDraw(null)
      if (drawing.current && part === 'tie') tieTo(bar.move, e)
      else if (drawing.current && part !== 'tie') hitchTo(bar.move, part, e)
      drawing.current = false
    },
    onPointerCancel: () => {
      letGo()
      drawing.current = false
      onDraw(null)
    },
  })
  // Where a bar begins with the film there is no room beside it: the ring lies on its upper corner, the grip below.
  const ring = (part: 'begin' | 'end', x: number, within = false) => (
    <g className="cursor-crosshair" data-hitch={part} {...draw(part, x)}>
      <title>{`Drag to the bar that it follows: its ${part} hangs there then`}</title>
      <rect x={x - 7} y={0} width="14" height={within ? 14 : rowHeight} fill="transparent" />
      <circle cx={x} cy={within ? 7 : rowHeight / 2} r="3.6" fill="#0C2523" stroke="#4C9AB8" strokeWidth="1.8" />
    </g>
  )
  // A tie is drawn from an eye on the bar to the layer whose edge shall drive it.
  const eye = (x: number) => (
    <g className="cursor-crosshair" data-eye {...draw('tie', x)}>
      <title>Drag to a layer, on the page or in the rows: its edge drives this one then</title>
      <rect x={x - 8} y={0} width="16" height={rowHeight} fill="transparent" />
      <path d={`M${x} ${rowHeight / 2 - 6}l5 5.5l-5 5.5l-5 -5.5Z`} fill="#0C2523" stroke="#F0DDB2" strokeWidth="1.5" />
      <circle cx={x} cy={rowHeight / 2 - 0.5} r="1.4" fill="#F0DDB2" />
    </g>
  )
  const tied = !!bar.drivers
  const unbegun = bar.begin === bar.end && !tied
  const { film } = desk()
  const place = film && film.shown > 1 ? `, scene ${bar.scene + 1} ${film.scenes[bar.scene]?.name ?? ''}` : ''
  return (
    <g
      transform={`translate(0 ${y})`}
      tabIndex={0}
      role="button"
      aria-pressed={chosen}
      aria-label={`${bar.name}, ${row.name}: ${bar.words}${place}`}
      data-bar={bar.move}
      data-kind={bar.kind}
      onFocus={(e) => {
        if (
          !extending &&
          e.currentTarget.matches(':focus-visible') &&
          bar.scene === desk().scene &&
          !desk().moves.includes(bar.move)
        )
          selectMoves([bar.move])
      }}
      onKeyDown={keys}
      onDoubleClick={() => typeValues(null)}
      onContextMenu={(e) => barMenu(e, bar.move)}
    >
      <title>
        {bar.name}: {bar.words}
      </title>
      <path
        d={barShape(bar, x0, Math.max(x1, x0), 3, floor)}
        fill={bar.unknown ? 'url(#hatch)' : tint}
        stroke={bar.unknown ? tint : undefined}
        fillOpacity={bar.kind === 'loop' ? 0.55 : 0.85}
      />
      {tied && (
        <path
          d={barShape(bar, x0, Math.max(x1, x0), 3, floor)}
          fill="url(#hatch)"
          stroke={tint}
          strokeWidth="1"
          data-tied
        />
      )}
      {unbegun && (
        <path d={`M${x0} ${floor}V5l6 4-6 4`} fill={tint} stroke={tint} strokeWidth="1.5" strokeLinejoin="round" />
      )}
      {bar.cut > 0 && (
        <rect
          x={x1}
          y={6}
          width={Math.max(0, end - x1)}
          height={floor - 6}
          fill="url(#hatch)"
          stroke={tint}
          strokeOpacity="0.5"
          strokeDasharray="2 2"
        />
      )}
      {bar.early && (
        <path d={`M${x0 + 1} 4v${floor - 4}M${x0 + 4} 7l-3 -3l-3 3`} stroke="#C99A3B" strokeWidth="1.4" fill="none" />
      )}
      {chosen && (
        <rect
          x={x0 - 0.5}
          y={1.5}
          width={wide + 1}
          height={floor - 1}
          rx="2"
          fill="none"
          stroke="#C99A3B"
          strokeWidth="1.4"
        />
      )}
      {wide > 64 && (bar.kind !== 'loop' || bar.unknown) && <BarName bar={bar} x0={x0} x1={x1} y={floor - 4} />}
      <rect
        x={x0 - (unbegun ? 4 : 0)}
        y={0}
        width={wide + (unbegun ? 6 : 0)}
        height={rowHeight}
        fill="transparent"
        className={tied ? 'cursor-default' : 'cursor-grab'}
        data-part="whole"
        onPointerDown={down('whole')}
        {...handlers}
      />
      {!bar.whole && !tied && bar.end > bar.begin && (
        <>
          <rect
            x={x0 - 3}
            y={0}
            width={grip + 3}
            height={rowHeight}
            fill="transparent"
            className="cursor-ew-resize"
            data-part="begin"
            onPointerDown={down('begin')}
            {...handlers}
          />
          <rect
            x={end - grip}
            y={0}
            width={grip + 3}
            height={rowHeight}
            fill="transparent"
            className="cursor-ew-resize"
            data-part="end"
            onPointerDown={down('end')}
            {...handlers}
          />
        </>
      )}
      {chosen && alone && bar.ties && eye(Math.max((x0 + Math.max(x1, x0)) / 2, x0 + 4))}
      {chosen && alone && !tied && (x0 < 16 ? ring('begin', x0 + 8, true) : ring('begin', x0 - 9))}
      {chosen && alone && !bar.whole && !unbegun && !tied && ring('end', end + 9)}
    </g>
  )
}

/** Puts the caret into the selected move's time, to type it; Escape goes back to what it was asked from. */
function typeValues(from: SVGGElement | null) {
  set({ drawer: true })
  setTimeout(() => {
    const el = document.querySelector<HTMLInputElement>(
      '[data-card] [aria-label=Start], [data-card] [aria-label=Duration]',
    )
    el?.focus()
    el?.select()
    if (el && from) returns(el, from)
  }, 30)
}

/** The bar's name, where its outline is high enough to carry it. */
function BarName({ bar, x0, x1, y }: { bar: Bar; x0: number; x1: number; y: number }) {
  const p = profileOf(bar)
  const at = (i: number) => x0 + ((x1 - x0) * i) / (p.length - 1)
  const first = p.findIndex((v) => v > 0.62)
  const last = p.findLastIndex((v) => v > 0.62)
  if (first < 0 || at(last) - at(first) < 34) return null
  return (
    <text x={at(first) + 6} y={y} fontSize="11" fill="#0C2523" fontWeight="600" className="pointer-events-none">
      {bar.name.split(',')[0]}
    </text>
  )
}
