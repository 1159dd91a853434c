// The right part of the rows: where a thread lives, and its moves as bars whose outline is their motion.
import { clsx } from 'clsx'
import { Plus } from 'lucide-react'
import { memo, useRef, useState } from 'react'
import type { Film, Row } from '../engine/types'
import { desk, goToScene, openGallery, select, selectMoves, useDesk } from '../project/desk'
import { BarMark } from './BarMark'
import type { Drawing, Saying } from './hitching'
import { Hitches } from './Hitches'
import { choose } from './RowHead'
import { laneTop, ms, px, rowHeight, type Placed, type Scale } from './scale'
import { flightShape, strand } from './shape'
import { tints } from '../ui/tints'
import { hold, letGo } from '../ui/drags'
import { keyed } from '../ui/keymap'

export function Bars({
  placed,
  all,
  height,
  film,
  scale,
}: {
  placed: Placed[]
  all: Placed[]
  height: number
  film: Film
  scale: Scale
}) {
  const selection = useDesk((d) => d.selection)
  const moves = useDesk((d) => d.moves)
  const zoomed = useDesk((d) => d.zoomed)
  const scene = useDesk((d) => d.scene)
  const host = useRef<HTMLDivElement>(null)
  const press = useRef<{ x: number; y: number; far: boolean } | null>(null)
  const [box, setBox] = useState<{ x: number; y: number; w: number; h: number } | null>(null)
  const [saying, setSaying] = useState<Saying | null>(null)
  const [drawing, setDrawing] = useState<Drawing | null>(null)

  const at = (e: { clientX: number; clientY: number }) => {
    const r = host.current!.getBoundingClientRect()
    return { x: e.clientX - r.left, y: e.clientY - r.top }
  }
  // A press beside the bars selects the row, and goes to the scene it is in; a drag selects the bars it frames.
  const up = (e: React.PointerEvent) => {
    const p = press.current
    press.current = null
    letGo()
    setBox(null)
    if (!p) return
    const q = at(e)
    if (p.far) {
      const [x0, x1, y0, y1] = [Math.min(p.x, q.x), Math.max(p.x, q.x), Math.min(p.y, q.y), Math.max(p.y, q.y)]
      const found = all.flatMap((r) =>
        r.row.bars
          .filter((b) => {
            const top = laneTop(r, b.lane)
            return (
              top < y1 &&
              top + rowHeight > y0 &&
              px(scale, b.begin) < x1 &&
              px(scale, b.end) > x0 &&
              (zoomed === 'film' || b.scene === scene)
            )
          })
          .map((b) => b.move),
      )
      selectMoves(e.shiftKey ? [...new Set([...desk().moves, ...found])] : found)
      return
    }
    const r = all.find((r) => q.y >= r.top && q.y < r.top + r.height)
    if (!r) {
      select([], '')
      return
    }
    const span = r.row.spans.find((s) => !s.strand && ms(scale, q.x) >= s.begin && ms(scale, q.x) < s.end)
    const strand = r.row.spans.find((s) => s.strand && ms(scale, q.x) >= s.begin && ms(scale, q.x) < s.end)
    const flight = r.row.flights.find((s) => ms(scale, q.x) >= s.begin && ms(scale, q.x) < s.end)
    const to = span ?? strand ?? flight
    if (to && to.scene !== desk().scene) goToScene(to.scene)
    choose(r.row, e, all)
    // A strand says how it turns, a flight by which side it goes.
    if (strand || flight)
      setTimeout(() => document.querySelector('[data-strands]')?.scrollIntoView({ block: 'center' }), 30)
  }
  const said = saying && all.find((r) => r.row.bars.some((b) => b.move === saying.bar))
  const bar = said?.row.bars.find((b) => b.move === saying?.bar)
  const clock = (t: number) => ((t - film.scenes[bar!.scene].start - film.scenes[bar!.scene].into) / 1000).toFixed(2)
  return (
    <div
      ref={host}
      className="relative min-h-full"
      style={{ height }}
      onPointerDown={(e) => {
        if (e.button !== 0 || (e.target as Element).closest('[data-bar], [data-add]')) return
        e.currentTarget.setPointerCapture(e.pointerId)
        press.current = { ...at(e), far: false }
        hold(() => {
          press.current = null
          setBox(null)
        })
      }}
      onPointerMove={(e) => {
        const p = press.current
        if (!p) return
        const q = at(e)
        p.far = p.far || Math.hypot(q.x - p.x, q.y - p.y) > 4
        if (p.far)
          setBox({ x: Math.min(p.x, q.x), y: Math.min(p.y, q.y), w: Math.abs(q.x - p.x), h: Math.abs(q.y - p.y) })
      }}
      onDoubleClick={(e) => {
        if ((e.target as Element).closest('[data-bar], [data-add]')) return
        const q = at(e)
        const when = ms(scale, q.x)
        const r = all.find((r) => q.y >= r.top && q.y < r.top + r.height)
        if (r?.row.spans.some((s) => !s.strand && when >= s.begin && when < s.end))
          openGallery({ at: Math.round(when) })
      }}
      onPointerUp={up}
      onPointerCancel={() => {
        press.current = null
        setBox(null)
      }}
    >
      {placed.map((p) => (
        <RowBars
          key={p.row.thread}
          row={p.row}
          top={p.top}
          height={p.height}
          lanes={p.lanes}
          scale={scale}
          chosen={selection.includes(p.row.thread)}
          moves={selection.includes(p.row.thread) ? moves : none}
          only={zoomed === 'scene' ? scene : -1}
          onSay={setSaying}
          onDraw={setDrawing}
        />
      ))}
      {placed
        .filter((p) => selection.includes(p.row.thread))
        .map((p) => (
          <AddAtEnd key={p.row.thread} placed={p} scale={scale} />
        ))}
      {box && (
        <div
          className="pointer-events-none absolute z-20 border border-brass-400 bg-brass-400/10"
          style={{ left: box.x, top: box.y, width: box.w, height: box.h }}
        />
      )}
      {saying && bar && said && (
        <div
          className={clsx(
            'pointer-events-none absolute z-20 whitespace-nowrap rounded-md bg-paper px-2 py-0.5',
            'font-mono text-[0.75rem] text-ink-900',
          )}
          style={{ left: Math.min(saying.x + 12, scale.width - 300), top: laneTop(said, bar.lane) + rowHeight + 2 }}
          data-saying
        >
          {clock(bar.begin)} → {clock(bar.end)} s
          {saying.snap && (
            <span className="ml-2 font-sans font-semibold text-brass-700">
              {saying.hangs ? 'hangs: ' : ''}
              {saying.snap.words}
            </span>
          )}
        </div>
      )}
      {saying?.snap && (
        <div
          className="pointer-events-none absolute inset-y-0 z-10 border-l border-dashed border-foam-100"
          style={{ left: px(scale, saying.snap.at) }}
        />
      )}
      <Hitches
        placed={all}
        height={height}
        selection={selection}
        moves={moves}
        drawing={drawing}
        film={film}
        scale={scale}
      />
    </div>
  )
}

