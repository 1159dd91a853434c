// A frame of the film, as a file of a kind will have it.
import { useEffect, useRef } from 'react'
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import type { Moment } from '../engine/types'
import { desk } from '../project/desk'
import { chequers } from '../ui/ColourField'

/** What is looked at, where it is not what the playhead shows. */
export type Look = Partial<Pick<Moment, 'time' | 'scene' | 'rest'>>

/** Paints a frame as large as there is room for; clear: the file can be clear where the page is. */
export function paintFrame(c: HTMLCanvasElement, look: Look, room: { w: number; h: number }, clear: boolean) {
  const { film, moment } = desk()
  const scale = Math.min(room.w / film!.width, room.h / film!.height)
  const dpr = window.devicePixelRatio || 1
  c.width = Math.round(film!.width * scale * dpr)
  c.height = Math.round(film!.height * scale * dpr)
  c.style.width = `${film!.width * scale}px`
  const ctx = c.getContext('2d')!
  if (!film!.clear || !clear) {
    ctx.fillStyle = film!.under
    ctx.fillRect(0, 0, c.width, c.height)
  }
  paint(ctx, engine.frame({ ...moment, rest: false, ...look }, scale * dpr), { scale: scale * dpr, x: 0, y: 0 })
}

export function Preview({ clear, look, name }: { clear: boolean; look: Look; name: string }) {
  const ref = useRef<HTMLCanvasElement>(null)
  useEffect(() => paintFrame(ref.current!, look, { w: 380, h: 300 }, clear), [clear, look])
  return (
    <canvas
      ref={ref}
      style={{ background: chequers }}
      aria-label={name}
      className="rounded-[4px] border border-sailcloth-300"
    />
  )
}
