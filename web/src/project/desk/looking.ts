// How the page is looked at, and what is shown beside it that is not in the film.
import { engine } from '../../engine/engine'
import { look } from './film'
import { desk, set, slice } from './store'

export interface LookingSlice {
  zoom: number | 'fit'
  scale: number // px a page px, as shown
  pan: { x: number; y: number }
  solo: string[] // threads that are looked at alone
  onNow: boolean // scenes at rest show only what is on at the playhead
  ghosts: boolean // where the selected layers were and will be
  ends: boolean // they, as they are when their moves begin and end
  backgroundHandles: boolean // the ends of the gradient of the scene’s background are on the page
  aids: Aids
  sheet: 'none' | 'export' | 'keys' | 'words' | 'stages' | 'pairs' | 'scenes' | 'variants' | 'losses' | 'drawing'
  /** what a drawing could not keep */
  losses: { name: string; list: { what: string; where: string; count: number }[] }
  /** rows of the table, from 1, that are exported next */
  variants: number[]
  room: 'both' | 'desk' | 'timeline' // which of them is in the window
  drawer: boolean // where the window is narrow: the inspector is out
  large: boolean // the film alone, in the whole window
  corresponds: string // id of the scene into which it is shown what the outline of the one layer becomes; empty: none
  mark: number // which pair of its points is selected; -1: none
  allRows: boolean // threads that are not in the scene that is shown have rows, too
}

/** What helps to place things and is not in the film. */
export interface Aids {
  safe: boolean
  grid: number // px a step; 0: none
  rulers: boolean // and the guides
  locked: boolean // guides stay where they are
  wings: boolean // what lies around the page is seen
}

slice<LookingSlice>({
  zoom: 'fit',
  scale: 1,
  pan: { x: 0, y: 0 },
  solo: [],
  onNow: false,
  ghosts: false,
  ends: false,
  backgroundHandles: false,
  aids: { safe: false, grid: 0, rulers: false, locked: false, wings: true },
  sheet: 'none',
  variants: [],
  losses: { name: '', list: [] },
  room: 'both',
  drawer: false,
  large: false,
  corresponds: '',
  mark: -1,
  allRows: false,
})

/** Shows only what is on at the playhead of scenes at rest, or all of them again. */
export function setOnNow(onNow: boolean) {
  engine.onNow(onNow)
  look({ onNow, version: desk().version + 1 })
}

/** Shows the desk or the timeline alone, or both again. */
export const showAlone = (part: 'desk' | 'timeline') => set({ room: desk().room === part ? 'both' : part })

/** Gives threads that are not in the scene that is shown rows, too, or takes them away. */
export function showAllRows(allRows: boolean) {
  look({ allRows, rows: engine.rows(desk().moment, allRows) })
}

/** Looks at some layers alone; none: at all of them again. */
export function setSolo(threads: string[]) {
  engine.solo(threads)
  look({ solo: threads, version: desk().version + 1 })
}
