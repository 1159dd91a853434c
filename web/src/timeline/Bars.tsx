// The right part of the rows: where a thread lives, and its moves as bars whose outline is their motion.
import { memo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Bar, Film, Row } from '../engine/types'
import { draft, run } from '../project/commands'
import { desk, goToScene, refresh, select, set, useDesk } from '../project/desk'
import { barShape, strand } from './shape'
import { tints } from './tints'
import { rowHeight, type Scale } from './Timeline'

interface Snap { at: number; words: string }

type Readout = (x: number, bar: string | null, snap: Snap | null) => void

/** How near a bar comes to something before it snaps, in px. */
const near = 6

export function Bars({ rows, film, scale }: { rows: Row[]; film: Film; scale: Scale }) {
  const selection = useDesk((d) => d.selection)
  const [readout, setReadout] = useState<{ x: number; y: number; bar: string; snap: Snap | null } | null>(null)
  const current = readout && rows.flatMap((r) => r.bars).find((b) => b.move === readout.bar)
  const scene = current ? film.scenes[current.scene] : null
  const clock = (ms: number) => ((ms - scene!.start - scene!.into) / 1000).toFixed(2)
  return (
    <div className="relative" style={{ width: scale.width }}>
      {rows.map((r, i) => (
        <RowBars key={r.thread} row={r} scale={scale} chosen={selection.includes(r.thread)} onReadout={(x, bar, snap) => setReadout(bar ? { x, y: i * rowHeight, bar, snap } : null)} />
      ))}
      {readout && current && scene && (
        <div className="pointer-events-none absolute z-20 whitespace-nowrap rounded-md bg-paper px-2 py-0.5 font-mono text-[12px] text-ink-900" style={{ left: readout.x + 12, top: readout.y + rowHeight + 2 }}>
          {clock(current.begin)} → {clock(current.end)} s
          {readout.snap && <span className="ml-2 font-sans font-semibold text-brass-700">{readout.snap.words}</span>}
        </div>
      )}
      {readout?.snap && <div className="pointer-events-none absolute inset-y-0 z-10 border-l border-dashed border-foam-100" style={{ left: readout.snap.at * scale.perMs }} />}
      <Hitches rows={rows} selection={selection} scale={scale} />
    </div>
  )
}

const RowBars = memo(function RowBars({ row, scale, chosen, onReadout }: {
  row: Row; scale: Scale; chosen: boolean; onReadout: Readout
}) {
  const tint = tints[row.tint & 7]
  const floor = rowHeight - 4
  return (
    <svg
      width={scale.width} height={rowHeight} className={`block ${chosen ? 'bg-spruce-800' : ''} ${row.here ? '' : 'opacity-60'}`}
      style={{ boxShadow: 'inset 0 -1px rgb(234 242 236 / 0.05)' }}
    >
      {row.spans.map((s) => {
        const [a, b] = [s.begin * scale.perMs, s.end * scale.perMs]
        if (s.strand) {
          const [p, q] = strand(a, b, rowHeight / 2, 5)
          return <g key={`${s.scene}t`} fill="none" strokeWidth="1.6"><path d={q} stroke="#4C9AB8" /><path d={p} stroke={tint} /></g>
        }
        return (
          <g key={s.scene}>
            <rect x={a} y={floor - 1} width={Math.max(0, b - a)} height="3" rx="1.5" fill="#8FA8A1" opacity="0.55" />
            <rect x={a} y={0} width={Math.max(0, b - a)} height={rowHeight} fill="transparent" onClick={(e) => { if (s.scene !== desk().scene) goToScene(s.scene); if (e.shiftKey) select([...desk().selection, row.thread]); else select([row.thread], row.parent) }} />
          </g>
        )
      })}
      {row.bars.map((b) => <BarMark key={b.move} bar={b} row={row} tint={tint} scale={scale} onReadout={onReadout} />)}
    </svg>
  )
})

