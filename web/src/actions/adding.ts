// Adding a move: from the inspector, by a key, and by a double press on a stretch of a row.
import { engine } from '../engine/engine'
import type { Offer } from '../engine/types'
import { run } from '../project/commands'
import { desk, selectMoves, set, toRest } from '../project/desk'
import { openMenuAt } from '../ui/ContextMenu'

/** Gives the selected layers a move and selects it; at is when it starts, ms of the film. */
export function addMove({ kind, effect, variant }: Offer, at: number | null = null) {
  const ids = () => desk().selected.flatMap((s) => s.moves.map((m) => m.id))
  const before = new Set(ids())
  if (run('move.add', { threads: desk().selected.map((s) => s.layer.thread), kind, effect, variant, at }))
    selectMoves(
      ids().filter((id) => !before.has(id)),
      false,
    )
}

export const drawPath = () => {
  toRest()
  set({ tool: 'path' })
}

/** Opens the list of moves at a place of the window, for what is selected. */
export function offerMoves(x: number, y: number, at: number | null = null, up = false) {
  if (desk().selected.length === 0) return
  openMenuAt(
    x,
    y,
    'Add a move',
    [
      ...engine
        .fields()
        .moves.flatMap((o, i) => [
          ...(i > 0 ? [null] : []),
          ...o.moves.map((v) => ({ word: v.name, run: () => addMove(v, at) })),
        ]),
      ...(at === null ? [{ word: 'Draw a path', run: drawPath }] : []),
    ],
    up,
  )
}

/** The same beside the row of what is selected, or in the middle of the window. */
export function offerMovesHere() {
  const row = document.querySelector('[data-name][aria-pressed=true]')?.getBoundingClientRect()
  offerMoves(row ? row.right + 8 : window.innerWidth / 2, row ? row.top - 120 : window.innerHeight / 3)
}
