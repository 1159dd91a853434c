// From film time to px of the timeline and back, and where rows lie.
import type { Film, Row } from '../engine/types'
import { rem } from '../rem'

/** Width of the row heads in a timeline of a width, height of a row's lane, of the ruler and of the scenes, in px. */
export const headOf = (width: number) => Math.round(Math.min(240 * rem, width * 0.4))
export const rowHeight = Math.round(25 * rem)
export const soundHeight = Math.round(32 * rem) // of the row of a sound
export const captionHeight = Math.round(30 * rem) // of that of the captions
export const ruler = Math.round(24 * rem)
export const scenesHeight = Math.round(58 * rem)

/** perMs px a ms; from is the film time at the left edge; width is that of all that can be scrolled to. */
export interface Scale {
  perMs: number
  from: number
  width: number
}

export const px = (s: Scale, ms: number) => (ms - s.from) * s.perMs
export const ms = (s: Scale, x: number) => s.from + x / s.perMs

/** Room behind the end of what is shown, for the edge and for adding scenes. */
const behind = 72

/** Width of the card of what is set aside, behind the end of the film. */
export const asideWide = 96

/** The film, or one scene with the transition into it, fitted into a width and made larger by zoom. */
export function scaleOf(film: Film, scene: number, zoomed: 'film' | 'scene', width: number, zoom: number): Scale {
  const s = film.scenes[scene]
  const room = behind + (film.shown < film.scenes.length ? asideWide + 8 : 0)
  const [from, length] = zoomed === 'scene' ? [s.start, s.into + s.stay] : [0, film.length]
  const fit = Math.max(width - room, 100) / Math.max(length, 1)
  return { perMs: fit * zoom, from, width: Math.max(width, Math.max(length, 1) * fit * zoom + room) }
}

/** A row with its place; a selected row opens to one lane a move. */
export interface Placed {
  row: Row
  top: number
  height: number
  lanes: number
}

export function placeRows(rows: Row[], selection: string[]): { list: Placed[]; height: number } {
  const chosen = new Set(selection)
  let top = 0
  const list = rows.map((row) => {
    const lanes = chosen.has(row.thread) ? Math.max(1, ...row.bars.map((b) => b.lane + 1)) : 1
    const placed = { row, top, height: lanes * rowHeight, lanes }
    top += placed.height
    return placed
  })
  return { list, height: top }
}

/** The rows that are to be drawn when the view begins at top and is height high. */
export const inView = (list: Placed[], top: number, height: number) => {
  const room = 8 * rowHeight
  return list.filter((p) => p.top + p.height > top - room && p.top < top + height + room)
}

/** Where a bar lies in its row. */
export const laneTop = (p: Placed, lane: number) => p.top + (p.lanes > 1 ? lane * rowHeight : 0)
