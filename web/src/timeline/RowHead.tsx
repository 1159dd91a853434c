// The left end of the rows: the list of layers.
import { clsx } from 'clsx'
import { Eye, EyeOff, Lock, LockOpen, ScanEye } from 'lucide-react'
import { memo, useRef, useState } from 'react'
import type { Row } from '../engine/types'
import { deleteEverywhere, layerMenu } from '../actions/menus'
import { orderBy } from '../actions/ordering'
import { run } from '../project/commands'
import { desk, select, setSolo, useDesk } from '../project/desk'
import { rowHeight, type Placed } from './scale'
import { LayerThumb } from './thumbs'
import { tints } from '../ui/tints'
import { hold, letGo } from '../ui/drags'

interface Drop {
  thread: string
  where: 'above' | 'below' | 'inside'
}

export function Heads({
  placed,
  all,
  folded,
  onFold,
}: {
  placed: Placed[]
  all: Placed[]
  folded: Set<string> | null
  onFold: (thread: string) => void
}) {
  const selection = useDesk((d) => d.selection)
  const solo = useDesk((d) => d.solo)
  const scene = useDesk((d) => d.scene)
  const [drop, setDrop] = useState<Drop | null>(null)
  // What a row needs of the whole list, without being drawn anew when that changes.
  const list = useRef({ all, onFold })
  list.current = { all, onFold }
  return (
    <div role="list" aria-label="Layers">
      {placed.map((p) => (
        <RowHead
          key={p.row.thread}
          row={p.row}
          top={p.top}
          height={p.height}
          lanes={p.lanes}
          list={list}
          scene={p.lanes > 1 ? scene : 0}
          chosen={selection.includes(p.row.thread)}
          isFolded={folded === null || folded.has(p.row.thread)}
          alone={solo.includes(p.row.thread)}
          drop={drop?.thread === p.row.thread ? drop.where : null}
          onDrop={setDrop}
        />
      ))}
    </div>
  )
}

type List = React.RefObject<{ all: Placed[]; onFold: (thread: string) => void }>

let anchor = '' // the thread from which Shift selects

/** Chooses a row: alone; with Shift all from the one chosen last to it; with Ctrl beside the others, or no longer. */
export function choose(r: Row, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }, all: Placed[]) {
  if (r.here && orderBy(r.thread)) return
  const now = desk().selection
  const from = now.includes(anchor) ? anchor : now[now.length - 1]
  if (e.shiftKey && now.length > 0) {
    const [a, b] = [from, r.thread].map((t) => all.findIndex((p) => p.row.thread === t))
    const between = a < 0 ? [r] : all.slice(Math.min(a, b), Math.max(a, b) + 1).map((p) => p.row)
    const within = new Set(between.map((o) => o.thread))
    const inside = (o: Row): boolean => within.has(o.parent)
    const chosen = between.filter((o) => !inside(o)).map((o) => o.thread)
    select(a > b ? chosen.reverse() : chosen) // from the one chosen first on
    anchor = from
    return
  }
  anchor = r.thread
  if (e.ctrlKey || e.metaKey) select(now.includes(r.thread) ? now.filter((t) => t !== r.thread) : [...now, r.thread])
  else select([r.thread], r.parent)
}

/** The row under the pointer, and where a row dropped there goes. */
function over(e: React.PointerEvent, list: List): Drop | null {
  const el = document.elementsFromPoint(e.clientX, e.clientY).find((n) => n instanceof HTMLElement && n.dataset.row) as
    HTMLElement | undefined
  const row = list.current.all.find((p) => p.row.thread === el?.dataset.row)?.row
  if (!el || !row) return null
  const r = el.getBoundingClientRect()
  const share = (e.clientY - r.top) / r.height
  if (row.kind === 'group' && share > 0.3 && share < 0.7) return { thread: row.thread, where: 'inside' }
  return { thread: row.thread, where: share < 0.5 ? 'above' : 'below' }
}

/** Puts the keyboard on the row next to one. */
function step(thread: string, by: number, list: List) {
  const { all } = list.current
  const next = all[all.findIndex((p) => p.row.thread === thread) + by]
  if (!next) return
  const scroller = document.querySelector('[data-timeline]')!
  if (next.top < scroller.scrollTop) scroller.scrollTop = next.top
  requestAnimationFrame(() =>
    document.querySelector<HTMLElement>(`[data-row="${next.row.thread}"] [data-name]`)?.focus(),
  )
}

