// Whatever is being dragged: Escape lets it go, and everything is as it was.

let back: (() => void) | null = null

/**
 * Something is dragged from now on; undo puts everything back when Escape is pressed. What ends the drag calls letGo.
 */
export function hold(undo: () => void) {
  back = undo
}

/** The drag has ended. */
export function letGo() {
  back = null
}

window.addEventListener(
  'keydown',
  (e) => {
    if (e.key !== 'Escape' || !back) return
    const undo = back
    back = null
    e.preventDefault()
    e.stopImmediatePropagation()
    undo()
  },
  true,
)
