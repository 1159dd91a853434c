// An edge of the timeline's heading that is dragged to change a duration.
import { clsx } from 'clsx'
import { useRef, useState } from 'react'
import type { Intents } from '../engine/types'
import { draft, run } from '../project/commands'
import { dropDraft, set } from '../project/desk'
import { seconds } from '../time'
import { type Scale } from './scale'
import { hold, letGo } from '../ui/drags'

/** An edge that is dragged, or moved by arrow keys, to change a duration. */
export function Edge({
  name,
  left,
  room,
  height,
  scale,
  value,
  min = 0,
  intent,
  args,
}: {
  name: string
  left: number
  room: number // px of the narrower of what lies at its sides: it is no wider than leaves them to be pressed
  height: number
  scale: Scale
  value: number
  min?: number
  intent: keyof Intents
  args: (ms: number) => Intents[keyof Intents]
}) {
  const from = useRef<{ x: number; value: number; perMs: number } | null>(null)
  const [now, setNow] = useState<number | null>(null)
  const rounded = (ms: number) => Math.max(min, Math.round(ms / 10) * 10)
  const cancel = () => {
    if (!from.current) return
    from.current = null
    letGo()
    setNow(null)
    set({ dragging: false })
    dropDraft(true)
  }
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuenow={value / 1000}
      aria-valuemin={min / 1000}
      aria-valuetext={seconds(value)}
      className="group absolute z-10 flex -translate-x-1/2 cursor-ew-resize justify-center"
      style={{ left, height, width: Math.max(9, Math.min(24, room / 2)) }}
      data-edge={name}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        from.current = { x: e.clientX, value, perMs: scale.perMs }
        set({ dragging: true })
        hold(cancel)
      }}
      onPointerMove={(e) => {
        const f = from.current
        if (!f) return
        const ms = rounded(f.value + (e.clientX - f.x) / f.perMs)
        if (ms === now) return
        setNow(ms)
        draft(intent, args(ms), true)
      }}
      onPointerUp={() => {
        const f = from.current
        cancel()
        if (f && now !== null && now !== f.value) run(intent, args(now))
      }}
      onPointerCancel={cancel}
      onKeyDown={(e) => {
        const by = { ArrowLeft: -100, ArrowRight: 100 }[e.key]
        if (!by) return
        e.preventDefault()
        e.stopPropagation()
        run(intent, args(Math.max(min, value + by)))
      }}
    >
      <span
        className={clsx(
          'my-1 w-[3px] rounded bg-brass-400 opacity-0 touch:opacity-60 group-hover:opacity-100',
          'group-focus-visible:opacity-100',
        )}
      />
      {now !== null && (
        <span
          className={clsx(
            'absolute top-1 left-3 z-20 whitespace-nowrap rounded-md bg-paper px-2 py-0.5 font-mono',
            'text-[0.75rem] text-ink-900',
          )}
        >
          {seconds(now)}
        </span>
      )}
    </div>
  )
}
