// What can be undone: small steps grouped into one, and the steps of a window kept over a reload.
import type { Change } from '../engine/engine'

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

const name = (c: Change) => `${c.part} ${c.field}`

export function sameFields(a: Change[], b: Change[]): boolean {
  const fields = new Set(a.map(name))
  return b.every((c) => fields.has(name(c)))
}

/** One patch that does what two do one after the other. */
export function joined(a: Change[], b: Change[]): Change[] {
  const later = new Map(b.map((c) => [name(c), c]))
  return a.map((c) => ({ ...c, after: later.has(name(c)) ? later.get(name(c))!.after : c.after }))
}

interface Steps { done: Change[][]; undone: Change[][] }

const key = (project: string) => `capstan-steps ${project}`

/** Keeps the steps of this window for when it shows the project again. What is too much is forgotten from the oldest on. */
export function putAway(project: string, done: Change[][], undone: Change[][]) {
  for (let from = Math.max(0, done.length - 200); ; from = Math.ceil((from + done.length) / 2)) {
    try {
      sessionStorage.setItem(key(project), JSON.stringify({ done: done.slice(from), undone } satisfies Steps))
      return
    } catch {
      if (from >= done.length) return // no room at all: undo begins anew
    }
  }
}

export function broughtBack(project: string): Steps {
  try {
    const raw = sessionStorage.getItem(key(project))
    if (raw) return JSON.parse(raw) as Steps
  } catch {
    // Storage that cannot be read holds no steps.
  }
  return { done: [], undone: [] }
}

/** The id of this window, the same after a reload. A tab that is copied gets its own: while a page lives its id is not in storage. */
export function sameWindow(): string {
  let id: string | null = null
  try {
    id = sessionStorage.getItem('capstan-window')
    sessionStorage.removeItem('capstan-window')
  } catch {
    // Without storage every load is a window of its own.
  }
  const own = id ?? crypto.randomUUID()
  window.addEventListener('pagehide', () => {
    try {
      sessionStorage.setItem('capstan-window', own)
    } catch {
      // as above
    }
  })
  return own
}
