// A path that is acted: the layer is dragged over the page, and when it was where is how it goes.
import { engine } from '../engine/engine'
import { run } from '../project/commands'
import { desk, dropDraft, fail, say, selectMoves, set, showDraft } from '../project/desk'
import { notice } from '../words'

export interface Acting {
  kind: 'act'
  x: number
  y: number
  began: number // ms, with its first move; 0: it has not moved
  points: [number, number, number][] // ms since then, page px
}

/** The layers that are selected are held where the pointer presses. */
export function hold(x: number, y: number, page: [number, number]): Acting | null {
  const d = desk()
  if (!d.selection.length) return null
  try {
    engine.begin('move', d.moment, d.selection, '', '', page[0], page[1])
  } catch (e) {
    fail(e)
    return null
  }
  set({ dragging: true })
  return { kind: 'act', x, y, began: 0, points: [[0, page[0], page[1]]] }
}

/** They follow the pointer; time runs from its first move. */
export function follow(g: Acting, page: [number, number], now: number) {
  if (!g.began) g.began = now
  g.points.push([now - g.began, page[0], page[1]])
  try {
    showDraft(engine.update(page[0], page[1], false, false, 0, true))
  } catch (e) {
    fail(e)
  }
}

/** What was acted becomes a path. */
export function done(g: Acting) {
  const d = desk()
  const before = new Set(d.selected.flatMap((s) => s.moves.map((m) => m.id)))
  engine.end()
  set({ tool: 'select', dragging: false, snap: [] })
  dropDraft()
  if (!run('path.acted', { threads: d.selection, points: g.points, speed: d.slowly ? 2 : 1 })) return
  const come = desk().selected.flatMap((s) => s.moves.filter((m) => !before.has(m.id)))
  selectMoves(
    come.map((m) => m.id),
    false,
  )
  const m = come[0]
  if (m?.path)
    say(notice('path.acted', (m.path.d.match(/[MLC]/g) ?? []).length, `${((m.finish - m.begin) / 1000).toFixed(2)} s`))
}