function BarMark({ bar, row, tint, scale, onReadout }: { bar: Bar; row: Row; tint: string; scale: Scale; onReadout: Readout }) {
  const press = useRef<{ x: number; part: string; by: number; perMs: number } | null>(null)
  const x0 = bar.begin * scale.perMs
  const x1 = (bar.end - bar.cut) * scale.perMs
  const end = bar.end * scale.perMs
  const floor = rowHeight - 4
  const wide = Math.max(end - x0, 6)
  const grip = Math.min(7, wide / 3)
  const down = (part: string) => (e: React.PointerEvent<SVGElement>) => {
    if (e.button !== 0) return
    e.stopPropagation()
    e.currentTarget.setPointerCapture(e.pointerId)
    if (bar.scene !== desk().scene) goToScene(bar.scene)
    if (!desk().selection.includes(row.thread)) select([row.thread], row.parent)
    press.current = { x: e.clientX, part, by: 0, perMs: scale.perMs }
    set({ dragging: true })
  }
  const move = (e: React.PointerEvent<SVGElement>) => {
    const p = press.current
    if (!p) return
    let by = Math.round((e.clientX - p.x) / p.perMs / 10) * 10
    let snap: Snap | null = null
    if (!e.altKey) {
      const s = engine.snapBar(desk().moment, bar.move, p.part, by, Math.round(near / p.perMs))
      by = s.by
      if (s.at >= 0) snap = s
    }
    if (by === p.by) return
    p.by = by
    draft('bar', { move: bar.move, part: p.part, by })
    set({ rows: engine.rows(desk().moment), version: desk().version + 1, selected: engine.selection(desk().moment, desk().selection) })
    const r = e.currentTarget.ownerSVGElement!.getBoundingClientRect()
    onReadout(e.clientX - r.left, bar.move, snap)
  }
  const up = () => {
    const p = press.current
    press.current = null
    onReadout(0, null, null)
    set({ dragging: false })
    engine.clearDraft()
    if (!p || p.by === 0 || !run('bar', { move: bar.move, part: p.part, by: p.by })) refresh()
  }
  const handlers = { onPointerMove: move, onPointerUp: up, onPointerCancel: up }
  const nudge = (e: React.KeyboardEvent) => {
    const step = e.ctrlKey || e.metaKey ? 100 : Math.round(engine.step(0, 1))
    const sign = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
    if (sign) {
      e.preventDefault()
      e.stopPropagation()
      run('bar', { move: bar.move, part: e.shiftKey ? 'end' : 'whole', by: sign * step })
    }
    if (e.key === 'Delete' || e.key === 'Backspace') {
      e.preventDefault()
      e.stopPropagation()
      run('move.delete', { move: bar.move })
    }
  }
  return (
    <g
      tabIndex={0} role="button" aria-label={`${bar.name}, ${row.name}: ${bar.words}`} data-bar={bar.move} data-kind={bar.kind}
      onFocus={() => !desk().selection.includes(row.thread) && bar.scene === desk().scene && select([row.thread], row.parent)} onKeyDown={nudge}
    >
      <title>{bar.name}: {bar.words}</title>
      <path d={barShape({ ...bar, end: bar.end - bar.cut }, x0, x1, 3, floor)} fill={tint} fillOpacity={bar.kind === 'loop' ? 0.55 : 0.85} />
      {bar.cut > 0 && <rect x={x1} y={6} width={Math.max(0, end - x1)} height={floor - 6} fill="url(#hatch)" stroke={tint} strokeOpacity="0.5" strokeDasharray="2 2" />}
      {wide > 64 && bar.kind !== 'loop' && <BarName bar={bar} x0={x0} x1={x1} y={floor - 4} />}
      <rect x={x0} y={0} width={wide} height={rowHeight} fill="transparent" className="cursor-grab" data-part="whole" onPointerDown={down('whole')} {...handlers} />
      {!bar.whole && bar.end > bar.begin && (
        <>
          <rect x={x0 - 3} y={0} width={grip + 3} height={rowHeight} fill="transparent" className="cursor-ew-resize" data-part="begin" onPointerDown={down('begin')} {...handlers} />
          <rect x={end - grip} y={0} width={grip + 3} height={rowHeight} fill="transparent" className="cursor-ew-resize" data-part="end" onPointerDown={down('end')} {...handlers} />
        </>
      )}
    </g>
  )
}

/** The bar's name, where its outline is high enough to carry it. */
function BarName({ bar, x0, x1, y }: { bar: Bar; x0: number; x1: number; y: number }) {
  const p = bar.profile
  const at = (i: number) => x0 + ((x1 - x0) * i) / (p.length - 1)
  const first = p.findIndex((v) => v > 0.62)
  const last = p.findLastIndex((v) => v > 0.62)
  if (first < 0 || at(last) - at(first) < 34) return null
  return <text x={at(first) + 6} y={y} fontSize="11" fill="#0C2523" fontWeight="600" className="pointer-events-none">{bar.name.split(',')[0]}</text>
}

/** Hitches of the selected rows: thin lines from what a move hangs on to its begin. */
function Hitches({ rows, selection, scale }: { rows: Row[]; selection: string[]; scale: Scale }) {
  const at = new Map(rows.flatMap((r, i) => r.bars.map((b) => [b.move, { bar: b, y: (i + 0.5) * rowHeight }] as const)))
  const lines = rows.filter((r) => selection.includes(r.thread)).flatMap((r) => r.bars).filter((b) => at.has(b.of))
  if (lines.length === 0) return null
  return (
    <svg className="pointer-events-none absolute inset-0" width={scale.width} height={rows.length * rowHeight} aria-hidden>
      {lines.map((b) => {
        const from = at.get(b.of)!
        const [x0, y0] = [(b.when === 'ends' ? from.bar.end : from.bar.begin) * scale.perMs, from.y]
        const [x1, y1] = [b.begin * scale.perMs, at.get(b.move)!.y]
        return (
          <g key={b.move} fill="none" stroke="#4C9AB8" strokeWidth="1.4">
            <path d={`M${x0} ${y0}C${x0} ${(y0 + y1) / 2} ${x1} ${(y0 + y1) / 2} ${x1} ${y1}`} />
            <circle cx={x0} cy={y0} r="2.4" fill="#4C9AB8" />
            <circle cx={x1} cy={y1} r="2.4" fill="#0C2523" />
          </g>
        )
      })}
    </svg>
  )
}
