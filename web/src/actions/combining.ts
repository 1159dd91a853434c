// Combining the selected layers: shown on the page before it is done. What comes of it is the engine's business.
import type { Intents } from '../engine/types'
import { engine } from '../engine/engine'
import { notice } from '../words'
import { allStored, draftOnPage, run } from '../project/commands'
import { desk, dropDraft, fail, say, select, selectNew, set } from '../project/desk'
import { mergePicture } from '../server/server'

export type Way = 'unite' | 'cut' | 'overlap' | 'drop' | 'break'

export const ways: [Way, string, string][] = [
  ['unite', 'Unite', 'Everything that any of them covers'],
  ['cut', 'Cut away', 'The rearmost, without what those in front of it cover'],
  ['overlap', 'Keep overlap', 'Only what all of them cover'],
  ['drop', 'Drop overlap', 'What an odd number of them cover'],
  ['break', 'Break up', 'Every part a layer of its own, in the look of the one in front there'],
]

const intentOf = (way: Way): ['break' | 'combine', Intents['combine']] =>
  way === 'break' ? ['break', { threads: desk().selection }] : ['combine', { threads: desk().selection, how: way }]

/** Shows on the page what would come of it, with the outlines of what went in. */
export function previewCombining(way: Way) {
  const d = desk()
  if (d.dragging || d.playing) return
  const { outlines, heavy } = engine.combining(d.moment, d.selection, way)
  const trouble = heavy ? notice('combine.heavy') : draftOnPage(...intentOf(way))
  set({ preview: { way, outlines, trouble } })
}

export function endPreview() {
  if (!desk().preview) return
  dropDraft()
  set({ preview: null })
}

export function combineSelection(way: Way) {
  endPreview()
  const d = desk()
  const { drops } = engine.combining(d.moment, d.selection, way)
  const before = new Set(d.rows.map((r) => r.thread))
  if (!run(...intentOf(way))) return
  if (way === 'break') selectNew(before)
  else select(d.selection.filter((t) => desk().rows.some((r) => r.thread === t && r.here)))
  if (drops) say(way === 'break' ? notice('combine.broken', drops) : notice('combine.moves', drops))
}

/** Gives back what the selected layers were made of, and selects it. */
export function takeApart() {
  const d = desk()
  const before = new Set(d.rows.filter((r) => r.here).map((r) => r.thread))
  if (!run('apart', { threads: d.selection })) return
  select([
    ...d.selection,
    ...desk()
      .rows.filter(
        (r) =>
          r.here &&
          !before.has(r.thread) &&
          r.parent === (d.rows.find((o) => o.thread === d.selection[0])?.parent ?? ''),
      )
      .map((r) => r.thread),
  ])
}

/** Paints the selected layers into one picture; they are kept inside it. */
export async function mergeSelection() {
  const d = desk()
  const { drops } = engine.combining(d.moment, d.selection, 'unite')
  const threads = d.selection
  try {
    await allStored()
    const p = await mergePicture(
      d.project!,
      d.film!.scenes[d.scene].id,
      desk().selected.map((s) => s.layer.id),
    )
    if (desk().project !== d.project || !run('merge', { threads, ...p })) return
    select(threads.filter((t) => desk().rows.some((r) => r.thread === t && r.here)))
    if (drops) say(notice('combine.moves', drops))
  } catch (e) {
    fail(e)
  }
}
