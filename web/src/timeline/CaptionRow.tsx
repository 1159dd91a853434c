// Captions: one row below those of the sounds. What voices say stands there, too, and goes along with its voice.
import { clsx } from 'clsx'
import { Captions, Eye, EyeOff } from 'lucide-react'
import { useRef } from 'react'
import { addCaption, deleteCaption, nameNow, nameOf } from '../actions/captions'
import type { CaptionRow, Film } from '../engine/types'
import { draft, run } from '../project/commands'
import { desk, dropDraft, goToTime, refresh, selectCaption, selectSounds, set, useDesk } from '../project/desk'
import { grouped } from '../project/steps'
import { hold, letGo } from '../ui/drags'
import { Sign } from '../ui/controls'
import { captionHeight, ms, px, type Scale } from './scale'
import { useScrolled } from './scrolled'

/** The left end of the row. */
export function CaptionHead({ top }: { top: number }) {
  const { captions, captioned } = useDesk((d) => d.sounds)
  if (captions.length === 0) return null
  const fast = captions.filter((c) => c.fast).length
  return (
    <div
      data-captions-head
      className="group absolute inset-x-0 flex items-center gap-2 border-t border-spruce-700 pl-6 pr-1"
      style={{ top, height: captionHeight }}
    >
      <Captions size={15} strokeWidth={1.5} className="shrink-0 text-foam-300" aria-hidden />
      <span className="flex-1 truncate">
        Captions
        {fast > 0 && <span className="ml-2 text-[0.75rem] text-brass-200">{fast} too fast to read</span>}
      </span>
      <Sign
        name={captioned ? 'Show captions in the film no longer' : 'Show captions in the film'}
        pressed={!!captioned}
        className="!h-6 !w-6 text-foam-300 hover:text-foam-100"
        onClick={() => run('sound.captions', { shown: !captioned })}
      >
        {captioned ? <Eye size={14} strokeWidth={1.5} /> : <EyeOff size={14} strokeWidth={1.5} />}
      </Sign>
    </div>
  )
}

const s = (v: number) => (v / 1000).toFixed(2)

/** How far beside what is in sight captions are still there, in px. */
const beside = 400

interface Press {
  x: number
  of: CaptionRow
  part: 'whole' | 'begin' | 'end'
  by: number
  far: boolean
}

