// The film that is worked on, as it is and as drafts show it.
import { engine } from '../../engine/engine'
import { loadFamilies, loadOwnFonts } from '../../engine/fonts'
import { seen, type Held } from '../../engine/many'
import { fault } from '../../words'
import type { After, Drafted, Film, Frame, Ghost, Outline, Overlay, Row, Selected, Shown } from '../../engine/types'
import { fail, say } from './notices'
import { desk, set, slice, type Desk } from './store'

export interface FilmSlice {
  project: string | null
  film: Film | null
  rows: Row[]
  scene: number // that of the moment
  version: number // goes up with every change of the document or the draft
  colours: string[]
  selected: Selected[] // what is selected, as it is shown
  overlay: Overlay // what is drawn over the page for it
  ghostsAt: Ghost[] // where it was and will be
  endsAt: Ghost[] // how it stands when its moves begin and end
  outline: Outline | null // what the outline of the one layer becomes, where that is looked at
  frame: Frame | null // what part of the page the scene shows, at rest; null: all of it
  missing: string[] // media whose files are not there, by hash
  offer: string | null // the thread of a picture that may become the ground
  after: After | null // layers are shown, and edited, as they are after changes of theirs; null: at rest
}

slice<FilmSlice>({
  project: null,
  film: null,
  rows: [],
  scene: 0,
  version: 0,
  colours: [],
  ...seen(null),
  missing: [],
  offer: null,
  after: null,
})

/** Looks at another moment, at other layers, or at more of them. */
export function look(to: Partial<Desk> = {}) {
  const was = desk()
  const d = { ...was, ...to }
  if (was.after && !staysAfter(d)) {
    engine.changing([])
    to = { ...to, after: null, version: was.version + 1 }
  }
  const v = engine.watch(
    d.moment,
    d.selection,
    d.ghosts,
    d.ends,
    d.backgroundHandles && d.moment.rest,
    d.allRows,
    d.corresponds,
  )
  set({ ...to, ...seen(v), scene: v.scene, ...(v.scene !== was.scene && { rows: engine.rows(d.moment, d.allRows) }) })
}

/** Tells the engine what is looked at where it does not know: while the film plays it is not told of every frame. */
export function lookNow() {
  if (desk().playing) look()
}

/** Shows the document as it is now. */
export function show(s: Shown) {
  const { moves, scenes, selection, moment, version, heard, alone, caption } = desk()
  const sounds = new Set(s.sounds.rows.map((r) => r.id))
  const there = new Set(s.rows.flatMap((r) => r.bars.map((b) => b.move)))
  const same = moment.rest === s.moment.rest && moment.scene === s.moment.scene && moment.time === s.moment.time
  set({
    film: s.film,
    moment: same ? moment : s.moment,
    rows: s.rows,
    sounds: s.sounds,
    heard: heard.every((id) => sounds.has(id)) ? heard : heard.filter((id) => sounds.has(id)),
    caption: s.sounds.captions.some((c) => c.scene === caption?.scene && c.index === caption.index) ? caption : null,
    alone: alone.every((id) => sounds.has(id)) ? alone : alone.filter((id) => sounds.has(id)),
    scene: s.scene,
    selection: selection.length === s.threads.length ? selection : s.threads, // what is gone is not selected
    ...seen(s),
    moves: moves.every((id) => there.has(id)) ? moves : moves.filter((id) => there.has(id)),
    scenes: scenes.filter((id) => s.film.scenes.some((c) => c.id === id)),
    colours: s.colours,
    canUndo: s.undo > 0,
    canRedo: s.redo > 0,
    after: s.after,
    version: version + 1,
  })
  if (s.lacks) void bringFonts()
}

/** Asks the engine for everything that may have changed with the document; it may be one that was loaded anew. */
export function refresh() {
  look()
  show(engine.all())
}

/** Shows what a draft does. */
export function showDraft(d: Held & Partial<Pick<Drafted, 'film' | 'rows' | 'sounds'>>) {
  set({
    ...seen(d),
    ...(d.film && { film: d.film }),
    ...(d.rows && { rows: d.rows }),
    ...(d.sounds && { sounds: d.sounds }),
    version: desk().version + 1,
  })
}

/** Shows the document again; with time, in the timeline too. */
export const dropDraft = (time = false) => showDraft(engine.clearDraft(time))

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

// What is edited after a change stays so while the scene is at rest and one of the layers is selected.
const staysAfter = (d: Desk) =>
  d.moment.rest &&
  d.rows.some((r) => d.selection.includes(r.thread) && r.bars.some((b) => d.after!.moves.includes(b.move)))

/** Shows layers as they are after changes, and edits that; none: at rest again. */
export function editAfter(moves: string[]) {
  const { moment, rows, selection, scene } = desk()
  const threads = rows.filter((r) => r.bars.some((b) => moves.includes(b.move))).map((r) => r.thread)
  const bar = rows.flatMap((r) => r.bars).find((b) => b.move === moves[0])
  if (moves.length)
    look({
      moment: { ...moment, rest: true, scene: bar?.scene ?? scene },
      selection: threads.some((t) => selection.includes(t)) ? selection : threads,
    })
  show(engine.changing(moves))
}
