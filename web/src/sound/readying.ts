// Recordings come before they are wanted: what would be heard from the playhead on, once that rests.
import { engine } from '../engine/engine'
import { desk, useDesk } from '../project/desk'
import { bring, rate } from './recordings'

/** How long the playhead rests before, in ms, and how much of the film comes, in s. */
const calm = 120
const much = 3

let waiting = 0

function ready() {
  const { film, sounds, playing, moment } = desk()
  if (!film || playing || sounds.rows.every((r) => r.muted)) return
  const from = moment.time < film.length - 1 ? moment.time : 0
  for (let s = 0; s < much; s++) {
    const { wants } = engine.mix(Math.round((from / 1000 + s) * rate), rate / 10, [], { gain: 0, limited: false })
    if (wants.length) void bring(wants)
  }
}

useDesk.subscribe((d, was) => {
  if (d.sounds === was.sounds && d.moment === was.moment && d.playing === was.playing) return
  clearTimeout(waiting)
  if (!d.playing) waiting = window.setTimeout(ready, calm)
})
