// Path2D by the key of an outline. Keys are never used for two outlines, so what is made once is good for ever.
import { engine } from '../engine'

interface Outline {
  path: Path2D
  verbs: number
}

const kept = new Map<number, Outline>()

export function outline(key: number): Outline {
  let o = kept.get(key)
  if (!o) {
    const raw = engine.outline(key)
    o = { path: path2D(raw.verbs, new Float64Array(raw.points.buffer), 0), verbs: raw.verbs.length }
    if (kept.size > 20000) kept.clear()
    kept.set(key, o)
  }
  return o
}

/**
 * The path of verbs, for filling and clipping: both close what is open. Closing it by word takes Chromium a time that
 * grows with all the path before: 20,000 letters would take it a minute.
 */
export function path2D(verbs: ArrayLike<number>, xy: ArrayLike<number>, from: number): Path2D {
  const p = new Path2D()
  let i = from
  for (let k = 0; k < verbs.length; k++) {
    switch (verbs[k]) {
      case 0:
        p.moveTo(xy[i], xy[i + 1])
        i += 2
        break
      case 1:
        p.lineTo(xy[i], xy[i + 1])
        i += 2
        break
      case 2:
        p.bezierCurveTo(xy[i], xy[i + 1], xy[i + 2], xy[i + 3], xy[i + 4], xy[i + 5])
        i += 6
        break
      default:
        if (k + 1 < verbs.length && verbs[k + 1] !== 0) p.closePath()
    }
  }
  return p
}
