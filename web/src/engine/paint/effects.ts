// Blur, feather and shadow of sheets, as core/raster/blur.go has them.
import { adjusted, type Adjusting } from './adjust'
import { give, grow, intersect, lay, plain, take, type Rect, type Sheet } from './sheets'

/**
 * Makes the cover of a mask its luminance, as core/raster has it: over black, an SVG filter makes light into cover.
 */
export function lit(mask: Sheet) {
  if (!document.getElementById('light-mask'))
    document.body.insertAdjacentHTML(
      'beforeend',
      '<svg width="0" height="0" aria-hidden="true" class="absolute">' +
        '<filter id="light-mask" filterUnits="userSpaceOnUse" x="0" y="0" width="32768" height="32768" ' +
        'color-interpolation-filters="sRGB"><feColorMatrix type="luminanceToAlpha"/></filter></svg>',
    )
  const dark = take(mask.box)
  dark.ctx.fillStyle = '#000'
  dark.ctx.fillRect(0, 0, mask.box.w, mask.box.h)
  lay(dark, mask)
  mask.ctx.clearRect(0, 0, mask.box.w, mask.box.h)
  lay(mask, dark, 'copy', 1, 'url(#light-mask)')
  give(dark)
}

export interface Effects {
  opacity: number
  blur: number
  feather: number
  shadow: { x: number; y: number; blur: number; css: string; alpha: number }
  adjust: Adjusting | null // done first
}

/** How many px a blur spreads what it blurs. */
export function reachOf(sigma: number): number {
  if (sigma <= 0) return 0
  if (sigma < 2) return Math.ceil(3 * sigma)
  return Math.floor((3 * Math.floor((sigma * 3 * Math.sqrt(2 * Math.PI)) / 4 + 0.5) + 1) / 2)
}

const featherSigma = (width: number) => width / 2.8

/** How much farther, in device px, effects may reach than the list says: blurs are boxes of whole pixels. */
export const effectsRoom = 6

/** The part of box that decides what is seen in the part on, with what shines and casts shadows in from around it. */
export function needed(box: Rect, on: Rect, e: Effects): Rect {
  const near = grow(
    on,
    reachOf(e.blur) + reachOf(featherSigma(e.feather)) + (e.adjust?.sharp ? reachOf(e.adjust.sigma) : 0),
  )
  let need = near
  if (e.shadow.alpha > 0) {
    const cast = grow(
      { ...near, x: near.x - Math.round(e.shadow.x), y: near.y - Math.round(e.shadow.y) },
      reachOf(e.shadow.blur) + 1,
    )
    const [x, y] = [Math.min(near.x, cast.x), Math.min(near.y, cast.y)]
    need = {
      x,
      y,
      w: Math.max(near.x + near.w, cast.x + cast.w) - x,
      h: Math.max(near.y + near.h, cast.y + cast.h) - y,
    }
  }
  return intersect(box, need)
}

/** Fades the border of a sheet over width px, inwards: cover a becomes a x max(0, 2 b - 1), b its blurred cover. */
export function feather(s: Sheet, width: number) {
  // 1 - b, then twice that. With room around: at the end of a canvas browsers blur otherwise.
  const rest = take(grow(s.box, reachOf(featherSigma(width)) + 1))
  const x = rest.ctx
  x.fillStyle = '#000'
  x.fillRect(0, 0, rest.box.w, rest.box.h)
  lay(rest, s, 'destination-out', 1, `blur(${featherSigma(width)}px)`)
  const twice = take(rest.box)
  lay(twice, rest)
  lay(twice, rest, 'lighter')
  lay(s, twice, 'destination-out')
  give(rest)
  give(twice)
}

/** Returns a sheet with the effects but for the opacity; the one given is taken. */
export function withEffects(s: Sheet, e: Effects, part: Rect): Sheet {
  if (e.adjust) s = adjusted(s, e.adjust)
  if (e.feather > 0) feather(s, e.feather)
  if (e.blur > 0) {
    const out = take(grow(s.box, reachOf(e.blur)))
    lay(out, s, 'source-over', 1, `blur(${e.blur}px)`)
    give(s)
    s = out
  }
  if (e.shadow.alpha > 0) {
    const out = take(part)
    const { ctx } = out
    // The shape alone, in the shadow's colour, softened as it is laid.
    const shape = take(s.box)
    lay(shape, s)
    shape.ctx.globalCompositeOperation = 'source-in'
    shape.ctx.fillStyle = e.shadow.css
    shape.ctx.fillRect(0, 0, s.box.w, s.box.h)
    plain(shape.ctx)
    if (e.shadow.blur > 0) ctx.filter = `blur(${e.shadow.blur}px)`
    ctx.drawImage(
      shape.ctx.canvas,
      0,
      0,
      s.box.w,
      s.box.h,
      s.box.x - part.x + e.shadow.x,
      s.box.y - part.y + e.shadow.y,
      s.box.w,
      s.box.h,
    )
    plain(ctx)
    give(shape)
    lay(out, s)
    give(s)
    s = out
  }
  return s
}
