// A film that is to have a loudness is measured by the server, which has all recordings, once what is heard has
// changed.
import { desk, fail, set, useDesk } from '../project/desk'
import { loudnessOf } from '../server/server'

/** How long what is heard stays as it is before it is measured, in ms. */
const calm = 700

const none = { gain: 0, limited: false }
let waiting = 0
let asked: AbortController | null = null

function measure() {
  const { project, sounds, pending, dragging } = desk()
  asked?.abort()
  clearTimeout(waiting)
  if (!project || !sounds.mix.loudness || sounds.rows.every((r) => r.muted)) {
    if (desk().level.gain !== 0 || desk().level.limited) set({ level: none })
    return
  }
  waiting = window.setTimeout(() => {
    if (pending > 0 || dragging) return measure()
    const stop = new AbortController()
    asked = stop
    loudnessOf(project, desk().moment.film ?? '', stop.signal)
      .then(({ level }) => !stop.signal.aborted && set({ level }))
      .catch((e) => !stop.signal.aborted && fail(e))
  }, calm)
}

useDesk.subscribe((d, was) => {
  if (d.sounds !== was.sounds || d.project !== was.project || (d.pending === 0 && was.pending > 0)) measure()
})
