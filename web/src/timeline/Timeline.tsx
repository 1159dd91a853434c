// The timeline: the film, or one scene, along time; a row for every thread.
import { clsx } from 'clsx'
import { useEffect, useLayoutEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import type { Film, Row } from '../engine/types'
import { takePictures } from '../actions/pictures'
import { isSound, takeSounds } from '../actions/sounds'
import { Gallery } from '../gallery/Gallery'
import { warmUp } from '../gallery/showing'
import { showAllRows, useDesk, type Opened } from '../project/desk'
import { Bars } from './Bars'
import { Heads } from './RowHead'
import { CueLines, Playhead, Ruler } from './Ruler'
import { Scenes } from './Scenes'
import { CaptionBars, CaptionHead } from './CaptionRow'
import { SoundBars, SoundHeads, soundsHeight } from './SoundRows'
import { Transport } from './Transport'
import { captionHeight, headOf, inView, placeRows, ruler, scaleOf, scenesHeight } from './scale'

export function Timeline({ children }: { children?: ReactNode }) {
  const film = useDesk((d) => d.film)
  const rows = useDesk((d) => d.rows)
  const scene = useDesk((d) => d.scene)
  const zoomed = useDesk((d) => d.zoomed)
  const selection = useDesk((d) => d.selection)
  const gallery = useDesk((d) => d.gallery)
  const scroller = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState({ whole: 0, w: 0, h: 0 })
  const [scrolled, setScrolled] = useState(0)
  const [zoom, setZoom] = useState(1) // 1: what is shown fits
  const [folded, setFolded] = useState<Set<string> | null>(null) // null: all groups are
  const all = useDesk((d) => d.allRows)
  const [sought, setSought] = useState('')

  useEffect(warmUp, [selection])
  useLayoutEffect(() => {
    const o = new ResizeObserver(([e]) => {
      const { width, height } = e.contentRect
      setSize({ whole: width, w: width - headOf(width), h: height })
    })
    o.observe(scroller.current!)
    return () => o.disconnect()
  }, [])

  const at = zoomed === 'scene' ? scene : 0
  const scale = useMemo(
    () => (film ? scaleOf(film, at, zoomed, size.w, zoom) : { perMs: 1, from: 0, width: 100 }),
    [film, at, zoomed, size.w, zoom],
  )
  useEffect(() => {
    setZoom(1)
  }, [zoomed])
  useEffect(() => {
    if (zoomed === 'scene' && scroller.current) scroller.current.scrollLeft = 0
  }, [zoomed, at])

  const { list, height } = useMemo(
    () => placeRows(visible(rows, folded, all, sought), selection),
    [rows, folded, all, sought, selection],
  )
  const sounds = useDesk((d) => soundsHeight(d.sounds.rows.length))
  const captions = useDesk((d) => (d.sounds.captions.length ? captionHeight + 4 : 0))
  const shown = useMemo(() => inView(list, scrolled, size.h), [list, scrolled, size.h])

  // The wheel zooms at the pointer over the scenes and with Ctrl; elsewhere it scrolls.
  useEffect(() => {
    const el = scroller.current!
    const wheel = (e: WheelEvent) => {
      const r = el.getBoundingClientRect()
      if (!(e.ctrlKey || e.metaKey || e.clientY - r.top < ruler + scenesHeight)) return
      e.preventDefault()
      const x = e.clientX - r.left - headOf(r.width)
      setZoom((z) => {
        const next = Math.min(400, Math.max(1, z * Math.exp(-e.deltaY * 0.002)))
        const held = (el.scrollLeft + x) / z
        requestAnimationFrame(() => {
          el.scrollLeft = held * next - x
        })
        return next
      })
    }
    el.addEventListener('wheel', wheel, { passive: false })
    return () => el.removeEventListener('wheel', wheel)
  }, [])

  if (!film) return <div ref={scroller} />
  const fold = (thread: string) => {
    const now = folded ?? new Set(rows.filter((r) => r.group).map((r) => r.thread))
    const next = new Set(now)
    if (!next.delete(thread)) next.add(thread)
    setFolded(next)
  }
  /** Shows a stretch of film time in the whole width. */
  const open = (from: number, to: number) => {
    const next = Math.min(400, (zoom * (size.w - 40)) / Math.max((to - from) * scale.perMs, 1))
    setZoom(next)
    requestAnimationFrame(() => {
      scroller.current!.scrollLeft = (from - scale.from) * scale.perMs * (next / zoom) - 20
    })
  }
  const above = ruler + scenesHeight
  const head = headOf(size.whole)
  return (
    <section
      aria-label="Timeline"
      className="on-spruce relative flex min-h-0 min-w-0 flex-1 bg-spruce-950 text-foam-100"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const files = [...e.dataTransfer.files]
        const sounds = files.filter(isSound)
        // A sound goes along with the move on whose bar it is dropped.
        const bar = (e.target as Element).closest<SVGGElement>('[data-bar]')
        if (sounds.length) void takeSounds(sounds, bar?.dataset.bar)
        if (sounds.length < files.length) void takePictures(files.filter((f) => !isSound(f)))
      }}
    >
      {children}
      {gallery && size.w > 0 && <Gallery key={galleryKey(gallery)} of={gallery} top={above} head={head} />}
      <div
        ref={scroller}
        data-timeline
        className={clsx(
          'thin-scroll relative min-w-0 flex-1',
          gallery ? 'overflow-x-auto overflow-y-hidden' : 'overflow-auto',
        )}
        onScroll={(e) => setScrolled(Math.floor(e.currentTarget.scrollTop / 100) * 100)}
      >
        <div className="relative" style={{ width: head + scale.width, minHeight: '100%' }}>
          <div className="sticky top-0 z-20 flex bg-spruce-950" style={{ height: above }}>
            <div className="sticky left-0 z-10 bg-spruce-950" style={{ width: head }}>
              <Transport
                all={all}
                onAll={showAllRows}
                onFit={() => setZoom(1)}
                fitted={zoom === 1}
                sought={sought}
                onSeek={setSought}
              />
            </div>
            <div className="own-colours relative overflow-hidden bg-spruce-950" style={{ width: scale.width }}>
              <Ruler film={film} scale={scale} height={ruler} />
              <Scenes film={film} scale={scale} top={ruler} height={scenesHeight - 6} onOpen={open} />
              <Playhead scale={scale} marked />
            </div>
          </div>
          <div
            className={clsx('relative flex', gallery && 'invisible')}
            style={{ minHeight: `calc(100% - ${above}px)` }}
          >
            <div
              data-rows
              className="sticky left-0 z-10 shrink-0 bg-spruce-950"
              style={{ width: head, height: height + sounds + captions }}
            >
              <Heads placed={shown} all={list} folded={folded} onFold={fold} />
              <SoundHeads top={height} sought={sought} />
              <CaptionHead top={height + sounds + 2} />
              {list.length === 0 && sounds === 0 && (
                <p className="px-4 py-3 text-[0.75rem] text-foam-300">
                  {sought ? `No row is called “${sought}”.` : 'A new layer is a new row.'}
                </p>
              )}
            </div>
            <div
              className="own-colours relative min-h-full bg-spruce-950"
              style={{ width: scale.width, ...grid(film, scale) }}
            >
              <CueLines film={film} scale={scale} />
              <Bars placed={shown} all={list} height={height} film={film} scale={scale} />
              <SoundBars top={height} film={film} scale={scale} sought={sought} />
              <CaptionBars top={height + sounds + 2} film={film} scale={scale} />
              <Playhead scale={scale} />
            </div>
          </div>
        </div>
      </div>
    </section>
  )
}

