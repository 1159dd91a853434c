// Sounds: rows below those of the layers. A bar is what is heard of a recording, drawn by its peaks.
import { clsx } from 'clsx'
import { AudioLines, Mic, Music, Volume2, VolumeX, Headphones } from 'lucide-react'
import { useEffect, useLayoutEffect, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Film, SoundRow, SoundSnap } from '../engine/types'
import { draft, run } from '../project/commands'
import { desk, dropDraft, refresh, selectSounds, set, useDesk } from '../project/desk'
import { grouped } from '../project/steps'
import { onPeaks } from '../sound/recordings'
import { deleteSounds } from '../actions/sounds'
import { hold, letGo } from '../ui/drags'
import { Sign } from '../ui/controls'
import { openMenu } from '../ui/ContextMenu'
import { addPoint, Points } from './VolumePoints'
import { drawSounds } from './waves'
import { px, soundHeight, type Scale } from './scale'
import { useScrolled } from './scrolled'

/** How near an end comes to something before it snaps, in px. */
const near = 6

const signs = { music: Music, effect: AudioLines, voice: Mic }

/** How much room the rows of sounds take. */
export const soundsHeight = (n: number) => (n ? n * soundHeight + 6 : 0)

/** The left end of the rows: which sounds there are. */
export function SoundHeads({ top, sought }: { top: number; sought: string }) {
  const rows = found(
    useDesk((d) => d.sounds.rows),
    sought,
  )
  const heard = useDesk((d) => d.heard)
  const alone = useDesk((d) => d.alone)
  const missing = useDesk((d) => d.missing)
  if (rows.length === 0) return null
  return (
    <div
      role="list"
      aria-label="Sounds"
      className="absolute inset-x-0 border-t border-spruce-700"
      style={{ top: top + 2, height: soundsHeight(rows.length) }}
    >
      {rows.map((r, i) => {
        const Is = signs[r.use]
        const chosen = heard.includes(r.id)
        const solo = alone.includes(r.id)
        return (
          <div
            key={r.id}
            role="listitem"
            data-sound-row={r.id}
            className={clsx(
              'group absolute inset-x-0 flex items-center pl-3',
              chosen ? 'bg-spruce-800' : 'hover:bg-spruce-900',
            )}
            style={{ top: i * soundHeight, height: soundHeight }}
          >
            <button
              type="button"
              data-sound-name={r.name}
              aria-pressed={chosen}
              title={`${r.name}: ${r.words}`}
              className="flex h-full min-w-0 flex-1 items-center gap-2 text-left"
              onClick={(e) => choose(r.id, e)}
              onContextMenu={(e) => soundMenu(e, r)}
              onKeyDown={(e) => {
                const by = { ArrowUp: -1, ArrowDown: 1 }[e.key]
                const all = [...document.querySelectorAll<HTMLElement>('[data-sound-name]')]
                if (by) all[all.indexOf(e.currentTarget) + by]?.focus()
                else if (e.key === 'ArrowRight') document.querySelector<HTMLElement>(`[data-sound="${r.id}"]`)?.focus()
                else if (e.key === 'Delete' || e.key === 'Backspace') {
                  if (!chosen) selectSounds([r.id])
                  deleteSounds()
                } else return
                e.preventDefault()
                e.stopPropagation()
              }}
            >
              <Is size={15} strokeWidth={1.5} className="ml-3 shrink-0 text-foam-300" aria-hidden />
              <span
                className={clsx(
                  'truncate',
                  chosen && 'font-semibold',
                  r.muted && 'text-foam-500 line-through',
                  missing.includes(r.media) && 'text-brass-200',
                )}
              >
                {r.name}
              </span>
            </button>
            <span
              className={clsx(
                'flex items-center pr-1',
                !(r.muted || solo) && 'opacity-0 focus-within:opacity-100 group-hover:opacity-100',
              )}
            >
              <Sign
                name={solo ? `Hear all sounds again, not ${r.name} alone` : `Hear ${r.name} alone`}
                pressed={solo}
                className={clsx('!h-6 !w-6', solo ? 'text-brass-400' : 'text-foam-300 hover:text-foam-100')}
                onClick={() => set({ alone: solo ? alone.filter((id) => id !== r.id) : [...alone, r.id] })}
              >
                <Headphones size={14} strokeWidth={1.5} />
              </Sign>
              <Sign
                name={r.muted ? `Hear ${r.name} again` : `Mute ${r.name}`}
                pressed={r.muted}
                className="!h-6 !w-6 text-foam-300 hover:text-foam-100"
                onClick={() => run('sound.set', { ids: [r.id], patch: { muted: r.muted ? null : true } })}
              >
                {r.muted ? <VolumeX size={14} strokeWidth={1.5} /> : <Volume2 size={14} strokeWidth={1.5} />}
              </Sign>
            </span>
          </div>
        )
      })}
    </div>
  )
}

