// The words of a text while they are edited on the page. What is typed is a draft; every word, and every pause, makes
// it an edit that is stored and can be undone by itself.
import { engine } from '../engine/engine'
import type { Moment, WritingUnit } from '../engine/types'
import { apply, draft, redo, run, undo } from './commands'
import { desk, fail, say, set, toRest, useDesk } from './desk'
import { grouped } from './steps'
import { notice } from '../words'

/** After a pause of this long, in ms, what was typed is stored. */
const rest = 1200

interface Typed {
  thread: string
  moment: Moment
  now: string
  kind: 'put' | 'taken'
}

let typed: Typed | null = null
let moment: Moment | null = null // that the words are edited at
let word = 0 // counts the words that were typed: the edits of one are one step
let timer = 0
let composing = false

/** The words of a thread in the scene that is shown. */
export const wordsOf = (thread: string) =>
  desk()
    .selected.find((s) => s.layer.thread === thread)
    ?.layer.text?.runs.map((r) => r.text)
    .join('') ?? ''

// Places in a text count characters; the browser counts 16-bit units.
export const placeOf = (text: string, unit: number) => Array.from(text.slice(0, unit)).length
export const unitOf = (text: string, place: number) => [...text].slice(0, place).join('').length

/** Edits the words of a text, which is selected, at rest; first all of them are selected, none, or a stretch. */
export function startWriting(thread: string, at: 'all' | 'end' | [number, number]) {
  toRest()
  const n = [...wordsOf(thread)].length
  const [anchor, caret] = at === 'all' ? [0, n] : at === 'end' ? [n, n] : at
  moment = desk().moment
  typed = null
  word++
  set({ writing: { thread, anchor, caret } })
}

/** Selects from anchor to caret. What was typed before is a step of its own. */
export function markWords(anchor: number, caret: number) {
  const w = desk().writing
  if (!w || (w.anchor === anchor && w.caret === caret)) return
  set({ writing: { ...w, anchor, caret } })
  keepWords()
  word++
}

/** Selects what a press at a page point does; from is what was selected when the press began, as it is dragged on. */
export function markAt(
  x: number,
  y: number,
  unit: WritingUnit,
  slack: number,
  from?: [number, number],
): [number, number] | null {
  const w = desk().writing
  const at = w && engine.writingAt(desk().moment, w.thread, x, y, unit, slack)
  if (!at) return null
  if (!from) markWords(at[0], at[1])
  else if (at[1] > from[0] || at[0] >= from[0]) markWords(from[0], Math.max(at[1], from[1]))
  else markWords(from[1], at[0])
  return at
}

/** Shows the words as they have become by typing; false where they are refused. */
export function typeWords(now: string, caret: number, kind: Typed['kind'], breaks: boolean): boolean {
  const w = desk().writing
  if (!w || !moment) return false
  if (typed && typed.kind !== kind) {
    keepWords()
    word++
  }
  const trouble = draft('text.words', { thread: w.thread, text: now })
  if (trouble) {
    fail(new Error(trouble))
    if (typed) draft('text.words', { thread: w.thread, text: typed.now })
    return false
  }
  typed = { thread: w.thread, moment, now, kind }
  set({ writing: { ...w, anchor: caret, caret } })
  clearTimeout(timer)
  if (breaks && !composing) {
    keepWords()
    word++
  } else timer = window.setTimeout(keepWords, rest)
  return true
}

/** While an input method composes, nothing is stored. */
export function compose(on: boolean) {
  composing = on
}

/** Stores what was typed. */
export function keepWords() {
  const t = typed
  if (!t || composing) return
  typed = null
  clearTimeout(timer)
  engine.clearDraft()
  try {
    const command = engine.intent('text.words', t.moment, { thread: t.thread, text: t.now })
    if (command) grouped(`words ${word}`, () => apply(command), Infinity)
  } catch (e) {
    fail(e)
  }
}

/** Undoes or redoes a step while words are edited; the caret goes to where they change. */
export function stepWords(back: boolean) {
  const w = desk().writing
  if (!w) return
  keepWords()
  word++
  const before = [...wordsOf(w.thread)]
  if (back) undo()
  else redo()
  if (!desk().writing) return
  const now = [...wordsOf(w.thread)]
  const most = Math.min(before.length, now.length)
  let head = 0
  while (head < most && before[head] === now[head]) head++
  let tail = 0
  while (tail < most - head && before[before.length - 1 - tail] === now[now.length - 1 - tail]) tail++
  set({ writing: { ...w, anchor: now.length - tail, caret: now.length - tail } })
}

/** Makes the selected texts, or the stretch that is marked, bold or italic, or no longer so. */
export function toggleWords(what: 'bold' | 'italic') {
  const w = desk().writing
  keepWords()
  const part = w && w.anchor !== w.caret ? { from: Math.min(w.anchor, w.caret), to: Math.max(w.anchor, w.caret) } : {}
  run('text.toggle', { threads: desk().selection, what, ...part })
}

/** Leaves the words. A text without any goes. */
export function stopWriting() {
  const w = desk().writing
  if (!w || !moment) return
  composing = false
  keepWords()
  const at = moment
  moment = null
  set({ writing: null })
  const text = engine.selection(at, [w.thread])[0]?.layer.text
  if (text && text.runs.every((r) => r.text === '')) {
    const command = engine.intent('delete', at, { threads: [w.thread], everywhere: false })
    if (command && apply(command)) say(notice('text.empty'))
  }
}

document.addEventListener('visibilitychange', () => {
  if (document.hidden) keepWords()
})

// The words are left with their text, their scene, and rest.
useDesk.subscribe((d) => {
  const w = d.writing
  if (!w || !moment) return
  if (
    d.project &&
    d.selection.length === 1 &&
    d.selection[0] === w.thread &&
    d.moment.rest &&
    d.moment.scene === moment.scene &&
    !d.playing &&
    !d.large &&
    d.tool === 'select' &&
    d.rows.some((r) => r.thread === w.thread && r.here)
  )
    return
  if (d.project) stopWriting()
  else {
    typed = moment = null
    set({ writing: null })
  }
})
