// A field for a number, or a sum of them.
import { clsx } from 'clsx'
import { useEffect, useId, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { endRehearsal, rehearse } from '../project/commands'
import { desk, fail } from '../project/desk'
import { grouped } from '../project/steps'
import { fault } from '../words'
import { Label } from './controls'
import { hold, letGo } from './drags'
import { field, giveBack, keepKeys, useTyped } from './typing'

/** A number to a hundredth, or as nearly as so many characters say it: that is what there is room for. */
function exactly(v: number, room: number): string {
  const [fine, rough] = [2, 1].map((d) => String(Number(v.toFixed(d))))
  return fine.length <= room ? fine : rough.length <= room ? rough : v.toFixed(0)
}

/**
 * A number with its unit, typed as a number or a sum; whole is what 100 % of it are. Enter or leaving it sets it, and
 * Enter gives the keyboard back to the page; Escape gives the old one back; arrow keys step. What lies outside min
 * and max is refused in words.
 */
export function NumberField({
  label,
  name,
  value,
  unit = '',
  digits = 0,
  step = 1,
  min = -1e6,
  max = 1e6,
  whole = 0,
  disabled,
  quiet,
  onSet,
  onBy,
}: {
  label?: string
  name: string
  value: number | null
  unit?: string
  digits?: number
  step?: number
  min?: number
  max?: number
  whole?: number
  disabled?: boolean
  quiet?: boolean // what is typed is shown by nothing until it is set
  onSet: (v: number) => void
  onBy?: (how: '+' | '*', by: number) => void
}) {
  const id = useId()
  const shown = value === null ? '' : digits > 0 ? value.toFixed(digits) : exactly(value, unit ? 3 : 6)
  const [text, type, typed] = useTyped()
  const [bad, setBad] = useState(false)
  const commit = () => {
    const raw = typed.current
    type(null)
    setBad(false)
    if (raw === null || raw.trim() === '') return forget() // nothing was typed
    const by = onBy && relative(raw.trim(), min)
    const v = by ? null : read(raw)
    last.current = null
    if (!by && v !== null && v >= min && v <= max) return store(v)
    forget()
    if (by) onBy(by[0], by[1])
    else if (v === null) fail(new Error(fault('sum.unreadable', raw.trim())))
    else if (v < min) fail(new Error(fault('number.less', name, `${min}${unit && ` ${unit}`}`)))
    else fail(new Error(fault('number.more', name, `${max}${unit && ` ${unit}`}`)))
  }
  const last = useRef<{ raw: string; v: number | null } | null>(null) // worked out while it was typed
  const read = (raw: string): number | null => {
    if (last.current?.raw === raw) return last.current.v
    // A plain number needs no asking, and is there before the engine is.
    let v: number | null = /^\s*[-−]?\d+([.,]\d*)?\s*$/.test(raw)
      ? Number(raw.replace(',', '.').replace('−', '-'))
      : null
    try {
      v ??= engine.sum(raw, whole, unit)
    } catch {
      // no sum either
    }
    last.current = { raw, v }
    return v
  }
  // What is typed, or dragged to, is shown while it is. It is set by what the field did before anything was shown: what
  // it does now may start from what is shown.
  const shows = useRef(false)
  const sets = useRef(onSet)
  if (!shows.current) sets.current = onSet
  const show = (v: number | null, dragged = false) => {
    if (quiet || !desk().project) return
    if (v === null || v < min || v > max) return forget()
    shows.current = true
    rehearse(() => sets.current(v), dragged)
  }
  const forget = () => {
    if (shows.current) endRehearsal()
    shows.current = false
  }
  useEffect(() => forget, []) // a field that goes leaves nothing shown
  // What is set takes the place of what is shown.
  const store = (v: number) => {
    shows.current = false
    sets.current(v)
    endRehearsal()
  }
  const rounded = (v: number) => Math.min(max, Math.max(min, Number(v.toFixed(Math.max(digits, 3)))))
  const dragged = useRef(false)
  const drag = useRef<{ x: number; from: number; now: number } | null>(null)
  return (
    <>
      {label && (
        <Label
          htmlFor={id}
          className={clsx('touch-none', !disabled && value !== null && 'cursor-ew-resize')}
          title={value === null ? undefined : `${name}: drag to change it`}
          onPointerDown={(e) => {
            if (e.button !== 0 || disabled || value === null) return
            e.currentTarget.setPointerCapture(e.pointerId)
            drag.current = { x: e.clientX, from: value, now: value }
            hold(() => {
              drag.current = null
              forget()
            })
          }}
          onPointerMove={(e) => {
            const d = drag.current
            if (!d || (d.now === d.from && Math.abs(e.clientX - d.x) < 3)) return
            const now = rounded(d.from + Math.round((e.clientX - d.x) / 2) * step * (e.shiftKey ? 10 : 1))
            if (now === d.now) return
            d.now = now
            dragged.current = true
            show(now, true)
          }}
          onPointerUp={() => {
            const d = drag.current
            drag.current = null
            letGo()
            if (!d || d.now === d.from) return
            store(d.now)
          }}
          // A press that dragged does not give the field the keyboard.
          onClick={(e) => {
            if (dragged.current) e.preventDefault()
            dragged.current = false
          }}
        >
          {label}
        </Label>
      )}
      <div className="relative">
        <input
          id={id}
          aria-label={name}
          title={value !== null && Number(shown) !== value ? String(value) : undefined}
          inputMode="decimal"
          disabled={disabled}
          placeholder={value === null ? 'mixed' : ''}
          aria-invalid={bad}
          className={clsx(
            field,
            'text-right font-mono text-[0.75rem]',
            unit && shown ? 'pr-6' : '',
            bad ? '!border-coral-700' : '',
          )}
          value={text ?? shown}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => {
            type(e.target.value)
            const v = read(e.target.value)
            const by = onBy && relative(e.target.value.trim(), min)
            show(e.target.value.trim() === '' || by ? null : v)
            setBad(
              e.target.value.trim() !== '' &&
                !(onBy && relative(e.target.value.trim(), min)) &&
                (v === null || v < min || v > max),
            )
          }}
          onBlur={commit}
          onKeyDown={(e) => {
            keepKeys(e)
            if (e.key === 'Enter') {
              commit()
              giveBack(e.currentTarget)
            }
            if (e.key === 'Escape') {
              type(null)
              setBad(false)
              forget()
              e.currentTarget.blur()
              giveBack(e.currentTarget)
            }
            if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
              e.preventDefault()
              const from = read(text ?? shown) ?? 0
              forget()
              const by = step * (e.shiftKey ? 10 : 1) * (e.key === 'ArrowUp' ? 1 : -1)
              type(null)
              grouped(name, () => onSet(rounded(from + by)))
            }
          }}
        />
        {unit && (shown || text) && (
          <span className="pointer-events-none absolute right-2 top-1.25 text-[0.6875rem] text-ink-500">{unit}</span>
        )}
      </div>
    </>
  )
}

/** What is typed for several: +0.2, -0.2 where nothing is below 0, *1.5, /2. Null: a number like any other. */
function relative(raw: string, min: number): ['+' | '*', number] | null {
  const sign = /^[+*×/]/.exec(raw)?.[0] ?? (min >= 0 && /^[-−]/.test(raw) ? '-' : '')
  if (!sign) return null
  try {
    const v = engine.sum(raw.slice(1), 0, '')
    if (sign === '+') return ['+', v]
    if (sign === '-') return ['+', -v]
    return v === 0 && sign === '/' ? null : ['*', sign === '/' ? 1 / v : v]
  } catch {
    return null
  }
}
