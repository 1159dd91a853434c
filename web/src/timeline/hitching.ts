// What a dragged bar says, and hitches that are drawn from one bar to another.
import type { Snap } from '../engine/types'
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

/** A hitch being drawn from an end of a bar to the pointer. */
export interface Drawing {
  move: string
  part: 'begin' | 'end'
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
  selectMoves([move])
  const row = desk().rows.find((r) => r.bars.some((b) => b.move === move))
  const bar = row?.bars.find((b) => b.move === move)
  if (row && bar) say(notice('hitch.made', `${bar.name} of ${row.name}`, bar.words))
}
