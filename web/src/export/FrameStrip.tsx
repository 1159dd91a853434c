// The frames of a file in a row, where single ones are held longer, dropped or given a time by hand.
import { clsx } from 'clsx'
import { useEffect, useMemo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Ask, FileCell } from '../engine/types'
import { useDesk } from '../project/desk'
import { filmTime } from '../time'
import { chequers } from '../ui/ColourField'
import { NumberField } from '../ui/NumberField'
import { Button } from '../ui/controls'
import { kindOf } from './kinds'
import { paintFrame } from './Preview'

const high = 54 // px of a picture
const most = 20_000 // frames in the row at a time: browsers have no longer ones

/** onLook is told the ms of the film to show large. */
export function FrameStrip({
  ask,
  onTimes,
  onLook,
}: {
  ask: Ask
  onTimes: (t: Ask['times']) => void
  onLook: (at: number) => void
}) {
  const film = useDesk((d) => d.film)!
  const [anchor, setAnchor] = useState(0)
  const [head, setHead] = useState(0)
  const [playing, setPlaying] = useState(false)
  const [scrolled, setScrolled] = useState(0)
  const row = useRef<HTMLDivElement>(null)
  const [wide, setWide] = useState(0)
  useEffect(() => {
    const o = new ResizeObserver(([e]) => setWide(e.contentRect.width))
    o.observe(row.current!)
    return () => o.disconnect()
  }, [])
  const field = useRef<HTMLSpanElement>(null)
  const { sampled, least, refused, length } = useMemo(() => engine.delivery(ask), [ask, film])
  const times = ask.times ?? []
  const last = Math.max(0, sampled - 1)
  const [from, to] = [Math.min(anchor, head, last), Math.min(Math.max(anchor, head), last)]

  const across = Math.max(28, Math.min(112, (high * film.width) / film.height))
  const each = across + 8
  const base = Math.floor(Math.min(head, last) / most) * most
  const first = base + Math.max(0, Math.floor(scrolled / each) - 1)
  const count = Math.ceil(wide / each) + 3
  const cells = useMemo(() => engine.deliveryCells(ask, first, count), [ask, film, first, count])
  const chosen = useMemo(() => engine.deliveryCells(ask, from, Math.min(most, to - from + 1)), [ask, film, from, to])
  const at = useMemo(() => engine.deliveryCells(ask, Math.min(head, last), 1)[0], [ask, film, head, last])
  useEffect(() => {
    if (at && !playing) onLook(at.at)
  }, [at?.at, playing])

  const put = (ms: number | null) => {
    const rest = times.filter((h) => h.frame < from || h.frame > to)
    const own = ms === null ? [] : chosen.map(({ frame }) => ({ frame, ms }))
    const list = [...rest, ...own].toSorted((a, b) => a.frame - b.frame)
    onTimes(list.length > 0 ? list : undefined)
  }
  const choose = (frame: number, more: boolean) => {
    const k = Math.max(0, Math.min(last, frame))
    setPlaying(false)
    setHead(k)
    if (!more) setAnchor(k)
    const left = (k - Math.floor(k / most) * most) * each
    const box = row.current!
    if (left < box.scrollLeft) box.scrollLeft = left
    else if (left + each > box.scrollLeft + box.clientWidth) box.scrollLeft = left + each - box.clientWidth
  }
  const key = (e: React.KeyboardEvent) => {
    const to: Record<string, number> = { ArrowLeft: head - 1, ArrowRight: head + 1, Home: 0, End: last }
    if (e.key in to) choose(to[e.key], e.shiftKey)
    else if (e.key === 'Delete' || e.key === 'Backspace') put(0)
    else if (e.key === 'Enter') field.current?.querySelector('input')?.focus()
    else return
    e.preventDefault()
  }

  // Frames follow one another as they will in the file.
  useEffect(() => {
    if (!playing) return
    let timer = 0
    const show = (k: number) => {
      const c = engine.deliveryCells(ask, k, 1)[0]
      if (!c) return setPlaying(false)
      if (c.ms > 0) onLook(c.at)
      timer = window.setTimeout(() => show(k + 1), c.ms)
    }
    show(from >= last ? 0 : from)
    return () => clearTimeout(timer)
  }, [playing])

  const dropped = chosen.length > 0 && chosen.every((c) => c.ms === 0)
  const one = chosen.every((c) => Math.abs(c.ms - chosen[0].ms) < 0.01) ? chosen[0]?.ms : undefined
  return (
    <section className="border-t border-sailcloth-300 px-5 pb-3 pt-3" aria-label="Frames by hand" data-strip>
      <div className="mb-2 flex h-7 items-center gap-2 whitespace-nowrap text-[0.75rem] text-ink-600">
        <span className="shrink-0 text-ink-900" role="status">
          {from === to ? `Frame ${from + 1} of ${sampled}` : `Frames ${from + 1} to ${to + 1} of ${sampled}`}
          {at && `, ${filmTime(at.at)}`}
        </span>
        shown for
        <span className="w-21 shrink-0" ref={field}>
          <NumberField
            quiet
            name="How long the selected frames are shown, ms; 0 drops them"
            unit="ms"
            step={10}
            min={0}
            max={600000}
            value={one === undefined ? null : Math.round(one * 100) / 100}
            onSet={(v) => put(v === 0 ? 0 : Math.max(least, v))}
          />
        </span>
        <Button className="!h-6" onClick={() => put(dropped ? null : 0)}>
          {dropped ? 'Bring back' : 'Drop'}
        </Button>
        <Button className="!h-6" disabled={!chosen.some((c) => c.hand)} onClick={() => put(null)}>
          By the rate
        </Button>
        <span className="flex-1" />
        {times.length > 0 && (
          <span data-by-hand={times.length}>
            {times.length} by hand, lasts {filmTime(length)}
          </span>
        )}
        <Button className="!h-6" disabled={times.length === 0} onClick={() => onTimes(undefined)}>
          Take all back
        </Button>
        <Button className="!h-6" disabled={refused !== ''} onClick={() => setPlaying(!playing)}>
          {playing ? 'Stop' : 'Play'}
        </Button>
      </div>
      <div
        ref={row}
        tabIndex={0}
        role="listbox"
        aria-label="Frames of the file"
        aria-multiselectable
        aria-activedescendant={`frame-${Math.min(head, last)}`}
        className="thin-scroll relative overflow-x-auto rounded-md border border-sailcloth-300 bg-sailcloth-100"
        style={{ height: high + 40 }}
        onScroll={(e) => setScrolled(e.currentTarget.scrollLeft)}
        onKeyDown={key}
      >
        <div style={{ width: Math.min(most, sampled - base) * each + 8, height: 1 }} />
        {cells.map((c) => (
          <div
            key={c.frame}
            id={`frame-${c.frame}`}
            role="option"
            aria-selected={c.frame >= from && c.frame <= to}
            aria-label={`Frame ${c.frame + 1}, ${c.ms === 0 ? 'dropped' : `${Math.round(c.ms)} ms`}`}
            data-frame={c.frame}
            className={clsx(
              'absolute top-1 rounded-[4px] p-1 text-center',
              c.frame >= from && c.frame <= to && 'bg-brass-200 outline outline-[1.5px] outline-brass-600',
            )}
            style={{ left: 4 + (c.frame - base) * each, width: each }}
            onPointerDown={(e) => choose(c.frame, e.shiftKey)}
          >
            <Picture at={c.at} width={across} gone={c.ms === 0} clear={kindOf(ask.format).clear} />
            <span
              className={clsx(
                'block truncate font-mono text-[0.625rem] leading-4',
                c.hand ? 'font-semibold text-brass-700' : 'text-ink-600',
              )}
            >
              {saysMs(c)}
            </span>
          </div>
        ))}
      </div>
      {refused && <p className="mt-1 text-[0.75rem] text-coral-700">{refused}</p>}
    </section>
  )
}

const saysMs = (c: FileCell) => (c.ms === 0 ? 'dropped' : `${Number(c.ms.toFixed(1))} ms`)

function Picture({ at, width, gone, clear }: { at: number; width: number; gone: boolean; clear: boolean }) {
  const ref = useRef<HTMLCanvasElement>(null)
  const film = useDesk((d) => d.film)!
  useEffect(() => {
    paintFrame(ref.current!, { time: at }, { w: width, h: high }, clear)
  }, [at, width, film, clear])
  return (
    <span className="flex items-center justify-center" style={{ height: high }}>
      <canvas
        ref={ref}
        className={clsx('max-h-full max-w-full rounded-[2px]', gone && 'opacity-25')}
        style={{ background: chequers }}
      />
    </span>
  )
}