const found = (rows: SoundRow[], sought: string) => {
  const name = sought.trim().toLowerCase()
  return name ? rows.filter((r) => r.name.toLowerCase().includes(name)) : rows
}

function choose(id: string, e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }) {
  const { heard } = desk()
  if (!(e.shiftKey || e.ctrlKey || e.metaKey)) selectSounds([id])
  else selectSounds(heard.includes(id) ? heard.filter((o) => o !== id) : [...heard, id])
}

function soundMenu(e: React.MouseEvent, r: SoundRow) {
  if (!desk().heard.includes(r.id)) selectSounds([r.id])
  openMenu(e, r.name, [
    {
      word: r.muted ? 'Hear it again' : 'Mute',
      run: () => run('sound.set', { ids: desk().heard, patch: { muted: r.muted ? null : true } }),
    },
    { word: 'Goes with the film', disabled: r.scene < 0, run: () => run('sound.bind', { id: r.id, to: 'film' }) },
    {
      word: 'Goes with the scene',
      disabled: r.scene >= 0 && !r.move,
      run: () => run('sound.bind', { id: r.id, to: 'scene' }),
    },
    { word: 'Delete', key: 'Delete', run: deleteSounds },
  ])
}

interface Press {
  x: number
  row: SoundRow
  part: 'whole' | 'begin' | 'end' | 'in' | 'out'
  by: number
  far: boolean
  snap: SoundSnap | null
  move: string // the bar of a move that it is dropped on
}

