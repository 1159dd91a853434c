// What is selected: layers by their threads, bars by their moves, scenes by their ids.
import type { Carried, Change } from '../../engine/types'
import { look } from './film'
import { desk, slice } from './store'

export interface SelectionSlice {
  selection: string[] // threads
  moves: string[] // bars that are selected
  purposely: boolean // they were pressed, not selected because they are new
  scenes: string[] // scenes that are selected together, by id
  inside: string // thread of the group that was entered
  reference: number // the point of a box that its numbers say where it is: 0..8, row by row; 4 is the middle
  keep: boolean // proportions, when one side is typed
  pivots: boolean // the pivot of what is selected is shown, and seized
  ordering: 'above' | 'below' | null // the next press on a layer puts what is selected in front of it, or behind
  across: (Carried & { changes: Change[] }) | null // the last edit, which the same threads could have in later scenes
}

slice<SelectionSlice>({
  selection: [],
  moves: [],
  purposely: false,
  scenes: [],
  inside: '',
  reference: 4,
  keep: false,
  pivots: false,
  ordering: null,
  across: null,
})

export function select(selection: string[], inside = desk().inside) {
  look({
    across: null,
    reference: 4,
    pivots: false,
    backgroundHandles: false,
    corresponds: '',
    mark: -1,
    selection,
    inside,
    moves: [],
    scenes: [],
    heard: [],
    caption: null,
    speaking: '',
  })
}

/** Selects what has come since the threads in before were there. */
export function selectNew(before: Set<string>) {
  const come = desk().rows.filter((r) => r.here && !before.has(r.thread))
  const tops = come.filter((r) => !come.some((o) => o.thread === r.parent))
  if (tops.length)
    select(
      tops.map((r) => r.thread),
      '',
    )
}

/** Selects bars, and with them their rows; purposely says whether a person pressed them. */
export function selectMoves(moves: string[], purposely = true) {
  const chosen = new Set(moves)
  const selection = desk()
    .rows.filter((r) => r.bars.some((b) => chosen.has(b.move)))
    .map((r) => r.thread)
  look({ moves, purposely, selection, scenes: [], heard: [], caption: null, speaking: '' })
}
