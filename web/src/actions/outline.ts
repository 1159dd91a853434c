// A drawn path as the engine hands it over, in plain numbers: paths of a thousand points are dragged at the speed of
// the pointer.
import { engine } from '../engine/engine'
import type { Moment, XY } from '../engine/types'
import { desk } from '../project/desk'

/** Of each point: x, y, the handle before, the handle after, 1 where the line goes through smoothly. */
const per = 7

export interface Outline {
  numbers: Float64Array
  lines: { closed: boolean; from: number; n: number }[]
  count: number
}

function read(numbers: Float64Array): Outline {
  const lines: Outline['lines'] = []
  let count = 0
  for (let i = 0; i < numbers.length;) {
    const n = numbers[i]
    lines.push({ closed: numbers[i + 1] === 1, from: i + 2, n })
    count += n
    i += 2 + n * per
  }
  return { numbers, lines, count }
}

let held: { key: unknown[]; outline: Outline } | undefined

/**
 * The points of a path as it stands, the draft's while it is dragged; asked of the engine once for all that show it.
 */
export function outlineNow(moment: Moment, version: number, thread: string): Outline {
  const key = [moment, version, thread, desk().project]
  if (!held || key.some((v, i) => v !== held!.key[i])) held = { key, outline: read(engine.outlineOf(moment, thread)) }
  return held.outline
}

export const idsOf = (o: Outline) => o.lines.flatMap((l, c) => Array.from({ length: l.n }, (_, i) => `${c}.${i}`))

/** What is drawn of a point, mapped by f. */
export interface Knot {
  id: string
  at: XY
  before: XY | null
  after: XY | null
  smooth: boolean
}

type Map = (q: XY) => XY

function knot(o: Outline, c: number, i: number, f: Map): Knot {
  const v = o.numbers
  const k = o.lines[c].from + i * per
  const own = v[k] === v[k + 2] && v[k + 1] === v[k + 3]
  const next = v[k] === v[k + 4] && v[k + 1] === v[k + 5]
  return {
    id: `${c}.${i}`,
    at: f([v[k], v[k + 1]]),
    before: own ? null : f([v[k + 2], v[k + 3]]),
    after: next ? null : f([v[k + 4], v[k + 5]]),
    smooth: v[k + 6] === 1,
  }
}

export function knotsOf(o: Outline, f: Map): Knot[] {
  const out: Knot[] = []
  o.lines.forEach((l, c) => {
    for (let i = 0; i < l.n; i++) out.push(knot(o, c, i, f))
  })
  return out
}

const places = (ids: Set<string>) => [...ids].map((id) => id.split('.').map(Number))

export const someKnots = (o: Outline, ids: Set<string>, f: Map) =>
  places(ids)
    .filter(([c, i]) => i < (o.lines[c]?.n ?? 0))
    .map(([c, i]) => knot(o, c, i, f))

/** The stretch from point i on. */
function stretch(p: Path2D, o: Outline, c: number, i: number, f: Map, goesOn: boolean) {
  const v = o.numbers
  const l = o.lines[c]
  const a = l.from + i * per
  const b = l.from + ((i + 1) % l.n) * per
  if (!goesOn) p.moveTo(...f([v[a], v[a + 1]]))
  const [x1, y1] = f([v[a + 4], v[a + 5]])
  const [x2, y2] = f([v[b + 2], v[b + 3]])
  p.bezierCurveTo(x1, y1, x2, y2, ...f([v[b], v[b + 1]]))
}

const stretches = (l: Outline['lines'][0]) => (l.closed ? l.n : l.n - 1)

/** The line itself, without the stretches beside some points. */
export function lineOf(o: Outline, f: Map, without?: Set<string>): Path2D {
  const p = new Path2D()
  o.lines.forEach((l, c) => {
    let on = false
    for (let i = 0; i < stretches(l); i++) {
      if (without && (without.has(`${c}.${i}`) || without.has(`${c}.${(i + 1) % l.n}`))) on = false
      else {
        stretch(p, o, c, i, f, on)
        on = true
      }
    }
    if (l.closed && on && !without) p.closePath()
  })
  return p
}

/** The middles of all stretches, by which they are bent: id and place. */
export function middlesOf(o: Outline, f: Map): { id: string; at: XY; long: boolean }[] {
  const v = o.numbers
  const out: { id: string; at: XY; long: boolean }[] = []
  o.lines.forEach((l, c) => {
    for (let i = 0; i < stretches(l); i++) {
      const a = l.from + i * per
      const b = l.from + ((i + 1) % l.n) * per
      const mid = (k: 0 | 1) => (v[a + k] + 3 * v[a + 4 + k] + 3 * v[b + 2 + k] + v[b + k]) / 8
      const [p, q] = [f([v[a], v[a + 1]]), f([v[b], v[b + 1]])]
      out.push({ id: `${c}.${i}.on.0.5`, at: f([mid(0), mid(1)]), long: Math.hypot(q[0] - p[0], q[1] - p[1]) > 44 })
    }
  })
  return out
}

/** The stretches beside some points. */
export function beside(o: Outline, ids: Set<string>, f: Map): Path2D {
  const p = new Path2D()
  const done = new Set<string>()
  for (const [c, i] of places(ids)) {
    const l = o.lines[c]
    if (!l || i >= l.n) continue
    for (const k of [(i + l.n - 1) % l.n, i]) {
      if (k >= stretches(l) || done.has(`${c}.${k}`)) continue
      done.add(`${c}.${k}`)
      stretch(p, o, c, k, f, false)
    }
  }
  return p
}