/** The right part of the row: when each caption is shown. */
export function CaptionBars({ top, film, scale }: { top: number; film: Film; scale: Scale }) {
  const { captions, captioned } = useDesk((d) => d.sounds)
  const chosen = useDesk((d) => d.caption)
  const heard = useDesk((d) => d.heard)
  const press = useRef<Press | null>(null)
  const view = useScrolled()
  if (captions.length === 0) return null
  const frame = (1000 * film.rate.den) / film.rate.num
  const cancel = () => {
    if (!press.current) return
    press.current = null
    letGo()
    set({ dragging: false })
    dropDraft(true)
  }
  const down = (c: CaptionRow, part: Press['part']) => (e: React.PointerEvent<HTMLElement>) => {
    if (e.button !== 0) return
    e.stopPropagation()
    if (c.sound) return selectSounds([c.sound])
    selectCaption(nameOf(c))
    e.currentTarget.setPointerCapture(e.pointerId)
    press.current = { x: e.clientX, of: c, part, by: 0, far: false }
    set({ dragging: true })
    hold(cancel)
  }
  const args = (p: Press) => ({ ...nameOf(p.of), part: p.part, by: p.by })
  const move = (e: React.PointerEvent<HTMLElement>) => {
    const p = press.current
    if (!p) return
    p.far = p.far || Math.abs(e.clientX - p.x) > 3
    const by = Math.round((e.clientX - p.x) / scale.perMs / 10) * 10
    if (!p.far || by === p.by) return
    p.by = by
    draft('caption.move', args(p), true)
  }
  const up = () => {
    const p = press.current
    press.current = null
    letGo()
    if (!p) return
    set({ dragging: false })
    const name = p.by === 0 ? null : nameNow(p.of)
    if (!name || !run('caption.move', { ...args(p), ...name })) refresh()
  }
  const handlers = { onPointerMove: move, onPointerUp: up, onPointerCancel: cancel }
  const keys = (c: CaptionRow) => (e: React.KeyboardEvent<HTMLElement>) => {
    const sign = { ArrowLeft: -1, ArrowRight: 1 }[e.key]
    if (c.sound) {
      if (e.key === 'Enter') selectSounds([c.sound])
      return
    }
    const by = sign && (e.ctrlKey || e.metaKey ? 100 * sign : Math.round(frame) * sign)
    const { caption } = desk()
    if (caption?.scene !== c.scene || caption.index !== c.index) selectCaption(nameOf(c))
    const part = e.shiftKey ? 'end' : 'whole'
    if (by) grouped('captions', () => run('caption.move', { ...nameOf(c), part, by }))
    else if (e.key === 'Delete' || e.key === 'Backspace') deleteCaption()
    else if (e.key === 'Enter') document.querySelector<HTMLElement>('[data-caption-words]')?.focus()
    else return
    e.preventDefault()
    e.stopPropagation()
  }
  let drawn = -Infinity // up to where captions are drawn
  const is = (c: CaptionRow) =>
    c.sound ? heard.includes(c.sound) : chosen?.scene === c.scene && chosen.index === c.index
  return (
    <div
      className="absolute inset-x-0 border-t border-spruce-700"
      style={{ top, height: captionHeight }}
      onDoubleClick={(e) => {
        e.stopPropagation()
        goToTime(ms(scale, e.clientX - e.currentTarget.getBoundingClientRect().left))
        addCaption()
      }}
    >
      {captions.map((c) => {
        const a = px(scale, c.from)
        const wide = Math.max(px(scale, c.to) - a - 1, 4)
        // Of many those that are in sight, not upon each other, and the one that is selected.
        const near = a + wide >= view.left - beside && a <= view.left + view.width + beside
        if (!(near && (wide > 5 || a > drawn)) && !is(c)) return null
        drawn = a + wide
        const grip = Math.min(8, wide / 3)
        const name = c.sound ? 'said by a voice' : c.fast ? 'faster than most can read' : ''
        return (
          <div
            key={`${c.scene} ${c.sound} ${c.index}`}
            role="button"
            tabIndex={0}
            data-caption={c.sound ? 'voice' : 'own'}
            aria-pressed={is(c)}
            aria-label={`Caption “${c.text}” from ${s(c.from)} to ${s(c.to)} s${name && `, ${name}`}`}
            title={`${c.text}${name && ` (${name})`}`}
            className={clsx(
              'absolute overflow-hidden rounded-[3px] border px-1.5 text-[0.75rem] leading-none',
              c.sound ? 'cursor-pointer border-dashed' : 'cursor-grab',
              is(c) ? 'border-brass-400 bg-spruce-700' : 'border-foam-500/60 bg-spruce-800 hover:bg-spruce-700',
              !captioned && 'text-foam-300',
            )}
            style={{ left: a, width: wide, top: 4, height: captionHeight - 8 }}
            onPointerDown={down(c, 'whole')}
            {...handlers}
            onKeyDown={keys(c)}
            onDoubleClick={(e) => {
              e.stopPropagation()
              document.querySelector<HTMLTextAreaElement>('[data-caption-words]')?.select()
            }}
          >
            {wide > 20 && (
              <span className="flex h-full items-center gap-1">
                {c.fast && <span className="h-1.5 w-1.5 shrink-0 rounded-full bg-brass-400" aria-hidden />}
                <span className="truncate">{c.text.replace(/\n/g, ' / ')}</span>
              </span>
            )}
            {!c.sound &&
              (['begin', 'end'] as const).map((part) => (
                <span
                  key={part}
                  data-grip={part}
                  className={clsx('absolute inset-y-0 cursor-ew-resize', part === 'begin' ? 'left-0' : 'right-0')}
                  style={{ width: grip }}
                  onPointerDown={down(c, part)}
                  {...handlers}
                />
              ))}
          </div>
        )
      })}
    </div>
  )
}
