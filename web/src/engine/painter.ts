// Paints display lists on a canvas. The rasteriser in core/raster does the same for files; both follow the Op constants
// of core/frame, and a conformance test holds them against each other.
import { engine } from './engine'
import { readAdjusting } from './paint/adjust'
import { picture, pictureMissing, picturesArrived } from './paint/bitmaps'
import { effectsRoom, feather, lit, needed, reachOf, withEffects, type Effects } from './paint/effects'
import { skipInside, type Mark } from './paint/items'
import { keep, keptGroup } from './paint/kept'
import { outline, path2D } from './paint/outlines'
import { inPerspective } from './paint/perspective'
import { around, empty, give, grow, intersect, lay, plain, take, type Rect, type Sheet } from './paint/sheets'
import { readTerms, veilMask } from './paint/veil'
import { blends, op, paintKind, term } from './primitives'
import type { List } from './types'

import { missingSign } from './paint/missing'

export { picturesArrived, picturesSettled, whenPictureArrives } from './paint/bitmaps'

/** The matrix from page px to px of a canvas. */
export interface View {
  scale: number
  x: number
  y: number
}

const composites: Record<(typeof blends)[number], GlobalCompositeOperation> = {
  normal: 'source-over',
  multiply: 'multiply',
  screen: 'screen',
  overlay: 'overlay',
  darken: 'darken',
  lighten: 'lighten',
  colourDodge: 'color-dodge',
  colourBurn: 'color-burn',
  hardLight: 'hard-light',
  softLight: 'soft-light',
  difference: 'difference',
  exclusion: 'exclusion',
  added: 'lighter',
}

const css = (v: ArrayLike<number>, at: number, alpha = 1) =>
  `rgb(${v[at] * 255} ${v[at + 1] * 255} ${v[at + 2] * 255} / ${v[at + 3] * alpha})`

// Browsers draw an upright picture with hard edges, so one that moves by parts of a pixel would jump. A turn too small
// to be seen (1e-4 px over 1000) makes them antialias. Where all edges lie on pixels it is left alone.
function smoothSides(x: CanvasRenderingContext2D, bx: number, by: number, bw: number, bh: number) {
  const m = x.getTransform()
  if (m.b !== 0 || m.c !== 0) return
  const off = (v: number) => Math.abs(v - Math.round(v)) > 1 / 64
  if (off(bx * m.a + m.e) || off((bx + bw) * m.a + m.e) || off(by * m.d + m.f) || off((by + bh) * m.d + m.f)) {
    x.setTransform(m.a, m.a * 1e-7, m.d * -1e-7, m.d, m.e, m.f)
  }
}

/** Paints a list, or its items from one mark to another. The canvas keeps what was on it. */
export function paint(
  ctx: CanvasRenderingContext2D,
  list: List,
  view: View,
  from: Mark = { c: 0, n: 0 },
  to = list.codes.length,
) {
  new Painting(list, view, from, to).run({ ctx, box: { x: 0, y: 0, w: ctx.canvas.width, h: ctx.canvas.height } })
  plain(ctx)
}

/** One pass through a list. */
class Painting {
  private c: number
  private n: number
  private codes: Uint32Array
  private numbers: Float64Array
  private pictures: string[]

  constructor(
    private list: List,
    private view: View,
    from: Mark,
    private end: number,
  ) {
    this.codes = list.codes
    this.numbers = list.numbers
    this.pictures = engine.pictures()
    this.c = from.c
    this.n = from.n
  }

  // m, local px to page px, as the transform of a sheet.
  private place(on: Sheet, at = this.n) {
    const { scale: s, x, y } = this.view
    const v = this.numbers
    on.ctx.setTransform(
      v[at] * s,
      v[at + 1] * s,
      v[at + 2] * s,
      v[at + 3] * s,
      v[at + 4] * s + x - on.box.x,
      v[at + 5] * s + y - on.box.y,
    )
  }

  // A box in page px, as px of the device.
  private rect(): Rect {
    const { scale: s, x, y } = this.view
    const [bx, by, bw, bh] = this.numbers.subarray(this.n, this.n + 4)
    this.n += 4
    if (bw <= 0 && bh <= 0) return { x: 0, y: 0, w: 0, h: 0 }
    return around(bx * s + x, by * s + y, (bx + bw) * s + x, (by + bh) * s + y)
  }

