// What is known of kinds of files.
import { engine } from '../engine/engine'
import type { Ask, Export } from '../engine/types'

/** What is known of a format. */
export const kindOf = (format: string) => engine.formats().find((k) => k.format === format)!

/** What was asked for when a file was made. */
export const askOf = (e: Export): Ask =>
  e.settings
    ? (JSON.parse(e.settings) as Ask)
    : { format: e.format, height: e.height, rate: { num: e.rateNum, den: e.rateDen } }

/** A rate for people. */
export const rateWords = (num: number, den: number) =>
  `${num % den === 0 ? num / den : (num / den).toFixed(2)} a second`
