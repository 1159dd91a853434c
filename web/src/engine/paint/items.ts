// Walks through display lists without painting: how long an item is, and which items of two lists are equal.
import { heads, op, paints, terms } from '../primitives'
import type { List } from '../types'

const points = [1, 1, 3, 0] // of each verb of an outline

/** Where an item begins in codes and numbers. */
export interface Mark {
  c: number
  n: number
}

/** Moves past one item with all that is inside it. */
export function skip(codes: Uint32Array, at: Mark) {
  const head = heads[codes[at.c]]
  if (!head) throw new Error(`The display list holds an unknown primitive ${codes[at.c]}.`)
  const first = at.c + 1
  at.c = first + head.codes
  at.n += head.numbers
  if (head.terms) {
    for (let i = 0; i < codes[first]; i++) {
      const t = terms[codes[at.c]]
      at.c += 1 + t.codes
      at.n += t.numbers
    }
  }
  if (head.verbs) for (let i = 0; i < codes[first]; i++) at.n += 2 * points[codes[at.c++] & 3]
  if (head.pixels) at.c += Math.ceil((codes[first] * codes[first + 1] * codes[first + 2]) / 4)
  if (head.paint) {
    const paint = paints[codes[at.c++]]
    at.n += paint.numbers
    if (paint.each > 0) at.n += paint.each * codes[at.c]
    at.c += paint.codes
  }
  for (let i = 0; i < head.inside; i++) skipInside(codes, at)
}

export function skipInside(codes: Uint32Array, at: Mark) {
  while (at.c < codes.length && codes[at.c] !== op.end && codes[at.c] !== op.next) skip(codes, at)
  at.c++
}

/** Where each item of a list begins, and the list's end. */
export function marks(list: List): Mark[] {
  const out: Mark[] = []
  const at = { c: 0, n: 0 }
  while (at.c < list.codes.length) {
    out.push({ ...at })
    skip(list.codes, at)
  }
  out.push(at)
  return out
}

function same(a: ArrayLike<number>, a0: number, b: ArrayLike<number>, b0: number, n: number): boolean {
  for (let i = 0; i < n; i++) if (a[a0 + i] !== b[b0 + i]) return false
  return true
}

/** Whether item i of one list is item k of another. */
export function sameItem(a: List, i: Mark, iEnd: Mark, b: List, k: Mark, kEnd: Mark): boolean {
  return (
    iEnd.c - i.c === kEnd.c - k.c &&
    iEnd.n - i.n === kEnd.n - k.n &&
    same(a.codes, i.c, b.codes, k.c, iEnd.c - i.c) &&
    same(a.numbers, i.n, b.numbers, k.n, iEnd.n - i.n)
  )
}
