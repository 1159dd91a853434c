// What all fields that are typed into have in common.
import { useRef, useState } from 'react'

/** Keys pressed in a field are the field's, but F6, which goes on to the next part of the screen. */
export const keepKeys = (e: React.KeyboardEvent) => {
  if (e.key !== 'F6') e.stopPropagation()
}

// The field that was gone to from a bar, and that bar.
let gone: { to: Element; from: SVGElement } | null = null

/** A field was gone to from a bar: when it is left by Escape or Enter the keyboard goes back there. */
export function returns(to: Element, from: SVGElement) {
  gone = { to, from }
}

/** Gives the keyboard back to the page, where a field of the inspector had it; in sheets and what floats it stays. */
export function giveBack(from: Element) {
  const bar = gone?.to === from && gone.from.isConnected ? gone.from : null
  gone = null
  if (bar) return bar.focus()
  if (from.closest('[aria-label=Inspector]'))
    document.querySelector<HTMLElement>('[data-desk]')?.focus({ preventScroll: true })
}

/** How a field looks. */
export const field =
  'h-6.5 w-full min-w-0 rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2 ' +
  'hover:border-ink-500 focus:border-brass-600 focus:bg-paper focus:outline-none disabled:opacity-45'

/**
 * What is typed into a field and not yet set; null: nothing. The third is it as it is at once, for what happens before
 * the field is drawn anew.
 */
export function useTyped(): [string | null, (v: string | null) => void, { readonly current: string | null }] {
  const [text, setText] = useState<string | null>(null)
  const typed = useRef<string | null>(null)
  return [
    text,
    (v) => {
      typed.current = v
      setText(v)
    },
    typed,
  ]
}
