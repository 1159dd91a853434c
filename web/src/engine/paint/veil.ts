// Veils: what shows of something, as a sheet whose cover says how much. Terms are as core/frame/veil.go has them, in
// postfix order.
import { term, terms } from '../primitives'
import { outline } from './outlines'
import { give, lay, plain, take, type Rect, type Sheet } from './sheets'

/** A term of a veil: its code, the key of an outline, and where its numbers begin. */
export interface Term {
  kind: number
  key: number
  at: number
}

/** Reads the codes of a veil's terms from c on; their numbers begin at n. Returns them with where both end. */
export function readTerms(codes: Uint32Array, c: number, n: number): { list: Term[]; c: number; n: number } {
  const list: Term[] = []
  for (let left = codes[c++]; left > 0; left--) {
    const kind = codes[c++]
    list.push({ kind, key: kind === term.outline ? codes[c] : 0, at: n })
    c += terms[kind].codes
    n += terms[kind].numbers
  }
  return { list, c, n }
}

/** A sheet that covers as much as the veil shows; place sets the transform of a matrix among the numbers. */
export function veilMask(list: Term[], v: Float64Array, box: Rect, place: (on: Sheet, at: number) => void): Sheet {
  const parts: Sheet[] = []
  for (const t of list) {
    if (t.kind === term.over || t.kind === term.times) {
      const b = parts.pop()!
      lay(parts[parts.length - 1], b, t.kind === term.over ? 'source-over' : 'destination-in')
      give(b)
      continue
    }
    const s = take(box)
    place(s, t.at)
    reveal(s, t, v.subarray(t.at + 6, t.at + terms[t.kind].numbers))
    parts.push(s)
  }
  if (parts.length > 0) return parts[0]
  const all = take(box)
  all.ctx.fillStyle = '#000'
  all.ctx.fillRect(0, 0, box.w, box.h)
  return all
}

const black = (alpha: number) => `rgb(0 0 0 / ${Math.min(1, Math.max(0, alpha))})`

// Paints one reveal in black. v: opacity, then its own numbers, the last of which says whether it is inverted.
function reveal(on: Sheet, t: Term, v: Float64Array) {
  const x = on.ctx
  const m = x.getTransform()
  const o = v[0]
  const inverted = v[v.length - 1] !== 0
  const shows = (share: number) => black(o * (inverted ? 1 - share : share))
  if (t.kind === term.outline) {
    const { path } = outline(t.key)
    if (inverted) {
      plain(x)
      x.fillStyle = black(o)
      x.fillRect(0, 0, on.box.w, on.box.h)
      x.setTransform(m)
      x.globalCompositeOperation = 'destination-out'
      x.fillStyle = black(1)
    } else x.fillStyle = black(o)
    x.fill(path)
    plain(x)
    return
  }
  const flat = m.a * m.d - m.b * m.c === 0
  plain(x)
  if (t.kind === term.half || t.kind === term.doors) {
    const [dx, dy] = [v[1], v[2]]
    if ((dx === 0 && dy === 0) || flat) x.fillStyle = shows(1)
    else x.fillStyle = front(x, m, t.kind === term.doors, v, shows)
    x.fillRect(0, 0, on.box.w, on.box.h)
    return
  }
  if (flat) return
  const i = m.inverse()
  const { w, h } = on.box
  const data = x.createImageData(Math.max(1, w), Math.max(1, h))
  const at = t.kind === term.sector ? sector(v, i) : t.kind === term.noise ? noise(v) : round(t.kind, v, i)
  for (let py = 0, k = 3; py < h; py++) {
    for (let px = 0; px < w; px++, k += 4) {
      const [dx, dy] = [px + 0.5, py + 0.5]
      const a = at(i.a * dx + i.c * dy + i.e, i.b * dx + i.d * dy + i.f)
      data.data[k] = 255 * o * (inverted ? 1 - a : a) + 0.5
    }
  }
  x.putImageData(data, 0, 0)
}

