// What is done to the selected layers by keys, menus and buttons alike.
import { engine } from '../engine/engine'
import type { Mask } from '../engine/types'
import { closing } from '../project/closing'
import { run } from '../project/commands'
import { desk, goBehind, say, select, selectNew } from '../project/desk'
import { notice } from '../words'

const here = () => new Set(desk().rows.map((r) => r.thread))

export function groupSelection() {
  const before = here()
  const forward = engine.forward(desk().moment, desk().selection)
  if (!run('group', { threads: desk().selection })) return
  selectNew(before)
  if (forward.length) say(notice('group.forward', forward.join(', ')))
}

export function ungroupSelection(drop = false) {
  const groups = desk().selection
  const inside = desk()
    .rows.filter((r) => groups.includes(r.parent))
    .map((r) => r.thread)
  if (run('ungroup', { threads: groups, drop })) select(inside, '')
}

export function duplicateSelection() {
  const before = here()
  if (run('duplicate', { threads: desk().selection })) selectNew(before)
}

export function deleteSelection() {
  if (closing(() => run('delete', { threads: desk().selection, everywhere: false }))) select([], desk().inside)
}

/** Cuts what is selected as windows out of what lies beneath, or out of all below; what is added next goes behind. */
export function cutWindow(all = false) {
  const { selection } = desk()
  if (!run('window', { threads: selection, all })) return
  const { rows } = desk()
  const up = (thread: string) => rows.find((r) => r.thread === thread)
  // Several at once are one mask, the group that they are in now.
  let mask = up(selection[0])
  while (mask && !mask.mask) mask = up(mask.parent)
  let plate = up(mask?.parent ?? '')
  while (plate?.parent) plate = up(plate.parent)
  if (plate)
    goBehind({
      thread: plate.thread,
      name: plate.name,
      window: mask?.thread, // what is put behind it is masked by it, wherever either moves
    })
}

/** Makes one layer the mask of its group, or the front one of several that of a new group. */
export function maskSelection(how: Mask | '') {
  const { moment, selection, rows } = desk()
  const before = new Set(rows.map((r) => r.thread))
  const forward = engine.forward(moment, selection)
  if (!run('mask', { threads: selection, how }) || selection.length < 2) return
  selectNew(before)
  if (forward.length) say(notice('group.forward', forward.join(', ')))
}
