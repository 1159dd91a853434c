// Rows of small steps that are undone as one, and the steps of a window kept over a reload. The engine has the steps.
import { engine } from '../engine/engine'
import { isText, recall, remember } from '../remember'

/** A pause of this long, in ms, ends a group of small steps. */
export const pauseBetween = 800

let row = ''
let pause = pauseBetween

/** The row of small steps that a step being taken belongs to; empty for one by itself. */
export const rowOfSteps = () => row

/** The pause that ends it, ms. */
export const pauseOfRow = () => pause

/** Takes a small step, as arrow keys do: those of one row that follow without a pause are undone as one. */
export function grouped(of: string, f: () => void, longest = pauseBetween) {
  row = of
  pause = longest
  try {
    f()
  } finally {
    row = ''
  }
}

const key = (project: string) => `capstan-steps ${project}`

/** Keeps the steps of this window for when it shows the project again. */
export function putAway(project: string) {
  try {
    sessionStorage.setItem(key(project), engine.keepSteps())
  } catch {
    // No room: undo begins anew.
  }
}

/** Brings back what this window could undo when it last showed the project. */
export function bringBack(project: string) {
  try {
    const raw = sessionStorage.getItem(key(project))
    if (raw) engine.bringSteps(raw)
  } catch {
    // Storage that cannot be read, or holds rubbish, brings none.
  }
}

/**
 * The id of this window, the same after a reload. A tab that is copied gets its own: while a page lives its id is not
 * in storage.
 */
export function sameWindow(): string {
  // Without storage every load is a window of its own.
  const own = recall('capstan-window', isText, crypto.randomUUID(), () => sessionStorage)
  remember('capstan-window', null, () => sessionStorage)
  window.addEventListener('pagehide', () => {
    remember('capstan-window', own, () => sessionStorage)
  })
  return own
}
