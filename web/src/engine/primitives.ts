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

/** What follows an op: codes, numbers, numbers for each of what its first code counts, and stretches up to an end. */
export interface Head { codes: number; numbers: number; each: number; verbs: boolean; pixels: boolean; paint: boolean; inside: number }

export const heads: Record<number, Head | undefined> = {
  1: { codes: 1, numbers: 6, each: 0, verbs: false, pixels: false, paint: true, inside: 0 },
  2: { codes: 1, numbers: 6, each: 0, verbs: true, pixels: false, paint: true, inside: 0 },
  3: { codes: 3, numbers: 15, each: 0, verbs: false, pixels: false, paint: false, inside: 0 },
  4: { codes: 1, numbers: 14, each: 0, verbs: false, pixels: false, paint: false, inside: 1 },
  6: { codes: 0, numbers: 1, each: 0, verbs: false, pixels: false, paint: false, inside: 2 },
  8: { codes: 0, numbers: 4, each: 0, verbs: false, pixels: false, paint: false, inside: 1 },
  9: { codes: 1, numbers: 10, each: 6, verbs: false, pixels: false, paint: false, inside: 1 },
  10: { codes: 0, numbers: 11, each: 0, verbs: false, pixels: false, paint: false, inside: 2 },
  11: { codes: 2, numbers: 10, each: 0, verbs: false, pixels: false, paint: false, inside: 1 },
  12: { codes: 1, numbers: 5, each: 0, verbs: false, pixels: false, paint: false, inside: 2 },
  13: { codes: 0, numbers: 14, each: 0, verbs: false, pixels: false, paint: false, inside: 1 },
  14: { codes: 3, numbers: 14, each: 0, verbs: false, pixels: true, paint: false, inside: 0 },
}

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
