// Written by go run ./scripts/schema from core/frame/schema.go; a test fails where it is stale.

/** The primitives of a display list, by name. */
export const op = {
  fill: 1,
  outline: 2,
  picture: 3,
  group: 4,
  mix: 6,
  clipPage: 8,
  veil: 9,
  wipe: 10,
  clip: 11,
  mask: 12,
  project: 13,
  tile: 14,
  end: 5,
  next: 7,
} as const

/** What follows an op: codes, numbers, whether its first code counts terms of a veil or verbs, and what it holds. */
export interface Head {
  codes: number
  numbers: number
  terms: boolean
  verbs: boolean
  pixels: boolean
  paint: boolean
  inside: number
}

export const heads: Record<number, Head | undefined> = {
  1: { codes: 1, numbers: 6, terms: false, verbs: false, pixels: false, paint: true, inside: 0 },
  2: { codes: 1, numbers: 6, terms: false, verbs: true, pixels: false, paint: true, inside: 0 },
  3: { codes: 3, numbers: 15, terms: false, verbs: false, pixels: false, paint: false, inside: 0 },
  4: { codes: 1, numbers: 32, terms: false, verbs: false, pixels: false, paint: false, inside: 1 },
  6: { codes: 0, numbers: 5, terms: false, verbs: false, pixels: false, paint: false, inside: 2 },
  8: { codes: 0, numbers: 8, terms: false, verbs: false, pixels: false, paint: false, inside: 1 },
  9: { codes: 1, numbers: 4, terms: true, verbs: false, pixels: false, paint: false, inside: 1 },
  10: { codes: 1, numbers: 4, terms: true, verbs: false, pixels: false, paint: false, inside: 2 },
  11: { codes: 2, numbers: 10, terms: false, verbs: false, pixels: false, paint: false, inside: 1 },
  12: { codes: 1, numbers: 5, terms: false, verbs: false, pixels: false, paint: false, inside: 2 },
  13: { codes: 0, numbers: 18, terms: false, verbs: false, pixels: false, paint: false, inside: 1 },
  14: { codes: 3, numbers: 14, terms: false, verbs: false, pixels: true, paint: false, inside: 0 },
}

/** Terms of veils, by name. */
export const term = {
  over: 0,
  times: 1,
  half: 2,
  doors: 3,
  box: 4,
  diamond: 5,
  ellipse: 6,
  sector: 7,
  noise: 8,
  outline: 9,
} as const

/** Of each: codes that follow it, and numbers. */
export const terms = [
  { codes: 0, numbers: 0 },
  { codes: 0, numbers: 0 },
  { codes: 0, numbers: 12 },
  { codes: 0, numbers: 13 },
  { codes: 0, numbers: 15 },
  { codes: 0, numbers: 15 },
  { codes: 0, numbers: 15 },
  { codes: 0, numbers: 12 },
  { codes: 0, numbers: 13 },
  { codes: 1, numbers: 8 },
]

/** Kinds of paints, by name. */
export const paintKind = { colour: 0, linear: 1, radial: 2, texture: 3, } as const

/** Of each: codes that follow it, numbers, and numbers for each of what the first of these codes counts. */
export const paints = [
  { codes: 0, numbers: 4, each: 0 },
  { codes: 1, numbers: 7, each: 5 },
  { codes: 1, numbers: 9, each: 5 },
  { codes: 2, numbers: 7, each: 0 },
]

/** Blends by their code. */
export const blends = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'darken',
  'lighten',
  'colourDodge',
  'colourBurn',
  'hardLight',
  'softLight',
  'difference',
  'exclusion',
  'added',
] as const