  // Fills a path with the paint whose codes begin at at, its numbers where the reader stands.
  private fill(on: Sheet, path: Path2D, kind: number, stops: number) {
    const { ctx } = on
    const v = this.numbers
    if (kind === paintKind.colour) {
      ctx.fillStyle = css(v, this.n)
      this.n += 4
      ctx.fill(path)
      return
    }
    if (kind === paintKind.texture) {
      this.tiled(on, path, stops)
      return
    }
    const at = this.n
    const radial = kind === paintKind.radial
    const alpha = at + (radial ? 8 : 6)
    const first = alpha + 1
    this.n = first + 5 * stops
    const [a, b, c, d, e, f] = v.subarray(at, at + 6)
    if (a * d - b * c === 0) {
      ctx.fillStyle = css(v, first + 5 * (stops - 1) + 1, v[alpha]) // without extent: its last colour
      ctx.fill(path)
      return
    }
    // Where its axes are square the gradient lies in those of the path, else the path is taken into those of the
    // gradient.
    const square = Math.abs(a - d) + Math.abs(b + c) < 1e-9 * (Math.abs(a) + Math.abs(b))
    const r = Math.hypot(a, b)
    const [fx, fy] = radial ? [v[at + 6], v[at + 7]] : [0, 0]
    let g: CanvasGradient
    if (square) {
      g = radial
        ? ctx.createRadialGradient(a * fx + c * fy + e, b * fx + d * fy + f, 0, e, f, r)
        : ctx.createLinearGradient(e, f, e + a, f + b)
    } else {
      g = radial ? ctx.createRadialGradient(fx, fy, 0, 0, 0, 1) : ctx.createLinearGradient(0, 0, 1, 0)
      const m = new DOMMatrix([a, b, c, d, e, f])
      const own = new Path2D()
      own.addPath(path, m.inverse())
      path = own
      ctx.transform(a, b, c, d, e, f)
    }
    for (let i = 0; i < stops; i++) g.addColorStop(v[first + 5 * i], css(v, first + 5 * i + 1))
    ctx.fillStyle = g
    ctx.globalAlpha = v[alpha]
    ctx.fill(path)
    ctx.globalAlpha = 1
  }

  // A picture laid side by side, whose tile of 1 by 1 the next numbers map to the path's axes.
  private tiled(on: Sheet, path: Path2D, index: number) {
    const { ctx } = on
    const [a, b, c, d, e, f, alpha] = this.numbers.subarray(this.n, this.n + 7)
    this.n += 7
    const bitmap = picture(this.pictures[index], this.mip)
    if (!bitmap) {
      ctx.fillStyle = 'rgb(216 206 186 / 0.6)'
      ctx.fill(path)
      return
    }
    const pattern = ctx.createPattern(bitmap, 'repeat')!
    pattern.setTransform(
      new DOMMatrix([a / bitmap.width, b / bitmap.width, c / bitmap.height, d / bitmap.height, e, f]),
    )
    ctx.imageSmoothingEnabled = true
    ctx.imageSmoothingQuality = 'low'
    ctx.fillStyle = pattern
    ctx.globalAlpha = alpha
    ctx.fill(path)
    ctx.globalAlpha = 1
  }

  private mip = 0 // of the texture whose codes were read last

  private paintCodes(): [number, number] {
    const kind = this.codes[this.c++]
    const stops = kind === paintKind.colour ? 0 : this.codes[this.c++]
    this.mip = kind === paintKind.texture ? this.codes[this.c++] : 0
    return [kind, stops] // of a texture, its picture
  }

  /** Paints up to the end of the list or of the enclosing group. */
  run(on: Sheet) {
    while (this.c < this.end) {
      const code = this.codes[this.c]
      if (code === op.end || code === op.next) {
        this.c++
        return
      }
      this.item(on)
    }
  }

  private item(on: Sheet) {
    const begin = { c: this.c, n: this.n }
    switch (this.codes[this.c++]) {
      case op.fill: {
        const key = this.codes[this.c++]
        const [kind, stops] = this.paintCodes()
        this.place(on)
        this.n += 6
        this.fill(on, outline(key).path, kind, stops)
        return
      }
      case op.outline: {
        const count = this.codes[this.c++]
        const verbs = this.codes.subarray(this.c, this.c + count)
        this.c += count
        const [kind, stops] = this.paintCodes()
        this.place(on)
        this.n += 6
        const path = path2D(verbs, this.numbers, this.n)
        for (const v of verbs) this.n += v === 2 ? 6 : v === 3 ? 0 : 2
        this.fill(on, path, kind, stops)
        return
      }
      case op.picture:
        return this.picture(on)
      case op.group:
        return this.group(on, begin)
      case op.mix:
        return this.mix(on)
      case op.clipPage:
        return this.clipPage(on)
      case op.veil:
        return this.veil(on)
      case op.wipe:
        return this.wipe(on)
      case op.clip:
        return this.clip(on)
      case op.mask:
        return this.mask(on)
      case op.project:
        return this.project(on)
      case op.tile:
        return this.tile(on)
      default:
        throw new Error(`The display list holds an unknown primitive ${this.codes[this.c - 1]}.`)
    }
  }

