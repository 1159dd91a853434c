// The pen and the points of drawn paths: what a pointer and the keyboard do with them. The lines themselves are the
// engine's.
import { openCrop } from './cropping'
import type { Intents } from '../engine/types'
import { engine } from '../engine/engine'
import type { View } from '../engine/painter'
import { apply, run } from '../project/commands'
import { grouped } from '../project/steps'
import { desk, selectNew, set } from '../project/desk'
import { idsOf, knotsOf, outlineNow } from './outline'

/** How near a press counts as on a point, in px on the screen. */
const near = 9

type Keys = { shiftKey: boolean; altKey: boolean }

/** Tells the pen what the pointer does. */
export function penDoes(what: 'press' | 'drag' | 'release' | 'hover', view: View, page: [number, number], keys: Keys) {
  const d = desk()
  const v = engine.pen(
    d.moment,
    what,
    page[0],
    page[1],
    keys.shiftKey,
    keys.altKey,
    near / view.scale,
    d.selection.length === 1 ? d.selection[0] : '',
  )
  set({ pen: v })
  if (v.done) endPen()
}

/** Makes what was drawn a layer and lets the pen go. */
export function endPen() {
  const before = new Set(desk().rows.map((r) => r.thread))
  const c = engine.penEnd(desk().moment)
  set({ pen: null, mirror: false, tool: 'select' })
  if (c && apply(c)) selectNew(before)
}

export function dropPen() {
  engine.penDrop()
  set({ pen: null, mirror: false, tool: 'select' })
}

export const penBack = () => set({ pen: engine.pen(desk().moment, 'back', 0, 0, false, false, 1, '') })

export const penMirror = () =>
  set({ mirror: !desk().mirror, pen: engine.pen(desk().moment, 'mirror', 0, 0, false, false, 1, '') })

/** Shows the points of the selected layer; a shape becomes a path first. */
export function openPoints() {
  const d = desk()
  const one = d.selected.length === 1 ? d.selected[0].layer : null
  if (!one || one.locked) return
  if (one.kind === 'picture') return openCrop()
  if (one.kind !== 'path' && !run('points.begin', { threads: d.selection })) return
  if (desk().selected[0]?.layer.kind === 'path') set({ editing: d.selection[0], points: [], parted: [] })
}

/** The thread whose points are edited, while it is selected. */
export const edited = () => {
  const d = desk()
  return d.editing && d.selection.length === 1 && d.selection[0] === d.editing ? d.editing : null
}

export const leavePoints = () => set({ editing: null, points: [], parted: [] })

/** Does something with the selected points. */
export function withPoints(intent: keyof Intents & `points.${string}`, more: object = {}) {
  const thread = edited()
  if (!thread) return
  if (run(intent, { thread, ids: desk().points, ...more }) && (intent === 'points.remove' || intent === 'points.cut'))
    set({ points: [] })
}

export function nudgePoints(dx: number, dy: number) {
  grouped('points', () => run('points.move', { thread: edited() ?? '', ids: desk().points, dx, dy }))
}

/** Selects the next or the point before. */
export function nextPoint(by: number): boolean {
  const thread = edited()
  if (!thread) return false
  const ids = idsOf(outlineNow(desk().moment, desk().version, thread))
  const at = ids.indexOf(desk().points[0] ?? '')
  const to = at < 0 ? (by > 0 ? 0 : ids.length - 1) : at + by
  if (!ids[to]) return false
  set({ points: [ids[to]] })
  return true
}

/** Lets the handles of the selected points go by themselves. */
export const partHandles = () => set({ parted: [...new Set([...desk().parted, ...desk().points])] })

/** Selects the points in a box of the page. */
export function selectPointsIn(a: [number, number], b: [number, number], more: boolean) {
  const d = desk()
  const thread = edited()
  if (!thread) return
  const inside = knotsOf(outlineNow(d.moment, d.version, thread), (q) => q)
    .filter(
      (k) =>
        k.at[0] >= Math.min(a[0], b[0]) &&
        k.at[0] <= Math.max(a[0], b[0]) &&
        k.at[1] >= Math.min(a[1], b[1]) &&
        k.at[1] <= Math.max(a[1], b[1]),
    )
    .map((k) => k.id)
  set({ points: more ? [...new Set([...d.points, ...inside])] : inside })
}

export function selectAllPoints() {
  const d = desk()
  const thread = edited()
  if (thread) set({ points: idsOf(outlineNow(d.moment, d.version, thread)) })
}
