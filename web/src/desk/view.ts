// From page px to px of the desk and back.
import type { Film } from '../engine/types'
import type { View } from '../engine/painter'

/** Room left around the page when it is fitted, in px. */
const margin = { across: 40, down: 20 }

export function fitScale(film: Film, width: number, height: number): number {
  return Math.max(0.01, Math.min((width - 2 * margin.across) / film.width, (height - 2 * margin.down) / film.height))
}

/** The page as large as the window allows. */
export function largeView(film: Film, width: number, height: number): View {
  const scale = Math.min(width / film.width, height / film.height)
  return { scale, x: Math.round((width - film.width * scale) / 2), y: Math.round((height - film.height * scale) / 2) }
}

export function viewOf(
  film: Film,
  width: number,
  height: number,
  zoom: number | 'fit',
  pan: { x: number; y: number },
): View {
  const scale = zoom === 'fit' ? fitScale(film, width, height) : zoom
  const p = zoom === 'fit' ? { x: 0, y: 0 } : pan
  return {
    scale,
    x: Math.round((width - film.width * scale) / 2 + p.x),
    y: Math.round((height - film.height * scale) / 2 + p.y),
  }
}

export const toPage = (v: View, x: number, y: number): [number, number] => [(x - v.x) / v.scale, (y - v.y) / v.scale]
export const toDesk = (v: View, [x, y]: readonly [number, number]): [number, number] => [
  x * v.scale + v.x,
  y * v.scale + v.y,
]

/** The scale nearest to one that the page can be shown at. */
export const within = (scale: number) => Math.min(16, Math.max(0.02, scale))

/** Zoom and pan with which a point of the page lies at a point of the desk. */
export const shownAt = (
  film: Film,
  size: { w: number; h: number },
  zoom: number,
  [px, py]: readonly [number, number],
  [x, y]: readonly [number, number],
) => ({
  zoom,
  pan: { x: x - px * zoom - (size.w - film.width * zoom) / 2, y: y - py * zoom - (size.h - film.height * zoom) / 2 },
})

/** Begins a drag on the page: its kind, the handle that is seized and what of the layers it is of. */
export type Start = (kind: string, handle: string, move: string, e: React.PointerEvent) => void