const RowHead = memo(function RowHead({
  row: r,
  top,
  height,
  lanes,
  list,
  scene,
  chosen,
  isFolded,
  alone,
  drop,
  onDrop,
}: {
  row: Row
  top: number
  height: number
  lanes: number
  list: List
  scene: number
  chosen: boolean
  isFolded: boolean
  alone: boolean
  drop: Drop['where'] | null
  onDrop: (d: Drop | null) => void
}) {
  const press = useRef<{ y: number; dragging: boolean } | null>(null)
  const cancel = () => {
    press.current = null
    letGo()
    onDrop(null)
  }
  return (
    <div
      role="listitem"
      aria-owns={`bars-${r.thread}`}
      data-row={r.thread}
      className={clsx(
        'group absolute inset-x-0',
        chosen ? 'bg-spruce-800' : 'hover:bg-spruce-900',
        r.here ? '' : 'opacity-60',
      )}
      style={{ top, height, boxShadow: `inset 3px 0 ${tints[r.tint & 7]}`, paddingLeft: 3 + Math.min(r.depth, 6) * 14 }}
    >
      {drop && (
        <span
          className={clsx(
            'pointer-events-none absolute inset-x-0 z-10',
            drop === 'inside'
              ? 'inset-y-0 border-2 border-brass-400'
              : drop === 'above'
                ? 'top-[-1px] h-[2px] bg-brass-400'
                : 'bottom-[-1px] h-[2px] bg-brass-400',
          )}
        />
      )}
      <div className="relative flex items-center" style={{ height: rowHeight }}>
        {r.group ? (
          <button
            type="button"
            aria-label={isFolded ? `Unfold ${r.name}` : `Fold ${r.name}`}
            aria-expanded={!isFolded}
            onClick={() => list.current.onFold(r.thread)}
            className="flex h-6 w-6 shrink-0 items-center justify-center text-foam-300"
          >
            <svg width="8" height="8" viewBox="0 0 8 8" aria-hidden className={isFolded ? '' : 'rotate-90'}>
              <path d="M2 1l4 3-4 3z" fill="currentColor" />
            </svg>
          </button>
        ) : (
          <span className="w-6 shrink-0" />
        )}
        <button
          type="button"
          data-name={r.name}
          aria-pressed={chosen}
          title={whereabouts(r)}
          className="flex h-full min-w-0 flex-1 items-center gap-2 text-left"
          onPointerDown={(e) => {
            if (e.button !== 0) return
            press.current = { y: e.clientY, dragging: false }
            hold(cancel)
            e.currentTarget.setPointerCapture(e.pointerId)
          }}
          onPointerMove={(e) => {
            const p = press.current
            if (!p || (!p.dragging && Math.abs(e.clientY - p.y) < 5)) return
            p.dragging = true
            onDrop(over(e, list))
          }}
          onPointerUp={(e) => {
            const p = press.current
            cancel()
            if (!p?.dragging) return
            const to = over(e, list)
            const moving = desk().selection.includes(r.thread) ? desk().selection : [r.thread]
            if (to && !moving.includes(to.thread))
              run('order.before', { threads: moving, target: to.thread, where: to.where })
          }}
          onPointerCancel={cancel}
          onClick={(e) => choose(r, e, list.current.all)}
          onContextMenu={(e) => layerMenu(e, r.thread)}
          onKeyDown={(e) => {
            if (e.key === 'ArrowDown' || e.key === 'ArrowUp') step(r.thread, e.key === 'ArrowDown' ? 1 : -1, list)
            else if (r.group && ((e.key === 'ArrowRight' && isFolded) || (e.key === 'ArrowLeft' && !isFolded)))
              list.current.onFold(r.thread)
            else if (e.key === 'ArrowRight')
              document.querySelector<SVGGElement>(`[data-bars="${r.thread}"] [data-bar]`)?.focus()
            else if (e.key === 'Delete' || e.key === 'Backspace')
              deleteEverywhere(chosen ? desk().selection : [r.thread])
            else return
            e.preventDefault()
            e.stopPropagation()
          }}
        >
          <LayerThumb layer={r.layer || r.spans[0]?.layer} />
          {r.mask && <MaskSign mask={r.mask} />}
          <span
            className={clsx(
              'truncate',
              chosen ? 'font-semibold' : '',
              r.hidden || r.locked || alone ? 'pr-19' : 'group-hover:pr-19',
            )}
          >
            {r.name}
          </span>
        </button>
        <span
          className={`absolute inset-y-0 right-0 flex items-center pr-1 ${chosen ? '' : 'group-hover:bg-spruce-900'}`}
        >
          <RowSign
            name={alone ? `Show all layers again, not ${r.name} alone` : `Look at ${r.name} alone`}
            on={alone}
            onClick={(e) => {
              const { solo } = desk()
              setSolo(alone ? solo.filter((t) => t !== r.thread) : e.shiftKey ? [...solo, r.thread] : [r.thread])
            }}
          >
            <ScanEye size={14} strokeWidth={1.5} />
          </RowSign>
          <RowSign
            name={r.hidden ? `Show ${r.name}` : `Hide ${r.name}`}
            on={r.hidden}
            onClick={() => run('set.everywhere', { thread: r.thread, patch: { hidden: r.hidden ? null : true } })}
          >
            {r.hidden ? <EyeOff size={14} strokeWidth={1.5} /> : <Eye size={14} strokeWidth={1.5} />}
          </RowSign>
          <RowSign
            name={r.locked ? `Unlock ${r.name}` : `Lock ${r.name}`}
            on={r.locked}
            onClick={() => run('set.everywhere', { thread: r.thread, patch: { locked: r.locked ? null : true } })}
          >
            {r.locked ? <Lock size={14} strokeWidth={1.5} /> : <LockOpen size={14} strokeWidth={1.5} />}
          </RowSign>
        </span>
      </div>
      {lanes > 1 &&
        Array.from({ length: lanes - 1 }, (_, k) => {
          // The lanes of a selected row say which move lies on them, in the scene that is shown.
          const bar = r.bars.find((b) => b.lane === k + 1 && b.scene === scene) ?? r.bars.find((b) => b.lane === k + 1)
          return (
            <span
              key={k}
              className={clsx(
                'pointer-events-none absolute right-2 truncate text-right text-[0.6875rem] leading-[1.5625rem]',
                'text-foam-300',
              )}
              style={{ top: (k + 1) * rowHeight, maxWidth: 150 }}
            >
              {bar?.name}
            </span>
          )
        })}
    </div>
  )
})

