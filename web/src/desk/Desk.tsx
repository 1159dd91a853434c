// The desk: the page in the middle of its wings, and everything a pointer does on it.
import { clsx } from 'clsx'
import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { picturesSettled, whenPictureArrives, type View } from '../engine/painter'
import type { WritingUnit } from '../engine/types'
import { apply, draft, run } from '../project/commands'
import { desk, drawsShape, dropDraft, fail, select, selectNew, set, showDraft, useDesk } from '../project/desk'
import { layerMenu } from '../actions/menus'
import { colourAt, drawDesk, pickAt, showsOther } from './canvas'
import { takePictures } from '../actions/pictures'
import { Aids } from './Aids'
import { Overlay } from './Overlay'
import { cropped, leaveCrop, zoomCrop } from '../actions/cropping'
import { cutting, leaveCutout } from '../actions/cutout'
import { edited, openPoints, endPen, penBack, penDoes, selectPointsIn } from '../actions/drawing'
import { Pen } from './Pen'
import { PageWords } from './PageWords'
import { focusWords, Writing } from './Writing'
import { markAt, startWriting, stopWriting } from '../project/writing'
import { Correspondence } from './Correspondence'
import { Points } from './Points'
import { useFingers } from './fingers'
import { orderBy } from '../actions/ordering'
import { menuOfAll, selectBehind } from './stack'
import { largeView, shownAt, toPage, viewOf, within } from './view'
import { hold, letGo } from '../ui/drags'
import * as acting from './acting'
import { boxOf, shapeBetween, finishDrawing } from './drawn'

type Drag =
  | {
      kind: 'press'
      x: number
      y: number
      page: [number, number]
      threads: string[]
      inside: string
      deeper: boolean
      off: string
    }
  | { kind: 'gesture'; x: number; y: number; parted?: boolean }
  | { kind: 'pen'; x: number; y: number }
  | { kind: 'words'; x: number; y: number; unit: WritingUnit; from: [number, number] }
  | { kind: 'hand'; x: number; y: number; points: [number, number][] }
  | acting.Acting
  | { kind: 'marquee' | 'draw'; x: number; y: number; page: [number, number] }
  | {
      kind: 'pan'
      x: number
      y: number
      pan: { x: number; y: number }
      zoom: number
      was: { zoom: number | 'fit'; pan: { x: number; y: number } }
    }

/** How far the pointer moves before a press becomes a drag, in px. */
const slip = 3

/** Presses that follow each other within this time, in ms, are one after the other. */
const twice = 450

/** What the first, second and third press in a row select among words. */
const units: WritingUnit[] = ['letter', 'word', 'line']

