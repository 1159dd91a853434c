// What Capstan says: the catalogue that the core has too (core/words/catalogue.json).
import catalogue from '../../core/words/catalogue.json'

type Args = (string | number)[]

function fill(pattern: string, args: Args): string {
  return pattern.replace(/\{[^}]*\}/g, () => String(args.shift() ?? ''))
}

/** Something that was done, in words. Each {name} of it is replaced by the next of args. */
export const notice = (key: keyof typeof catalogue.notices, ...args: Args) => fill(catalogue.notices[key], args)

/** Something that went wrong: what happened, what is kept, what to do. */
export const fault = (key: keyof typeof catalogue.faults, ...args: Args) => fill(catalogue.faults[key].join(' '), args)

/** A number of things: 1 scene, 2 scenes. */
export const counted = (n: number, thing: string) => `${n} ${thing}${n === 1 ? '' : 's'}`
