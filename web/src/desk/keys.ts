// Which key does what is in shortcuts.ts; here is what gets the keys, and what has the keyboard after a press.
import { desk, set } from '../project/desk'
import { keyNow, nameOf, single } from '../ui/keymap'
import { showBefore } from '../project/before'
import { next, shortcuts } from './shortcuts'
import { focusWords } from './Writing'

/**
 * Keys of one character, arrows and what deletes belong to what has the keyboard: the page, a row, a bar, a scene, or
 * nothing at all; those of time to the playhead, too.
 */
const bare = /^(Shift\+|Ctrl\+)*(Arrow.*|Delete|Backspace|Page.*|Home|End|Enter)$/
const theirs = '[data-desk], [data-name], [data-bar], [data-scene]'

/** Handles a key pressed anywhere but in a field. */
export function onKey(e: KeyboardEvent) {
  if (desk().sheet !== 'none' || e.defaultPrevented || e.altKey) return
  const on = e.target as HTMLElement
  if (e.key !== 'F6' && on.closest('input, textarea, select, [role=menu]')) return
  if (desk().writing && e.key !== 'F6' && e.key !== 'Tab' && !on.closest('button, [role=button], a')) {
    focusWords() // what is typed goes on there
    return
  }
  const pressed = on.closest('button, [role=button], a') !== null
  if (pressed && (e.key === ' ' || e.key === 'Enter' || e.key === 'Tab')) return
  if (e.key === 'Tab' && (desk().large || !on.closest('[data-desk]'))) return
  if (e.key === 'Enter' && desk().tool === 'select' && !on.closest('[data-desk]')) return
  const name = nameOf(e)
  const s = shortcuts.find((k) => keyNow(k.keys) === name)
  if (!s) return
  if (
    (single(name) || bare.test(name)) &&
    on !== document.body &&
    !on.closest(theirs) &&
    !(s.group === 'Time' && on.closest('[data-ruler]'))
  )
    return
  if (e.key === 'Tab') {
    if (next(e.shiftKey ? -1 : 1)) e.preventDefault()
    return
  }
  if (!s.gently) e.preventDefault()
  s.run()
}

/** A key that was held is let go. */
export function onKeyUp(e: KeyboardEvent) {
  if (nameOf(e) === keyNow('P') && desk().pivots && !(e.target as HTMLElement).closest('input, textarea, select'))
    set({ pivots: false })
  showBefore(false)
}

/**
 * A control that was pressed by pointer gives the keyboard back to the page, unless it opened something or is a
 * heading.
 */
export function onPressed(e: MouseEvent) {
  if (e.detail === 0 || desk().sheet !== 'none') return
  setTimeout(() => {
    const on = document.activeElement
    if (
      !on?.matches('button, input[type=checkbox]') ||
      !on.closest('[aria-label=Inspector], [aria-label=Timeline], [aria-label=Add]') ||
      on.closest(theirs)
    )
      return
    const opens = on.getAttribute('aria-haspopup') !== null
    if (
      on.getAttribute('aria-expanded') === 'true' ||
      (on.hasAttribute('aria-expanded') && !opens) ||
      document.querySelector('[role=menu], [role=listbox], [id^=headlessui-popover-panel]')
    )
      return
    if (desk().writing) focusWords()
    else document.querySelector<HTMLElement>('[data-desk]')?.focus({ preventScroll: true })
  }, 60)
}
