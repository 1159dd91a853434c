// For tests and for people with tools: paints a moment and hands over its pixels, as the page would show them.
import { loadEngine, engine } from './engine'
import { paint, picturesSettled } from './painter'
import type { Moment } from './types'

async function pixels(moment: Moment, width: number, height: number, ground: string): Promise<string> {
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
    paint(ctx, engine.frame(moment, scale), { scale, x: 0, y: 0 })
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

Object.assign(window, { capstanProbe: { pixels, engine, loadEngine } })
