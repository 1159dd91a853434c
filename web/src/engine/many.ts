// What the engine says of many selected layers in few words, and its numbers as plain memory, one by one again.
import type { Many, Overlay, OverlayBox, Selected } from './types'

/** Of more selected layers than this the engine says in few words what they are. */
export const manySelected = 24

export interface Worded {
  words: string
  numbers: Uint8Array
}

/** What is drawn over the page for many: a line around each, handles around all. */
export function crowd(v: Worded): Overlay {
  const n = new Float64Array(v.numbers.buffer)
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
  return { boxes, around: (JSON.parse(v.words) as OverlayBox | null) ?? undefined, paths: [], rings: [] }
}

/** Many selected layers, one by one again. */
export function spread(v: Worded): Selected[] {
  const said = JSON.parse(v.words) as Many
  const numbers = new Float64Array(v.numbers.buffer)
  return said.look.map((k, i) => {
    const [x, y, w, h, turn, count, later] = numbers.subarray(7 * i, 7 * i + 7)
    const [id, thread, name] = said.layers.slice(3 * i, 3 * i + 3)
    const look = said.looks[k]
    const moves = said.moves[i]
    const heads = []
    for (let n = 0; n < moves.length; n += 5)
      heads.push({
        id: moves[n],
        kind: moves[n + 1],
        effect: moves[n + 2],
        name: moves[n + 3],
        start: { when: moves[n + 4] },
        units: [],
        profile: [],
      } as unknown as Selected['moves'][0])
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
