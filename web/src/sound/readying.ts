// Recordings come before they are wanted: what would be heard from the playhead on, once that rests.
import { engine } from '../engine/engine'
import { desk, useDesk } from '../project/desk'
import { bring, rate } from './recordings'

/** How long the playhead rests before, in ms, and how much of the film comes, in s. */
const calm = 120
const much = 3

let waiting = 0
let known = '' // where the playhead was, and what is heard when, when that was last seen to

function ready() {
  const { film, sounds, playing, moment } = desk()
  if (!film || playing) return
  const from = moment.time < film.length - 1 ? moment.time : 0
  const rows = sounds.rows.filter((r) => !r.muted)
  const now = [from, ...rows.map((r) => [r.media, r.begin, r.end, r.from, r.speed])].join()
  if (rows.length === 0 || now === known) return
  known = now
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
