// What moves over the page as one and is made of very many points is painted once and pushed, in whole pixels, until
// it stands still: so that a drawing of 10,000 things is dragged as a box is.
import { paint, type View } from '../painter'
import { op } from '../primitives'
import type { List } from '../types'
import type { Mark } from './items'
import { outline } from './outlines'

// Fewer points than this are painted as quickly as a bitmap is laid.
const worth = 4000

interface Stretch {
  list: List
  from: Mark
  to: Mark
}

/** How far a stretch of fills lies from where another shows the same, px of the page; null: it shows other things. */
function shift(a: Stretch, b: Stretch): [number, number] | null {
  const n = a.to.c - a.from.c
  const m = a.to.n - a.from.n
  if (n !== b.to.c - b.from.c || m !== b.to.n - b.from.n) return null
  for (let i = 0; i < n; i++) if (a.list.codes[a.from.c + i] !== b.list.codes[b.from.c + i]) return null
  const [p, q] = [a.list.numbers, b.list.numbers]
  const dx = q[b.from.n + 4] - p[a.from.n + 4] // of the first matrix
  const dy = q[b.from.n + 5] - p[a.from.n + 5]
  for (let i = 0; i < m; i++) {
    const d = q[b.from.n + i] - p[a.from.n + i]
    if (d !== 0 && Math.abs(d - dx) > 1e-6 && Math.abs(d - dy) > 1e-6) return null
  }
  return [dx, dy]
}

export class Shifted {
  private kept: (Stretch & { canvas: HTMLCanvasElement; view: View }) | null = null
  private before: Stretch | null = null

  /** How to paint the items between two marks by pushing what they were painted as; null: they are painted anew. */
  look(list: List, at: Mark[], from: number, to: number, view: View, width: number, height: number) {
    const before = this.before
    this.before = null
    let points = 0
    for (let i = from; i < to && points >= 0; i++)
      points = list.codes[at[i].c] === op.fill ? points + outline(list.codes[at[i].c + 1]).verbs : -1
    if (points < worth) {
      this.kept = null
      return null
    }
    const own = (v: Uint32Array) => v.slice(at[from].c, at[to].c)
    const now = {
      list: { ...list, codes: own(list.codes), numbers: list.numbers.slice(at[from].n, at[to].n) },
      from: { c: 0, n: 0 },
      to: { c: at[to].c - at[from].c, n: at[to].n - at[from].n },
    }
    this.before = now
    if (!before || !shift(before, now)) {
      this.kept = null
      return null
    }
    const [mx, my] = [width >> 1, height >> 1] // as much beside the page as may come in
    const far = (k: Stretch & { view: View }) => {
      const by = k.view.scale === view.scale ? shift(k, now) : null
      if (!by) return null
      const [x, y] = [by[0] * view.scale + view.x - k.view.x, by[1] * view.scale + view.y - k.view.y]
      return Math.abs(x) <= mx && Math.abs(y) <= my ? [Math.round(x), Math.round(y)] : null
    }
    let by = this.kept && far(this.kept)
    if (!by) {
      const canvas = this.kept?.canvas ?? document.createElement('canvas')
      canvas.width = width + 2 * mx
      canvas.height = height + 2 * my
      const beside = { ...view, x: view.x + mx, y: view.y + my }
      paint(canvas.getContext('2d')!, list, beside, at[from], at[to].c)
      this.kept = { ...now, canvas, view }
      by = [0, 0]
    }
    const [k, x, y] = [this.kept!.canvas, by[0] - mx, by[1] - my]
    return (ctx: CanvasRenderingContext2D) => {
      ctx.setTransform(1, 0, 0, 1, 0, 0)
      ctx.drawImage(k, x, y)
    }
  }

  forget() {
    this.kept = this.before = null
  }
}
