// Adding a move: from the inspector, by a key, and by a double press on a stretch of a row.
import { run } from '../project/commands'
import { desk, selectMoves, set, toRest } from '../project/desk'
import { openMenuAt } from '../ui/ContextMenu'

/** Moves by what they do: the word in a list, kind and effect. */
export const moveKinds = [
  {
    heading: 'Comes in',
    list: [
      ['Fade', 'entrance', 'fade'],
      ['Slide', 'entrance', 'slide'],
      ['Wipe', 'entrance', 'wipe'],
      ['At once (appears)', 'entrance', 'at-once'],
    ],
  },
  {
    heading: 'Goes out',
    list: [
      ['Fade', 'exit', 'fade'],
      ['Slide', 'exit', 'slide'],
      ['Wipe', 'exit', 'wipe'],
      ['At once (vanishes)', 'exit', 'at-once'],
    ],
  },
  {
    heading: 'Goes on and on',
    list: [
      ['Spin', 'loop', 'spin'],
      ['Rock', 'loop', 'rock'],
      ['Scroll', 'loop', 'scroll'],
    ],
  },
] as const

/** How a move of a kind is called by itself. */
export const moveName = (word: string, kind: string) =>
  kind === 'loop' ? word : `${word.replace(/ \(.*/, '')} ${kind === 'entrance' ? 'in' : 'out'}`

/** Gives the selected layers a move and selects it; at is when it starts, ms of the film. */
export function addMove(kind: string, effect: string, at: number | null = null) {
  const ids = () => desk().selected.flatMap((s) => s.moves.map((m) => m.id))
  const before = new Set(ids())
  if (run('move.add', { threads: desk().selected.map((s) => s.layer.thread), kind, effect, at }))
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
      ...moveKinds.flatMap((k) => [
        ...k.list.map(([word, kind, effect]) => ({ word: moveName(word, kind), run: () => addMove(kind, effect, at) })),
        null,
      ]),
      { word: 'Motion path', run: () => addMove('path', 'along', at) },
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
