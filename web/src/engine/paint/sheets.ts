// Sheets are canvases to paint on before what is on them is laid over something else. Each has a place in device px, so
// that a small group costs a small sheet.

/** A box in device px, whole numbers. */
export interface Rect {
  x: number
  y: number
  w: number
  h: number
}

export interface Sheet {
  ctx: CanvasRenderingContext2D
  box: Rect
}

const spare: HTMLCanvasElement[] = []
const mostSpare = 10

export const empty = (r: Rect) => r.w <= 0 || r.h <= 0

export function grow(r: Rect, d: number): Rect {
  return { x: r.x - d, y: r.y - d, w: r.w + 2 * d, h: r.h + 2 * d }
}

export function intersect(a: Rect, b: Rect): Rect {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  return { x, y, w: Math.min(a.x + a.w, b.x + b.w) - x, h: Math.min(a.y + a.h, b.y + b.h) - y }
}

/** The whole px a box touches, with room for rounding. */
export function around(x0: number, y0: number, x1: number, y1: number): Rect {
  const room = 1 / 64
  const cut = (v: number) => Math.min(1e6, Math.max(-1e6, v))
  const [l, t] = [cut(Math.floor(x0 - room)), cut(Math.floor(y0 - room))]
  return { x: l, y: t, w: cut(Math.ceil(x1 + room)) - l, h: cut(Math.ceil(y1 + room)) - t }
}

/** A clear sheet. */
export function take(box: Rect): Sheet {
  const [w, h] = [Math.max(1, box.w), Math.max(1, box.h)]
  let best = -1
  for (let i = 0; i < spare.length; i++) {
    const c = spare[i]
    if (
      c.width >= w &&
      c.height >= h &&
      c.width * c.height <= 4 * w * h + 65536 &&
      (best < 0 || c.width * c.height < spare[best].width * spare[best].height)
    )
      best = i
  }
  let canvas: HTMLCanvasElement
  if (best >= 0) {
    canvas = spare.splice(best, 1)[0]
  } else {
    canvas = document.createElement('canvas')
    canvas.width = Math.ceil(w / 64) * 64
    canvas.height = Math.ceil(h / 64) * 64
  }
  const ctx = canvas.getContext('2d')!
  plain(ctx)
  ctx.clearRect(0, 0, canvas.width, canvas.height)
  return { ctx, box }
}

export function give(s: Sheet) {
  if (spare.length >= mostSpare) spare.shift()
  spare.push(s.ctx.canvas)
}

/** Sets a context to px of its canvas, normal and whole. */
export function plain(ctx: CanvasRenderingContext2D) {
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.globalAlpha = 1
  ctx.globalCompositeOperation = 'source-over'
  ctx.filter = 'none'
}

/** Lays a sheet on another where it belongs. */
export function lay(on: Sheet, s: Sheet, how: GlobalCompositeOperation = 'source-over', alpha = 1, filter = 'none') {
  const { ctx } = on
  plain(ctx)
  ctx.globalCompositeOperation = how
  ctx.globalAlpha = alpha
  ctx.filter = filter
  ctx.drawImage(s.ctx.canvas, 0, 0, s.box.w, s.box.h, s.box.x - on.box.x, s.box.y - on.box.y, s.box.w, s.box.h)
  plain(ctx)
}