  private picture(on: Sheet) {
    const x = on.ctx
    const [index, mip, key] = this.codes.subarray(this.c, this.c + 3)
    this.c += 3
    this.place(on)
    this.n += 6
    const [bx, by, bw, bh, l, t, r, b, alpha] = this.numbers.subarray(this.n, this.n + 9)
    this.n += 9
    const bitmap = picture(this.pictures[index], mip)
    if (!bitmap) {
      if (pictureMissing(this.pictures[index])) missingSign(x, outline(key).path, bx, by, bw, bh)
      else {
        x.fillStyle = 'rgb(216 206 186 / 0.6)'
        x.fill(outline(key).path)
      }
      return
    }
    x.save()
    smoothSides(x, bx, by, bw, bh)
    x.imageSmoothingEnabled = true
    x.imageSmoothingQuality = 'low'
    x.globalAlpha = alpha
    const o = outline(key)
    if (o.verbs > 5) x.clip(o.path) // rounded corners
    x.drawImage(
      bitmap,
      l * bitmap.width,
      t * bitmap.height,
      (r - l) * bitmap.width,
      (b - t) * bitmap.height,
      bx,
      by,
      bw,
      bh,
    )
    x.restore()
  }

  private group(on: Sheet, begin: Mark) {
    const blend = this.codes[this.c++]
    const shown = this.rect()
    const box = this.rect()
    const v = this.numbers
    const k = this.view.scale
    const at = this.n
    this.n += 24
    const e: Effects = {
      opacity: v[at],
      blur: Math.min(1000, v[at + 1] * k),
      feather: Math.min(1000, v[at + 2] * k),
      shadow: {
        x: v[at + 3] * k,
        y: v[at + 4] * k,
        blur: Math.min(1000, v[at + 5] * k),
        css: css(v, at + 6),
        alpha: v[at + 9],
      },
      adjust: readAdjusting(v, at + 10, k),
    }
    const plainly = e.blur === 0 && e.feather === 0 && e.shadow.alpha === 0 && !e.adjust
    const part = intersect(plainly || empty(shown) ? shown : grow(shown, effectsRoom), on.box)
    if (empty(part) || e.opacity === 0) return this.pass()
    if (plainly) {
      const inner = take(part)
      this.run(inner)
      lay(on, inner, composites[blends[blend]], e.opacity)
      give(inner)
      return
    }
    const inside = { c: this.c, n: this.n }
    this.pass()
    const after = { c: this.c, n: this.n }
    const { x, y, w, h } = on.box
    const where = [this.view.x, this.view.y, k, x, y, w, h, picturesArrived()].join(' ')
    let out = keptGroup(this.list, begin, after, where)
    if (!out) {
      this.c = inside.c
      this.n = inside.n
      const content = take(needed(box, part, e))
      this.run(content)
      out = withEffects(content, e, part)
      keep(this.list, begin, after, where, out)
    }
    lay(on, out, composites[blends[blend]], e.opacity)
  }

  // Moves past what is inside the group that was begun.
  private pass() {
    const m = { c: this.c, n: this.n }
    skipInside(this.codes, m)
    this.c = m.c
    this.n = m.n
  }

  private passBoth() {
    this.pass()
    this.pass()
  }

  private side(box: Rect): Sheet {
    const s = take(box)
    this.run(s)
    return s
  }

  private mix(on: Sheet) {
    const box = intersect(this.rect(), on.box)
    const share = this.numbers[this.n++]
    if (empty(box)) return this.passBoth()
    const a = this.side(box)
    const b = this.side(box)
    // (1-p) A + p B: A is taken down to its share, B's share is added.
    plain(a.ctx)
    a.ctx.globalCompositeOperation = 'destination-in'
    a.ctx.fillStyle = `rgb(0 0 0 / ${1 - share})`
    a.ctx.fillRect(0, 0, box.w, box.h)
    lay(a, b, 'lighter', share)
    lay(on, a)
    give(a)
    give(b)
  }