export function Desk() {
  const host = useRef<HTMLDivElement>(null)
  const canvas = useRef<HTMLCanvasElement>(null)
  const [size, setSize] = useState({ w: 0, h: 0 })
  const film = useDesk((d) => d.film)
  const zoom = useDesk((d) => d.zoom)
  const pan = useDesk((d) => d.pan)
  const tool = useDesk((d) => d.tool)
  const scene = useDesk((d) => d.scene)
  const rest = useDesk((d) => d.moment.rest)
  const playing = useDesk((d) => d.playing)
  const large = useDesk((d) => d.large)
  const drag = useRef<Drag | null>(null)
  const space = useRef(false)
  const waits = useRef(0)
  const presses = useRef({ n: 0, time: 0, x: 0, y: 0 }) // in a row, at one place
  const [readout, setReadout] = useState<{ x: number; y: number; words: string } | null>(null)
  const pen = useDesk((d) => d.pen)
  const [trail, setTrail] = useState('') // of a line drawn by hand
  const [lens, setLens] = useState<{ x: number; y: number; colour: string } | null>(null)
  const picking = useDesk((d) => !!d.picking)
  const writing = useDesk((d) => !!d.writing)
  const [box, setBox] = useState<{ x: number; y: number; w: number; h: number; line: boolean } | null>(null)

  useLayoutEffect(() => {
    const o = new ResizeObserver(([e]) =>
      setSize({ w: Math.floor(e.contentRect.width), h: Math.floor(e.contentRect.height) }),
    )
    o.observe(host.current!)
    return () => o.disconnect()
  }, [])

  const view = useMemo(
    () => (!film || !size.w ? null : large ? largeView(film, size.w, size.h) : viewOf(film, size.w, size.h, zoom, pan)),
    [film, size, zoom, pan, large],
  )

  useEffect(() => {
    if (view) set({ scale: view.scale })
  }, [view])

  // One frame is painted for whatever changed since the last.
  const dirty = useRef(0)
  const draw = useCallback(() => {
    cancelAnimationFrame(dirty.current)
    dirty.current = requestAnimationFrame(() => {
      const c = canvas.current
      const d = desk()
      if (!c || !view || !d.film) return
      drawDesk(c, view, size)
      document.documentElement.dataset.painted = picturesSettled()
        ? `${d.version}/${d.moment.rest ? 'rest' : d.moment.time}`
        : ''
    })
  }, [view, size])
  useEffect(() => {
    draw()
    const deaf = whenPictureArrives(draw)
    const blind = useDesk.subscribe((d, was) => {
      if (showsOther(d, was)) draw()
    })
    return () => {
      deaf()
      blind()
    }
  }, [draw])

  useEffect(() => {
    const key = (down: boolean) => (e: KeyboardEvent) => {
      if (e.code === 'Space') space.current = down
    }
    const [down, up] = [key(true), key(false)]
    window.addEventListener('keydown', down)
    window.addEventListener('keyup', up)
    return () => {
      window.removeEventListener('keydown', down)
      window.removeEventListener('keyup', up)
    }
  }, [])

  const at = (e: { clientX: number; clientY: number }): [number, number] => {
    const r = host.current!.getBoundingClientRect()
    return [e.clientX - r.left, e.clientY - r.top]
  }

  const startGesture = (kind: string, handle: string, move: string, e: React.PointerEvent) => {
    const [x, y] = at(e)
    const p = toPage(view!, x, y)
    try {
      engine.begin(kind, desk().moment, desk().selection, handle, move, p[0], p[1])
      drag.current = {
        kind: 'gesture',
        x,
        y,
        parted: kind === 'points' && desk().parted.includes(handle.split('.').slice(0, 2).join('.')),
      }
      set({ dragging: true })
      hold(cancel)
      host.current!.setPointerCapture(e.pointerId)
    } catch (err) {
      fail(err)
    }
  }

  // What is being dragged is let go, and everything goes back to where it was.
  const cancel = () => {
    const g = drag.current
    if (!g) return
    drag.current = null
    letGo()
    setReadout(null)
    setBox(null)
    setTrail('')
    if (g.kind === 'pan') set(g.was)
    if (g.kind === 'act') acting.leave(g)
    if (g.kind === 'draw' || g.kind === 'hand' || g.kind === 'act') set({ tool: 'select' })
    set({ dragging: false, snap: [] })
    dropDraft()
  }

  const finger = useFingers(view, size, cancel)

  const onPointerDown = (e: React.PointerEvent) => {
    if (!view || e.button === 2) return
    if (finger(e, 'down', at(e))) return
    press(view, e)
    if (drag.current && drag.current.kind !== 'pen' && drag.current.kind !== 'words') hold(cancel)
  }

  const press = (view: View, e: React.PointerEvent) => {
    clearTimeout(waits.current)
    host.current!.focus({ preventScroll: true })
    const [x, y] = at(e)
    const page = toPage(view, x, y)
    host.current!.setPointerCapture(e.pointerId)
    if (e.button === 1 || space.current) {
      drag.current = {
        kind: 'pan',
        x,
        y,
        pan: zoom === 'fit' ? { x: 0, y: 0 } : pan,
        zoom: view.scale,
        was: { zoom, pan },
      }
      return
    }
    if (desk().picking) {
      pickAt(canvas.current!, x, y)
      return
    }
    if (playing || large) return
    const last = presses.current
    presses.current = {
      n: e.timeStamp - last.time < twice && Math.hypot(x - last.x, y - last.y) < 5 ? last.n + 1 : 0,
      time: e.timeStamp,
      x,
      y,
    }
    if (desk().writing) {
      const unit = units[Math.min(presses.current.n, 2)]
      const w = desk().writing!
      const marked = markAt(page[0], page[1], unit, 8 / view.scale, e.shiftKey ? [w.anchor, w.anchor] : undefined)
      if (marked) {
        drag.current = { kind: 'words', x, y, unit, from: e.shiftKey ? [w.anchor, w.anchor] : marked }
        return
      }
      stopWriting()
    }
    if (tool === 'pen') {
      penDoes('press', view, page, e)
      drag.current = { kind: 'pen', x, y }
      return
    }
    if (tool === 'hand') {
      drag.current = { kind: 'hand', x, y, points: [page] }
      return
    }
    if (tool === 'act') {
      drag.current = acting.hold(x, y, page, (words) => {
        const g = drag.current
        if (words && g?.kind !== 'act') return
        const at =
          view && g?.kind === 'act' ? [g.page[0] * view.scale + view.x, g.page[1] * view.scale + view.y] : [x, y]
        setReadout(words ? { x: at[0], y: at[1], words } : null)
      })
      return
    }
    if (tool !== 'select') {
      drag.current = { kind: 'draw', x, y, page }
      return
    }
    if (cropped()) leaveCrop()
    if (cutting()) leaveCutout()
    if (edited()) {
      // beside its points: a frame selects some, a press lets go
      drag.current = { kind: 'marquee', x, y, page }
      return
    }
    const d = desk()
    const chain = engine.hit(d.moment, page[0], page[1], 6 / view.scale, d.selection)
    const level = d.inside ? chain.indexOf(d.inside) + 1 : 0
    const hit = chain[level] ?? chain[0]
    if (d.ordering) {
      if (hit) orderBy(hit)
      return
    }
    const inside = chain[level] && level > 0 ? d.inside : ''
    if (!hit) {
      if (!e.shiftKey) select([], '')
      drag.current = { kind: 'marquee', x, y, page }
      return
    }
    // A second press where something is selected already looks for what lies behind it, when it is let go.
    const deeper = !e.shiftKey && d.selection.length === 1 && d.selection[0] === hit && presses.current.n === 0
    // With Shift one that is selected is taken off when it is let go: dragged, all of them go along one axis.
    const off = e.shiftKey && d.selection.includes(hit) ? hit : ''
    if (!off && e.shiftKey) select([...d.selection, hit], inside)
    else if (!d.selection.includes(hit)) select([hit], inside)
    drag.current = { kind: 'press', x, y, page, threads: desk().selection, inside, deeper, off }
  }

  const trailOf = (points: [number, number][]) =>
    setTrail(points.map((p) => `${p[0] * view!.scale + view!.x} ${p[1] * view!.scale + view!.y}`).join('L'))

  const onPointerMove = (e: React.PointerEvent) => {
    if (finger(e, 'move', at(e))) return
    const g = drag.current
    if (desk().picking) {
      const [x, y] = at(e)
      setLens({ x, y, colour: colourAt(canvas.current!, x, y) })
    } else if (lens) setLens(null)
    if (view && tool === 'pen' && !g) penDoes('hover', view, toPage(view, ...at(e)), e)
    if (!g || !view) return
    const [x, y] = at(e)
    const page = toPage(view, x, y)
    if (g.kind === 'pen') {
      if (Math.hypot(x - g.x, y - g.y) > slip) penDoes('drag', view, page, e)
      return
    }
    if (g.kind === 'words') {
      markAt(page[0], page[1], g.unit, 1e6, g.from)
      return
    }
    if (g.kind === 'hand') {
      g.points.push(page)
      trailOf(g.points)
      return
    }
    if (g.kind === 'act') {
      acting.follow(g, page, e.timeStamp)
      trailOf(g.points.map((p) => [p[1], p[2]]))
      return
    }
    const far = Math.hypot(x - g.x, y - g.y) > slip
    if (g.kind === 'pan') {
      set({ zoom: g.zoom, pan: { x: g.pan.x + x - g.x, y: g.pan.y + y - g.y } })
    } else if (g.kind === 'marquee' || g.kind === 'draw') {
      if (far && g.kind === 'draw' && drawsShape(tool)) {
        // The shape itself is shown while it is drawn.
        draft('add.shape', shapeBetween(g.page, page, e))
        setReadout({
          x: x + 14,
          y: y + 18,
          words: `${Math.round(Math.abs(page[0] - g.page[0]))} × ${Math.round(Math.abs(page[1] - g.page[1]))}`,
        })
      } else if (far)
        setBox(boxOf(g.x, g.y, x, y, g.kind === 'draw' && e.shiftKey, g.kind === 'draw' && desk().tool === 'path'))
    } else if (g.kind === 'press' && far) {
      if (!desk().selection.length) return
      try {
        engine.begin('move', desk().moment, desk().selection, '', '', g.page[0], g.page[1])
        drag.current = { kind: 'gesture', x: g.x, y: g.y }
        set({ dragging: true })
      } catch (err) {
        fail(err)
        drag.current = null
      }
    }
    if (drag.current?.kind === 'gesture') {
      try {
        const r = engine.update(
          page[0],
          page[1],
          e.shiftKey,
          e.altKey || (g.kind === 'gesture' && g.parted === true),
          7 / view.scale,
          e.ctrlKey || e.metaKey,
        )
        if (r.lines || desk().snap.length) set({ snap: r.lines ?? [] })
        setReadout({ x: x + 14, y: y + 18, words: r.words })
        showDraft(r)
      } catch (err) {
        fail(err)
      }
    }
  }

  const onPointerUp = (e: React.PointerEvent) => {
    if (finger(e, 'up', at(e))) return
    const g = drag.current
    drag.current = null
    letGo()
    setReadout(null)
    setBox(null)
    if (!g || !view) return
    const [x, y] = at(e)
    const page = toPage(view, x, y)
    const far = Math.hypot(x - g.x, y - g.y) > slip
    if (g.kind === 'words') {
      focusWords()
      return
    }
    if (g.kind === 'pen') {
      penDoes('release', view, page, e)
      return
    }
    if (g.kind === 'act') {
      setTrail('')
      acting.done(g)
      return
    }
    if (g.kind === 'hand') {
      setTrail('')
      const before = new Set(desk().rows.map((r) => r.thread))
      set({ tool: 'select' })
      if (
        far &&
        run('draw.freehand', { points: g.points, tolerance: desk().smoothing / view.scale, reach: 14 / view.scale })
      )
        selectNew(before)
      return
    }
    if (g.kind === 'press') {
      if (g.off && !far) select(desk().selection.filter((t) => t !== g.off))
      else if (e.ctrlKey || e.metaKey) menuOfAll(e, page, 6 / view.scale)
      // Not at once: two presses in a row go into what is selected.
      else if (g.deeper && !far) waits.current = window.setTimeout(() => selectBehind(page, 6 / view.scale), twice)
      return
    }
    if (g.kind === 'gesture') {
      set({ dragging: false, snap: [] })
      const command = engine.end()
      const before = new Set(desk().rows.map((r) => r.thread))
      if (command && apply(command)) {
        if ((command as { op: string }).op === 'layer.duplicate') selectNew(before)
      } else if (!command) engine.clearDraft()
    } else if (g.kind === 'marquee' && edited()) {
      if (far) selectPointsIn(g.page, page, e.shiftKey)
      else if (desk().points.length) set({ points: [] })
      else {
        const hit = engine.hit(desk().moment, page[0], page[1], 6 / view.scale)
        if (!hit.includes(edited()!)) select(hit.slice(0, 1), '')
      }
    } else if (g.kind === 'marquee' && far) {
      const [l, r] = [Math.min(g.page[0], page[0]), Math.max(g.page[0], page[0])]
      const [t, b] = [Math.min(g.page[1], page[1]), Math.max(g.page[1], page[1])]
      const found = engine.within(desk().moment, l, t, r, b, desk().inside)
      select(e.shiftKey ? [...new Set([...desk().selection, ...found])] : found)
    } else if (g.kind === 'draw') {
      finishDrawing(g.page, page, far, e)
    }
  }

  const onDoubleClick = (e: React.MouseEvent) => {
    if (tool === 'pen') {
      penBack() // the second press of the two is no point
      endPen()
      return
    }
    if (!view || tool !== 'select' || edited() || desk().writing) return
    const p = toPage(view, ...at(e))
    const d = desk()
    const chain = engine.hit(d.moment, p[0], p[1], 6 / view.scale)
    const here = chain.findIndex((t) => d.selection.includes(t))
    if (here < 0) return
    if (chain[here + 1]) select([chain[here + 1]], chain[here])
    else if (d.selected[0]?.layer.kind === 'text' && d.selection.length === 1) {
      const thread = d.selection[0]
      startWriting(thread, 'all')
      markAt(p[0], p[1], 'word', 8 / view.scale)
    } else openPoints()
  }

  // React's wheel listeners are passive; zooming must keep the page from scrolling.
  useEffect(() => {
    const el = host.current!
    const wheel = (e: WheelEvent) => {
      e.preventDefault()
      if (!view || !desk().film) return
      const r = el.getBoundingClientRect()
      if (cropped() && !e.ctrlKey && !e.shiftKey) zoomCrop(Math.exp(-e.deltaY * 0.0015))
      else if (e.shiftKey) {
        const p = desk().zoom === 'fit' ? { x: 0, y: 0 } : desk().pan
        set({ zoom: view.scale, pan: { x: p.x - (e.deltaX || e.deltaY), y: p.y } })
      } else zoomAt(view, size, e.clientX - r.left, e.clientY - r.top, Math.exp(-e.deltaY * 0.0015))
    }
    el.addEventListener('wheel', wheel, { passive: false })
    return () => el.removeEventListener('wheel', wheel)
  }, [view, size])

  return (
    <div
      ref={host}
      tabIndex={0}
      role="application"
      aria-label="Page"
      aria-describedby="page-words"
      data-desk
      className="relative h-full w-full overflow-hidden bg-sailcloth-200 focus-visible:outline-offset-[-2px]"
      style={{ cursor: writing ? 'text' : tool === 'select' ? 'default' : 'crosshair', touchAction: 'none' }}
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={(e) => {
        finger(e, 'up', at(e))
        cancel()
      }}
      onDoubleClick={onDoubleClick}
      onContextMenu={(e) => {
        if (!view || playing || large) return
        const p = toPage(view, ...at(e))
        layerMenu(e, engine.hit(desk().moment, p[0], p[1], 6 / view.scale)[0] ?? null)
      }}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        if (view && e.dataTransfer.files.length) void takePictures([...e.dataTransfer.files], toPage(view, ...at(e)))
      }}
    >
      <canvas
        ref={canvas}
        className="absolute inset-0"
        style={{ width: size.w, height: size.h }}
        data-page={film ? `${film.width} ${film.height}` : undefined}
        data-view={view ? `${view.scale} ${view.x} ${view.y}` : undefined}
      />
      <PageWords id="page-words" />
      {view && film && !playing && !large && <Aids view={view} size={size} />}
      {/* While something is drawn, the bars of what is selected would catch its presses. */}
      {view && film && !playing && !large && (tool === 'select' || tool === 'path') && (
        <OverlayHost view={view} size={size} onGesture={startGesture} />
      )}
      {box &&
        (box.line ? (
          <svg className="pointer-events-none absolute inset-0 h-full w-full">
            <line x1={box.x} y1={box.y} x2={box.x + box.w} y2={box.y + box.h} stroke="#A8731A" strokeWidth="2" />
          </svg>
        ) : (
          <div
            className="pointer-events-none absolute border border-brass-600 bg-brass-400/10"
            style={{ left: box.x, top: box.y, width: box.w, height: box.h }}
          />
        ))}
      {pen && view && <Pen pen={pen} view={view} size={size} />}
      {trail && (
        <svg className="pointer-events-none absolute inset-0 h-full w-full">
          <path
            d={`M${trail}`}
            fill="none"
            stroke="#A8731A"
            strokeWidth="2"
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </svg>
      )}
      {picking && lens && (
        <div
          className={clsx(
            'pointer-events-none absolute flex items-center gap-2 rounded-md bg-paper px-2 py-1 font-mono',
            'text-[0.75rem] shadow',
          )}
          style={{ left: lens.x + 16, top: lens.y + 16 }}
          data-lens
        >
          <span className="h-6 w-6 rounded-full border-2 border-brass-600" style={{ background: lens.colour }} />
          {lens.colour}
        </div>
      )}
      {readout && (
        <div
          className={clsx(
            'pointer-events-none absolute whitespace-nowrap rounded-md bg-paper px-2 py-0.5 font-mono',
            'text-[0.75rem] shadow',
          )}
          style={{ left: readout.x, top: readout.y }}
        >
          {readout.words}
        </div>
      )}
      {film && !playing && !large && film.scenes[scene]?.layers === 0 && !film.scenes[scene].aside && rest && (
        <p
          className={clsx(
            'pointer-events-none absolute left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 text-balance',
            'text-center text-ink-500',
          )}
          style={{ width: Math.min(340, film.width * (view?.scale ?? 1) - 24) }}
        >
          {film.shown === 1 ? 'An empty page.' : 'An empty scene.'} Add a shape, words or a picture from the row below,
          or drop a picture here.
        </p>
      )}
    </div>
  )
}

function OverlayHost({
  view,
  size,
  onGesture,
}: {
  view: View
  size: { w: number; h: number }
  onGesture: (kind: string, handle: string, move: string, e: React.PointerEvent) => void
}) {
  const overlay = useDesk((d) => d.overlay)
  const ghosts = useDesk((d) => d.ghostsAt)
  const ends = useDesk((d) => d.endsAt)
  const editing = useDesk((d) =>
    d.editing && d.selection.length === 1 && d.selection[0] === d.editing ? d.editing : null,
  )
  const outline = useDesk((d) => (d.corresponds && !d.playing ? d.outline : null))
  const writing = useDesk((d) => !!d.writing)
  if (writing) return <Writing view={view} size={size} />
  if (outline) return <Correspondence outline={outline} view={view} size={size} />
  if (editing) return <Points thread={editing} view={view} size={size} onGesture={onGesture} />
  return <Overlay overlay={overlay} ghosts={ghosts} ends={ends} view={view} size={size} onGesture={onGesture} />
}

export function zoomAt(view: View, size: { w: number; h: number }, x: number, y: number, by: number) {
  set(shownAt(desk().film!, size, within(view.scale * by), toPage(view, x, y), [x, y]))
}
