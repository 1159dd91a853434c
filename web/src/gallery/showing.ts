// What a gallery shows while it is open: small films on cards, each when there is time, and on the page what is pointed
// at.
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import type { Card, Gallery, Moment } from '../engine/types'
import { endRehearsal, rehearse, run } from '../project/commands'
import { desk, goTo } from '../project/desk'
import { playOver } from '../project/play'

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** ms of a frame that small films may take: the page comes first, while it plays more so. */
const budget = { resting: 6, playing: 2.5 }

/** Plays the small films of the cards that are in view; one that is pointed at plays also where nothing is to move. */
export class Showing {
  private cards = new Map<HTMLCanvasElement, Card>()
  private seen = new Set<HTMLCanvasElement>()
  private painted = new Set<HTMLCanvasElement>()
  private turn: HTMLCanvasElement[] = []
  private behind: HTMLCanvasElement | null = null
  private watch: IntersectionObserver
  private frame = 0
  private begun = performance.now()
  private ticks = 0
  pointed = -1

  constructor(private view: Gallery) {
    this.watch = new IntersectionObserver((list) => {
      for (const e of list) {
        const c = e.target as HTMLCanvasElement
        if (e.isIntersecting) this.seen.add(c)
        else this.seen.delete(c)
      }
    })
    const tick = () => {
      this.work()
      this.frame = requestAnimationFrame(tick)
    }
    this.frame = requestAnimationFrame(tick)
  }

  /** Shows a card on a canvas until the returned function is called. */
  add(canvas: HTMLCanvasElement, card: Card): () => void {
    this.cards.set(canvas, card)
    this.watch.observe(canvas)
    // What is in view is there with the first frame, before the observer says so.
    const r = canvas.getBoundingClientRect()
    if (r.left < window.innerWidth && r.top < window.innerHeight) this.seen.add(canvas)
    return () => {
      this.watch.unobserve(canvas)
      this.cards.delete(canvas)
      this.seen.delete(canvas)
      this.painted.delete(canvas)
    }
  }

  close() {
    cancelAnimationFrame(this.frame)
    this.watch.disconnect()
  }

  private work() {
    this.ticks++
    const playing = desk().playing
    if (playing && this.ticks % 2 === 1) return
    const until = performance.now() + (playing ? budget.playing : budget.resting)
    if (this.turn.length === 0) this.turn = [...this.seen]
    // That which is pointed at is smooth.
    const first = playing && [...this.cards].find(([c, card]) => card.at === this.pointed && this.seen.has(c))
    let next = first ? first[0] : this.turn.shift()
    for (; next && performance.now() < until; next = this.turn.shift()) {
      const c = next
      const card = this.cards.get(c)
      if (!card || !this.seen.has(c)) continue
      const stands = still() && this.pointed !== card.at
      if (stands && this.painted.has(c)) continue
      const ms = stands ? card.length * 0.45 : (performance.now() - this.begun) % Math.max(card.length, 1)
      this.paint(c, card, ms)
      if (stands) this.painted.add(c)
      else this.painted.delete(c)
    }
  }

  private paint(c: HTMLCanvasElement, card: Card, ms: number) {
    const dpr = window.devicePixelRatio || 1
    const [w, h] = [Math.round(c.clientWidth * dpr), Math.round(c.clientHeight * dpr)]
    if (w < 1 || h < 1) return
    if (c.width !== w || c.height !== h) {
      c.width = w
      c.height = h
    }
    const ctx = c.getContext('2d')!
    ctx.setTransform(1, 0, 0, 1, 0, 0)
    ctx.clearRect(0, 0, w, h)
    const [x, y, rw] = this.view.region
    const scale = w / rw
    const at = { scale, x: -x * scale, y: -y * scale }
    try {
      if (this.view.behind) {
        if (this.behind?.width !== w) {
          this.behind = document.createElement('canvas')
          this.behind.width = w
          this.behind.height = h
          paint(this.behind.getContext('2d')!, engine.behind(desk().moment, scale), at)
        }
        ctx.drawImage(this.behind, 0, 0)
      }
      paint(ctx, engine.smallFrame(card.at, ms, scale), at)
    } catch {
      this.seen.delete(c) // it is no longer offered
    }
  }
}

let warm = false

/** Goes once through what a gallery asks of the engine, when there is time: so the first opens as fast as others. */
export function warmUp() {
  if (warm || desk().selection.length === 0) return
  warm = true
  const once = () => {
    const d = desk()
    if (!d.film || d.gallery || d.playing || d.dragging || d.selection.length === 0) {
      warm = false // the next time something is selected
      return
    }
    const v = engine.gallery(d.moment, d.selection.slice(0, 1), '')
    const canvas = document.createElement('canvas')
    canvas.width = 72
    canvas.height = 46
    const [x, y, w] = v.region
    const at = { scale: 72 / w, x: (-x * 72) / w, y: (-y * 72) / w }
    const ctx = canvas.getContext('2d')!
    paint(ctx, engine.behind(d.moment, at.scale), at)
    for (const c of v.rows.flatMap((r) => r.cards).slice(0, 4)) paint(ctx, engine.smallFrame(c.at, 200, at.scale), at)
    engine.closeGallery()
  }
  if ('requestIdleCallback' in window) requestIdleCallback(once, { timeout: 4000 })
  else setTimeout(once, 1500)
}

let waiting = 0
let was: Moment | null = null // looked at before, where nothing is to move

/** Plays on the page what choosing a card would do, over and over, a moment after it is pointed at. */
export function point(choose: () => void) {
  leave()
  waiting = window.setTimeout(() => {
    rehearse(choose)
    const [from, to] = engine.tried()
    if (to <= from) return
    if (still()) {
      was = desk().moment
      goTo({ rest: false, scene: 0, time: from + (to - from) * 0.6 })
    } else playOver(from - 150, to + 450)
  }, 140)
}

/** Shows the page as it is. */
export function leave() {
  clearTimeout(waiting)
  endRehearsal()
  if (was) goTo(was)
  was = null
}

/** Asks for what a card does to what is selected. */
export function ask(card: Card, of: { replaces: string; at: number | null; pages: boolean }, after: boolean) {
  const { effect, variant, kind } = card
  const { film, scene, selected } = desk()
  if (of.pages) return run('scene.transition', { ids: [film!.scenes[scene].id], patch: { kind: effect } })
  if (of.replaces) return run('move.effect', { move: of.replaces, effect, variant })
  return run('move.add', { threads: selected.map((s) => s.layer.thread), kind, effect, variant, at: of.at, after })
}
