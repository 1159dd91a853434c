// Captions: begun at the playhead, read from a file, taken out.
import { engine } from '../engine/engine'
import type { CaptionRow } from '../engine/types'
import { run } from '../project/commands'
import { desk, fail, mended, say, selectCaption } from '../project/desk'
import { counted, fault, notice } from '../words'

/** Whether a file is one of captions. */
export const isCaptions = (f: File) => /\.(srt|vtt)$/i.test(f.name)

/** A caption of a scene's own, as commands name it. */
export const nameOf = (c: CaptionRow) => ({ scene: c.scene, index: c.index })

/**
 * A caption as it is named now: what was done in another window may have changed its place among those of its scene.
 * null: it is gone.
 */
export function nameNow(of: CaptionRow) {
  const own = desk().sounds.captions.filter((c) => c.scene === of.scene && !c.sound && c.text === of.text)
  const best = own.sort((a, b) => Math.abs(a.index - of.index) - Math.abs(b.index - of.index))[0]
  if (!best) say(fault('caption.gone'), 'failed')
  return best ? nameOf(best) : null
}

/** Begins a caption at the playhead; its words are to be typed. */
export function addCaption() {
  const key = (c: CaptionRow) => `${c.scene} ${c.sound} ${c.from}`
  const had = new Set(desk().sounds.captions.map(key))
  if (!run('caption.add', {})) return
  const come = desk().sounds.captions.find((c) => !c.sound && !had.has(key(c)))
  if (!come) return // it waits until the film is as long
  selectCaption(nameOf(come))
  requestAnimationFrame(() => document.querySelector<HTMLTextAreaElement>('[data-caption-words]')?.select())
}

/** Reads captions from a file; they stand in the place of those that were there. */
export async function readCaptions(file: File) {
  let read
  try {
    read = engine.subtitles(new Uint8Array(await file.arrayBuffer()))
  } catch (e) {
    fail(e, 'intake')
    return
  }
  mended('intake')
  if (!run('caption.read', { lines: read.lines })) return
  const length = desk().film?.length ?? 0
  const later = read.lines.filter((c) => c.from >= length).length
  const left = [
    read.backwards && `${read.backwards} left out, with an end before the begin`,
    read.cut && `${read.cut} too long, and cut`,
    later && `${later} after the film ends`,
  ].filter(Boolean)
  say(notice('caption.read', counted(read.lines.length, 'caption'), left.length ? `; ${left.join(', ')}` : ''))
}

/** Asks for a file of captions. */
export const chooseCaptions = () => document.querySelector<HTMLInputElement>('[data-caption-input]')?.click()

/** Takes the selected caption out of the film. */
export function deleteCaption() {
  const of = desk().caption
  if (of && run('caption.delete', of)) selectCaption(null)
}