  private clipPage(on: Sheet) {
    const { scale: s, x, y } = this.view
    const box = intersect(this.rect(), on.box)
    const [bx, by, bw, bh] = this.numbers.subarray(this.n, this.n + 4)
    this.n += 4
    if (empty(box)) return this.pass()
    const inner = this.side(box)
    on.ctx.save()
    on.ctx.setTransform(s, 0, 0, s, x - on.box.x, y - on.box.y)
    on.ctx.beginPath()
    on.ctx.rect(bx, by, bw, bh)
    on.ctx.clip()
    lay(on, inner)
    on.ctx.restore()
    give(inner)
  }

  private sameMatrix(a: number, b: number): boolean {
    for (let i = 0; i < 6; i++) if (this.numbers[a + i] !== this.numbers[b + i]) return false
    return true
  }

  private veil(on: Sheet) {
    const { list, c, n } = readTerms(this.codes, this.c, this.n + 4)
    const box = intersect(this.rect(), on.box)
    const { codes, numbers } = this
    this.c = c
    this.n = n
    if (
      list.length === 1 &&
      list[0].kind === term.half &&
      codes[c] === op.fill &&
      codes[c + 2] === paintKind.colour &&
      codes[c + 3] === op.end &&
      this.sameMatrix(list[0].at, n)
    ) {
      // A single outline takes the wipe into its colour: letters that come by a wipe are many.
      const at = list[0].at
      this.c += 4
      this.place(on)
      on.ctx.fillStyle = wiped(on.ctx, numbers.subarray(at + 7), numbers[at + 6], numbers.subarray(n + 6))
      this.n += 10
      on.ctx.fill(outline(codes[c + 1]).path)
      return
    }
    if (empty(box)) return this.pass()
    const inner = this.side(box)
    const mask = veilMask(list, numbers, box, (s, at) => this.place(s, at))
    lay(inner, mask, 'destination-in')
    lay(on, inner)
    give(inner)
    give(mask)
  }

  private wipe(on: Sheet) {
    const { list, c, n } = readTerms(this.codes, this.c, this.n + 4)
    const box = intersect(this.rect(), on.box)
    this.c = c
    this.n = n
    if (empty(box)) return this.passBoth()
    const a = this.side(box)
    const b = this.side(box)
    const mask = veilMask(list, this.numbers, box, (s, at) => this.place(s, at))
    lay(a, mask, 'destination-out')
    lay(b, mask, 'destination-in')
    lay(a, b, 'lighter')
    lay(on, a)
    for (const l of [a, b, mask]) give(l)
  }

  private clip(on: Sheet) {
    const key = this.codes[this.c++]
    const outside = this.codes[this.c++] === 1
    const box = intersect(this.rect(), on.box)
    const at = this.n
    this.n += 6
    if (empty(box)) return this.pass()
    const inner = this.side(box)
    const mask = take(box)
    this.place(mask, at)
    mask.ctx.fillStyle = '#000'
    mask.ctx.fill(outline(key).path)
    lay(inner, mask, outside ? 'destination-out' : 'destination-in')
    lay(on, inner)
    give(inner)
    give(mask)
  }

  private mask(on: Sheet) {
    const how = this.codes[this.c++]
    const box = intersect(this.rect(), on.box)
    const soft = this.numbers[this.n++] * this.view.scale
    if (empty(box)) return this.passBoth()
    const inner = this.side(box)
    const mask = this.side(grow(box, reachOf(soft / 2.8) + 1))
    if (soft > 0) feather(mask, soft)
    if (how & 2) lit(mask)
    lay(inner, mask, how & 1 ? 'destination-out' : 'destination-in')
    lay(on, inner)
    give(inner)
    give(mask)
  }

  // Pixels from the core, set into a clear border one sample wide: their edges fade over half a sample, as in the
  // rasteriser.
  private tile(on: Sheet) {
    const [w, h, depth] = this.codes.subarray(this.c, this.c + 3)
    const bytes = new Uint8Array(this.codes.buffer, this.codes.byteOffset + 4 * (this.c + 3), w * h * depth)
    this.c += 3 + Math.ceil((w * h * depth) / 4)
    this.place(on)
    this.n += 6
    const [bx, by, bw, bh, r, g, b, a] = this.numbers.subarray(this.n, this.n + 8)
    this.n += 8
    const sheet = take({ x: 0, y: 0, w: w + 2, h: h + 2 })
    const px = sheet.ctx.createImageData(w, h)
    for (let i = 0, k = 0; k < w * h; k++, i += 4) {
      if (depth === 1) {
        px.data.set([r * 255, g * 255, b * 255, bytes[k] * a], i)
        continue
      }
      const alpha = bytes[i + 3] || 1
      px.data.set(
        [(bytes[i] * 255) / alpha, (bytes[i + 1] * 255) / alpha, (bytes[i + 2] * 255) / alpha, bytes[i + 3]],
        i,
      )
    }
    sheet.ctx.putImageData(px, 1, 1)
    const x = on.ctx
    x.imageSmoothingEnabled = true
    x.imageSmoothingQuality = 'low'
    x.globalAlpha = depth === 1 ? 1 : a
    x.drawImage(sheet.ctx.canvas, 0, 0, w + 2, h + 2, bx - bw / w, by - bh / h, (bw / w) * (w + 2), (bh / h) * (h + 2))
    x.globalAlpha = 1
    give(sheet)
  }

