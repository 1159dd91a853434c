// The keyboard: one table, which the shortcut sheet shows too.
import { cropped, leaveCrop, panCrop } from '../actions/cropping'
import { cutting, leaveCutout } from '../actions/cutout'
import { showBefore } from '../project/before'
import { tap } from '../actions/tapping'
import { copy, copyLook, lookHeld, pasteLook } from '../actions/clipboard'
import { apply, redo, run, undo } from '../project/commands'
import { engine } from '../engine/engine'
import { grouped } from '../project/steps'
import { closing } from '../project/closing'
import { notice } from '../words'
import {
  editAfter,
  desk,
  drawsShape,
  goToTime,
  say,
  select,
  selectNew,
  set,
  setOnNow,
  swapRest,
  swapZoomed,
  toRest,
  look,
  showAlone,
  openGallery,
} from '../project/desk'
import {
  goToMove,
  leaveLarge,
  mark,
  playFilm,
  playLarge,
  playMarks,
  playScene,
  playSelection,
  stop,
  toggle,
} from '../project/play'
import { deleteSelection, duplicateSelection, groupSelection, ungroupSelection } from '../actions/layers'
import { putAside } from '../project/setaside'
import { splitScene } from '../actions/series'
import { askForOrder } from '../actions/ordering'
import {
  openPoints,
  edited,
  endPen,
  leavePoints,
  nextPoint,
  nudgePoints,
  penBack,
  withPoints,
  selectAllPoints,
} from '../actions/drawing'
import { pasteSomething } from '../actions/pasting'
import { pasteHere } from '../actions/menus'
import { choosePictures } from '../actions/pictures'
import { pickTool } from '../actions/tools'
import { chooseSounds, deleteSounds } from '../actions/sounds'
import { setAids } from './Aids'
import { shownAt, within } from './view'
import { wordsBehind } from '../actions/behind'
import { startWriting, toggleWords } from '../project/writing'

/** A shortcut, by the keys it comes with. */
export interface Shortcut {
  keys: string
  does: string
  group: string
  run: () => void
  gently?: boolean // the browser does what it does by that key, too
}

const step = (frames: number) => {
  const { film, moment } = desk()
  if (film) goToTime(engine.step(moment.time, frames))
}
const nudge = (dx: number, dy: number) => {
  if (cropped()) panCrop(dx, dy)
  else if (edited() && desk().points.length) nudgePoints(dx, dy)
  else if (desk().selection.length) grouped('nudge', () => run('nudge', { threads: desk().selection, dx, dy }))
}
const grow = (by: number) => {
  if (desk().selected.some((s) => s.layer.kind === 'text'))
    grouped('grow', () => run('text.grow', { threads: desk().selection, by }))
}
const order = (to: string) => {
  if (desk().selection.length) run('order', { threads: desk().selection, to })
}

/** Shows the selected layers as large as they fit on the desk. */
function zoomToSelection() {
  const { film, overlay } = desk()
  const { boxes } = overlay
  const r = document.querySelector('[data-desk]')?.getBoundingClientRect()
  if (!boxes.length || !film || !r) return
  const xs = boxes.flatMap((b) => b.corners.map((c) => c[0]))
  const ys = boxes.flatMap((b) => b.corners.map((c) => c[1]))
  const [l, t, w, h] = [
    Math.min(...xs),
    Math.min(...ys),
    Math.max(...xs) - Math.min(...xs),
    Math.max(...ys) - Math.min(...ys),
  ]
  const zoom = within(Math.min((r.width - 120) / Math.max(w, 1), (r.height - 120) / Math.max(h, 1)))
  set(shownAt(film, { w: r.width, h: r.height }, zoom, [l + w / 2, t + h / 2], [r.width / 2, r.height / 2]))
}

/** Selects all layers, and says how many lie in the wings; pressed again, those that touch the page alone. */
function selectAll() {
  const { moment, inside, selection } = desk()
  const { threads, onPage } = engine.selectable(moment, inside)
  const all = selection.length === threads.length && threads.every((t) => selection.includes(t))
  const apart = threads.length - onPage.length
  select(all && onPage.length ? onPage : threads)
  if (apart > 0) say(all ? notice('select.page', onPage.length) : notice('select.wings', threads.length, apart))
}

/**
 * Deletes the selected bars; without any, the selected layers from this scene; scenes that are selected, from the
 * film.
 */
