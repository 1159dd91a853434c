// Small pictures: of scenes in the timeline's heading, of layers at the left end of rows.
import { useEffect, useRef, useState, useSyncExternalStore } from 'react'
import { engine } from '../engine/engine'
import { paint, picturesArrived, whenPictureArrives } from '../engine/painter'
import { desk, useDesk } from '../project/desk'

// Pictures are drawn one after the other when nothing else is going on, and not while dragging or playing.
const waiting = new Map<HTMLCanvasElement, (c: HTMLCanvasElement) => void>()
let timer = 0

function later(c: HTMLCanvasElement, f: (c: HTMLCanvasElement) => void) {
  waiting.set(c, f)
  if (!timer) timer = window.setTimeout(work, 120)
}

function work() {
  timer = 0
  const until = performance.now() + 8
  if (!desk().dragging && !desk().playing) {
    for (const [c, f] of waiting) {
      waiting.delete(c)
      if (c.isConnected && desk().film) f(c)
      if (performance.now() > until) break
    }
  }
  if (waiting.size) timer = window.setTimeout(work, 30)
}

function fresh(c: HTMLCanvasElement, w: number, h: number) {
  const dpr = window.devicePixelRatio || 1
  c.width = Math.max(1, Math.round(w * dpr))
  c.height = Math.max(1, Math.round(h * dpr))
  const ctx = c.getContext('2d')!
  ctx.setTransform(1, 0, 0, 1, 0, 0)
  ctx.clearRect(0, 0, c.width, c.height)
  return ctx
}

// A film of many scenes has more pictures than are in view.
const sights = new Map<Element, (seen: boolean) => void>()
const observer = new IntersectionObserver((list) => list.forEach((v) => sights.get(v.target)?.(v.isIntersecting)), {
  rootMargin: '200px',
})

function useSeen(ref: React.RefObject<HTMLCanvasElement | null>) {
  const [seen, setSeen] = useState(false)
  useEffect(() => {
    const el = ref.current!
    sights.set(el, setSeen)
    observer.observe(el)
    return () => {
      sights.delete(el)
      observer.unobserve(el)
    }
  }, [ref])
  return seen
}

export function SceneThumb({ scene, width, height }: { scene: number; width: number; height: number }) {
  const ref = useRef<HTMLCanvasElement>(null)
  const version = useDesk((d) => d.version)
  const arrived = useSyncExternalStore(whenPictureArrives, picturesArrived)
  const seen = useSeen(ref)
  useEffect(() => {
    if (!ref.current || !seen) return
    later(ref.current, (c) => {
      const film = desk().film!
      if (scene >= film.scenes.length) return
      const ctx = fresh(c, width, height)
      const scale = c.width / film.width
      paint(ctx, engine.thumb(scene, scale), { scale, x: 0, y: 0 })
    })
  }, [scene, width, height, version, arrived, seen])
  return (
    <canvas
      ref={ref}
      aria-hidden
      className="pointer-events-none shrink-0 rounded-[3px] bg-paper"
      style={{ width, height }}
    />
  )
}

export function LayerThumb({ layer }: { layer: string }) {
  const ref = useRef<HTMLCanvasElement>(null)
  const version = useDesk((d) => d.version)
  const arrived = useSyncExternalStore(whenPictureArrives, picturesArrived)
  useEffect(() => {
    if (!ref.current || !layer) return
    later(ref.current, (c) => {
      const ctx = fresh(c, 24, 16)
      const l = engine.only(layer, 0.1)
      const [bx, by, bw, bh] = l.box ?? [0, 0, 1, 1]
      const scale = Math.min((c.width - 2) / Math.max(bw, 1), (c.height - 2) / Math.max(bh, 1))
      paint(ctx, l, { scale, x: c.width / 2 - (bx + bw / 2) * scale, y: c.height / 2 - (by + bh / 2) * scale })
    })
  }, [layer, version, arrived])
  return <canvas ref={ref} aria-hidden className="h-4 w-6 shrink-0 rounded-[3px] bg-[#86a199]" />
}
