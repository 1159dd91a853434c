// Which keys do what, as this person wants them: keys can be changed, and those of one character switched off (WCAG
// 2.1.4).
import { create } from 'zustand'
import { isRecord, isText, recall, remember } from '../remember'

interface Keymap {
  own: Record<string, string> // by the key a shortcut came with: the one it has now
  off: boolean // keys of one character do nothing
}

const place = 'capstan.keys'

function kept(): Keymap {
  const raw = recall(place, isRecord, {})
  const own = isRecord(raw.own) ? Object.entries(raw.own).filter((e): e is [string, string] => isText(e[1])) : []
  return { own: Object.fromEntries(own), off: raw.off === true }
}

export const useKeymap = create<Keymap>()(kept)

function keep(to: Partial<Keymap>) {
  useKeymap.setState(to)
  remember(place, useKeymap.getState())
}

/** The keys that do what came with these; empty: none, since they are switched off. */
export function keyNow(came: string): string {
  const { own, off } = useKeymap.getState()
  const now = own[came] ?? came
  return off && single(now) ? '' : now
}

/** A name that says its key in brackets at the end, as tooltips do, with the key it has now. */
export function keyed(name: string): string {
  return name.replace(/ \(([^()]+)\)$/, (all, came: string) => {
    const now = keyNow(came)
    return now === came ? all : now ? ` (${now})` : ''
  })
}

export const changeKey = (came: string, to: string) => {
  const own = { ...useKeymap.getState().own }
  if (to === came) delete own[came]
  else own[came] = to
  keep({ own })
}

export const keysAsTheyCame = () => keep({ own: {}, off: false })

export const switchSingle = (on: boolean) => keep({ off: !on })

/** Whether keys are one character, with or without Shift. */
export const single = (keys: string) => keys.replace(/^Shift\+/, '').length === 1

/** The name of what is pressed, as shortcuts are called: Ctrl+Shift+V, PageUp, a, ?. Empty for a modifier alone. */
export function nameOf(e: { key: string; shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): string {
  if (['Shift', 'Control', 'Meta', 'Alt'].includes(e.key)) return ''
  let name = e.key === ' ' ? 'Space' : e.key.length === 1 ? e.key.toUpperCase() : e.key
  const sign = e.key.length === 1 && e.key !== ' ' && !/\p{L}/u.test(e.key) // Shift is part of typing it
  if (e.shiftKey && !sign) name = `Shift+${name}`
  if (e.ctrlKey || e.metaKey) name = `Ctrl+${name}`
  return name
}
