// Stacking by pointing: the next press on a layer, on the page or in its row, says where the selected ones go.
import { run } from '../project/commands'
import { desk, set } from '../project/desk'

/** Asks for the layer that the selected ones shall lie in front of, or behind. */
export const askForOrder = (ordering: 'above' | 'below') => {
  if (desk().selection.length) set({ ordering })
}

/** Takes a layer for an answer; false where nothing was asked for. */
export function orderBy(thread: string): boolean {
  const { ordering, selection } = desk()
  if (!ordering) return false
  set({ ordering: null })
  if (!selection.includes(thread)) run('order.before', { threads: selection, target: thread, where: ordering })
  return true
}
