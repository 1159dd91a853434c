// Moves that go one after another as one bar: a press on a part opens it, and the borders between parts are dragged.
import { clsx } from 'clsx'
import { useRef } from 'react'
import type { Turn } from '../engine/types'
import { endRehearsal, rehearse, run } from '../project/commands'
import { selectMoves } from '../project/desk'
import { hold, letGo } from '../ui/drags'

export function RunBar({ run: parts, move }: { run: Turn[]; move: string }) {
  const bar = useRef<HTMLDivElement>(null)
  const drag = useRef<{ x: number; by: number } | null>(null)
  const total = Math.max(
    1,
    parts.reduce((sum, p) => sum + p.takes, 0),
  )
  const seconds = (ms: number) => `${(ms / 1000).toFixed(2)} s`
  const shift = (id: string, by: number) => run('run.border', { move: id, by })
  let begin = 0
  return (
    <div className="px-2 pt-1.5">
      <p className="pb-1 text-[0.6875rem] text-ink-600">
        {parts.length} one after another, {seconds(total)} in all
      </p>
      <div
        ref={bar}
        role="group"
        aria-label="Moves one after another"
        data-run
        className="relative flex h-7 overflow-hidden rounded-md border border-sailcloth-500"
      >
        {parts.map((p, i) => {
          const from = begin
          begin += p.takes
          return (
            <button
              key={p.move}
              type="button"
              aria-pressed={p.move === move}
              title={`${p.words}: ${seconds(p.takes)}`}
              style={{ width: `${(100 * p.takes) / total}%` }}
              className={clsx(
                'min-w-0 truncate border-l border-sailcloth-500 px-1 text-left text-[0.6875rem] first:border-l-0',
                p.move === move ? 'bg-brass-400' : 'bg-sailcloth-200 hover:bg-brass-200',
              )}
              onClick={() => selectMoves([p.move])}
            >
              <span className="sr-only">
                {p.words}, from {seconds(from)} to {seconds(begin)}
              </span>
              <span aria-hidden>{100 * (p.takes / total) > 12 || i === 0 ? p.words : ''}</span>
            </button>
          )
        })}
        {parts.slice(0, -1).map((p, i) => {
          const at = parts.slice(0, i + 1).reduce((sum, q) => sum + q.takes, 0)
          return (
            <div
              key={`border ${p.move}`}
              role="slider"
              tabIndex={0}
              aria-label={`Border after ${p.words}`}
              aria-valuemin={0}
              aria-valuemax={total / 1000}
              aria-valuenow={at / 1000}
              aria-valuetext={seconds(at)}
              data-border={i}
              className={clsx(
                'absolute inset-y-0 w-2.5 -translate-x-1/2 cursor-ew-resize touch-none',
                'hover:bg-brass-600/60 focus-visible:bg-brass-600',
              )}
              style={{ left: `${(100 * at) / total}%` }}
              onPointerDown={(e) => {
                if (e.button !== 0) return
                e.currentTarget.setPointerCapture(e.pointerId)
                drag.current = { x: e.clientX, by: 0 }
                hold(() => {
                  drag.current = null
                  endRehearsal()
                })
              }}
              onPointerMove={(e) => {
                const d = drag.current
                if (!d) return
                d.by = Math.round((((e.clientX - d.x) / bar.current!.clientWidth) * total) / 10) * 10
                rehearse(() => shift(p.move, d.by))
              }}
              onPointerUp={() => {
                const d = drag.current
                drag.current = null
                letGo()
                endRehearsal()
                if (d?.by) shift(p.move, d.by)
              }}
              onKeyDown={(e) => {
                const by = { ArrowLeft: -50, ArrowRight: 50 }[e.key]
                if (!by) return
                e.preventDefault()
                e.stopPropagation()
                shift(p.move, e.shiftKey ? by * 4 : by)
              }}
            />
          )
        })}
      </div>
    </div>
  )
}
