// The playhead, what is played, and what the timeline shows.
import { engine } from '../../engine/engine'
import type { Film, Moment } from '../../engine/types'
import { look } from './film'
import { desk, set, slice } from './store'

export interface TimeSlice {
  moment: Moment
  playing: boolean
  playedFrom: Moment | null
  marks: [number | null, number | null] // ms of the film, to play between
  speed: number // of playing: 0.25, 0.5, 1, 2
  dropped: number // frames of the film that were not shown in time while playing
  lastScene: number // of the film that was shown last
  zoomed: 'film' | 'scene' // what the timeline shows
}

slice<TimeSlice>({
  moment: { rest: true, scene: 0, time: 0 },
  playing: false,
  playedFrom: null,
  marks: [null, null],
  speed: 1,
  dropped: 0,
  lastScene: 0,
  zoomed: 'film',
})

function clamp(m: Moment, film: Film): Moment {
  return { rest: m.rest, scene: Math.min(m.scene, film.scenes.length - 1), time: Math.min(m.time, film.length) }
}

/** Goes to a moment. While the film plays, what is shown of the selection stays as it is. */
export function goTo(m: Moment) {
  const { film, scene, playing } = desk()
  if (!film) return
  const moment = clamp(m, film)
  if (playing) {
    const at = engine.sceneAt(moment)
    if (at !== scene) set({ scene: at, rows: engine.rows(moment, desk().allRows) })
    set({ moment })
  } else look({ moment })
  const at = desk().scene
  if (at !== scene) set(film.scenes[at].aside ? { zoomed: 'film' } : { lastScene: at })
}

/** Shows the whole film in the timeline, or the scene alone, on its clock. */
export function swapZoomed() {
  const { film, scene, zoomed } = desk()
  if (film && !film.scenes[scene].aside) set({ zoomed: zoomed === 'film' ? 'scene' : 'film' })
}

export const goToTime = (time: number) => goTo({ rest: false, scene: 0, time: Math.max(0, time) })

/** Shows a scene at rest, with the playhead at its begin. */
export function goToScene(i: number) {
  const film = desk().film
  if (!film) return
  const s = film.scenes[Math.max(0, Math.min(i, film.scenes.length - 1))]
  // None of what is set aside lies in time.
  goTo({ rest: true, scene: film.scenes.indexOf(s), time: s.aside ? desk().moment.time : s.start + s.into })
}

/** Swaps between the scene at rest and the film at the playhead. */
export function swapRest() {
  const { moment, scene } = desk()
  goTo(moment.rest ? { ...moment, rest: false } : { ...moment, rest: true, scene })
}

/** Goes to rest in the scene that is shown. */
export function toRest() {
  const { moment, scene } = desk()
  if (!moment.rest) goTo({ ...moment, rest: true, scene })
}