/** Offers the moves at the end of a selected row. */
function AddAtEnd({ placed: { row, top }, scale }: { placed: Placed; scale: Scale }) {
  const end = Math.max(...row.spans.map((s) => s.end))
  if (!Number.isFinite(end)) return null
  return (
    <button
      type="button"
      data-add // a press on it is none on the row
      aria-label={`Add a move to ${row.name}`}
      title={keyed('Add a move (E)')}
      className={clsx(
        'absolute z-10 flex w-6 items-center justify-center rounded-md border border-dashed border-foam-500/60',
        'text-foam-300 hover:bg-spruce-700 hover:text-foam-100',
      )}
      style={{ left: px(scale, end) + 6, top, height: rowHeight - 1 }}
      onClick={() => openGallery()}
    >
      <Plus size={13} strokeWidth={1.5} />
    </button>
  )
}

const none: string[] = []

const RowBars = memo(function RowBars({
  row,
  top,
  height,
  lanes,
  scale,
  chosen,
  moves,
  only,
  onSay,
  onDraw,
}: {
  row: Row
  top: number
  height: number
  lanes: number
  scale: Scale
  chosen: boolean
  moves: string[]
  only: number
  onSay: (s: Saying | null) => void
  onDraw: (d: Drawing | null) => void
}) {
  const tint = tints[row.tint & 7]
  const floor = rowHeight - 4
  const of = (s: { scene: number }) => only < 0 || s.scene === only
  return (
    <svg
      data-bars={row.thread}
      id={`bars-${row.thread}`}
      width={scale.width}
      height={height}
      className={`absolute left-0 block ${chosen ? 'bg-spruce-800/70' : ''} ${row.here ? '' : 'opacity-60'}`}
      style={{ top, boxShadow: 'inset 0 -1px rgb(234 242 236 / 0.05)' }}
    >
      {row.spans.filter(of).map((s) => {
        const [a, b] = [px(scale, s.begin), px(scale, s.end)]
        if (s.strand) {
          const [p, q] = strand(a, b, rowHeight / 2, 5)
          return (
            <g
              key={`${s.scene}t`}
              fill="none"
              strokeWidth="1.6"
              data-strand={s.scene}
              data-run={s.passes ? s.passes.length + 1 : undefined}
            >
              <title>
                {s.passes ? `${s.passes.length + 1} morphs move as one. ` : ''}
                {s.by ? `${turned(s.by)}: press to change it` : 'Press to say how it turns through the morph'}
              </title>
              <rect x={a} y={0} width={Math.max(0, b - a)} height={rowHeight} fill="transparent" stroke="none" />
              <path d={q} stroke="#4C9AB8" />
              <path d={p} stroke={tint} />
              {s.passes?.map((at) => (
                <path
                  key={at}
                  d={`M${px(scale, at).toFixed(1)} ${rowHeight / 2 - 4}l4 4l-4 4l-4 -4Z`}
                  fill="#0C2523"
                  stroke="#E9D9A8"
                  strokeWidth="1.2"
                />
              ))}
              {!!s.by && !s.passes && b - a > 48 && (
                <g className="pointer-events-none">
                  <rect
                    x={(a + b) / 2 - 21}
                    y={4}
                    width="42"
                    height={rowHeight - 9}
                    rx="3"
                    fill="#0C2523"
                    stroke="none"
                  />
                  <text x={(a + b) / 2} y={floor - 4} textAnchor="middle" fontSize="11" stroke="none" fill="#EAF2EC">
                    {s.by > 0 ? '↻' : '↺'} {Math.abs(Math.round(s.by))}°
                  </text>
                </g>
              )}
            </g>
          )
        }
        return (
          <rect
            key={s.scene}
            x={a}
            y={floor - 1}
            width={Math.max(0, b - a)}
            height="3"
            rx="1.5"
            fill="#8FA8A1"
            opacity="0.55"
          />
        )
      })}
      {row.flights.filter(of).map((s) => {
        const [a, b] = [px(scale, s.begin), px(scale, s.end)]
        const side = { left: 'left', right: 'right', top: 'upper', bottom: 'lower' }[s.side]
        return (
          <g key={`${s.begin}f`} data-flight={s.side}>
            <title>{`${s.in ? 'Comes in' : 'Goes out'} by the ${side} side of the page: press to change it`}</title>
            <rect x={a} y={0} width={Math.max(0, b - a)} height={rowHeight} fill="transparent" />
            <path d={flightShape(a, b, floor, s.in)} fill={tint} opacity="0.55" />
            {b - a > 24 && (
              <text x={(a + b) / 2} y={floor - 4} textAnchor="middle" fontSize="11" fill="#EAF2EC">
                {arrows[s.side][s.in ? 1 : 0]}
              </text>
            )}
          </g>
        )
      })}
      {Array.from({ length: lanes - 1 }, (_, k) => (
        <line
          key={k}
          x1="0"
          x2={scale.width}
          y1={(k + 1) * rowHeight - 0.5}
          y2={(k + 1) * rowHeight - 0.5}
          stroke="#EAF2EC"
          strokeOpacity="0.07"
        />
      ))}
      {row.bars
        .filter((b) => of(b) || (b.whole && b.kind === 'path'))
        .map((b) => (
          <BarMark
            key={b.move}
            bar={b}
            row={row}
            tint={tint}
            scale={scale}
            y={lanes > 1 ? b.lane * rowHeight : 0}
            top={top}
            chosen={moves.includes(b.move)}
            alone={moves.length === 1}
            wholeCut={only >= 0}
            onSay={onSay}
            onDraw={onDraw}
          />
        ))}
    </svg>
  )
})

/** Which way a layer goes that goes out by a side of the page, and that comes in by it. */
const arrows: Record<string, [string, string]> = {
  left: ['←', '→'],
  right: ['→', '←'],
  top: ['↑', '↓'],
  bottom: ['↓', '↑'],
}

const turned = (by: number) => `Turns ${Math.abs(Math.round(by * 10) / 10)}° ${by > 0 ? 'clockwise' : 'anticlockwise'}`
