// While nothing else is to be done, morphs are planned in small pieces, so that none stops the page when it is first
// played.
import { engine } from '../engine/engine'
import { desk, useDesk } from './desk'

let waiting = false
let planned = -1 // the version of the document that is ready

/** How long nothing has changed before it begins, ms. */
const quiet = 600

const idle = window.requestIdleCallback ?? ((f: IdleRequestCallback) => setTimeout(() => f(soon), 50))
const soon: IdleDeadline = { didTimeout: false, timeRemaining: () => 5 }

let timer = 0

function wait(ms: number) {
  clearTimeout(timer)
  timer = window.setTimeout(() => {
    if (waiting) return
    waiting = true
    idle(go)
  }, ms)
}

function go(left: IdleDeadline) {
  waiting = false
  const d = desk()
  if (!d.film || planned === d.version) return
  if (d.dragging || d.playing) {
    wait(quiet)
    return
  }
  while (left.timeRemaining() > 2) {
    if (!engine.prepare()) {
      planned = d.version
      return
    }
  }
  wait(0)
}

/** Plans ahead from now on. */
export const getReady = () => useDesk.subscribe((d, was) => d.version !== was.version && wait(quiet))
