// What a dragged bar says, and hitches that are drawn from one bar to another.
import type { Snap } from '../engine/types'
import { engine } from '../engine/engine'
import { run } from '../project/commands'
import { desk, say, selectMoves } from '../project/desk'
import { notice } from '../words'

/** What a dragged bar says beside the pointer. */
export interface Saying {
  x: number
  bar: string
  snap: Snap | null
  hangs: boolean
}

/** A hitch being drawn from an end of a bar, or a tie from its middle, to the pointer. */
export interface Drawing {
  move: string
  part: 'begin' | 'end' | 'tie'
  x0: number
  y0: number
  x: number
  y: number
}

/**
 * Draws a hitch from an end of the bar that follows to the begin or end of the one that it follows, as the pointer
 * lies in that. It says what it comes to.
 */
export function hitchTo(move: string, part: 'begin' | 'end', e: { clientX: number; clientY: number }) {
  const g = document
    .elementsFromPoint(e.clientX, e.clientY)
    .map((n) => n.closest<SVGGElement>('[data-bar]'))
    .find((n) => n && n.dataset.bar !== move)
  if (!g) return
  const r = g.querySelector('[data-part=whole]')!.getBoundingClientRect()
  const toPart = e.clientX > r.left + r.width / 2 && r.width > 12 ? 'end' : 'begin'
  if (!run('hitch', { from: g.dataset.bar, fromPart: toPart, to: move, toPart: part })) return
  tell(move)
}

/** Ties an edge of a bar's move to the layer that lies under the pointer, on the page or as a row. */
export function tieTo(move: string, e: { clientX: number; clientY: number }) {
  const thread = layerUnder(e)
  if (!thread || !run('tie', { move, thread })) return
  tell(move)
}

/** Selects a bar, and says what it hangs on or is tied to. */
function tell(move: string) {
  selectMoves([move])
  const row = desk().rows.find((r) => r.bars.some((b) => b.move === move))
  const bar = row?.bars.find((b) => b.move === move)
  if (row && bar) say(notice('hitch.made', `${bar.name} of ${row.name}`, bar.words))
}

/** The thread of the layer under the pointer: of its row, or of what shows there on the page. */
function layerUnder(e: { clientX: number; clientY: number }): string | undefined {
  for (const n of document.elementsFromPoint(e.clientX, e.clientY)) {
    const row = n.closest<HTMLElement | SVGElement>('[data-row], [data-bars]')
    if (row) return row.dataset.row ?? row.dataset.bars
    if (!n.closest('[data-desk]')) continue
    const page = document.querySelector<HTMLElement>('[data-page]')!
    const box = page.getBoundingClientRect()
    const [scale, x, y] = (page.dataset.view ?? '1 0 0').split(' ').map(Number)
    const at = [(e.clientX - box.left - x) / scale, (e.clientY - box.top - y) / scale]
    return engine.hit(desk().moment, at[0], at[1], 6 / scale)[0]
  }
}
