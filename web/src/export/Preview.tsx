// The frame at the playhead, as a file of a kind will have it.
import { useEffect, useRef } from 'react'
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import { desk } from '../project/desk'
import { chequers } from '../ui/ColourField'

/** clear: the file can be clear where the page is. */
export function Preview({ clear }: { clear: boolean }) {
  const ref = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const c = ref.current!
    const { film, moment } = desk()
    const scale = Math.min(380 / film!.width, 300 / film!.height)
    const dpr = window.devicePixelRatio || 1
    c.width = Math.round(film!.width * scale * dpr)
    c.height = Math.round(film!.height * scale * dpr)
    c.style.width = `${film!.width * scale}px`
    const ctx = c.getContext('2d')!
    ctx.clearRect(0, 0, c.width, c.height)
    if (!film!.clear || !clear) {
      ctx.fillStyle = film!.under
      ctx.fillRect(0, 0, c.width, c.height)
    }
    paint(ctx, engine.frame({ ...moment, rest: false }, scale * dpr), { scale: scale * dpr, x: 0, y: 0 })
  }, [clear])
  return (
    <canvas
      ref={ref}
      style={{ background: chequers }}
      aria-label="The frame at the playhead"
      className="rounded-[4px] border border-sailcloth-300"
    />
  )
}
