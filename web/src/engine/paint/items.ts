// Walks through display lists without painting: how long an item is, and which items of two lists are equal.
import type { List } from '../types'

const points = [1, 1, 3, 0]

/** Where an item begins in codes and numbers. */
export interface Mark { c: number; n: number }

function skipPaint(codes: Uint32Array, at: Mark) {
  const kind = codes[at.c++]
  if (kind === 0) at.n += 4
  else if (kind === 3) { at.c += 2; at.n += 7 }
  else at.n += (kind === 1 ? 7 : 9) + 5 * codes[at.c++]
}

/** Moves past one item with all that is inside it. */
export function skip(codes: Uint32Array, at: Mark) {
  switch (codes[at.c++]) {
    case 1: at.c++; at.n += 6; skipPaint(codes, at); return
    case 2: {
      const count = codes[at.c++]
      at.n += 6
      for (let i = 0; i < count; i++) at.n += 2 * points[codes[at.c++] & 3]
      skipPaint(codes, at)
      return
    }
    case 3: at.c += 3; at.n += 15; return
    case 4: at.c++; at.n += 14; skipInside(codes, at); return
    case 6: at.n += 1; skipInside(codes, at); skipInside(codes, at); return
    case 8: at.n += 4; skipInside(codes, at); return
    case 9: at.n += 10 + 6 * codes[at.c++]; skipInside(codes, at); return
    case 10: at.n += 11; skipInside(codes, at); skipInside(codes, at); return
    case 11: at.c += 2; at.n += 10; skipInside(codes, at); return
    case 12: at.c++; at.n += 5; skipInside(codes, at); skipInside(codes, at); return
    case 14: {
      const [w, h, depth] = codes.subarray(at.c, at.c + 3)
      at.c += 3 + Math.ceil((w * h * depth) / 4)
      at.n += 14
      return
    }
    case 13: at.n += 14; skipInside(codes, at); return
    default: throw new Error(`The display list holds an unknown primitive ${codes[at.c - 1]}.`)
  }
}

export function skipInside(codes: Uint32Array, at: Mark) {
  while (at.c < codes.length && codes[at.c] !== 5 && codes[at.c] !== 7) skip(codes, at)
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
  return iEnd.c - i.c === kEnd.c - k.c && iEnd.n - i.n === kEnd.n - k.n &&
    same(a.codes, i.c, b.codes, k.c, iEnd.c - i.c) && same(a.numbers, i.n, b.numbers, k.n, iEnd.n - i.n)
}
