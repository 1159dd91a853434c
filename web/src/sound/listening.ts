// Plays the film's sound: stretches that the engine has mixed, one after another on the clock of the sound card, which
// is then that of the film, too. Sound never waits for pictures.
import { engine } from '../engine/engine'
import { desk, say, set } from '../project/desk'
import { fault } from '../words'
import './levelling'
import './readying'
import { bring, rate } from './recordings'

/** How much is mixed at a time, and ahead of what is heard, in s of the film. */
const stretch = 0.1
const ahead = 0.5

/** How long playing waits at most for recordings that have not come while the playhead rested, in ms. */
const patience = 400

let context: AudioContext | null = null
let playing: Playing | null = null

interface Playing {
  cursor: number // frame of the film that is mixed next
  at: number // time of the context at which it is heard
  end: number
  round: number | null
  speed: number
  segments: { at: number; film: number; end: number }[] // what of the film is heard from when on
  nodes: Set<AudioBufferSourceNode>
  timer: number
  dead: boolean
}

/** Whether the film has anything to be heard. */
export const audible = () => {
  const { sounds, hushed } = desk()
  return !hushed && sounds.rows.some((r) => !r.muted)
}

function open(): AudioContext | null {
  if (context) return context
  try {
    context = new AudioContext({ sampleRate: rate, latencyHint: 'interactive' })
  } catch {
    context = null
  }
  return context
}

/**
 * Plays from one film time to another, in ms, then again and again from a third; it tells the film time that is heard,
 * or null where there is no sound, so that another clock has to do.
 */
export function listen(from: number, to: number, round: number | null, speed: number): (() => number | null) | null {
  hush()
  if (!audible()) return null
  const c = open()
  if (!c) {
    say(fault('sound.unheard'), 'failed')
    return null
  }
  const p: Playing = {
    cursor: Math.round((from / 1000) * rate),
    at: 0,
    end: Math.round((to / 1000) * rate),
    round: round === null ? null : Math.round((round / 1000) * rate),
    speed,
    segments: [],
    nodes: new Set(),
    timer: 0,
    dead: false,
  }
  playing = p
  const asked = performance.now()
  const begin = () => {
    if (p.dead) return
    p.at = c.currentTime + 0.03
    p.segments = [{ at: p.at, film: p.cursor / rate, end: p.end / rate }]
    fill(c, p)
    p.timer = window.setInterval(() => fill(c, p), 60)
  }
  const first = engine.mix(p.cursor, Math.round(rate * stretch * 2), desk().alone, desk().level)
  const there = first.wants.length
    ? Promise.race([bring(first.wants), new Promise((r) => setTimeout(r, patience))])
    : Promise.resolve()
  void Promise.all([c.resume(), there]).then(begin, () => {
    p.dead = true
  })
  return () => {
    if (p.dead) return null
    if (p.segments.length === 0) {
      // A device that does not start leaves the film to the clock of the page.
      if (performance.now() - asked < 600) return from
      p.dead = true
      say(fault('sound.unheard'), 'failed')
      return null
    }
    return heardAt(c, p)
  }
}

// What is heard now, in ms of the film: the context tells when its output reached the device.
function heardAt(c: AudioContext, p: Playing): number {
  const out = c.getOutputTimestamp()
  const stamped = out.contextTime && out.performanceTime
  const now = stamped
    ? out.contextTime! + (performance.now() - out.performanceTime!) / 1000
    : c.currentTime - (c.outputLatency || c.baseLatency || 0)
  let s = p.segments[0]
  for (const o of p.segments) if (o.at <= now) s = o
  return Math.min(s.end, s.film + Math.max(0, now - s.at) * p.speed) * 1000
}

// Mixes what is missing of the next half second.
function fill(c: AudioContext, p: Playing) {
  if (p.dead || !desk().film) return
  // What could not be mixed in time is left out: pictures go on, and so does what follows.
  if (p.at < c.currentTime) {
    const lost = Math.round((c.currentTime + 0.02 - p.at) * rate * p.speed)
    p.cursor += lost
    p.at += lost / rate / p.speed
  }
  while (p.at < c.currentTime + ahead) {
    if (p.cursor >= p.end) {
      if (p.round === null || p.end <= p.round) return
      p.cursor = p.round
      p.segments.push({ at: p.at, film: p.cursor / rate, end: p.end / rate })
      if (p.segments.length > 8) p.segments.shift()
    }
    const n = Math.min(Math.round(rate * stretch), p.end - p.cursor)
    const { samples, wants } = engine.mix(p.cursor, n, desk().alone, desk().level)
    if (wants.length) void bring(wants)
    play(c, p, samples, n)
    p.cursor += n
    p.at += n / rate / p.speed
  }
  // What comes next is brought ahead.
  const { wants } = engine.mix(p.cursor + Math.round(rate * p.speed), 1, desk().alone, desk().level)
  if (wants.length) void bring(wants)
}

function play(c: AudioContext, p: Playing, samples: Float32Array, n: number) {
  const buffer = c.createBuffer(2, n, rate)
  const [l, r] = [buffer.getChannelData(0), buffer.getChannelData(1)]
  for (let i = 0; i < n; i++) {
    l[i] = samples[2 * i]
    r[i] = samples[2 * i + 1]
  }
  const node = c.createBufferSource()
  node.buffer = buffer
  node.playbackRate.value = p.speed
  node.connect(c.destination)
  node.onended = () => p.nodes.delete(node)
  p.nodes.add(node)
  node.start(p.at)
}

/** Ends what is heard. */
export function hush() {
  const p = playing
  playing = null
  if (!p) return
  p.dead = true
  clearInterval(p.timer)
  for (const n of p.nodes) n.stop()
}

let grained = 0

/** Lets a short grain of the film be heard, as the playhead is dragged over it. */
export function grain(ms: number) {
  if (!audible() || desk().playing) return
  const now = performance.now()
  if (now - grained < 55) return
  grained = now
  const c = open()
  if (!c) return
  void c.resume()
  const n = Math.round(rate * 0.09)
  const { samples, wants } = engine.mix(Math.round((ms / 1000) * rate), n, desk().alone, desk().level)
  if (wants.length) {
    void bring(wants)
    return
  }
  for (let i = 0; i < n; i++) {
    const w = Math.sin((Math.PI * i) / n) ** 2
    samples[2 * i] *= w
    samples[2 * i + 1] *= w
  }
  const p = { at: c.currentTime, speed: 1, nodes: new Set<AudioBufferSourceNode>() } as Playing
  play(c, p, samples, n)
}

/** Lets the film be heard while it plays, or not. */
export function setHushed(hushed: boolean) {
  set({ hushed })
  if (hushed) hush()
}
