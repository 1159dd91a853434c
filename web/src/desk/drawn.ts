// What a drag with a tool in hand makes: a shape, words, a motion path.
import { run } from '../project/commands'
import { desk, dropDraft, selectMoves, selectNew, set } from '../project/desk'
import { startWriting } from '../project/writing'
import { wordsBehind } from '../actions/behind'

export function boxOf(x0: number, y0: number, x1: number, y1: number, equal: boolean, line: boolean) {
  let [w, h] = [x1 - x0, y1 - y0]
  if (line)
    return {
      x: x0,
      y: y0,
      w: equal && Math.abs(w) < Math.abs(h) ? 0 : w,
      h: equal && Math.abs(w) >= Math.abs(h) ? 0 : h,
      line,
    }
  if (equal) {
    const s = Math.max(Math.abs(w), Math.abs(h))
    w = Math.sign(w || 1) * s
    h = Math.sign(h || 1) * s
  }
  return { x: Math.min(x0, x0 + w), y: Math.min(y0, y0 + h), w: Math.abs(w), h: Math.abs(h), line }
}

export const shapeBetween = (
  from: [number, number],
  to: [number, number],
  keys: { shiftKey: boolean; altKey: boolean },
) => ({ kind: desk().tool, from, to, equal: keys.shiftKey, centre: keys.altKey })

export function finishDrawing(
  from: [number, number],
  to: [number, number],
  far: boolean,
  keys: { shiftKey: boolean; altKey: boolean },
) {
  const { tool, selection } = desk()
  const shape = shapeBetween(from, to, keys)
  dropDraft()
  set({ tool: 'select' })
  const before = new Set(desk().rows.map((r) => r.thread))
  let done = false
  if (tool === 'path') {
    const b = boxOf(from[0], from[1], to[0], to[1], keys.shiftKey, true)
    const had = new Set(desk().selected.flatMap((s) => s.moves.map((m) => m.id)))
    if (far && run('path.draw', { threads: selection, from, to: [b.x + b.w, b.y + b.h] }))
      selectMoves(
        desk()
          .selected.flatMap((s) => s.moves.map((m) => m.id))
          .filter((id) => !had.has(id)),
        false,
      )
    return
  }
  if (tool === 'text') done = run('add.text', { at: from, behind: wordsBehind(from) })
  else done = run('add.shape', far ? shape : { kind: tool, from })
  if (done) selectNew(before)
  if (done && tool === 'text') startWriting(desk().selection[0], 'all')
}
