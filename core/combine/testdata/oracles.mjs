// Combines pairs of paths with two libraries that are not ours and prints the areas. Standard input: [{"a", "b"}], path data.
// Standard output: [{"curves": {how: area}, "polygons": {how: area}}].
import { createRequire } from 'node:module'
import { readFileSync } from 'node:fs'
const require = createRequire(new URL('../../../web/package.json', import.meta.url))
globalThis.self = undefined
const paper = require('paper/dist/paper-core.js')
const clip = require('polygon-clipping')
paper.setup(new paper.Size(1000, 1000))

const ways = { unite: 'unite', cut: 'subtract', overlap: 'intersect', drop: '' }
const flat = { unite: clip.union, cut: clip.difference, overlap: clip.intersection, drop: clip.xor }

const path = (d) => new paper.CompoundPath({ pathData: d, fillRule: 'nonzero', insert: false })
// Nonzero paths that cross themselves are united with themselves first: the polygons' library reads rings by even-odd.
const rings = (p) => {
  const q = p.unite(undefined, { insert: false })
  return [(q.children ?? [q]).map((c) => {
    const k = c.clone({ insert: false })
    k.flatten(0.02)
    const pts = k.segments.map((s) => [s.point.x, s.point.y])
    return [...pts, pts[0]]
  })]
}
const ring = (r) => { let s = 0; for (let i = 1; i < r.length; i++) s += (r[i - 1][0] * r[i][1] - r[i][0] * r[i - 1][1]) / 2; return Math.abs(s) }
const area = (m) => m.reduce((s, poly) => s + poly.reduce((t, r, i) => t + (i ? -1 : 1) * ring(r), 0), 0)
const tried = (f) => { try { return f() } catch (e) { if (process.env.SAY) console.error(e.message); return null } }

const out = JSON.parse(readFileSync(0, 'utf8')).map(({ a, b }) => {
  const p = path(a), q = path(b)
  const pr = tried(() => flat.drop(...rings(p).flatMap((m) => m.map((r) => [[r]])))), qr = tried(() => flat.drop(...rings(q).flatMap((m) => m.map((r) => [[r]]))))
  const r = { curves: {}, polygons: {} }
  for (const how in ways) {
    const one = (x, y, way) => Math.abs(x[way](y, { insert: false }).area)
    // Its exclude gives lines that run either way, whose areas cancel each other.
    r.curves[how] = tried(() => (how === 'drop' ? one(p, q, 'subtract') + one(q, p, 'subtract') : one(p, q, ways[how])))
    r.polygons[how] = pr && qr && tried(() => area(flat[how](pr, qr)))
  }
  return r
})
console.log(JSON.stringify(out))
