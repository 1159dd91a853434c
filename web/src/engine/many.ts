// What the engine says of the selected layers. Of many it says in few words what they are; here they are one by one
// again.
import type { Held, Many, Move, Overlay, OverlayBox, Selected } from './types'

export type { Held }

/** What is shown of the selected layers, as the store has it; null: of nothing. */
export const seen = (h: Held | null) => ({
  selected: h?.many ? spread(h.many) : (h?.selected ?? []),
  overlay: h ? (h.corners ? crowd(h.overlay, h.corners) : h.overlay) : { boxes: [], paths: [], away: [], rings: [] },
  ghostsAt: h?.ghosts ?? [],
  endsAt: h?.ends ?? [],
  frame: h?.view ?? null,
  outline: h?.outline ?? null,
})

// What is drawn over the page for many: a line around each, handles around all.
function crowd(overlay: Overlay, n: number[]): Overlay {
  const boxes: OverlayBox[] = []
  for (let i = 0; i < n.length; i += 8) {
    boxes.push({
      thread: '',
      kind: 'group',
      corners: [
        [n[i], n[i + 1]],
        [n[i + 2], n[i + 3]],
        [n[i + 4], n[i + 5]],
        [n[i + 6], n[i + 7]],
      ],
      pivot: [0, 0],
      own: false,
      turn: 0,
      locked: false,
    })
  }
  return { ...overlay, boxes }
}

/** A move of which nothing is known: what is, is put over it. */
export const blankMove: Move = {
  id: '',
  kind: 'entrance',
  effect: '',
  start: { when: '' },
  name: '',
  words: '',
  begin: 0,
  finish: 0,
  early: false,
  before: '',
  units: [],
  film: 0,
  cut: 0,
  easingUsed: '',
  speed: 0,
  profile: [],
  reach: null,
  rounds: null,
  timed: true,
  tied: false,
  becomes: [],
  parted: false,
  line: null,
  points: 0,
  eased: true,
  counted: false,
  runs: false,
  drifts: false,
  chance: false,
  cycles: '',
  times: '',
  first: '',
  others: [],
  run: [],
  wheel: null,
}

const kinds = ['entrance', 'exit', 'loop', 'path', 'change'] as const

function spread(said: Many): Selected[] {
  const numbers = said.numbers
  return said.look.map((k, i) => {
    const [x, y, w, h, turn, count, later] = numbers.slice(7 * i, 7 * i + 7)
    const [id, thread, name] = said.layers.slice(3 * i, 3 * i + 3)
    const look = said.looks[k]
    const moves = said.moves[i]
    const heads: Move[] = []
    for (let n = 0; n < moves.length; n += 5)
      heads.push({
        ...blankMove,
        id: moves[n],
        kind: kinds.find((k) => k === moves[n + 1]) ?? blankMove.kind,
        effect: moves[n + 2],
        name: moves[n + 3],
        start: { when: moves[n + 4] },
      })
    return {
      ...look,
      layer: { ...look.layer, id, thread, name, place: { ...look.layer.place, x, y, w, h, turn } },
      box: [x, y, w, h],
      count,
      later,
      moves: heads,
    }
  })
}
