// The left end of the rows: the list of layers.
import { Eye, EyeOff, Lock, LockOpen, ScanEye } from 'lucide-react'
import { useRef, useState } from 'react'
import type { Row } from '../engine/types'
import { run } from '../project/commands'
import { desk, say, select, setSolo, useDesk } from '../project/desk'
import { rowHeight, type Placed } from './scale'
import { LayerThumb } from './thumbs'
import { tints } from './tints'

interface Drop { thread: string; where: 'above' | 'below' | 'inside' }

export function Heads({ placed, all, folded, onFold }: { placed: Placed[]; all: Placed[]; folded: Set<string> | null; onFold: (thread: string) => void }) {
  const selection = useDesk((d) => d.selection)
  const solo = useDesk((d) => d.solo)
  const scene = useDesk((d) => d.scene)
  const [drop, setDrop] = useState<Drop | null>(null)
  const press = useRef<{ y: number; thread: string; dragging: boolean } | null>(null)

  const choose = (r: Row, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) => {
    const now = desk().selection
    if (e.shiftKey || e.ctrlKey || e.metaKey) select(now.includes(r.thread) ? now.filter((t) => t !== r.thread) : [...now, r.thread])
    else select([r.thread], r.parent)
  }
  const over = (e: React.PointerEvent): Drop | null => {
    const el = document.elementsFromPoint(e.clientX, e.clientY).find((n) => n instanceof HTMLElement && n.dataset.row) as HTMLElement | undefined
    const row = all.find((p) => p.row.thread === el?.dataset.row)?.row
    if (!el || !row) return null
    const r = el.getBoundingClientRect()
    const share = (e.clientY - r.top) / r.height
    if (row.kind === 'group' && share > 0.3 && share < 0.7) return { thread: row.thread, where: 'inside' }
    return { thread: row.thread, where: share < 0.5 ? 'above' : 'below' }
  }
  const step = (thread: string, by: number) => {
    const next = all[all.findIndex((p) => p.row.thread === thread) + by]
    if (!next) return
    const scroller = document.querySelector('[data-timeline]')!
    if (next.top < scroller.scrollTop) scroller.scrollTop = next.top
    requestAnimationFrame(() => document.querySelector<HTMLElement>(`[data-row="${next.row.thread}"] [data-name]`)?.focus())
  }
  return (
    <div role="list" aria-label="Layers">
      {placed.map(({ row: r, top, height, lanes }) => {
        const chosen = selection.includes(r.thread)
        const isFolded = folded === null || folded.has(r.thread)
        const alone = solo.includes(r.thread)
        return (
          <div
            key={r.thread} role="listitem" data-row={r.thread}
            className={`group absolute inset-x-0 ${chosen ? 'bg-spruce-800' : 'hover:bg-spruce-900'} ${r.here ? '' : 'opacity-60'}`}
            style={{ top, height, boxShadow: `inset 3px 0 ${tints[r.tint & 7]}`, paddingLeft: 8 + Math.min(r.depth, 6) * 14 }}
          >
            {drop?.thread === r.thread && (
              <span className={`pointer-events-none absolute inset-x-0 z-10 ${drop.where === 'inside' ? 'inset-y-0 border-2 border-brass-400' : drop.where === 'above' ? 'top-[-1px] h-[2px] bg-brass-400' : 'bottom-[-1px] h-[2px] bg-brass-400'}`} />
            )}
            <div className="relative flex items-center" style={{ height: rowHeight }}>
              {r.group ? (
                <button type="button" aria-label={isFolded ? `Unfold ${r.name}` : `Fold ${r.name}`} aria-expanded={!isFolded} onClick={() => onFold(r.thread)} className="flex h-6 w-[14px] shrink-0 items-center justify-center text-foam-300">
                  <svg width="8" height="8" viewBox="0 0 8 8" aria-hidden className={isFolded ? '' : 'rotate-90'}><path d="M2 1l4 3-4 3z" fill="currentColor" /></svg>
                </button>
              ) : <span className="w-[14px] shrink-0" />}
              <button
                type="button" data-name={r.name} aria-pressed={chosen} title={r.name}
                className="flex h-full min-w-0 flex-1 items-center gap-2 text-left"
                onPointerDown={(e) => {
                  if (e.button !== 0) return
                  press.current = { y: e.clientY, thread: r.thread, dragging: false }
                  e.currentTarget.setPointerCapture(e.pointerId)
                }}
                onPointerMove={(e) => {
                  const p = press.current
                  if (!p || (!p.dragging && Math.abs(e.clientY - p.y) < 5)) return
                  p.dragging = true
                  setDrop(over(e))
                }}
                onPointerUp={(e) => {
                  const p = press.current
                  press.current = null
                  setDrop(null)
                  if (!p?.dragging) return
                  const to = over(e)
                  const moving = desk().selection.includes(p.thread) ? desk().selection : [p.thread]
                  if (to && !moving.includes(to.thread)) run('order.before', { threads: moving, target: to.thread, where: to.where })
                }}
                onPointerCancel={() => { press.current = null; setDrop(null) }}
                onClick={(e) => choose(r, e)}
                onKeyDown={(e) => {
                  if (e.key === 'ArrowDown' || e.key === 'ArrowUp') step(r.thread, e.key === 'ArrowDown' ? 1 : -1)
                  else if (r.group && ((e.key === 'ArrowRight' && isFolded) || (e.key === 'ArrowLeft' && !isFolded))) onFold(r.thread)
                  else if (e.key === 'ArrowRight') document.querySelector<SVGGElement>(`[data-bars="${r.thread}"] [data-bar]`)?.focus()
                  else if (e.key === 'Delete' || e.key === 'Backspace') {
                    const n = new Set(r.spans.filter((s) => !s.strand).map((s) => s.scene)).size
                    if (run('delete', { threads: [r.thread], everywhere: true })) say(`“${r.name}” is gone from ${n === 1 ? 'its scene' : `all ${n} scenes`}. Undo brings it back.`)
                  } else return
                  e.preventDefault()
                  e.stopPropagation()
                }}
              >
                <LayerThumb layer={r.layer || r.spans[0]?.layer} />
                <span className={`truncate ${chosen ? 'font-semibold' : ''} ${r.hidden || r.locked || alone ? 'pr-[70px]' : 'group-hover:pr-[70px]'}`}>{r.name}</span>
              </button>
              <span className={`absolute inset-y-0 right-0 flex items-center pr-1 ${chosen ? '' : 'group-hover:bg-spruce-900'}`}>
                <RowSign name={alone ? `Show all layers again, not ${r.name} alone` : `Look at ${r.name} alone`} on={alone} onClick={(e) => setSolo(alone ? solo.filter((t) => t !== r.thread) : e.shiftKey ? [...solo, r.thread] : [r.thread])}>
                  <ScanEye size={14} strokeWidth={1.5} />
                </RowSign>
                <RowSign name={r.hidden ? `Show ${r.name}` : `Hide ${r.name}`} on={r.hidden} onClick={() => run('set.everywhere', { thread: r.thread, patch: { hidden: r.hidden ? null : true } })}>
                  {r.hidden ? <EyeOff size={14} strokeWidth={1.5} /> : <Eye size={14} strokeWidth={1.5} />}
                </RowSign>
                <RowSign name={r.locked ? `Unlock ${r.name}` : `Lock ${r.name}`} on={r.locked} onClick={() => run('set.everywhere', { thread: r.thread, patch: { locked: r.locked ? null : true } })}>
                  {r.locked ? <Lock size={14} strokeWidth={1.5} /> : <LockOpen size={14} strokeWidth={1.5} />}
                </RowSign>
              </span>
            </div>
            {lanes > 1 && Array.from({ length: lanes }, (_, k) => {
              // The lanes of a selected row say which move lies on them, in the scene that is shown.
              const bar = r.bars.find((b) => b.lane === k && b.scene === scene) ?? r.bars.find((b) => b.lane === k)
              return <span key={k} className={`pointer-events-none absolute right-2 truncate text-right text-[11px] leading-[25px] text-foam-300 ${k === 0 ? 'hidden' : ''}`} style={{ top: k * rowHeight, maxWidth: 150 }}>{bar?.name}</span>
            })}
          </div>
        )
      })}
    </div>
  )
}

function RowSign({ name, on, onClick, children }: { name: string; on: boolean; onClick: (e: React.MouseEvent) => void; children: React.ReactNode }) {
  return (
    <button
      type="button" aria-label={name} title={name} aria-pressed={on} onClick={onClick}
      className={`flex h-6 w-[22px] items-center justify-center rounded-md hover:bg-spruce-700 focus-visible:opacity-100 group-hover:opacity-100 ${on ? 'text-brass-200' : 'text-foam-300 opacity-0'}`}
    >
      {children}
    </button>
  )
}
