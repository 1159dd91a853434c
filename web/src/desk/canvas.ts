// What the desk's canvas shows: the page at a moment with its wings, masks and ends of moves over it; and what colour a
// point of it has.
import { engine } from '../engine/engine'
import { Standing } from '../engine/paint/standing'
import { paint, type View } from '../engine/painter'
import { desk, set } from '../project/desk'

/** The colour that a point of the desk shows, as #rrggbb. */
export function colourAt(c: HTMLCanvasElement, x: number, y: number): string {
  const dpr = window.devicePixelRatio || 1
  const [r, g, b] = c
    .getContext('2d', { alpha: false })!
    .getImageData(Math.round(x * dpr), Math.round(y * dpr), 1, 1).data
  return `#${[r, g, b].map((v) => v.toString(16).padStart(2, '0')).join('')}`
}

/** Hands the colour of a point to who asked for one. */
export function pickAt(c: HTMLCanvasElement, x: number, y: number) {
  const { picking } = desk()
  set({ picking: null })
  picking?.(colourAt(c, x, y))
}

/** Whether what the canvas shows differs between two states of the store. */
export const showsOther = (d: ReturnType<typeof desk>, was: ReturnType<typeof desk>) =>
  d.moment !== was.moment ||
  d.version !== was.version ||
  d.aids.wings !== was.aids.wings ||
  d.picking !== was.picking ||
  d.ends !== was.ends ||
  (d.ends && d.selection !== was.selection) ||
  (d.selected !== was.selected && [...d.selected, ...was.selected].some((s) => s.layer.mask))

/** A page without a ground: squares of sailcloth on what is there. */
export function chequer(x: CanvasRenderingContext2D, left: number, top: number, w: number, h: number, side: number) {
  x.save()
  x.beginPath()
  x.rect(left, top, w, h)
  x.clip()
  x.beginPath()
  for (let j = 0; j * side < h; j++)
    for (let i = j % 2; i * side < w; i += 2) x.rect(left + i * side, top + j * side, side, side)
  x.fillStyle = '#EFE9DC'
  x.fill()
  x.restore()
}

const standing = new Standing()

/** Paints the desk as the store has it. */
export function drawDesk(c: HTMLCanvasElement, view: View, size: { w: number; h: number }) {
  const dpr = window.devicePixelRatio || 1
  const [w, h] = [Math.round(size.w * dpr), Math.round(size.h * dpr)]
  if (c.width !== w || c.height !== h) {
    c.width = w
    c.height = h
  }
  const ctx = c.getContext('2d', { alpha: false })!
  const { film, moment, playing, large } = desk()
  const wings = large ? '#0C2523' : '#EAE3D4'
  const v = { scale: view.scale * dpr, x: view.x * dpr, y: view.y * dpr }
  const [pw, ph] = [film!.width * v.scale, film!.height * v.scale]
  const ground = (x: CanvasRenderingContext2D) => {
    x.setTransform(1, 0, 0, 1, 0, 0)
    x.fillStyle = wings
    x.fillRect(0, 0, w, h)
    x.fillStyle = '#FFFFFF'
    x.fillRect(v.x, v.y, pw, ph)
    if (film!.clear) chequer(x, v.x, v.y, pw, ph, 8 * dpr)
  }
  standing.paint(ctx, engine.frame(moment, v.scale), v, `${wings}${film!.clear}`, ground, desk().dragging)
  const { ends, selection, selected, picking } = desk()
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  if (!playing && !large && !picking) {
    // colours are picked from what is painted alone
    if (ends && selection.length) paint(ctx, engine.endsFrame(moment, selection, v.scale), v)
    if (selected.some((s) => s.layer.mask)) paint(ctx, engine.masksFrame(moment, selection, v.scale), v)
  }
  // What lies in the wings is seen faintly, and not at all while playing.
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.fillStyle = playing || large || !desk().aids.wings ? wings : 'rgb(234 227 212 / 0.78)'
  ctx.beginPath()
  ctx.rect(0, 0, w, h)
  ctx.rect(v.x, v.y, pw, ph)
  ctx.fill('evenodd')
  if (large) return
  ctx.strokeStyle = '#D8CEBA'
  ctx.lineWidth = dpr
  ctx.strokeRect(v.x - dpr / 2, v.y - dpr / 2, pw + dpr, ph + dpr)
}
