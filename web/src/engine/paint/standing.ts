// Paints frame after frame on one canvas. What stood still in front of and behind what moves is kept as two bitmaps,
// under and over, so that dragging one of many layers paints that one.
import { paint, type View } from '../painter'
import { op } from '../primitives'
import type { List } from '../types'
import { picturesArrived } from './bitmaps'
import { Shifted } from './shifted'
import { marks, sameItem, type Mark } from './items'

interface Kept {
  canvas: HTMLCanvasElement
  items: number
}

// Fewer items than this are painted as quickly as a bitmap is laid.
const worth = 4

export class Standing {
  private last: { list: List; at: Mark[]; where: string } | null = null
  private under: Kept | null = null
  private over: Kept | null = null
  private shifted = new Shifted()
  // How many items stood still the last time: bitmaps are made when they do so again.
  private still = { under: 0, over: 0 }

  /**
   * Paints a list over what ground paints; where says what ground depends on. What is dragged may lie half a pixel
   * off until it is let go.
   */
  paint(
    ctx: CanvasRenderingContext2D,
    list: List,
    view: View,
    where: string,
    ground: (ctx: CanvasRenderingContext2D) => void,
    dragging = false,
  ) {
    const { width, height } = ctx.canvas
    where = `${where} ${width} ${height} ${view.scale} ${view.x} ${view.y} ${picturesArrived()}`
    const at = marks(list)
    const n = at.length - 1
    let [under, over] = [0, 0]
    const was = this.last?.where === where ? this.last : null
    if (!was) this.under = this.over = null
    else {
      const m = was.at.length - 1
      const same = (i: number, k: number) => sameItem(was.list, was.at[i], was.at[i + 1], list, at[k], at[k + 1])
      while (under < n && under < m && same(under, under)) under++
      // What is blended with what lies under it cannot be painted before that.
      const blended = (k: number) => list.codes[at[k].c] === op.group && list.codes[at[k].c + 1] !== 0
      while (over < n - under && over < m - under && same(m - 1 - over, n - 1 - over) && !blended(n - 1 - over)) over++
    }
    if (this.under && this.under.items > under) this.under = null
    if (this.over && this.over.items > over) this.over = null
    const moves = under + over < n
    if (moves && under >= worth && under > (this.under?.items ?? 0) && this.still.under === under) {
      this.under = keep(this.under, under, width, height, (x) => {
        ground(x)
        paint(x, list, view, at[0], at[under].c)
      })
    }
    if (moves && over >= worth && over > (this.over?.items ?? 0) && this.still.over === over) {
      this.over = keep(this.over, over, width, height, (x) => paint(x, list, view, at[n - over], at[n].c))
    }
    this.still = { under, over }
    const from = this.under?.items ?? 0
    const to = n - (this.over?.items ?? 0)
    const push = moves && dragging ? this.shifted.look(list, at, under, n - over, view, width, height) : null
    if (!push && !dragging) this.shifted.forget()
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    if (this.under) ctx.drawImage(this.under.canvas, 0, 0)
    else ground(ctx)
    if (push) {
      if (under > from) paint(ctx, list, view, at[from], at[under].c)
      push(ctx)
      if (to > n - over) paint(ctx, list, view, at[n - over], at[to].c)
    } else if (to > from) paint(ctx, list, view, at[from], at[to].c)
    if (this.over) ctx.drawImage(this.over.canvas, 0, 0)
    this.last = { list: { ...list, codes: list.codes.slice(), numbers: list.numbers.slice() }, at, where }
  }
}

function keep(
  old: Kept | null,
  items: number,
  width: number,
  height: number,
  draw: (x: CanvasRenderingContext2D) => void,
): Kept {
  const canvas = old?.canvas ?? document.createElement('canvas')
  canvas.width = width
  canvas.height = height
  draw(canvas.getContext('2d')!)
  return { canvas, items }
}
