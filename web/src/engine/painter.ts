// Paints display lists on a canvas. The rasteriser in core/raster does the same for files; both follow the Op constants of
// core/frame, and a conformance test holds them against each other.
import { engine } from './engine'
import type { List } from './types'

const paths = new Map<number, Path2D>()
const bitmaps = new Map<string, ImageBitmap | 'loading' | 'failed'>()
let onPicture: () => void = () => {}

/** Sets what is called when a picture that was missing has arrived. */
export function whenPictureArrives(f: () => void) { onPicture = f }

/** The matrix from page px to px of a canvas. */
export interface View { scale: number; x: number; y: number }

function outline(key: number): Path2D {
  let p = paths.get(key)
  if (!p) {
    const o = engine.outline(key)
    p = path2D(o.verbs, new Float64Array(o.points.buffer), 0)
    if (paths.size > 20000) paths.clear()
    paths.set(key, p)
  }
  return p
}

function path2D(verbs: ArrayLike<number>, xy: ArrayLike<number>, from: number): Path2D {
  const p = new Path2D()
  let i = from
  for (let k = 0; k < verbs.length; k++) {
    switch (verbs[k]) {
      case 0: p.moveTo(xy[i], xy[i + 1]); i += 2; break
      case 1: p.lineTo(xy[i], xy[i + 1]); i += 2; break
      case 2: p.bezierCurveTo(xy[i], xy[i + 1], xy[i + 2], xy[i + 3], xy[i + 4], xy[i + 5]); i += 6; break
      default: p.closePath()
    }
  }
  return p
}

function picture(hash: string, mip: number): ImageBitmap | undefined {
  const key = `${hash}/${mip}`
  const b = bitmaps.get(key)
  if (b instanceof ImageBitmap) return b
  if (b === undefined) {
    bitmaps.set(key, 'loading')
    fetch(`/api/media/${key}.png`)
      .then((r) => (r.ok ? r.blob() : Promise.reject(new Error(r.statusText))))
      .then((blob) => createImageBitmap(blob, { colorSpaceConversion: 'none' }))
      .then((bitmap) => { bitmaps.set(key, bitmap); onPicture() })
      .catch(() => { bitmaps.set(key, 'failed'); onPicture() })
  }
  for (let k = 0; k < 14; k++) {
    // Until it arrives, any other size of it will do.
    const other = bitmaps.get(`${hash}/${k}`)
    if (other instanceof ImageBitmap) return other
  }
  return undefined
}

/** Whether every picture asked for so far has arrived or failed. */
export function picturesSettled(): boolean {
  for (const b of bitmaps.values()) if (b === 'loading') return false
  return true
}

const spare: HTMLCanvasElement[] = []

function layerLike(ctx: CanvasRenderingContext2D): CanvasRenderingContext2D {
  const c = spare.pop() ?? document.createElement('canvas')
  if (c.width !== ctx.canvas.width || c.height !== ctx.canvas.height) {
    c.width = ctx.canvas.width
    c.height = ctx.canvas.height
  }
  const x = c.getContext('2d')!
  x.setTransform(1, 0, 0, 1, 0, 0)
  x.globalAlpha = 1
  x.globalCompositeOperation = 'source-over'
  x.clearRect(0, 0, c.width, c.height)
  return x
}

function done(x: CanvasRenderingContext2D) { if (spare.length < 8) spare.push(x.canvas) }

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

function sameMatrix(numbers: Float64Array, a: number, b: number): boolean {
  for (let i = 0; i < 6; i++) if (numbers[a + i] !== numbers[b + i]) return false
  return true
}

