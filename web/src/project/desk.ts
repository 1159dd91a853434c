// What the editor shows: one store. The document itself lives in the engine; here are only the small views of it.
import { create } from 'zustand'
import { engine, loadFamilies, loadOwnFonts, type Growth } from '../engine/engine'
import { fault } from '../words'
import type { Carried, Change, Film, Moment, PenView, Row, Selected } from '../engine/types'

/** What a press on the page does: select, draw words or a motion path, or a shape of this kind. */
export type Tool = 'select' | 'text' | 'path' | (string & {})

export const drawsShape = (tool: Tool) => !['select', 'text', 'path', 'pen', 'hand'].includes(tool)

/** What is said for a while, or went wrong: that goes with its cause. */
export interface Notice {
  id: number
  kind: 'said' | 'failed'
  text: string
  cause?: Cause
  act?: { word: string; run: () => void }
}

/** What a failure came of: something else of the kind that succeeds shows that it is over. */
export type Cause = 'edit' | 'intake' | 'export' | 'keys'

interface Desk {
  project: string | null
  film: Film | null
  rows: Row[]
  scene: number // that of the moment
  moment: Moment
  playing: boolean
  playedFrom: Moment | null
  selection: string[] // threads
  moves: string[] // bars that are selected
  purposely: boolean // they were pressed, not selected because they are new
  scenes: string[] // scenes that are selected together, by id
  solo: string[] // threads that are looked at alone
  marks: [number | null, number | null] // ms of the film, to play between
  speed: number // of playing: 0.25, 0.5, 1, 2
  dropped: number // frames of the film that were not shown in time while playing
  ghosts: boolean // where the selected layers were and will be
  ends: boolean // they, as they are when their moves begin and end
  onNow: boolean // scenes at rest show only what is on at the playhead
  grows: Growth[] // what grows along with several layers, and with a group
  ordering: 'above' | 'below' | null // the next press on a layer puts what is selected in front of it, or behind
  lastScene: number // of the film that was shown last
  zoomed: 'film' | 'scene' // what the timeline shows
  inside: string // thread of the group that was entered
  selected: Selected[]
  colours: string[]
  tool: Tool
  version: number // goes up with every change of the document or the draft
  dragging: boolean
  zoom: number | 'fit'
  scale: number // px a page px, as shown
  pan: { x: number; y: number }
  pending: number // commands not acknowledged yet
  trouble: string | null // why they are not
  canUndo: boolean
  canRedo: boolean
  notices: Notice[]
  picking: ((colour: string) => void) | null // what is done with the colour that is picked from the page next
  pen: PenView | null // what is being drawn
  mirror: boolean // the pen draws both sides
  smoothing: number // of lines drawn by hand, px on the screen
  // The text whose words are edited; from anchor to caret they are selected.
  writing: { thread: string; anchor: number; caret: number } | null
  editing: string | null // thread of the path whose points are edited
  points: string[] // of them, those that are selected
  parted: string[] // of them, those whose handles go by themselves
  snap: [number, number, number, number][] // lines of the page to what a drag snapped to
  preview: { way: string; outlines: string; trouble: string } | null // of combining what is selected
  reference: number // the point of a box that its numbers say where it is: 0..8, row by row; 4 is the middle
  keep: boolean // proportions, when one side is typed
  backgroundHandles: boolean // the ends of the gradient of the scene’s background are on the page
  pivots: boolean // the pivot of what is selected is shown, and seized
  // The last edit, which the same threads could have in later scenes, too.
  across: (Carried & { changes: Change[] }) | null
  aids: Aids
  offer: string | null // the thread of a picture that may become the ground
  missing: string[] // media whose files are not there, by hash
  sheet: 'none' | 'export' | 'keys' | 'words' | 'stages'
  large: boolean // the film alone, in the whole window
}

/** What helps to place things and is not in the film. */
export interface Aids {
  safe: boolean
  grid: number // px a step; 0: none
  rulers: boolean // and the guides
  locked: boolean // guides stay where they are
  wings: boolean // what lies around the page is seen
}

export const useDesk = create<Desk>()(() => ({
  project: null,
  film: null,
  rows: [],
  scene: 0,
  moment: { rest: true, scene: 0, time: 0 },
  playing: false,
  playedFrom: null,
  selection: [],
  moves: [],
  purposely: false,
  scenes: [],
  solo: [],
  marks: [null, null],
  speed: 1,
  dropped: 0,
  ghosts: false,
  ends: false,
  onNow: false,
  grows: ['strokes', 'effects', 'letters'],
  ordering: null,
  lastScene: 0,
  zoomed: 'film',
  inside: '',
  selected: [],
  colours: [],
  tool: 'select',
  version: 0,
  dragging: false,
  zoom: 'fit',
  scale: 1,
  pan: { x: 0, y: 0 },
  pending: 0,
  trouble: null,
  canUndo: false,
  canRedo: false,
  notices: [],
  pen: null,
  mirror: false,
  smoothing: 4,
  writing: null,
  editing: null,
  points: [],
  parted: [],
  snap: [],
  picking: null,
  preview: null,
  reference: 4,
  keep: false,
  pivots: false,
  backgroundHandles: false,
  across: null,
  aids: { safe: false, grid: 0, rulers: false, locked: false, wings: true },
  offer: null,
  missing: [],
  sheet: 'none',
  large: false,
}))

export const desk = useDesk.getState
export const set = useDesk.setState