// The gradient of a half-plane, or of two about a middle, in px of the device; an edge narrower than a pixel is one
// pixel wide.
function front(
  x: CanvasRenderingContext2D,
  m: DOMMatrix,
  doors: boolean,
  v: Float64Array,
  shows: (share: number) => string,
): CanvasGradient | string {
  const [dx, dy] = [v[1], v[2]]
  const [edge, softness] = doors ? [v[4], v[5]] : [v[3], v[4]]
  const i = m.inverse()
  const [ux, uy] = [dx * i.a + dy * i.b, dx * i.c + dy * i.d]
  const px = Math.hypot(ux, uy)
  const soft = Math.max(softness, px)
  const end = edge + (soft - softness) / 2
  const u0 = dx * i.e + dy * i.f
  const [gx, gy] = [ux / (px * px), uy / (px * px)]
  const between = (a: number, b: number) =>
    x.createLinearGradient(gx * (a - u0), gy * (a - u0), gx * (b - u0), gy * (b - u0))
  if (!doors) {
    const g = between(end - soft, end)
    g.addColorStop(0, shows(1))
    g.addColorStop(1, shows(0))
    return g
  }
  if (end <= 0) return shows(0)
  const g = between(v[3] - end, v[3] + end)
  const ramp = Math.min(0.5, soft / (2 * end))
  g.addColorStop(0, shows(0))
  g.addColorStop(ramp, shows(Math.min(1, end / soft)))
  g.addColorStop(1 - ramp, shows(Math.min(1, end / soft)))
  g.addColorStop(1, shows(0))
  return g
}

// Boxes, diamonds and ellipses: how far a point lies out in them, and by how much that changes over a pixel of the
// device.
function round(kind: number, v: Float64Array, i: DOMMatrix) {
  const [, cx, cy, rx, ry, unit, edge, softness] = v
  const per = (gx: number, gy: number) => Math.hypot(gx * i.a + gy * i.b, gx * i.c + gy * i.d)
  return (qx: number, qy: number): number => {
    const [x, y] = [(qx - cx) / rx, (qy - cy) / ry]
    const [sx, sy] = [Math.sign(x) / rx, Math.sign(y) / ry]
    let u = 0
    let px = 0
    if (kind === term.box) {
      if (Math.abs(x) >= Math.abs(y)) [u, px] = [Math.abs(x), per(sx, 0)]
      else [u, px] = [Math.abs(y), per(0, sy)]
    } else if (kind === term.diamond) [u, px] = [Math.abs(x) + Math.abs(y), per(sx, sy)]
    else {
      u = Math.hypot(x, y)
      if (u > 0) px = per(x / u / rx, y / u / ry)
    }
    return ramp(unit * u, unit * px, edge, softness)
  }
}

function ramp(u: number, px: number, edge: number, softness: number): number {
  const soft = Math.max(softness, px, 1e-9)
  return Math.min(1, Math.max(0, (edge + (soft - Math.max(softness, 0)) / 2 - u) / soft))
}

function sector(v: Float64Array, i: DOMMatrix) {
  const [, cx, cy] = v
  let [start, sweep] = [v[3], v[4]]
  if (sweep < 0) [start, sweep] = [start + sweep, -sweep]
  const px = Math.hypot(i.a, i.b)
  const [a, b] = [(start * Math.PI) / 180, ((start + sweep) * Math.PI) / 180]
  const cut = (d: number) => Math.min(1, Math.max(0, d / px + 0.5))
  return (qx: number, qy: number): number => {
    if (sweep >= 360) return 1
    if (sweep <= 0) return 0
    const [x, y] = [qx - cx, qy - cy]
    const first = cut(x * Math.cos(a) + y * Math.sin(a))
    const second = cut(-(x * Math.cos(b) + y * Math.sin(b)))
    return sweep <= 180 ? Math.min(first, second) : Math.max(first, second)
  }
}

function noise(v: Float64Array) {
  const [, seed, grain, smooth, share, softness] = v
  const cell = (x: number, y: number) => {
    let h = Math.imul(x, 0x9e3779b1) ^ Math.imul(y, 0x85ebca77) ^ Math.imul(seed, 0xc2b2ae3d)
    h = Math.imul(h ^ (h >>> 16), 0x7feb352d)
    h = Math.imul(h ^ (h >>> 15), 0x846ca68b)
    return ((h ^ (h >>> 16)) >>> 0) / 4294967296
  }
  const step = (t: number) => t * t * (3 - 2 * t)
  const value = (x: number, y: number) => {
    const [i, j] = [Math.floor(x), Math.floor(y)]
    if (smooth === 0) return cell(i, j)
    const [u, w] = [step(x - i), step(y - j)]
    const top = cell(i, j) + (cell(i + 1, j) - cell(i, j)) * u
    const foot = cell(i, j + 1) + (cell(i + 1, j + 1) - cell(i, j + 1)) * u
    return top + (foot - top) * w
  }
  return (qx: number, qy: number) => ramp(value(qx / grain, qy / grain), 0, share * (1 + softness), softness)
}