/** The right part of the rows: when each is heard, and how loud. */
export function SoundBars({ top, film, scale, sought }: { top: number; film: Film; scale: Scale; sought: string }) {
  const all = useDesk((d) => d.sounds.rows)
  const rows = found(all, sought)
  const heard = useDesk((d) => d.heard)
  const alone = useDesk((d) => d.alone)
  const canvas = useRef<HTMLCanvasElement>(null)
  const press = useRef<Press | null>(null)
  const [saying, setSaying] = useState<{ x: number; top: number; text: string; snap: SoundSnap | null } | null>(null)
  const view = useScrolled()

  const draw = () => {
    const c = canvas.current
    if (c && view.width > 0) drawSounds(c, rows, heard, alone, scale, view.left, view.width, soundHeight)
  }
  const latest = useRef(draw)
  latest.current = draw
  useLayoutEffect(draw)
  useEffect(() => onPeaks(() => latest.current()), [])

  if (rows.length === 0) return null
  const cancel = () => {
    if (!press.current) return
    press.current = null
    letGo()
    setSaying(null)
    set({ dragging: false })
    dropDraft(true)
  }
  const down = (row: SoundRow, part: Press['part']) => (e: React.PointerEvent<HTMLElement>) => {
    if (e.button !== 0) return
    e.stopPropagation()
    e.currentTarget.setPointerCapture(e.pointerId)
    if (e.shiftKey || e.ctrlKey || e.metaKey) choose(row.id, e)
    else if (!heard.includes(row.id)) selectSounds([row.id])
    press.current = { x: e.clientX, row, part, by: 0, far: false, snap: null, move: '' }
    set({ dragging: true })
    hold(cancel)
  }
  const ids = (r: SoundRow) => [r.id, ...desk().heard.filter((id) => id !== r.id)]
  // What a drag comes to: shown while it lasts, done at its end.
  const ask = (p: Press, done: boolean) => {
    const { row, by } = p
    const go: typeof run = (name, args) => (done ? run(name, args) : draft(name, args ?? {}, true) === '')
    if (p.part === 'whole') return go('sound.move', { ids: ids(row), by })
    if (p.part === 'begin' || p.part === 'end') return go('sound.trim', { id: row.id, part: p.part, by })
    return go('sound.fade', { id: row.id, part: p.part, by: p.part === 'in' ? by : -by })
  }
  const move = (e: React.PointerEvent<HTMLElement>) => {
    const p = press.current
    if (!p) return
    p.far = p.far || Math.abs(e.clientX - p.x) > 3
    if (!p.far) return
    let by = Math.round((e.clientX - p.x) / scale.perMs / 10) * 10
    p.snap = null
    const fades = p.part === 'in' || p.part === 'out'
    if (!e.altKey && !fades) {
      const s = engine.snapSound(desk().moment, ids(p.row), p.part, by, Math.round(near / scale.perMs))
      by = s.by
      if (s.at >= 0) p.snap = s
    }
    p.move = p.part === 'whole' ? barUnder(e) : ''
    if (by !== p.by) {
      p.by = by
      ask(p, false)
    }
    const now = desk().sounds.rows.find((r) => r.id === p.row.id) ?? p.row
    const s = (v: number) => `${(v / 1000).toFixed(2)}`
    setSaying({
      x: e.clientX - canvas.current!.parentElement!.getBoundingClientRect().left,
      top: rows.findIndex((r) => r.id === p.row.id) * soundHeight,
      text: fades
        ? `${p.part === 'in' ? 'fades in' : 'fades out'} over ${s(p.part === 'in' ? now.fadeIn : now.fadeOut)} s`
        : `${s(now.begin)} → ${s(now.end)} s`,
      snap: p.snap,
    })
  }
  const up = () => {
    const p = press.current
    press.current = null
    letGo()
    setSaying(null)
    if (!p) return
    set({ dragging: false })
    engine.clearDraft()
    // Dropped on the bar of a move it goes along with that.
    if (p.far && p.move && run('sound.bind', { id: p.row.id, to: 'move', move: p.move })) return
    if (p.by === 0 || !ask(p, true)) refresh()
  }
  const handlers = { onPointerMove: move, onPointerUp: up, onPointerCancel: cancel }
  const keys = (r: SoundRow) => (e: React.KeyboardEvent<HTMLElement>) => {
    const sign = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
    const by = sign && (e.ctrlKey || e.metaKey ? 100 * sign : Math.round((1000 * film.rate.den) / film.rate.num) * sign)
    if (!heard.includes(r.id)) selectSounds([r.id])
    if (by && e.shiftKey) grouped('ends of sounds', () => run('sound.trim', { id: r.id, part: 'end', by }))
    else if (by) grouped('sounds', () => run('sound.move', { ids: ids(r), by }))
    else if (e.key === 'Delete' || e.key === 'Backspace') deleteSounds()
    else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
      const all = [...document.querySelectorAll<HTMLElement>('[data-sound]')]
      all[all.indexOf(e.currentTarget) + (e.key === 'ArrowDown' ? 1 : -1)]?.focus()
    } else if (e.key === 'Enter') document.querySelector<HTMLElement>('[data-sound-panel] input')?.focus()
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  return (
    <div
      className="absolute inset-x-0 border-t border-spruce-700"
      style={{ top: top + 2, height: soundsHeight(rows.length) }}
      onPointerDown={(e) => e.stopPropagation()}
      onDoubleClick={(e) => e.stopPropagation()}
    >
      <canvas
        ref={canvas}
        className="pointer-events-none absolute top-0"
        style={{ left: view.left, width: view.width, height: rows.length * soundHeight }}
        aria-hidden
      />
      {rows.map((r, i) => {
        const [a, b] = [px(scale, r.begin), px(scale, r.end)]
        const wide = Math.max(b - a, 6)
        const grip = Math.min(8, wide / 3)
        const chosen = heard.includes(r.id)
        const [fin, fout] = [r.fadeIn * scale.perMs, r.fadeOut * scale.perMs]
        return (
          <div
            key={r.id}
            role="button"
            tabIndex={0}
            data-sound={r.id}
            aria-pressed={chosen}
            aria-label={`${r.name}: heard ${r.words}, for ${((r.end - r.begin) / 1000).toFixed(2)} s`}
            title={`${r.name}: ${r.words}`}
            className="group absolute cursor-grab rounded-[3px]"
            style={{ left: a, width: wide, top: i * soundHeight + 2, height: soundHeight - 5 }}
            onPointerDown={down(r, 'whole')}
            {...handlers}
            onKeyDown={keys(r)}
            onContextMenu={(e) => soundMenu(e, r)}
            onDoubleClick={(e) => addPoint(e, r, scale)}
          >
            <span
              data-grip="begin"
              className="absolute inset-y-0 left-0 cursor-ew-resize"
              style={{ width: grip }}
              onPointerDown={down(r, 'begin')}
              {...handlers}
            />
            <span
              data-grip="end"
              className="absolute inset-y-0 right-0 cursor-ew-resize"
              style={{ width: grip }}
              onPointerDown={down(r, 'end')}
              {...handlers}
            />
            {chosen && wide > 40 && (
              <>
                <Points row={r} scale={scale} />
                <Fade
                  name="fades in"
                  x={Math.min(fin, wide - 12)}
                  onDown={down(r, 'in')}
                  handlers={handlers}
                  grip="in"
                />
                <Fade
                  name="fades out"
                  x={Math.max(wide - fout, 12)}
                  onDown={down(r, 'out')}
                  handlers={handlers}
                  grip="out"
                />
              </>
            )}
          </div>
        )
      })}
      {saying && (
        <div
          className={clsx(
            'pointer-events-none absolute z-20 whitespace-nowrap rounded-md bg-paper px-2 py-0.5',
            'font-mono text-[0.75rem] text-ink-900',
          )}
          style={{ left: Math.min(saying.x + 12, scale.width - 260), top: saying.top - 20 }}
          data-saying
        >
          {saying.text}
          {saying.snap && <span className="ml-2 font-sans font-semibold text-brass-700">{saying.snap.words}</span>}
        </div>
      )}
    </div>
  )
}

/** The handle of a fade: a ring on the upper edge of a bar, where it has faded in, or begins to fade out. */
function Fade({
  name,
  x,
  grip,
  onDown,
  handlers,
}: {
  name: string
  x: number
  grip: string
  onDown: (e: React.PointerEvent<HTMLElement>) => void
  handlers: object
}) {
  return (
    <span
      data-grip={grip}
      title={`Drag: ${name} over so long`}
      className="absolute -top-1 flex h-4 w-4 cursor-ew-resize items-center justify-center"
      style={{ left: x - 8 }}
      onPointerDown={onDown}
      {...handlers}
    >
      <span className="h-2 w-2 rounded-full border-[1.5px] border-brass-400 bg-spruce-950" />
    </span>
  )
}

/** The move whose bar the pointer is over; empty: none. */
const barUnder = (e: React.PointerEvent) =>
  document
    .elementsFromPoint(e.clientX, e.clientY)
    .map((n) => n.closest<SVGGElement>('[data-bar]')?.dataset.bar)
    .find((m) => m) ?? ''
