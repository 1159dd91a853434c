// What was copied: layers with their moves, or moves alone.
import type { CopiedLayers, CopiedScenes, DocumentMove, Look } from '../engine/types'
import { engine } from '../engine/engine'
import { run } from '../project/commands'
import { desk, say } from '../project/desk'
import { notice } from '../words'
import { makeScenes } from './series'
import { isRecord, recall, remember } from '../remember'

type Clipboard =
  | ({ kind: 'layers' } & CopiedLayers)
  | ({ kind: 'scenes' } & CopiedScenes)
  | { kind: 'moves'; sets: DocumentMove[][]; begins: Record<string, number> }

let held: Clipboard | null = null

// Another version of Capstan may have written it.
const isClipboard = (v: unknown): v is Clipboard | null =>
  isRecord(v) &&
  (v.kind === 'scenes'
    ? Array.isArray(v.scenes)
    : (v.kind === 'layers' ? Array.isArray(v.layers) : v.kind === 'moves' && Array.isArray(v.sets)) &&
      isRecord(v.begins))

// Copied layers are seen by the other windows of this browser, too: they may be pasted into another project. What is
// too large for that place stays in this window.
const shelf = 'capstan.copied'

function putOnShelf(c: Clipboard) {
  // From now on this is what was copied last, and no picture of another program.
  if (c.kind === 'scenes') navigator.clipboard?.writeText(c.scenes.map((s) => s.name).join(', ')).catch(() => undefined)
  if (c.kind === 'layers') navigator.clipboard?.writeText(c.layers.map((l) => l.name).join(', ')).catch(() => undefined)
  if (remember(shelf, c)) return
  remember(shelf, null)
  say(notice('copied.here'))
}

window.addEventListener('storage', (e) => {
  if (e.key !== shelf || !e.newValue) return
  held = fromShelf()
})

/** What another window copied before this one was opened. */
function fromShelf(): Clipboard | null {
  return recall(shelf, isClipboard, null)
}

/** Copies the bars that were selected on purpose, or else the selected layers with their moves. */
export function copy(): boolean {
  const d = desk()
  if (d.moves.length && d.purposely) return copyMoves()
  if (d.scenes.length && !d.selection.length) return copyScenes(d.scenes)
  const c = engine.copy(d.moment, d.selection)
  if (!c.layers.length) return false
  held = { kind: 'layers', ...c }
  putOnShelf(held)
  say(c.layers.length === 1 ? notice('copied.layer') : notice('copied.layers', c.layers.length))
  return true
}

/** Copies scenes with all that they need, for this project or another one. */
export function copyScenes(ids: string[]): boolean {
  const c = engine.copyScenes(ids)
  if (!c.scenes.length) return false
  held = { kind: 'scenes', ...c }
  putOnShelf(held)
  say(c.scenes.length === 1 ? notice('copied.scene', c.scenes[0].name) : notice('copied.scenes', c.scenes.length))
  return true
}

/** Copies the bars that were selected on purpose, or all moves of the selected layers. */
export function copyMoves(): boolean {
  const d = desk()
  const bars = d.purposely ? d.moves : []
  const c = engine.copyMoves(d.moment, d.selection, bars)
  const n = c.sets.reduce((sum, s) => sum + s.length, 0)
  if (n === 0) {
    say(notice('copied.no-moves'))
    return false
  }
  held = { kind: 'moves', ...c }
  const whose = bars.length
    ? notice('copied.of-bars')
    : c.sets.length === 1
      ? notice('copied.of-layer')
      : notice('copied.of-layers', c.sets.length)
  say(n === 1 ? notice('copied.move', whose) : notice('copied.moves', n, whose))
  return true
}

let look: Look | null = null

export const lookHeld = () => look !== null

/** Copies how the first selected layer is painted. */
export function copyLook(): boolean {
  const d = desk()
  const k = d.selection.length ? engine.lookOf(d.moment, d.selection[0]) : null
  if (!k) return false
  look = k
  say(notice('copied.look'))
  return true
}

/** Gives the copied look to the selected layers. */
export const pasteLook = () => desk().selection.length > 0 && run('look.paste', { threads: desk().selection, look })

/** What can be pasted. */
export function whatIsHeld(): Clipboard['kind'] | null {
  held ??= fromShelf()
  return held?.kind ?? null
}

export const movesHeld = () => held?.kind === 'moves'

/** Gives the copied moves to the selected layers, each further one step ms later. */
export function pasteMoves(step: number): boolean {
  if (held?.kind !== 'moves') {
    say(notice('copied.nothing'))
    return false
  }
  if (!desk().selection.length) {
    say(notice('copied.no-layer'))
    return false
  }
  return run('moves.paste', { sets: held.sets, begins: held.begins, threads: desk().selection, step })
}

/**
 * Pastes what was copied: layers into the scene that is shown, moves on the selected layers. Still layers leave their
 * moves.
 */
export function paste(how: { still?: boolean; place?: boolean; new?: boolean }): Clipboard['kind'] | null {
  held ??= fromShelf()
  if (!held) return null
  if (held.kind === 'moves') return pasteMoves(0) ? 'moves' : null
  if (held.kind === 'scenes')
    return makeScenes('scenes.paste', { scenes: held.scenes, from: held.from, media: held.media }) ? 'scenes' : null
  return run('paste', { layers: held.layers, begins: held.begins, from: held.from, media: held.media, ...how })
    ? 'layers'
    : null
}
