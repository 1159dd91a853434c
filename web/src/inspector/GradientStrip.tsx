// A gradient as a strip: press it to add a colour, drag a colour along it, drag it away to take it out.
import { clsx } from 'clsx'
import { ArrowLeftRight, Minus, Plus } from 'lucide-react'
import { useRef, useState } from 'react'
import type { Stop } from '../engine/types'
import { draft, run } from '../project/commands'
import { dropDraft } from '../project/desk'
import { grouped } from '../project/steps'
import { NumberField } from '../ui/NumberField'
import { Sign } from '../ui/controls'
import { ColourField, chequers } from '../ui/ColourField'
import { hold, letGo } from '../ui/drags'

/** How far a colour is dragged off the strip, in px, before letting go takes it out. */
const away = 30

export function GradientStrip({
  part,
  threads,
  stops,
}: {
  part: 'fill' | 'stroke' | 'background'
  threads: string[]
  stops: Stop[]
}) {
  const strip = useRef<HTMLDivElement>(null)
  const [chosen, setChosen] = useState(0)
  const [drag, setDrag] = useState<{ index: number; off: boolean; moved: boolean; from: number; at: number } | null>(
    null,
  )
  const index = Math.min(chosen, stops.length - 1)
  const args = { threads, part }
  const whole = part === 'background' // which the film shows
  const shareAt = (e: React.PointerEvent) => {
    const r = strip.current!.getBoundingClientRect()
    return Math.round(Math.min(1, Math.max(0, (e.clientX - r.left) / r.width)) * 1000) / 1000
  }
  const add = (at: number) => {
    if (run('gradient.add', { ...args, at })) setChosen(stops.filter((s) => s.at <= at).length)
  }
  const remove = (i: number) => {
    if (run('gradient.remove', { ...args, index: i })) setChosen(Math.max(0, i - 1))
  }
  const next = stops[index + 1] ?? stops[index - 1]
  const ramp = stops.map((s) => `${s.colour} ${s.at * 100}%`).join(', ')
  return (
    <div className="mt-2" data-gradient={part}>
      <div
        ref={strip}
        role="group"
        aria-label={`Colours of the ${part}`}
        className="relative mx-2 h-5.5 cursor-copy rounded-[4px] border border-ink-900/25"
        style={{ background: `linear-gradient(to right, ${ramp}), ${chequers}` }}
        title="Press to add a colour"
        onPointerDown={(e) => {
          if (e.button === 0 && e.target === strip.current) add(shareAt(e))
        }}
      >
        {stops.map((s, i) => (
          <button
            key={i}
            type="button"
            role="slider"
            aria-label={`Colour ${i + 1} of ${stops.length}`}
            aria-valuemin={0}
            aria-valuemax={100}
            aria-valuenow={Math.round(s.at * 100)}
            aria-valuetext={`${s.colour} at ${Math.round(s.at * 100)} %`}
            data-stop={i}
            className={clsx(
              'absolute top-1.75 h-6 w-6 -translate-x-1/2 cursor-grab touch-none rounded-full',
              drag?.index === i && drag.off ? 'opacity-30' : '',
            )}
            style={{ left: `${s.at * 100}%`, zIndex: i === index ? 2 : 1 }}
            onPointerDown={(e) => {
              if (e.button !== 0) return
              e.stopPropagation()
              e.currentTarget.setPointerCapture(e.pointerId)
              setChosen(i)
              setDrag({ index: i, off: false, moved: false, from: shareAt(e), at: s.at })
              hold(() => {
                setDrag(null)
                dropDraft(whole)
              })
            }}
            onPointerMove={(e) => {
              if (drag?.index !== i) return
              const r = strip.current!.getBoundingClientRect()
              const off = stops.length > 2 && (e.clientY < r.top - away || e.clientY > r.bottom + away)
              const at = shareAt(e)
              setDrag({ ...drag, off, moved: drag.moved || Math.abs(at - drag.from) > 0.004 || off, at })
              draft('gradient.move', { ...args, index: i, at }, whole)
            }}
            onPointerUp={() => {
              if (drag?.index !== i) return
              letGo()
              setDrag(null)
              dropDraft(whole)
              if (drag.off) remove(i)
              else if (drag.moved) run('gradient.move', { ...args, index: i, at: drag.at })
            }}
            onPointerCancel={() => {
              setDrag(null)
              dropDraft(whole)
            }}
            onKeyDown={(e) => {
              const by = { ArrowLeft: -0.01, ArrowDown: -0.01, ArrowRight: 0.01, ArrowUp: 0.01 }[e.key]
              if (by === undefined && e.key !== 'Delete' && e.key !== 'Backspace' && e.key !== 'Enter') return
              e.preventDefault()
              e.stopPropagation()
              if (by !== undefined)
                grouped(`${part} colour ${i}`, () =>
                  run('gradient.move', { ...args, index: i, at: s.at + by * (e.shiftKey ? 10 : 1) }),
                )
              else if (e.key === 'Enter') setChosen(i)
              else remove(i)
            }}
            onFocus={() => setChosen(i)}
          >
            <span
              className={clsx(
                'pointer-events-none absolute left-1 top-1 h-4 w-4 rounded-full border-2 bg-paper',
                'p-[2px]',
                i === index ? 'border-brass-600' : 'border-ink-600',
              )}
            >
              <span className="block h-full w-full rounded-full" style={{ background: s.colour }} />
            </span>
          </button>
        ))}
      </div>
      <div className="mt-3.5 flex items-center gap-1.5">
        <ColourField
          name={`Colour ${index + 1}`}
          alpha
          value={stops[index]}
          onDraft={(v) =>
            draft('gradient.colour', { ...args, index, colour: v.colour, role: v.role, tone: v.tone }, whole)
          }
          onSet={(v) => v && run('gradient.colour', { ...args, index, colour: v.colour, role: v.role, tone: v.tone })}
        />
        <div className="w-14.5 shrink-0">
          <NumberField
            name="Place of the colour"
            unit="%"
            min={Math.round((stops[index - 1]?.at ?? 0) * 100)}
            max={Math.round((stops[index + 1]?.at ?? 1) * 100)}
            value={Math.round(stops[index].at * 100)}
            onSet={(v) => run('gradient.move', { ...args, index, at: v / 100 })}
          />
        </div>
        <span className="ml-auto flex">
          <Sign
            name="Add a colour"
            className="!w-6 hover:bg-sailcloth-200"
            onClick={() => add((stops[index].at + next.at) / 2)}
          >
            <Plus size={15} strokeWidth={1.5} />
          </Sign>
          <Sign
            name="Take this colour out"
            disabled={stops.length <= 2}
            className="!w-6 hover:bg-sailcloth-200"
            onClick={() => remove(index)}
          >
            <Minus size={15} strokeWidth={1.5} />
          </Sign>
          <Sign name="Swap the ends" className="!w-6 hover:bg-sailcloth-200" onClick={() => run('gradient.swap', args)}>
            <ArrowLeftRight size={15} strokeWidth={1.5} />
          </Sign>
        </span>
      </div>
    </div>
  )
}