function remove() {
  const d = desk()
  if (d.heard.length) deleteSounds()
  else if (d.pen) penBack()
  else if (edited()) {
    if (d.points.length) withPoints('points.remove')
  } else if (d.scenes.length) apply({ op: 'scene.delete', ids: d.scenes })
  else if (d.moves.length) closing(() => run('moves.delete', { moves: d.moves }))
  else deleteSelection()
}

function tops() {
  const { rows, inside } = desk()
  return rows.filter((r) => r.here && r.parent === inside)
}

/**
 * Selects the next layer on the page; false past the last and before the first, where the keyboard goes on to what
 * lies around.
 */
export function next(by: number): boolean {
  if (edited()) return nextPoint(by)
  const list = tops()
  const at = list.findIndex((r) => desk().selection.includes(r.thread))
  const to = at < 0 ? (by > 0 ? 0 : -1) : at + by
  if (!list[to]) return false
  select([list[to].thread])
  return true
}

function escape() {
  const d = desk()
  if (d.pen) endPen()
  else if (cropped()) leaveCrop()
  else if (cutting()) leaveCutout()
  else if (edited()) leavePoints()
  else if (d.corresponds) look({ corresponds: '', mark: -1 })
  else if (d.picking) set({ picking: null })
  else if (d.ordering) set({ ordering: null })
  else if (d.large) leaveLarge()
  else if (d.drawer) set({ drawer: false })
  else if (d.tool !== 'select') set({ tool: 'select' })
  else if (d.playing) stop()
  else if (d.after) editAfter([])
  else if (d.inside) select([d.inside], d.rows.find((r) => r.thread === d.inside)?.parent ?? '')
  else if (d.moves.length) set({ moves: [] })
  else if (d.selection.length || d.scenes.length) select([], '')
  else toRest()
}

