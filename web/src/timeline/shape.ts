// Outlines of bars and strands as SVG path data. Heights come from the engine.
import { engine } from '../engine/engine'
import type { Bar } from '../engine/types'

const profiles = new Map<string, number[]>()

/** The heights of a bar's outline, 0..1 at equal steps; asked for once by name. */
export function profileOf(bar: Bar): number[] {
  let p = profiles.get(bar.profile)
  if (!p) {
    p = engine.profile(bar.profile)
    profiles.set(bar.profile, p)
  }
  return p
}

/** The outline of a bar between x0 and x1, standing on the floor y = h. A loop's cycle is repeated. */
export function barShape(bar: Bar, x0: number, x1: number, top: number, h: number): string {
  const p = profileOf(bar)
  const y = (v: number) => (h - v * (h - top)).toFixed(1)
  if (x1 - x0 < 2) return `M${x0 - 1} ${h}V${top}H${x0 + 2}V${h}Z`
  let d = `M${x0.toFixed(1)} ${h}`
  if (bar.cycle > 0) {
    const wide = ((x1 - x0) * bar.cycle) / Math.max(bar.end - bar.cut - bar.begin, 1)
    if (wide < 5) return `M${x0} ${h}V${((top + h) / 2).toFixed(1)}H${x1}V${h}Z` // too dense to be told apart
    const step = Math.max(wide > 40 ? 1 : 4, Math.ceil(p.length / wide / 2))
    for (let from = x0 - (bar.phase / bar.cycle) * wide; from < x1; from += wide) {
      for (let i = 0; i < p.length; i += step) {
        const x = from + (i / (p.length - 1)) * wide
        const next = x + (step / (p.length - 1)) * wide
        if (x < x0 && next > x0) d += `L${x0.toFixed(1)} ${y(mid(p, i, step, (x0 - x) / (next - x)))}`
        if (x >= x0 && x <= x1) d += `L${x.toFixed(1)} ${y(p[i])}`
        if (x <= x1 && next > x1) {
          d += `L${x1.toFixed(1)} ${y(mid(p, i, step, (x1 - x) / (next - x)))}`
          break
        }
      }
    }
  } else {
    // A bar that is cut off shows as much of its outline as is played.
    const before = bar.before ?? 0
    const wide = (x1 - x0) / Math.max(bar.end - bar.cut - bar.begin, 1)
    const whole = wide * (bar.end - bar.begin + before)
    for (let i = 0; i < p.length; i++) {
      const x = x0 - wide * before + (whole * i) / (p.length - 1)
      if (x < x0 - 0.01) continue
      if (x > x1 + 0.01) break
      d += `L${x.toFixed(1)} ${y(p[i])}`
    }
  }
  return `${d}L${x1.toFixed(1)} ${h}Z`
}

/** The height between point i and the one step further. */
const mid = (p: number[], i: number, step: number, share: number) =>
  p[i] + (p[Math.min(i + step, p.length - 1)] - p[i]) * share

/** Two plies twisting from x0 to x1 about height y. */
export function strand(x0: number, x1: number, y: number, a: number): [string, string] {
  const turns = Math.max(0.5, Math.round((x1 - x0) / 36) / 2)
  const ply = (sign: number) => {
    let d = ''
    const n = Math.max(8, Math.round((x1 - x0) / 3))
    for (let i = 0; i <= n; i++) {
      const t = i / n
      const up = sign * a * Math.sin(t * turns * 2 * Math.PI)
      d += `${i ? 'L' : 'M'}${(x0 + (x1 - x0) * t).toFixed(1)} ${(y + up).toFixed(1)}`
    }
    return d
  }
  return [ply(1), ply(-1)]
}

/** A wedge over a transition: of what comes in it grows, of what goes out it shrinks. */
export const flightShape = (a: number, b: number, floor: number, comes: boolean) =>
  `M${a} ${floor + 2}H${b}V${comes ? floor - 10 : floor - 1}L${a} ${comes ? floor - 1 : floor - 10}Z`
