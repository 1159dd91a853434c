// What lies behind: the colours of the page where something stands, or will.
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import { desk } from '../project/desk'

/** The mean colour of the page behind a layer: the page painted without it. */
export function behind(thread: string): string {
  const { rows, solo } = desk()
  engine.solo(rows.filter((r) => r.here && !r.parent && r.thread !== thread).map((r) => r.thread))
  try {
    return meanColour(boxOf(thread))
  } finally {
    engine.solo(solo)
  }
}

/** The mean colour of a box of the page, in page px, as it is seen now. */
export function meanColour([x, y, w, h]: [number, number, number, number]): string {
  const { film, moment } = desk()
  const scale = 160 / film!.width
  const c = document.createElement('canvas')
  ;[c.width, c.height] = [160, Math.max(1, Math.round(film!.height * scale))]
  const ctx = c.getContext('2d', { willReadFrequently: true })!
  ctx.fillStyle = '#fff'
  ctx.fillRect(0, 0, c.width, c.height)
  paint(ctx, engine.frame(moment, scale), { scale, x: 0, y: 0 })
  const l = Math.max(0, Math.min(c.width - 1, Math.floor(x * scale)))
  const t = Math.max(0, Math.min(c.height - 1, Math.floor(y * scale)))
  const { data } = ctx.getImageData(
    l,
    t,
    Math.max(1, Math.min(c.width - l, Math.ceil(w * scale))),
    Math.max(1, Math.min(c.height - t, Math.ceil(h * scale))),
  )
  const sum = [0, 0, 0]
  for (let i = 0; i < data.length; i += 4) for (let k = 0; k < 3; k++) sum[k] += data[i + k]
  return `#${sum
    .map((v) =>
      Math.round((v * 4) / data.length)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
}

function boxOf(thread: string): [number, number, number, number] {
  const corners = engine.overlay(desk().moment, [thread]).boxes[0]?.corners ?? [[0, 0]]
  const xs = corners.map((c) => c[0])
  const ys = corners.map((c) => c[1])
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)]
}

/** The colour behind new words about a point of the page, or about its middle. */
export function wordsBehind(at?: [number, number]): string {
  const { width, height } = desk().film!
  const [x, y] = at ?? [width / 2, height / 2]
  const [w, h] = [width / 5, Math.min(width, height) / 11]
  return meanColour([x - w / 2, y - h / 2, w, h])
}
