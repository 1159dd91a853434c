// While nothing else is to be done, morphs are planned in small pieces, so that none stops the page when it is first
// played.
import { engine } from '../engine/engine'
import { desk, useDesk } from './desk'

let waiting = false
let planned = -1 // the version of the document that is ready

const idle = window.requestIdleCallback ?? ((f: IdleRequestCallback) => setTimeout(() => f(soon), 50))
const soon: IdleDeadline = { didTimeout: false, timeRemaining: () => 5 }

function wait() {
  if (waiting) return
  waiting = true
  idle(go)
}

function go(left: IdleDeadline) {
  waiting = false
  const d = desk()
  if (!d.film || planned === d.version) return
  if (d.dragging || d.playing) {
    setTimeout(wait, 300)
    return
  }
  while (left.timeRemaining() > 2) {
    if (!engine.prepare()) {
      planned = d.version
      return
    }
  }
  wait()
}

/** Plans ahead from now on. */
export const getReady = () => useDesk.subscribe((d, was) => d.version !== was.version && wait())
