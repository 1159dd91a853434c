// The gallery, in the place of the timeline's rows: what could be chosen, as small films of the selected layer, or of
// two scenes. What is pointed at plays on the page.
import { clsx } from 'clsx'
import { Search, X } from 'lucide-react'
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { actPath, addMove, drawPath } from '../actions/adding'
import { engine } from '../engine/engine'
import type { Card, Gallery as View, GalleryRow } from '../engine/types'
import { closeGallery, desk, useDesk, type Opened } from '../project/desk'
import { Choice } from '../ui/Choice'
import { Sign } from '../ui/controls'
import { ask, leave, point, Showing } from './showing'

export function Gallery({ of, top, head }: { of: Opened; top: number; head: number }) {
  const selection = useDesk((d) => d.selection)
  const scene = useDesk((d) => d.scene)
  const [sought, setSought] = useState('')
  const [after, setAfter] = useState(false)
  const [on, setOn] = useState(-1) // the card that is pointed at, or has the keyboard
  const field = useRef<HTMLInputElement>(null)
  const rows = useRef<HTMLDivElement>(null)
  const opened = useMemo(() => {
    const { moment } = desk()
    return of.pages ? engine.galleryOfPages(scene) : engine.gallery(moment, selection, of.replaces)
  }, [of, selection, of.pages ? scene : 0])
  const view = useMemo(() => (sought.trim() ? engine.sought(sought) : opened), [opened, sought])
  const showing = useMemo(() => new Showing(opened), [opened])
  useEffect(() => () => showing.close(), [showing])
  useEffect(() => {
    // A moment later, so that the key that opened it is not typed into it.
    const soon = setTimeout(() => field.current?.focus(), 40)
    return () => {
      clearTimeout(soon)
      leave()
      engine.closeGallery()
    }
  }, [])
  useLayoutEffect(() => {
    if (opened.rows.length === 0) closeGallery()
  }, [opened])

  const go = (card: Card) => {
    setOn(card.at)
    showing.pointed = card.at
    point(() => ask(card, of, after))
  }
  const away = () => {
    setOn(-1)
    showing.pointed = -1
    leave()
  }
  const choose = (card: Card) => {
    leave()
    if (of.pages || of.replaces) ask(card, of, after)
    else addMove(card, of.at, after)
    closeGallery()
  }
  /** The card that is so many cards, or rows, from one; from none, the first, or that which fits best. */
  const next = (card: Card | null, by: number, down: number): Card | undefined => {
    const lists = view.rows.map((r) => r.cards)
    if (!card) return lists.flat().find((c) => c.at === view.first) ?? lists[0]?.[0]
    const r = lists.findIndex((l) => l.includes(card))
    const list = lists[Math.min(Math.max(r + down, 0), lists.length - 1)]
    return list?.[Math.min(Math.max(lists[r].indexOf(card) + by, 0), list.length - 1)]
  }
  const reach = (card: Card | undefined) =>
    card && rows.current?.querySelector<HTMLElement>(`[data-offer="${card.at}"]`)?.focus()

  const key = (e: React.KeyboardEvent, card: Card | null) => {
    if (e.key === 'F6' || e.key === 'Tab') return
    e.stopPropagation()
    if (e.key === 'Escape') {
      e.preventDefault()
      closeGallery()
    } else if (e.key === 'Enter') {
      e.preventDefault()
      const chosen = card ?? (sought.trim() ? next(null, 0, 0) : undefined)
      if (chosen) choose(chosen)
    } else if (card || e.key === 'ArrowDown') {
      const steps: Record<string, [number, number]> = {
        ArrowLeft: [-1, 0],
        ArrowRight: [1, 0],
        ArrowUp: [0, -1],
        ArrowDown: [0, 1],
        Home: [-1000, 0],
        End: [1000, 0],
      }
      const step = steps[e.key]
      if (step) {
        e.preventDefault()
        const first = card && view.rows[0]?.cards.includes(card)
        if (first && e.key === 'ArrowUp') field.current?.focus()
        else reach(card ? next(card, step[0], step[1]) : next(null, 0, 0))
      } else if (card && e.key.length === 1 && !e.ctrlKey && !e.metaKey && e.key !== ' ') {
        field.current?.focus() // what is typed is sought
      }
    }
  }
  const several = selection.length > 1 && !of.replaces && !of.pages
  const what = of.pages ? 'A transition' : of.replaces ? 'In its place' : 'A move'
  return (
    <section
      aria-label="Gallery"
      className="absolute inset-x-0 bottom-0 z-20 flex flex-col bg-spruce-950 text-foam-100"
      style={{ top }}
    >
      <div className="flex h-9.5 shrink-0 items-center gap-3 border-b border-spruce-700 pl-2.5 pr-2">
        <label
          className={clsx(
            'flex h-7 w-80 min-w-0 items-center gap-2 rounded-md border border-foam-500/70',
            'bg-spruce-900 px-2',
          )}
        >
          <Search size={14} strokeWidth={1.5} className="shrink-0 text-foam-300" aria-hidden />
          <input
            ref={field}
            type="search"
            maxLength={10000}
            aria-label={`${what} for ${opened.of}`}
            placeholder={`${what} ${of.pages ? opened.of : `for ${opened.of}`}`}
            value={sought}
            onChange={(e) => {
              away()
              setSought(e.target.value)
            }}
            onKeyDown={(e) => key(e, null)}
            className="min-w-0 flex-1 bg-transparent text-[0.8125rem] text-foam-100 focus:outline-none"
          />
        </label>
        {several && (
          <div className="w-44 text-ink-900">
            <Choice
              name="Several layers"
              value={after ? 'after' : 'together'}
              of={[
                { value: 'together', label: 'together' },
                { value: 'after', label: 'one after another' },
              ]}
              onSet={(v) => setAfter(v === 'after')}
            />
          </div>
        )}
        <p className="min-w-0 flex-1 truncate text-right text-[0.75rem] text-foam-300">
          {of.replaces ? 'Enter puts it in place of the other: times and hitches stay' : 'Enter adds'} · Escape leaves
          all as it was
        </p>
        <Sign name="Close the gallery" className="text-foam-100 hover:bg-spruce-700" onClick={closeGallery}>
          <X size={15} strokeWidth={1.5} />
        </Sign>
      </div>
      <div ref={rows} className="thin-scroll min-h-0 flex-1 overflow-y-auto" onPointerLeave={away}>
        {view.rows.map((r) => (
          <Cards
            key={r.heading}
            row={r}
            head={head}
            on={on}
            roving={view.rows.flatMap((x) => x.cards).some((c) => c.at === on) ? on : (next(null, 0, 0)?.at ?? -1)}
            showing={showing}
            opened={opened}
            draws={!sought.trim() && !of.replaces && r.cards[0]?.kind === 'path'}
            onGo={go}
            onKey={key}
            onChoose={choose}
          />
        ))}
        {view.rows.length === 0 && (
          <p className="px-4 py-3 text-[0.75rem] text-foam-300">
            Nothing is called that. Try what it looks like: shake, pop, burn, draw.
          </p>
        )}
      </div>
    </section>
  )
}

