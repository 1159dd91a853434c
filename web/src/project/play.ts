// Plays the film in real time: the playhead is where the clock says, whatever a frame costs. Frames that could not be
// shown in time are dropped, and counted.
import { engine } from '../engine/engine'
import { audible, hush, listen } from '../sound/listening'
import { editAfter, desk, goTo, goToTime, set } from './desk'

let frame = 0
let end = 0
let again: number | null = null // where playing begins anew at its end

/** Plays from one film time to another, in ms; then again and again from a third, where there is one. */
function playRange(from: number, to: number, round: number | null = null) {
  const { film, moment, playing } = desk()
  if (!film) return
  cancelAnimationFrame(frame)
  if (desk().after) editAfter([]) // the film is played as it is
  if (!playing) set({ playedFrom: moment })
  set({ playing: true, dropped: 0 })
  end = to
  again = round
  const perFrame = (1000 * film.rate.den) / film.rate.num
  let began = performance.now()
  let start = from
  let speed = desk().speed
  let last = -1
  // Where there is sound, the film is at what is heard; the clock of the page does where there is none.
  let heard = listen(from, to, round, speed)
  const tick = () => {
    const now = desk()
    if (!now.playing || !now.film) return
    if (now.speed !== speed) {
      // The clock goes on from where it is.
      start = now.moment.time
      began = performance.now()
      speed = now.speed
      heard = listen(start, end, again, speed)
    }
    let time = heard?.() ?? null
    if (time === null && heard) {
      heard = null
      start = now.moment.time
      began = performance.now()
    }
    time ??= start + (performance.now() - began) * speed
    if (heard && again !== null && time < now.moment.time) last = -1 // it has gone round
    const at = Math.floor(Math.min(time, end) / perFrame)
    // At twice the speed every second frame is meant to be passed over.
    const passed = at - last - Math.max(1, Math.ceil(speed))
    if (last >= 0 && passed > 0) set({ dropped: now.dropped + passed })
    last = at
    if (time >= end && !(heard && again !== null)) {
      if (again !== null) {
        start = again
        began = performance.now()
        last = -1
        goTo({ rest: false, scene: 0, time: again })
        frame = requestAnimationFrame(tick)
        return
      }
      goTo({ rest: false, scene: 0, time: end })
      pause()
      return
    }
    goTo({ rest: false, scene: 0, time })
    frame = requestAnimationFrame(tick)
  }
  tick()
}

let trying = false

/**
 * Plays a stretch over and over, to be looked at until endOver; while it plays so already it goes on with the new
 * stretch.
 */
export function playOver(from: number, to: number) {
  const film = desk().film
  if (!film) return
  const [a, b] = [Math.max(0, from), Math.min(to, film.length)]
  if (trying && desk().playing && !audible()) {
    end = b
    again = a
    return
  }
  trying = true
  playRange(a, b, a)
}

/** Returns to where the playhead was. */
export function endOver() {
  if (trying && desk().playing) {
    stop()
    set({ dropped: 0 }) // nobody watched whether it kept up
  }
  trying = false
}

/** Plays from the playhead; from the start when it stands at the end. A film that goes round does so here too. */
export function play() {
  const { film, moment } = desk()
  if (!film) return
  playRange(moment.rest || moment.time < film.length - 1 ? moment.time : 0, film.length, film.loop ? 0 : null)
}

export function playFilm() {
  const film = desk().film
  if (film) playRange(0, film.length, film.loop ? 0 : null)
}

/** Plays the stay of the scene that is shown. */
export function playScene() {
  const { film, scene } = desk()
  const s = film?.scenes[scene]
  const last = scene === (film?.shown ?? 0) - 1
  // It stays the scene that is shown.
  if (s && !s.aside) playRange(s.start + s.into, s.start + s.into + s.stay - (last ? 0 : 0.5))
}

/** Plays what is selected: bars, or all moves of the selected layers, or scenes. */
export function playSelection() {
  const { film, moves, selection, rows, scene, scenes, moment } = desk()
  if (!film) return
  if (scenes.length) {
    const list = film.scenes.filter((s) => scenes.includes(s.id))
    playRange(list[0].start, list[list.length - 1].start + list[list.length - 1].into + list[list.length - 1].stay)
    return
  }
  const chosen = moves.length
    ? moves
    : rows
        .filter((r) => selection.includes(r.thread))
        .flatMap((r) => r.bars.filter((b) => b.scene === scene).map((b) => b.move))
  const [from, to] = engine.span(moment, chosen)
  playRange(from, Math.min(Math.max(to, from + 100), film.length))
}

/** Plays between the two marks, round and round; from or to the film's ends where one is missing. */
export function playMarks() {
  const { film, marks } = desk()
  if (!film) return
  const [a, b] = [marks[0] ?? 0, marks[1] ?? film.length]
  playRange(Math.min(a, b), Math.max(a, b), Math.min(a, b))
}

/** Sets a mark at the playhead: the first, the second, then both are taken away. */
export function mark() {
  const { marks, moment } = desk()
  const [a, b] = marks
  if (a === null) set({ marks: [moment.time, null] })
  else if (b === null && moment.time !== a) set({ marks: [Math.min(a, moment.time), Math.max(a, moment.time)] })
  else set({ marks: [null, null] })
}

/** Stays where the film is. */
export function pause() {
  cancelAnimationFrame(frame)
  hush()
  set({ playing: false })
  goTo(desk().moment)
}

/** Returns to where play began. */
export function stop() {
  const { playedFrom } = desk()
  cancelAnimationFrame(frame)
  hush()
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

/** Goes to the start, end or rest of the selected move. */
export function goToMove(what: 'start' | 'end' | 'rest') {
  const { moves, selection, rows, scene } = desk()
  const id =
    moves[0] ??
    rows
      .filter((r) => selection.includes(r.thread))
      .flatMap((r) => r.bars)
      .find((b) => b.scene === scene)?.move
  if (id) goToTime(engine.momentOf(id, what))
}
