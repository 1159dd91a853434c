// What is known of kinds of files.
import { engine } from '../engine/engine'
import type { Ask, Export } from '../engine/types'
import { filmTime } from '../time'

/**
 * What is asked for of another kind, in its first size: names, texts and, of what moves, the part and the frames timed
 * by hand go along.
 */
export function alike(ask: Ask, format: string): Ask {
  const { title, description, name, from, to, times } = ask
  const timed = () => {
    const { rateNum: num, rateDen: den } = engine.delivery(ask)
    return { times, rate: { num, den } }
  }
  const moves = !kindOf(format).still && !kindOf(ask.format).still
  const part = moves ? { from, to, ...(times && !kindOf(format).piece ? timed() : {}) } : {}
  return { format, height: engine.offered(format).first, title, description, name, ...part }
}

/** What is known of a format. */
export const kindOf = (format: string) => engine.formats().find((k) => k.format === format)!

/** What was asked for when a file was made. */
export const askOf = (e: Export): Ask =>
  e.settings
    ? { ...(JSON.parse(e.settings) as Ask), pictures: undefined } // what is made by these settings anew has its own
    : { format: e.format, height: e.height, rate: { num: e.rateNum, den: e.rateDen } }

/** Which frame a still is, for people. */
export const stillWords = (e: Export) => {
  const { scene, cue } = askOf(e)
  if (kindOf(e.format).sheet) return 'all scenes'
  return scene && !cue ? `scene ${scene} as it rests` : `at ${filmTime(e.at)}`
}

/** A rate for people. */
export const rateWords = (num: number, den: number) =>
  `${num % den === 0 ? num / den : (num / den).toFixed(2)} a second`
