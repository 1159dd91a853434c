// What a group does to colours, as core/raster/adjust.go has it: by filters of SVG that the document holds.
import { give, lay, take, type Rect, type Sheet } from './sheets'

export interface Adjusting {
  sharp: number
  sigma: number // px
  colours: ArrayLike<number> // three rows of four
}

/** The adjustment whose numbers begin at at; null where it leaves all colours as they are. */
export function readAdjusting(v: Float64Array, at: number, scale: number): Adjusting | null {
  const colours = v.subarray(at + 2, at + 14)
  if (v[at] === 0 && colours.every((n, i) => n === (i % 5 === 0 ? 1 : 0))) return null
  return { sharp: v[at], sigma: v[at + 1] * scale, colours }
}

/** Returns a sheet in other colours; the one given is taken. */
export function adjusted(s: Sheet, a: Adjusting): Sheet {
  const out = take(s.box)
  lay(out, s, 'source-over', 1, `url(#${filterFor(a, s.box)})`)
  give(s)
  return out
}

const ns = 'http://www.w3.org/2000/svg'
const made = new Map<string, SVGFilterElement>() // by what they do; the first is the one not used for longest
const mostMade = 40
let count = 0

function filterFor(a: Adjusting, { w, h }: Rect): string {
  const matrix = [0, 4, 8].map((i) => `${a.colours[i]} ${a.colours[i + 1]} ${a.colours[i + 2]} 0 ${a.colours[i + 3]}`)
  const [width, height] = [Math.ceil(w / 512) * 512, Math.ceil(h / 512) * 512]
  const key = [a.sharp, a.sharp && a.sigma, width, height, ...matrix].join(' ')
  let f = made.get(key)
  made.delete(key)
  f ??= build(a, width, height, `${matrix.join(' ')} 0 0 0 1 0`)
  made.set(key, f)
  const [oldest, rest] = made.entries().next().value!
  if (made.size > mostMade && made.delete(oldest)) rest.remove()
  return f.id
}

function element(name: string, attributes: Record<string, string | number>, into?: Element) {
  const e = document.createElementNS(ns, name)
  for (const [k, v] of Object.entries(attributes)) e.setAttribute(k, String(v))
  into?.append(e)
  return e
}

function build(a: Adjusting, width: number, height: number, matrix: string): SVGFilterElement {
  let home = document.getElementById('adjustments')
  if (!home) {
    home = element('svg', {
      id: 'adjustments',
      width: 0,
      height: 0,
      'aria-hidden': 'true',
      style: 'position:absolute',
    }) as unknown as HTMLElement
    document.body.append(home)
  }
  const f = element(
    'filter',
    {
      id: `adjust-${++count}`,
      filterUnits: 'userSpaceOnUse',
      x: 0,
      y: 0,
      width,
      height,
      'color-interpolation-filters': 'sRGB',
    },
    home,
  ) as SVGFilterElement
  if (a.sharp > 0) {
    // Both without their covers: a border does not count as dark.
    element('feGaussianBlur', { in: 'SourceGraphic', stdDeviation: a.sigma, result: 'soft' }, f)
    for (const [of, to] of [
      ['soft', 'around'],
      ['SourceGraphic', 'own'],
    ]) {
      const solid = element('feComponentTransfer', { in: of, result: to }, f)
      element('feFuncA', { type: 'linear', slope: 0, intercept: 1 }, solid)
    }
    element(
      'feComposite',
      { operator: 'arithmetic', in: 'own', in2: 'around', k1: 0, k2: 1 + a.sharp, k3: -a.sharp, k4: 0 },
      f,
    )
    element('feComposite', { operator: 'in', in2: 'SourceGraphic', result: 'sharp' }, f)
  }
  element('feColorMatrix', { type: 'matrix', values: matrix }, f)
  return f
}