  private project(on: Sheet) {
    const seenIn = intersect(this.rect(), on.box)
    const v = this.numbers.subarray(this.n, this.n + 14)
    this.n += 14
    const [bx, by, bw, bh] = v
    const { scale: s, x, y } = this.view
    const m = Array.from(v.subarray(4, 13))
    // Local px to px of the device.
    const d = [
      ...[0, 1, 2].map((k) => s * m[k] + x * m[6 + k]),
      ...[0, 1, 2].map((k) => s * m[3 + k] + y * m[6 + k]),
      m[6],
      m[7],
      m[8],
    ]
    const scale = Math.min(16, Math.max(0.01, v[13]))
    const corners = [
      [bx, by],
      [bx + bw, by],
      [bx + bw, by + bh],
      [bx, by + bh],
    ].map(([px, py]) => {
      const w = d[6] * px + d[7] * py + d[8]
      return [(d[0] * px + d[1] * py + d[2]) / w, (d[3] * px + d[4] * py + d[5]) / w, w]
    })
    const [w, h] = [Math.ceil(bw * scale), Math.ceil(bh * scale)]
    const xs = corners.map((c) => c[0])
    const ys = corners.map((c) => c[1])
    const part = intersect(around(Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)), seenIn)
    if (corners.some((c) => !(c[2] > 1e-9)) || w < 1 || h < 1 || w > 8192 || h > 8192 || empty(part)) return this.pass()
    const flat = take({ x: 0, y: 0, w, h })
    const outer = this.view
    this.view = { scale, x: -bx * scale, y: -by * scale }
    this.run(flat)
    this.view = outer
    // Px of the device to shares of the flat picture: the inverse, then by its sides, rounded up to whole samples.
    const inv = inverse(d)
    const [sx, sy] = [scale / w, scale / h]
    const toShare = [
      ...[0, 1, 2].map((k) => sx * (inv[k] - bx * inv[6 + k])),
      ...[0, 1, 2].map((k) => sy * (inv[3 + k] - by * inv[6 + k])),
      inv[6],
      inv[7],
      inv[8],
    ]
    const seen = inPerspective(flat.ctx.canvas, w, h, toShare, part)
    plain(on.ctx)
    on.ctx.drawImage(seen, part.x - on.box.x, part.y - on.box.y)
    give(flat)
  }
}

function inverse(a: number[]): number[] {
  return [
    a[4] * a[8] - a[5] * a[7],
    a[2] * a[7] - a[1] * a[8],
    a[1] * a[5] - a[2] * a[4],
    a[5] * a[6] - a[3] * a[8],
    a[0] * a[8] - a[2] * a[6],
    a[2] * a[3] - a[0] * a[5],
    a[3] * a[7] - a[4] * a[6],
    a[1] * a[6] - a[0] * a[7],
    a[0] * a[4] - a[1] * a[3],
  ]
}

// A colour as much as a wipe shows of it, for a path in the axes that x is in: dx dy edge softness inverted (see
// OpVeil).
function wiped(
  x: CanvasRenderingContext2D,
  w: ArrayLike<number>,
  opacity: number,
  rgba: ArrayLike<number>,
): string | CanvasGradient {
  const [dx, dy, edge, softness, inverted] = [w[0], w[1], w[2], w[3], w[4]]
  const colour = (share: number) => css(rgba, 0, opacity * share)
  const t = x.getTransform()
  if ((dx === 0 && dy === 0) || t.a * t.d - t.b * t.c === 0) return colour(inverted ? 0 : 1)
  const i = t.inverse()
  const px = Math.hypot(dx * i.a + dy * i.b, dx * i.c + dy * i.d)
  const soft = Math.max(softness, px)
  const end = edge + (soft - softness) / 2
  const g = x.createLinearGradient(dx * (end - soft), dy * (end - soft), dx * end, dy * end)
  g.addColorStop(0, colour(inverted ? 0 : 1))
  g.addColorStop(1, colour(inverted ? 1 : 0))
  return g
}
