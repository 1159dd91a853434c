// Adding a move: from the inspector, by a key, and by a double press on a stretch of a row.
import type { Offer } from '../engine/types'
import { run } from '../project/commands'
import { desk, editAfter, selectMoves, set, toRest } from '../project/desk'

/**
 * Gives the selected layers a move and selects it; at is when it starts, ms of the film. after: of several layers each
 * begins when the one before ends.
 */
export function addMove(
  { kind, effect, variant }: Pick<Offer, 'kind' | 'effect' | 'variant'>,
  at: number | null = null,
  after = false,
) {
  const ids = () => desk().selected.flatMap((s) => s.moves.map((m) => m.id))
  const before = new Set(ids())
  if (!run('move.add', { threads: desk().selected.map((s) => s.layer.thread), kind, effect, variant, at, after }))
    return
  const come = ids().filter((id) => !before.has(id))
  selectMoves(come, false)
  if (kind === 'change' && !variant) editAfter(come) // what it becomes is said by doing it
}

/** The next drag of what is selected is recorded: it becomes a path. */
export const actPath = () => {
  toRest()
  set({ tool: 'act' })
}

export const drawPath = () => {
  toRest()
  set({ tool: 'path' })
}
