// Plays the film in real time: the playhead is where the clock says, whatever a frame costs.
import { desk, goTo, set } from './desk'

let frame = 0

/** Plays from the playhead; from the start when it stands at the end. */
export function play() {
  const { film, moment, playing } = desk()
  if (!film || playing) return
  const from = !moment.rest && moment.time < film.length - 1 ? moment.time : moment.rest ? moment.time : 0
  set({ playing: true, playedFrom: moment })
  const began = performance.now()
  const tick = () => {
    const now = desk()
    if (!now.playing || !now.film) return
    const time = from + performance.now() - began
    if (time >= now.film.length) {
      goTo({ rest: false, scene: 0, time: now.film.length })
      pause()
      return
    }
    goTo({ rest: false, scene: 0, time })
    frame = requestAnimationFrame(tick)
  }
  tick()
}

/** Stays where the film is. */
export function pause() {
  cancelAnimationFrame(frame)
  set({ playing: false })
  goTo(desk().moment)
}

/** Returns to where play began. */
export function stop() {
  const { playedFrom } = desk()
  cancelAnimationFrame(frame)
  set({ playing: false })
  if (playedFrom) goTo(playedFrom)
}

/** Plays in the whole window, from the playhead. */
export function playLarge() {
  set({ large: true })
  play()
}

/** Back to the desk, where play began. */
export function leaveLarge() {
  set({ large: false })
  stop()
}

export const toggle = () => (desk().playing ? pause() : play())
