// Commands that are pinned to the rail, by the keys they came with.
import { create } from 'zustand'
import { isTexts, recall, remember } from '../remember'

const place = 'capstan.pins'

export const usePins = create<{ pins: string[] }>()(() => ({ pins: recall(place, isTexts, []) }))

/** Pins a command to the rail, or takes it off. */
export function pin(keys: string) {
  const { pins } = usePins.getState()
  const now = pins.includes(keys) ? pins.filter((k) => k !== keys) : [...pins, keys]
  usePins.setState({ pins: now })
  remember(place, now)
}
