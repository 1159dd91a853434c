import type { Family } from '../engine/types'

let list: Family[] = []

/** The font families that ship, in the order they are offered. */
export const families = () => list
export const setFamilies = (f: Family[]) => { list = f }