function Cards({
  row,
  head,
  on,
  roving,
  showing,
  opened,
  draws,
  onGo,
  onKey,
  onChoose,
}: {
  row: GalleryRow
  head: number
  on: number
  roving: number
  showing: Showing
  opened: View
  draws: boolean
  onGo: (c: Card) => void
  onKey: (e: React.KeyboardEvent, c: Card) => void
  onChoose: (c: Card) => void
}) {
  const id = `gallery-${row.heading.replace(/\W+/g, '-')}`
  return (
    <div className="flex border-b border-spruce-800">
      <p id={id} className="flex shrink-0 flex-col justify-center pl-3.5 font-semibold" style={{ width: head }}>
        {row.heading}
        <span className="text-[0.6875rem] font-normal text-foam-300">{row.cards.length}, last used first</span>
      </p>
      <div className="flex min-w-0 flex-1 overflow-x-auto [scrollbar-width:none]">
        <div role="listbox" aria-labelledby={id} aria-orientation="horizontal" className="flex gap-1 py-0.5">
          {row.cards.map((c) => (
            <div
              key={c.at}
              role="option"
              data-offer={c.at}
              title={c.name}
              aria-selected={c.at === on}
              tabIndex={c.at === roving ? 0 : -1}
              className={clsx(
                'flex w-38 shrink-0 scroll-mx-4 items-center gap-2 rounded-md border p-1 text-left',
                c.at === on ? 'border-brass-400 bg-spruce-800' : 'border-transparent',
              )}
              onPointerEnter={(e) => e.pointerType !== 'touch' && onGo(c)}
              onFocus={() => onGo(c)}
              onKeyDown={(e) => onKey(e, c)}
              onClick={() => onChoose(c)}
            >
              <Small card={c} showing={showing} plain={!opened.behind} />
              <span className="min-w-0">
                <span className="block text-[0.8125rem] leading-tight">{c.words}</span>
                <span className="block font-mono text-[0.6875rem] text-foam-300">{c.lasts}</span>
              </span>
            </div>
          ))}
        </div>
        {draws &&
          [['Draw a path', drawPath] as const, ['Act a path', actPath] as const].map(([words, go]) => (
            <button
              key={words}
              type="button"
              className={clsx(
                'my-1 ml-1 flex w-28 shrink-0 items-center justify-center rounded-md border border-dashed',
                'border-foam-500/60 px-2 text-[0.8125rem] hover:bg-spruce-700',
              )}
              onClick={() => {
                closeGallery()
                go()
              }}
            >
              {words}
            </button>
          ))}
      </div>
    </div>
  )
}

function Small({ card, showing, plain }: { card: Card; showing: Showing; plain: boolean }) {
  const ref = useRef<HTMLCanvasElement>(null)
  useEffect(() => showing.add(ref.current!, card), [card, showing])
  return (
    <canvas
      ref={ref}
      aria-hidden
      className={clsx('h-11.5 w-18 shrink-0 rounded-[3px]', plain ? 'bg-spruce-900' : 'bg-paper')}
    />
  )
}
