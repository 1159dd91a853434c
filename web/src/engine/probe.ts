// For tests and for people with tools: paints a moment and hands over its pixels, as the page would show them.
import { engine } from './engine'
import { loadEngine } from './loading'
import { Standing } from './paint/standing'
import { paint, picturesSettled } from './painter'
import type { List, Moment } from './types'

/** A moment as the page shows it: RGBA bytes in base 64. */
const pixels = (moment: Moment, width: number, height: number, ground: string) =>
  pixelsOf((scale) => engine.frame(moment, scale), width, height, ground)

/** A display list that is given whole. */
function listed(codes: number[], numbers: number[], width: number, height: number, ground: string) {
  const list: List = { width, height, codes: new Uint32Array(codes), numbers: new Float64Array(numbers) }
  return pixelsOf(() => list, width, height, ground)
}

async function pixelsOf(list: (scale: number) => List, width: number, height: number, ground: string): Promise<string> {
  await loadEngine()
  const c = document.createElement('canvas')
  c.width = width
  c.height = height
  const ctx = c.getContext('2d', { willReadFrequently: true })!
  const once = () => {
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    ctx.globalAlpha = 1
    ctx.fillStyle = ground
    ctx.fillRect(0, 0, width, height)
    const scale = width / engine.film().width
    paint(ctx, list(scale), { scale, x: 0, y: 0 })
  }
  once()
  while (!picturesSettled()) {
    await new Promise((r) => setTimeout(r, 20))
    once()
  }
  once()
  const { data } = ctx.getImageData(0, 0, width, height)
  let s = ''
  for (let i = 0; i < data.length; i += 0x8000) s += String.fromCharCode(...data.subarray(i, i + 0x8000))
  return btoa(s)
}

Object.assign(window, { capstanProbe: { pixels, listed, engine, loadEngine, paint, Standing } })
