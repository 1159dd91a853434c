// Groups with effects as they came out, so that what stands still is blurred once.
import type { List } from '../types'
import type { Mark } from './items'
import { give, type Sheet } from './sheets'

interface Kept {
  codes: Uint32Array
  numbers: Float64Array
  where: string
  sheet: Sheet
}

const kept: Kept[] = []
const mostKept = 24
const mostKeptPx = 8e6

/** What the codes and numbers between two marks came out as, if it is kept. */
export function keptGroup(list: List, from: Mark, to: Mark, where: string): Sheet | undefined {
  const i = kept.findIndex((k) => {
    if (k.where !== where || k.codes.length !== to.c - from.c || k.numbers.length !== to.n - from.n) return false
    for (let j = 0; j < k.numbers.length; j++) if (k.numbers[j] !== list.numbers[from.n + j]) return false
    for (let j = 0; j < k.codes.length; j++) if (k.codes[j] !== list.codes[from.c + j]) return false
    return true
  })
  if (i < 0) return undefined
  const k = kept.splice(i, 1)[0]
  kept.unshift(k)
  return k.sheet
}

/** Keeps a sheet for the next frames. */
export function keep(list: List, from: Mark, to: Mark, where: string, sheet: Sheet) {
  kept.unshift({ codes: list.codes.slice(from.c, to.c), numbers: list.numbers.slice(from.n, to.n), where, sheet })
  let px = 0
  let n = 0
  while (n < kept.length && n < mostKept && (px += kept[n].sheet.box.w * kept[n].sheet.box.h) < mostKeptPx) n++
  for (const k of kept.splice(Math.max(n, 1))) give(k.sheet)
}