export const shortcuts: Shortcut[] = [
  { group: 'Time', keys: 'Space', does: 'Play, pause', run: toggle },
  { group: 'Time', keys: 'Shift+Space', does: 'Stop: back to where play began', run: stop },
  {
    group: 'Time',
    keys: 'L',
    does: 'Large view: plays in the whole window',
    run: () => (desk().large ? leaveLarge() : playLarge()),
  },
  { group: 'Time', keys: 'Y', does: 'Playing: the next selected move begins now', run: tap },
  { group: 'Time', keys: ',', does: 'One frame back', run: () => step(-1) },
  { group: 'Time', keys: '.', does: 'One frame on', run: () => step(1) },
  { group: 'Time', keys: 'Home', does: 'To the start', run: () => goToTime(0) },
  { group: 'Time', keys: 'End', does: 'To the end', run: () => goToTime(desk().film?.length ?? 0) },
  { group: 'Time', keys: 'A', does: 'Swap: at rest, at the playhead’s time', run: swapRest },
  { group: 'Time', keys: 'F', does: 'Play the film from its start', run: playFilm },
  { group: 'Time', keys: 'S', does: 'Play this scene', run: playScene },
  { group: 'Time', keys: 'V', does: 'Play what is selected', run: playSelection },
  { group: 'Time', keys: 'M', does: 'Set a mark here: two, then none', run: mark },
  { group: 'Time', keys: 'B', does: 'Play between the marks', run: playMarks },
  { group: 'Time', keys: '[', does: 'To the start of the selected move', run: () => goToMove('start') },
  { group: 'Time', keys: ']', does: 'To its end', run: () => goToMove('end') },
  { group: 'Time', keys: 'R', does: 'To when its layer stands at rest', run: () => goToMove('rest') },
  { group: 'Time', keys: 'C', does: 'A cue at the playhead', run: () => run('cue.add') },
  { group: 'Time', keys: 'Z', does: 'Timeline: the film, this scene', run: swapZoomed },
  { group: 'Time', keys: 'Shift+Z', does: 'To a scene by its name', run: () => set({ sheet: 'scenes' }) },
  { group: 'Time', keys: '/', does: 'Split here: what is seen begins a scene', run: splitScene },
  { group: 'Add', keys: '1', does: 'Rectangle', run: () => pickTool('rectangle') },
  { group: 'Add', keys: '2', does: 'Ellipse', run: () => pickTool('ellipse') },
  { group: 'Add', keys: '3', does: 'Text', run: () => pickTool('text') },
  {
    group: 'Add',
    keys: '4',
    does: 'Picture from disk',
    run: () => {
      toRest()
      choosePictures()
    },
  },
  { group: 'Add', keys: 'Shift+S', does: 'Sound from disk', run: chooseSounds },
  {
    group: 'Add',
    keys: '5',
    does: 'Motion path for what is selected',
    run: () => {
      if (desk().selection.length) pickTool('path')
    },
  },
  { group: 'Add', keys: '6', does: 'Pen', run: () => pickTool('pen') },
  { group: 'Add', keys: '7', does: 'Freehand', run: () => pickTool('hand') },
  { group: 'Add', keys: 'E', does: 'A move for what is selected', run: () => openGallery() },
  {
    group: 'Add',
    keys: 'Enter',
    does: 'Put down what is picked; end a drawing; else edit the words or points, or crop the picture',
    run: () => putDown(),
  },
  { group: 'Select', keys: 'Tab', does: 'Next layer, on the page; past the last, on to the rail', run: () => {} },
  { group: 'Select', keys: 'Shift+Tab', does: 'Layer before, on the page', run: () => {} },
  {
    group: 'Select',
    keys: 'Ctrl+A',
    does: 'All layers, and again: those that touch the page; all points, while they are open',
    run: () => (edited() ? selectAllPoints() : selectAll()),
  },
  { group: 'Select', keys: 'Escape', does: 'Let go: tool, group, selection; then at rest', run: escape },
  { group: 'Edit', keys: 'Ctrl+Z', does: 'Undo', run: undo },
  { group: 'Edit', keys: 'Ctrl+Shift+Z', does: 'Redo', run: redo },
  { group: 'Edit', keys: 'Ctrl+Y', does: 'Redo', run: redo },
  { group: 'Edit', keys: 'Ctrl+C', does: 'Copy', run: () => copy() },
  { group: 'Edit', keys: 'Shift+C', does: 'Copy or save as SVG', run: () => set({ sheet: 'drawing' }) },
  {
    group: 'Edit',
    keys: 'Ctrl+X',
    does: 'Cut out',
    run: () => {
      if (copy()) remove()
    },
  },
  {
    group: 'Edit',
    keys: 'Ctrl+V',
    does: 'Paste: pictures, layers here, or moves on what is selected',
    run: pasteSomething,
    gently: true,
  },
  { group: 'Edit', keys: 'Ctrl+Shift+V', does: 'Paste still: layers without their moves', run: () => pasteHere(true) },
  {
    group: 'Edit',
    keys: 'K',
    does: 'Copy look',
    run: () => {
      copyLook()
    },
  },
  {
    group: 'Edit',
    keys: 'Shift+K',
    does: 'Paste look',
    run: () => {
      if (lookHeld()) pasteLook()
    },
  },
  { group: 'Edit', keys: 'Ctrl+D', does: 'Duplicate', run: duplicateSelection },
  {
    group: 'Edit',
    keys: 'Delete',
    does: 'Delete: bars, or layers from this scene; on a row’s name, from all',
    run: remove,
  },
  { group: 'Edit', keys: 'Backspace', does: 'Delete', run: remove },
  { group: 'Edit', keys: 'Ctrl+B', does: 'Words bold, or no longer', run: () => toggleWords('bold') },
  { group: 'Edit', keys: 'Ctrl+I', does: 'Words italic, or no longer', run: () => toggleWords('italic') },
  { group: 'Edit', keys: 'Ctrl+ArrowUp', does: 'Words larger by 1 px', run: () => grow(1) },
  { group: 'Edit', keys: 'Ctrl+ArrowDown', does: 'Words smaller by 1 px', run: () => grow(-1) },
  { group: 'Place', keys: 'ArrowLeft', does: 'Nudge by 1 px', run: () => nudge(-1, 0) },
  { group: 'Place', keys: 'ArrowRight', does: 'Nudge by 1 px', run: () => nudge(1, 0) },
  { group: 'Place', keys: 'ArrowUp', does: 'Nudge by 1 px', run: () => nudge(0, -1) },
  { group: 'Place', keys: 'ArrowDown', does: 'Nudge by 1 px', run: () => nudge(0, 1) },
  { group: 'Place', keys: 'Shift+ArrowLeft', does: 'Nudge by 10 px', run: () => nudge(-10, 0) },
  { group: 'Place', keys: 'Shift+ArrowRight', does: 'Nudge by 10 px', run: () => nudge(10, 0) },
  { group: 'Place', keys: 'Shift+ArrowUp', does: 'Nudge by 10 px', run: () => nudge(0, -10) },
  { group: 'Place', keys: 'Shift+ArrowDown', does: 'Nudge by 10 px', run: () => nudge(0, 10) },
  {
    group: 'Place',
    keys: 'P',
    does: 'Held: the pivot, to drag it',
    run: () => {
      if (desk().selection.length === 1) set({ pivots: true })
    },
  },
  { group: 'See', keys: 'Shift+B', does: 'Held: what is selected before its adjustments', run: () => showBefore(true) },
  { group: 'Place', keys: 'Ctrl+G', does: 'Group', run: groupSelection },
  { group: 'Place', keys: 'Ctrl+Shift+G', does: 'Ungroup', run: () => ungroupSelection() },
  { group: 'Place', keys: 'PageUp', does: 'One forward', run: () => order('up') },
  { group: 'Place', keys: 'PageDown', does: 'One back', run: () => order('down') },
  { group: 'Place', keys: 'Ctrl+PageUp', does: 'To the front', run: () => order('front') },
  { group: 'Place', keys: 'O', does: 'In front of the layer that is pressed next', run: () => askForOrder('above') },
  { group: 'Place', keys: 'Shift+O', does: 'Behind the layer that is pressed next', run: () => askForOrder('below') },
  {
    group: 'Place',
    keys: 'X',
    does: 'Set aside: out of the film, behind its last scene; there, back into the film',
    run: () => putAside(),
  },
  { group: 'Place', keys: 'Ctrl+PageDown', does: 'To the back', run: () => order('back') },
  { group: 'See', keys: '0', does: 'Fit the page', run: () => set({ zoom: 'fit', pan: { x: 0, y: 0 } }) },
  {
    group: 'See',
    keys: '8',
    does: 'Full size: a px of the page is one of the screen',
    run: () => set({ zoom: 1, pan: { x: 0, y: 0 } }),
  },
  { group: 'See', keys: '9', does: 'What is selected, as large as it fits', run: () => zoomToSelection() },
  { group: 'See', keys: 'U', does: 'Rulers and guides', run: () => setAids({ rulers: !desk().aids.rulers }) },
  { group: 'See', keys: 'J', does: 'Safe areas', run: () => setAids({ safe: !desk().aids.safe }) },
  {
    group: 'See',
    keys: 'N',
    does: 'Of a scene at rest only what is on at the playhead, or all',
    run: () => setOnNow(!desk().onNow),
  },
  {
    group: 'See',
    keys: 'H',
    does: 'What is selected as it is when its moves begin and end',
    run: () => look({ ends: !desk().ends }),
  },
  {
    group: 'See',
    keys: 'G',
    does: 'Ghosts: where the selected layers were and will be',
    run: () => look({ ghosts: !desk().ghosts }),
  },
  { group: 'See', keys: 'D', does: 'The desk alone, or with the timeline', run: () => showAlone('desk') },
  { group: 'See', keys: 'T', does: 'The timeline alone, or with the desk', run: () => showAlone('timeline') },
  {
    group: 'See',
    keys: 'I',
    does: 'Inspector: out or in, where the window is narrow',
    run: () => set({ drawer: !desk().drawer }),
  },
  { group: 'See', keys: 'W', does: 'The scene in words', run: () => set({ sheet: 'words' }) },
  { group: 'See', keys: 'F6', does: 'On to the next part: page, inspector, timeline', run: nextPart },
  { group: 'See', keys: '?', does: 'This sheet', run: () => set({ sheet: 'keys' }) },
]

