import type { Family, OwnFont } from '../engine/types'

let list: Family[] = []

/** The font families that ship, in the order they are offered. */
export const families = () => list
export const setFamilies = (f: Family[]) => {
  list = f
}

/** The families of a project's own fonts. */
export function ownFamilies(fonts: OwnFont[]): Family[] {
  const names = [...new Set(fonts.map((f) => f.family))]
  return names.map((name) => ({
    name,
    kind: 'own',
    weights: [...new Set(fonts.filter((f) => f.family === name).map((f) => f.weight))],
    italics: fonts.filter((f) => f.family === name && f.italic).map((f) => f.weight),
  }))
}
