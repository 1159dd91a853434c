// What a picture shows of its file, set on the page: the other of its two modes.
import { run } from '../project/commands'
import { desk, set } from '../project/desk'
import { grouped } from '../project/steps'

/** The thread of the picture that is cropped on the page, while it is selected. */
export const cropped = () => {
  const d = desk()
  return d.cropping && d.selection.length === 1 && d.selection[0] === d.cropping ? d.cropping : null
}

export function openCrop() {
  const d = desk()
  const [one, more] = d.selected
  if (one?.layer.kind === 'picture' && !more && !one.layer.locked) set({ cropping: one.layer.thread, cutting: null })
}

export const leaveCrop = () => set({ cropping: null })

export function panCrop(dx: number, dy: number) {
  grouped('crop', () => run('crop.pan', { threads: [cropped() ?? ''], dx, dy }))
}

export function zoomCrop(by: number) {
  grouped('crop', () => run('crop.zoom', { threads: [cropped() ?? ''], by }))
}