/** Moves the keyboard to the next part of the screen: page, inspector, timeline. */
function nextPart() {
  const parts = ['[data-desk]', '[aria-label=Inspector]', '[aria-label=Timeline]']
    .map((s) => document.querySelector<HTMLElement>(s))
    .filter((e) => !!e)
  const at = parts.findIndex((e) => e.contains(document.activeElement))
  const to = parts[(at + 1) % parts.length]
  const first = to.matches('[data-desk]')
    ? to
    : (to.querySelector<HTMLElement>('[data-name][aria-pressed=true]') ??
      to.querySelector<HTMLElement>('input, button, select'))
  first?.focus()
}

function putDown() {
  const { tool } = desk()
  if (tool === 'pen') {
    endPen()
    return
  }
  if (tool === 'select') {
    if (cropped() || cutting()) {
      leaveCrop()
      leaveCutout()
      return
    }
    const [only, more] = desk().selected
    if (only?.layer.kind === 'text' && !more) startWriting(only.layer.thread, 'end')
    else openPoints()
    return
  }
  if (tool !== 'text' && !drawsShape(tool)) return
  set({ tool: 'select' })
  const before = new Set(desk().rows.map((r) => r.thread))
  if (!run(tool === 'text' ? 'add.text' : 'add.shape', tool === 'text' ? { behind: wordsBehind() } : { kind: tool }))
    return
  selectNew(before)
  if (tool === 'text') startWriting(desk().selection[0], 'all')
}
