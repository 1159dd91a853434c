// What Ctrl V brings: a picture that another program has copied, or what was copied here.
import { drawingIn } from './drawings'
import { pasteHere } from './menus'
import { takePictures } from './pictures'
import { isSound } from './sounds'

let pending = 0

/** The browser may have a picture to paste, and says so at once; else what was copied here is pasted. */
export function pasteSomething() {
  clearTimeout(pending)
  pending = window.setTimeout(() => {
    pending = 0
    pasteHere(false)
  }, 0)
}

document.addEventListener('paste', (e) => {
  const files = [...(e.clipboardData?.files ?? [])].filter((f) => f.type.startsWith('image/') || isSound(f))
  if (!pending) return // it is a field’s
  clearTimeout(pending)
  pending = 0
  const drawing = drawingIn(e.clipboardData?.getData('text/plain') ?? '')
  if (files.length) void takePictures(files)
  else if (drawing) void takePictures([drawing])
  else pasteHere(false)
})