const galleryKey = (g: Opened) => `${g.replaces} ${g.at} ${g.pages}`

/** Thin lines at the frames, once they are far enough apart. */
function grid(film: Film, scale: { perMs: number; from: number }): React.CSSProperties {
  const step = ((1000 * film.rate.den) / film.rate.num) * scale.perMs
  if (step < 7) return {}
  return {
    backgroundImage: 'linear-gradient(to right, rgb(234 242 236 / 0.09) 1px, transparent 1px)',
    backgroundSize: `${step}px 100%`,
    backgroundPosition: `${-(scale.from * scale.perMs) % step}px 0`,
  }
}

/**
 * Rows that are shown: not inside a folded group, and with the filter here only those of the scene; when a name is
 * sought, just those that hold it, folded or not.
 */
function visible(rows: Row[], folded: Set<string> | null, all: boolean, sought: string): Row[] {
  const name = sought.trim().toLowerCase()
  if (name) return rows.filter((r) => (all || r.here) && r.name.toLowerCase().includes(name))
  const hidden = new Set<string>()
  return rows.filter((r) => {
    const inside = r.parent !== '' && (hidden.has(r.parent) || folded === null || folded.has(r.parent))
    if (inside) hidden.add(r.thread)
    return !inside && (all || r.here)
  })
}
