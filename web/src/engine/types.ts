// What the engine is asked and answers is in answers.ts, which is made from the core. Here stand what goes by as plain
// memory, what the server answers, and names for choices.
import type { Layer } from './answers'

export type * from './answers'

export type XY = [number, number]

/** What a layer is to those it lies with in a group. */
export type Mask = NonNullable<Layer['mask']>

/** What a press among the words selects. */
export type WritingUnit = 'letter' | 'word' | 'line'

/** A display list: codes and numbers as documented at the Op constants of core/frame. */
export interface List {
  width: number
  height: number
  codes: Uint32Array
  numbers: Float64Array
  box?: [number, number, number, number]
}

export interface Family {
  name: string
  kind: string
  weights: number[]
  italics?: number[]
  sample?: string
}

export interface FontFile {
  family: string
  weight: number
  italic?: boolean
  file: string
}

export interface ProjectRow {
  id: string
  name: string
  width: number
  height: number
  length: number
  revision: number
  createdAt: string
  updatedAt: string
  binnedAt?: string
}

export interface Export {
  id: string
  project: string
  name: string
  format: string // of engine.formats()
  at: number
  width: number
  height: number
  rateNum: number
  rateDen: number
  settings: string // what was asked for, as JSON; empty in old ones
  left: number // ms it still takes; 0: not known
  endPause: number
  state: 'waiting' | 'running' | 'paused' | 'done' | 'failed' | 'cancelled'
  frames: number
  length: number // ms that it lasts, without its rest; 0: not known
  framesDone: number
  bytes: number
  message: string
  createdAt: string
  endedAt: string
}
