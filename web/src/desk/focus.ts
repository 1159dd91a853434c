// The keyboard is never nowhere: what had it may be gone (a deleted row, a field that was left), then the page has it.

/** Watches over the focus until the returned function is called. */
export function keepFocus(): () => void {
  let waiting = 0
  const look = () => {
    clearTimeout(waiting)
    // Menus and sheets give it back by themselves, a moment after they close.
    waiting = window.setTimeout(() => {
      const nowhere = document.activeElement === document.body || document.activeElement === null
      if (nowhere && document.hasFocus() && !document.querySelector('[role=dialog], [role=menu], [role=listbox]'))
        document.querySelector<HTMLElement>('[data-desk]')?.focus({ preventScroll: true })
    }, 150)
  }
  window.addEventListener('focusout', look)
  window.addEventListener('keyup', look)
  return () => {
    clearTimeout(waiting)
    window.removeEventListener('focusout', look)
    window.removeEventListener('keyup', look)
  }
}
