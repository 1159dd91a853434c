// Draws sounds: bars with the peaks of what is heard, and a line of how loud it is.
import type { SoundCorner, SoundRow } from '../engine/types'
import { peaksOf, rate } from '../sound/recordings'
import { px, type Scale } from './scale'

const cell = 256 // frames that a pair of peaks stands for at the finest level; one for four at each further

/** Draws the rows into a canvas that begins at left px of the timeline. */
export function drawSounds(
  canvas: HTMLCanvasElement,
  rows: SoundRow[],
  chosen: string[],
  alone: string[],
  scale: Scale,
  left: number,
  width: number,
  height: number,
) {
  const by = devicePixelRatio || 1
  const [w, h] = [Math.round(width * by), Math.round(rows.length * height * by)]
  if (canvas.width !== w || canvas.height !== h) [canvas.width, canvas.height] = [w, h]
  const ctx = canvas.getContext('2d')!
  ctx.setTransform(by, 0, 0, by, 0, 0)
  ctx.clearRect(0, 0, width, rows.length * height)
  for (const [i, r] of rows.entries()) {
    const [a, b] = [px(scale, r.begin) - left, px(scale, r.end) - left]
    const [from, to] = [Math.max(a, -1), Math.min(Math.max(b, a + 6), width + 1)]
    if (to <= from) continue
    const [top, tall] = [i * height + 2, height - 5]
    const silent = r.muted || (alone.length > 0 && !alone.includes(r.id))
    ctx.save()
    ctx.beginPath()
    ctx.roundRect(a, top, Math.max(b - a, 6), tall, 3)
    ctx.fillStyle = chosen.includes(r.id) ? '#1C4A46' : '#173F3B'
    ctx.fill()
    ctx.clip()
    wave(ctx, r, scale, left, from, to, top, tall, silent)
    ctx.restore()
    ctx.fillStyle = '#C99A3B'
    if (r.beats.length > 1 && (r.beats[1] - r.beats[0]) * scale.perMs > 3)
      for (const b of r.beats) ctx.fillRect(Math.round(px(scale, b) - left), top + tall - 5, 1, 5)
    ctx.fillStyle = '#F0DDB2'
    for (const m of r.marks) {
      const x = Math.round(px(scale, m.at) - left)
      ctx.fillRect(x, top, 1, 6)
      ctx.fillRect(x - 1, top, 3, 2)
    }
    if (!silent) volume(ctx, r, scale, left, from, to, top, tall)
    if (chosen.includes(r.id)) {
      ctx.strokeStyle = '#C99A3B'
      ctx.lineWidth = 1.5
      ctx.beginPath()
      ctx.roundRect(a + 0.75, top + 0.75, Math.max(b - a, 6) - 1.5, tall - 1.5, 3)
      ctx.stroke()
    }
  }
}

// The peaks, as loud as they are in the mix: a column a px.
function wave(
  ctx: CanvasRenderingContext2D,
  r: SoundRow,
  scale: Scale,
  left: number,
  from: number,
  to: number,
  top: number,
  tall: number,
  silent: boolean,
) {
  const frames = (rate / 1000 / scale.perMs) * r.speed // a px
  const level = Math.max(0, Math.floor(Math.log(frames / cell) / Math.log(4)))
  let peaks = peaksOf(r.media, level)
  let size = cell * 4 ** level
  // Coarser ones stand in until they come.
  for (let k = level + 1; !peaks && k < level + 4; k++) {
    peaks = peaksOf(r.media, k)
    size = cell * 4 ** k
  }
  if (!peaks) return
  const middle = top + tall / 2
  const cells = peaks.length / 2
  const whole = Math.max(1, r.samples - (r.from * rate) / 1000)
  const round = Math.max(1, r.round)
  ctx.fillStyle = silent ? '#4A6B66' : '#B9CEC5'
  for (let x = Math.floor(from); x < to; x++) {
    const ms = (x + left) / scale.perMs + scale.from - r.begin
    if (ms < 0) continue
    let at = ((ms * rate) / 1000) * r.speed
    if (r.loops) at %= round
    else if (at >= whole) break
    at += (r.from * rate) / 1000
    const first = Math.floor(at / size)
    const last = Math.min(cells - 1, Math.max(first, Math.floor((at + frames) / size)))
    let [least, most] = [0, 0]
    for (let k = first; k <= last; k++) {
      least = Math.min(least, peaks[2 * k])
      most = Math.max(most, peaks[2 * k + 1])
    }
    const g = 10 ** (along(r.course, ms + r.begin) / 20)
    const up = Math.min(tall / 2 - 1, Math.max(0.5, (most / 127) * g * (tall / 2 - 1)))
    const low = Math.min(tall / 2 - 1, Math.max(0.5, (-least / 127) * g * (tall / 2 - 1)))
    ctx.fillRect(x, middle - up, 1, up + low)
  }
}

// The course of the volume, where it has one: 0 dB lies high, -36 at the floor.
function volume(
  ctx: CanvasRenderingContext2D,
  r: SoundRow,
  scale: Scale,
  left: number,
  from: number,
  to: number,
  top: number,
  tall: number,
) {
  if (r.course.every((c) => c.db === r.course[0].db)) return
  ctx.save()
  ctx.strokeStyle = '#F0DDB2'
  ctx.globalAlpha = 0.8
  ctx.lineWidth = 1.25
  ctx.beginPath()
  ctx.rect(from, top, to - from, tall)
  ctx.clip()
  ctx.beginPath()
  for (const c of r.course)
    ctx.lineTo(px(scale, c.at) - left, top + 4 + (tall - 8) * Math.min(1, Math.max(0, (r.gain - c.db) / 36)))
  ctx.stroke()
  ctx.restore()
}

// What a line through corners is at a time.
function along(course: SoundCorner[], at: number) {
  const i = course.findIndex((c) => c.at > at)
  if (i < 0) return course.length ? course[course.length - 1].db : 0
  if (i === 0) return course[0].db
  const [a, b] = [course[i - 1], course[i]]
  return a.db + ((b.db - a.db) * (at - a.at)) / Math.max(1e-9, b.at - a.at)
}