/** Paints a list. The canvas keeps what was on it. */
export function paint(ctx: CanvasRenderingContext2D, list: List, view: View) {
  const { codes, numbers } = list
  const pictures = engine.pictures()
  let c = 0
  let n = 0
  const place = (x: CanvasRenderingContext2D) => {
    const s = view.scale
    const [a, b, cc, d, e, f] = [numbers[n], numbers[n + 1], numbers[n + 2], numbers[n + 3], numbers[n + 4], numbers[n + 5]]
    n += 6
    x.setTransform(a * s, b * s, cc * s, d * s, e * s + view.x, f * s + view.y)
  }
  const colour = (x: CanvasRenderingContext2D) => {
    x.fillStyle = `rgb(${numbers[n] * 255} ${numbers[n + 1] * 255} ${numbers[n + 2] * 255} / ${numbers[n + 3]})`
    n += 4
  }
  // A colour as much as a wipe shows of it, for a path in the axes that x is in: dx dy edge softness inverted (see OpVeil).
  const wiped = (x: CanvasRenderingContext2D, w: ArrayLike<number>, opacity: number, rgba: ArrayLike<number>): string | CanvasGradient => {
    const [dx, dy, edge, softness, inverted] = [w[0], w[1], w[2], w[3], w[4]]
    const css = (share: number) => `rgb(${rgba[0] * 255} ${rgba[1] * 255} ${rgba[2] * 255} / ${rgba[3] * opacity * share})`
    const t = x.getTransform()
    if ((dx === 0 && dy === 0) || t.a * t.d - t.b * t.c === 0) return css(inverted ? 0 : 1)
    const i = t.inverse()
    const px = Math.hypot(dx * i.a + dy * i.b, dx * i.c + dy * i.d)
    const soft = Math.max(softness, px)
    const end = edge + (soft - softness) / 2
    const g = x.createLinearGradient(dx * (end - soft), dy * (end - soft), dx * end, dy * end)
    g.addColorStop(0, css(inverted ? 0 : 1))
    g.addColorStop(1, css(inverted ? 1 : 0))
    return g
  }
  // Paints what a wipe shows in black, as much as opacity says: m, then dx dy edge softness inverted (see OpVeil).
  const wipe = (x: CanvasRenderingContext2D, m: ArrayLike<number>, w: ArrayLike<number>, opacity: number) => {
    const [dx, dy, edge, softness, inverted] = [w[0], w[1], w[2], w[3], w[4]]
    const s = view.scale
    const t = new DOMMatrix([m[0] * s, m[1] * s, m[2] * s, m[3] * s, m[4] * s + view.x, m[5] * s + view.y])
    x.setTransform(1, 0, 0, 1, 0, 0)
    if ((dx === 0 && dy === 0) || t.a * t.d - t.b * t.c === 0) {
      x.fillStyle = `rgb(0 0 0 / ${inverted ? 0 : opacity})`
    } else {
      // In device px the wipe is a ramp along the gradient of d.q; one narrower than a pixel is one pixel wide.
      const i = t.inverse()
      const [ux, uy] = [dx * i.a + dy * i.b, dx * i.c + dy * i.d]
      const px = Math.hypot(ux, uy)
      const soft = Math.max(softness, px)
      const end = edge + (soft - softness) / 2 - (dx * i.e + dy * i.f)
      const [gx, gy] = [ux / (px * px), uy / (px * px)]
      const g = x.createLinearGradient(gx * (end - soft), gy * (end - soft), gx * end, gy * end)
      g.addColorStop(0, `rgb(0 0 0 / ${inverted ? 0 : opacity})`)
      g.addColorStop(1, `rgb(0 0 0 / ${inverted ? opacity : 0})`)
      x.fillStyle = g
    }
    x.fillRect(0, 0, x.canvas.width, x.canvas.height)
  }
  // Paints up to the end of the enclosing group and says which op ended it.
  const run = (x: CanvasRenderingContext2D): number => {
    while (c < codes.length) {
      const op = codes[c++]
      switch (op) {
        case 1: {
          const key = codes[c++]
          place(x)
          colour(x)
          x.fill(outline(key))
          break
        }
        case 2: {
          const count = codes[c++]
          const verbs = codes.subarray(c, c + count)
          c += count
          place(x)
          colour(x)
          x.fill(path2D(verbs, numbers, n))
          for (const v of verbs) n += v === 2 ? 6 : v === 3 ? 0 : 2
          break
        }
        case 3: {
          const index = codes[c++]
          const mip = codes[c++]
          const key = codes[c++]
          place(x)
          const [bx, by, bw, bh, l, t, r, b, alpha] = numbers.subarray(n, n + 9)
          n += 9
          const bitmap = picture(pictures[index], mip)
          if (!bitmap) {
            x.fillStyle = 'rgb(216 206 186 / 0.6)'
            x.fill(outline(key))
            break
          }
          x.save()
          smoothSides(x, bx, by, bw, bh)
          x.imageSmoothingEnabled = true
          x.imageSmoothingQuality = 'low'
          x.globalAlpha = alpha
          if (engine.outline(key).verbs.length > 5) x.clip(outline(key)) // rounded corners
          x.drawImage(bitmap, l * bitmap.width, t * bitmap.height, (r - l) * bitmap.width, (b - t) * bitmap.height, bx, by, bw, bh)
          x.restore()
          break
        }
        case 4: {
          const opacity = numbers[n++]
          const inner = layerLike(x)
          run(inner)
          x.setTransform(1, 0, 0, 1, 0, 0)
          x.globalAlpha = opacity
          x.drawImage(inner.canvas, 0, 0)
          x.globalAlpha = 1
          done(inner)
          break
        }
        case 6: {
          const share = numbers[n++]
          const a = layerLike(x)
          run(a)
          const b = layerLike(x)
          run(b)
          // (1-p) A + p B: A is taken down to its share, B's share is added.
          a.setTransform(1, 0, 0, 1, 0, 0)
          a.globalCompositeOperation = 'destination-in'
          a.globalAlpha = 1
          a.fillStyle = `rgb(0 0 0 / ${1 - share})`
          a.fillRect(0, 0, a.canvas.width, a.canvas.height)
          a.globalCompositeOperation = 'lighter'
          a.globalAlpha = share
          a.drawImage(b.canvas, 0, 0)
          x.setTransform(1, 0, 0, 1, 0, 0)
          x.drawImage(a.canvas, 0, 0)
          done(a)
          done(b)
          break
        }
        case 8: {
          const [bx, by, bw, bh] = numbers.subarray(n, n + 4)
          n += 4
          const inner = layerLike(x)
          run(inner)
          x.save()
          x.setTransform(view.scale, 0, 0, view.scale, view.x, view.y)
          x.beginPath()
          x.rect(bx, by, bw, bh)
          x.clip()
          x.setTransform(1, 0, 0, 1, 0, 0)
          x.drawImage(inner.canvas, 0, 0)
          x.restore()
          done(inner)
          break
        }
        case 9: {
          const count = codes[c++]
          const at = n
          n += 6 + 6 * count
          if (count === 1 && codes[c] === 1 && codes[c + 2] === 5 && sameMatrix(numbers, at, n)) {
            // A single outline takes the wipe into its colour: letters that come by a wipe are many.
            const key = codes[c + 1]
            c += 3
            const m = n
            place(x)
            x.fillStyle = wiped(x, numbers.subarray(at + 7), numbers[at + 6], numbers.subarray(m + 6))
            n += 4
            x.fill(outline(key))
            break
          }
          const inner = layerLike(x)
          run(inner)
          // Two reveals join as 1 - (1-a)(1-b): one laid over the other.
          const mask = layerLike(x)
          for (let k = 0; k < count; k++) wipe(mask, numbers.subarray(at, at + 6), numbers.subarray(at + 7 + 6 * k), numbers[at + 6 + 6 * k])
          inner.setTransform(1, 0, 0, 1, 0, 0)
          inner.globalCompositeOperation = 'destination-in'
          inner.globalAlpha = 1
          inner.drawImage(mask.canvas, 0, 0)
          x.setTransform(1, 0, 0, 1, 0, 0)
          x.drawImage(inner.canvas, 0, 0)
          done(inner)
          done(mask)
          break
        }
        case 10: {
          const at = n
          n += 11
          const a = layerLike(x)
          run(a)
          const b = layerLike(x)
          run(b)
          const mask = layerLike(x)
          wipe(mask, numbers.subarray(at, at + 6), numbers.subarray(at + 6), 1)
          for (const [side, how] of [[a, 'destination-out'], [b, 'destination-in']] as const) {
            side.setTransform(1, 0, 0, 1, 0, 0)
            side.globalAlpha = 1
            side.globalCompositeOperation = how
            side.drawImage(mask.canvas, 0, 0)
          }
          a.globalCompositeOperation = 'lighter'
          a.drawImage(b.canvas, 0, 0)
          x.setTransform(1, 0, 0, 1, 0, 0)
          x.drawImage(a.canvas, 0, 0)
          for (const l of [a, b, mask]) done(l)
          break
        }
        case 5:
        case 7:
          return op
        default:
          throw new Error(`The display list holds an unknown primitive ${op}.`)
      }
    }
    return 0
  }
  run(ctx)
}