/** A ring, full or empty within: what a mask shows of the others. */
function MaskSign({ mask }: { mask: 'inside' | 'outside' }) {
  const says = mask === 'inside' ? 'A mask: the others show inside it' : 'A mask: it is punched out of the others'
  return (
    <svg
      width="14"
      height="14"
      viewBox="0 0 14 14"
      className="-ml-1 shrink-0 text-foam-300"
      role="img"
      aria-label={says}
    >
      <title>{says}</title>
      {mask === 'inside' ? (
        <circle cx="7" cy="7" r="3.6" fill="currentColor" />
      ) : (
        <path d="M1 1h12v12h-12zM7 3.4a3.6 3.6 0 1 0 .01 0z" fill="currentColor" fillRule="evenodd" />
      )}
      {mask === 'inside' && (
        <rect
          x="1"
          y="1"
          width="12"
          height="12"
          fill="none"
          stroke="currentColor"
          strokeWidth="1"
          strokeDasharray="2 2"
        />
      )}
    </svg>
  )
}

function RowSign({
  name,
  on,
  onClick,
  children,
}: {
  name: string
  on: boolean
  onClick: (e: React.MouseEvent) => void
  children: React.ReactNode
}) {
  return (
    <button
      type="button"
      aria-label={name}
      title={name}
      aria-pressed={on}
      onClick={onClick}
      className={clsx(
        'flex h-6 w-6 items-center justify-center rounded-md hover:bg-spruce-700',
        'focus-visible:opacity-100 group-hover:opacity-100',
        on ? 'text-brass-200' : 'text-foam-300 opacity-0',
      )}
    >
      {children}
    </button>
  )
}

/** A row in words: in which scenes it is, and into which it goes on by a morph. */
function whereabouts(r: Row): string {
  const list = (strand: boolean) => [...new Set(r.spans.filter((s) => s.strand === strand).map((s) => s.scene + 1))]
  const [inScenes, morphs] = [list(false), list(true)]
  return [
    r.name,
    inScenes.length === 1 ? `in scene ${inScenes[0]}` : `in scenes ${inScenes.join(', ')}`,
    ...(morphs.length ? [`morphs into ${morphs.join(', ')}`] : []),
    ...(r.group ? ['a group'] : []),
  ].join('; ')
}
