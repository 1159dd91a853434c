import type { Move } from '../engine/types'

/** What the fields are of: a move, or what several have in common. */
export interface Edited {
  move: Move
  ids: string[]
  mixed: Set<string> // fields, by their path, in which several differ
  set: (patch: object) => boolean
  // By a sum or a factor, each from what it is.
  change: (field: string, scale?: number) => ((how: '+' | '*', by: number) => void) | undefined
}
