// What lies over each other under the pointer: presses go down through it, and a menu lists it.
import { engine } from '../engine/engine'
import { desk, select } from '../project/desk'
import { openMenu } from '../ui/ContextMenu'

/** Selects what lies behind the selected layer at a point of the page; behind the last, the first again. */
export function selectBehind(page: [number, number], slack: number) {
  const d = desk()
  const here = engine
    .under(d.moment, page[0], page[1], slack)
    .filter((u) => !u.locked && (!d.inside || u.chain.includes(d.inside)))
  const list = [...new Set(here.map((u) => u.chain[d.inside ? u.chain.indexOf(d.inside) + 1 : 0]).filter(Boolean))]
  const at = list.indexOf(d.selection[0])
  if (at >= 0 && list.length > 1) select([list[(at + 1) % list.length]])
}

/** A menu of all layers at a point of the page, from the front. */
export function menuOfAll(e: React.PointerEvent, page: [number, number], slack: number) {
  const list = engine.under(desk().moment, page[0], page[1], slack)
  if (!list.length) return
  openMenu(
    e,
    'Layers here',
    list.map((u) => ({
      word: u.locked ? `${u.name} (locked)` : u.name,
      run: () => select([u.chain[u.chain.length - 1]], u.chain[u.chain.length - 2] ?? ''),
    })),
  )
}