/** Asks the engine for everything that may have changed with the document. */
export function refresh() {
  const { moment, selection, moves, scenes, version } = desk()
  void bringFonts()
  const film = engine.film()
  const m = clamp(moment, film)
  const rows = engine.rows(m)
  const there = new Set(rows.flatMap((r) => r.bars.map((b) => b.move)))
  const known = new Set(rows.map((r) => r.thread))
  // What is gone is not selected.
  const kept = selection.every((t) => known.has(t)) ? selection : selection.filter((t) => known.has(t))
  set({
    film,
    moment: m,
    rows,
    scene: engine.sceneAt(m),
    selection: kept,
    selected: engine.selection(m, kept),
    moves: moves.every((id) => there.has(id)) ? moves : moves.filter((id) => there.has(id)),
    scenes: scenes.filter((id) => film.scenes.some((s) => s.id === id)),
    colours: engine.colours(),
    version: version + 1,
  })
}

/** Shows what a draft does to the timeline. */
export function refreshTimeline() {
  const { moment, selection, version } = desk()
  set({
    film: engine.film(),
    rows: engine.rows(moment),
    selected: engine.selection(moment, selection),
    version: version + 1,
  })
}

/** Shows a new draft: only what moves with it is asked for. */
export function refreshDraft() {
  const { moment, selection, version } = desk()
  set({ selected: engine.selection(moment, selection), version: version + 1 })
}

/** Loads the families that the document uses and has not got, and sets its texts with them. */
export async function bringFonts() {
  try {
    const wanted = engine.familiesWanted()
    const shipped = wanted.length > 0 && (await loadFamilies(wanted))
    const own = await loadOwnFonts((f) => say(fault('font.gone', f.family), 'failed'))
    if (!(shipped || own) || desk().dragging || !desk().project) return
    engine.recompile()
    refresh()
  } catch (e) {
    fail(e)
  }
}

function clamp(m: Moment, film: Film): Moment {
  return { rest: m.rest, scene: Math.min(m.scene, film.scenes.length - 1), time: Math.min(m.time, film.length) }
}

/** Goes to a moment. Views of the scene are asked for only when the scene changes. */
export function goTo(m: Moment) {
  const { film, selection, scene, playing } = desk()
  if (!film) return
  const to = clamp(m, film)
  const at = engine.sceneAt(to)
  set({ moment: to })
  const { aside } = film.scenes[at]
  if (at !== scene) set({ scene: at, rows: engine.rows(to), ...(aside ? { zoomed: 'film' } : { lastScene: at }) })
  if (!playing) set({ selected: engine.selection(to, selection) })
}

/** Shows the whole film in the timeline, or the scene alone, on its clock. */
export function swapZoomed() {
  const { film, scene, zoomed } = desk()
  if (film && !film.scenes[scene].aside) set({ zoomed: zoomed === 'film' ? 'scene' : 'film' })
}

/** Shows only what is on at the playhead of scenes at rest, or all of them again. */
export function setOnNow(onNow: boolean) {
  engine.onNow(onNow)
  set({ onNow, version: desk().version + 1 })
}

/** Says what grows along with several layers. */
export function setGrows(grows: Growth[]) {
  engine.grows(grows)
  set({ grows })
}

export const goToTime = (time: number) => goTo({ rest: false, scene: 0, time: Math.max(0, time) })

/** Shows a scene at rest, with the playhead at its begin. */
export function goToScene(i: number) {
  const film = desk().film
  if (!film) return
  const s = film.scenes[Math.max(0, Math.min(i, film.scenes.length - 1))]
  // None of it lies in time.
  goTo({ rest: true, scene: film.scenes.indexOf(s), time: s.aside ? desk().moment.time : s.start + s.into })
}

/** Swaps between the scene at rest and the film at the playhead. */
export function swapRest() {
  const { moment, scene } = desk()
  goTo(moment.rest ? { ...moment, rest: false } : { ...moment, rest: true, scene })
}

/** Goes to rest in the scene that is shown. */
export function toRest() {
  const { moment, scene } = desk()
  if (!moment.rest) goTo({ ...moment, rest: true, scene })
}

export function select(threads: string[], inside = desk().inside) {
  set({
    across: null,
    reference: 4,
    pivots: false,
    backgroundHandles: false,
    selection: threads,
    inside,
    moves: [],
    scenes: [],
    selected: engine.selection(desk().moment, threads),
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
  const threads = desk()
    .rows.filter((r) => r.bars.some((b) => chosen.has(b.move)))
    .map((r) => r.thread)
  set({ moves, purposely, selection: threads, scenes: [], selected: engine.selection(desk().moment, threads) })
}

/** Looks at some layers alone; none: at all of them again. */
export function setSolo(threads: string[]) {
  engine.solo(threads)
  set({ solo: threads, version: desk().version + 1 })
}

let notice = 0

/** Says something for a while; failures stay until they are closed, or their cause has gone. */
export function say(text: string, kind: Notice['kind'] = 'said', more: Pick<Notice, 'cause' | 'act'> = {}) {
  const n = { id: ++notice, kind, text, ...more }
  set({
    notices: [
      ...desk()
        .notices.filter((o) => o.text !== text)
        .slice(-3),
      n,
    ],
  })
  if (kind === 'said') setTimeout(() => dismiss(n.id), more.act ? 8000 : 4000)
}

export const dismiss = (id: number) => set({ notices: desk().notices.filter((n) => n.id !== id) })

export const fail = (e: unknown, cause: Cause = 'edit') =>
  say(e instanceof Error ? e.message : String(e), 'failed', { cause })

/** Something of a kind has succeeded: failures of that kind are over. */
export function mended(cause: Cause) {
  const { notices } = desk()
  if (notices.some((n) => n.cause === cause)) set({ notices: notices.filter((n) => n.cause !== cause) })
}
