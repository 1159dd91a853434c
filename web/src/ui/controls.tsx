// Small controls that every part of the page uses.
import { clsx } from 'clsx'
import { engine } from '../engine/engine'
import { fail } from '../project/desk'
import { grouped } from '../project/steps'
import { fault } from '../words'
import { keyed } from './keymap'
import { useGoneTo } from './Parts'
import { useEffect, useId, useLayoutEffect, useRef, useState, type ButtonHTMLAttributes, type ReactNode } from 'react'

type Look = 'plain' | 'main' | 'quiet' | 'danger'

/** Keys pressed in a field are the field's, but F6, which goes on to the next part of the screen. */
export const keepKeys = (e: React.KeyboardEvent) => {
  if (e.key !== 'F6') e.stopPropagation()
}

const looks: Record<Look, string> = {
  main: 'bg-spruce-900 text-foam-100 hover:bg-spruce-700 font-semibold border-spruce-900',
  plain: 'bg-paper border-sailcloth-300 text-ink-900 hover:bg-sailcloth-100 font-semibold',
  quiet: 'border-transparent text-ink-900 hover:bg-sailcloth-200',
  danger: 'bg-paper border-sailcloth-300 text-coral-700 hover:bg-sailcloth-100 font-semibold',
}

export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return (
    <button
      type="button"
      {...rest}
      className={clsx(
        'inline-flex h-[26px] items-center justify-center gap-1.5 rounded-md border px-3',
        'disabled:opacity-45',
        looks[look],
        className,
      )}
    />
  )
}

/** A square button with a sign; name is its accessible name and tooltip. */
export function Sign({
  name,
  pressed,
  className = '',
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { name: string; pressed?: boolean }) {
  return (
    <button
      type="button"
      {...rest}
      aria-label={keyed(name)}
      title={keyed(name)}
      aria-pressed={pressed}
      className={clsx(
        'inline-flex h-[26px] w-[26px] shrink-0 items-center justify-center rounded-md',
        'disabled:opacity-40',
        className,
      )}
    >
      {children}
    </button>
  )
}

export function Label({
  children,
  htmlFor,
  className = '',
}: {
  children: ReactNode
  htmlFor?: string
  className?: string
}) {
  return (
    <label htmlFor={htmlFor} className={`text-[12px] text-ink-600 ${className}`}>
      {children}
    </label>
  )
}

const field =
  'h-[26px] w-full min-w-0 rounded-md border border-sailcloth-300 bg-sailcloth-100 px-2 ' +
  'hover:border-ink-500 focus:border-brass-600 focus:bg-paper focus:outline-none disabled:opacity-45'

/** A number to a hundredth, or as nearly as so many characters say it: that is what there is room for. */
function exactly(v: number, room: number): string {
  const [fine, rough] = [2, 1].map((d) => String(Number(v.toFixed(d))))
  return fine.length <= room ? fine : rough.length <= room ? rough : v.toFixed(0)
}

/** Gives the keyboard back to the page, where a field of the inspector had it; in sheets and what floats it stays. */
export function giveBack(from: Element) {
  if (from.closest('[aria-label=Inspector]'))
    document.querySelector<HTMLElement>('[data-desk]')?.focus({ preventScroll: true })
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
    if (raw === null || raw.trim() === '') return // nothing was typed
    const by = onBy && relative(raw.trim(), min)
    if (by) {
      onBy(by[0], by[1])
      return
    }
    const v = read(raw)
    last.current = null
    if (v === null) fail(new Error(fault('sum.unreadable', raw.trim())))
    else if (v < min) fail(new Error(fault('number.less', name, `${min}${unit && ` ${unit}`}`)))
    else if (v > max) fail(new Error(fault('number.more', name, `${max}${unit && ` ${unit}`}`)))
    else onSet(v)
  }
  const last = useRef<{ raw: string; v: number | null } | null>(null) // worked out while it was typed
  const read = (raw: string): number | null => {
    if (last.current?.raw === raw) return last.current.v
    let v: number | null = Number(raw.replace(',', '.')) // before the engine is there, numbers alone
    if (raw.trim() === '' || !Number.isFinite(v)) v = null
    try {
      v = engine.sum(raw, whole, unit)
    } catch {
      // no sum either
    }
    last.current = { raw, v }
    return v
  }
  return (
    <>
      {label && <Label htmlFor={id}>{label}</Label>}
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
            'text-right font-mono text-[12px]',
            unit && shown ? 'pr-6' : '',
            bad ? '!border-coral-700' : '',
          )}
          value={text ?? shown}
          onFocus={(e) => e.currentTarget.select()}
          onChange={(e) => {
            type(e.target.value)
            const v = read(e.target.value)
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
              e.currentTarget.blur()
              giveBack(e.currentTarget)
            }
            if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
              e.preventDefault()
              const from = read(text ?? shown) ?? 0
              const by = step * (e.shiftKey ? 10 : 1) * (e.key === 'ArrowUp' ? 1 : -1)
              type(null)
              grouped(name, () => onSet(Math.min(max, Math.max(min, Number((from + by).toFixed(Math.max(digits, 3)))))))
            }
          }}
        />
        {unit && (shown || text) && (
          <span className="pointer-events-none absolute right-2 top-[5px] text-[11px] text-ink-500">{unit}</span>
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

/**
 * What is typed into a field and not yet set; null: nothing. The third is it as it is at once, for what happens before
 * the field is drawn anew.
 */
export function useTyped(): [string | null, (v: string | null) => void, { readonly current: string | null }] {
  const [text, setText] = useState<string | null>(null)
  const typed = useRef<string | null>(null)
  return [
    text,
    (v) => {
      typed.current = v
      setText(v)
    },
    typed,
  ]
}

export function TextField({
  name,
  value,
  onSet,
  className = '',
}: {
  name: string
  value: string
  onSet: (v: string) => void
  className?: string
}) {
  const [text, type, typed] = useTyped()
  return (
    <input
      aria-label={name}
      className={`${field} ${className}`}
      value={text ?? value}
      onChange={(e) => type(e.target.value)}
      onBlur={() => {
        const v = typed.current?.trim()
        type(null)
        if (v && v !== value) onSet(v)
      }}
      onKeyDown={(e) => {
        keepKeys(e)
        if (e.key === 'Escape') type(null)
        if (e.key === 'Enter' || e.key === 'Escape') {
          e.currentTarget.blur()
          giveBack(e.currentTarget)
        }
      }}
    />
  )
}

export function Choice<T extends string>({
  name,
  value,
  of,
  onSet,
  className = '',
}: {
  name: string
  value: T | ''
  of: { value: T; label: string; disabled?: boolean }[]
  onSet: (v: T) => void
  className?: string
}) {
  return (
    <select
      aria-label={name}
      value={value}
      onChange={(e) => onSet(e.target.value as T)}
      onKeyDown={keepKeys}
      className={`${field} !pr-0 ${className}`}
    >
      {value === '' && <option value="">mixed</option>}
      {of.map((o) => (
        <option key={o.value} value={o.value} disabled={o.disabled}>
          {o.label}
        </option>
      ))}
    </select>
  )
}

export function Check({
  name,
  on,
  disabled,
  onSet,
}: {
  name: string
  on: boolean
  disabled?: boolean
  onSet: (v: boolean) => void
}) {
  return (
    <label className={`col-span-2 flex min-h-6 items-center gap-2 text-[12px] ${disabled ? 'opacity-45' : ''}`}>
      <input
        type="checkbox"
        checked={on}
        disabled={disabled}
        onChange={(e) => onSet(e.target.checked)}
        className="h-4 w-4 shrink-0 accent-brass-600"
      />
      {keyed(name)}
    </label>
  )
}

/** How much of something is done: 0..1. */
export function Progress({ name, share, className = '' }: { name: string; share: number; className?: string }) {
  return (
    <span
      className={`block h-[6px] overflow-hidden rounded bg-sailcloth-300 ${className}`}
      role="progressbar"
      aria-label={name}
      aria-valuenow={Math.round(share * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
    >
      <span className="block h-full bg-brass-600" style={{ width: `${share * 100}%` }} />
    </span>
  )
}

/** A section of the inspector that folds; folded says how it is until it is pressed. */
export function Section({ title, children, folded = false }: { title: string; children: ReactNode; folded?: boolean }) {
  const [own, setOpen] = useState<boolean | null>(null)
  const open = own ?? !folded
  const id = useId()
  const gone = useGoneTo()
  useLayoutEffect(() => {
    if (gone) setOpen(true)
  }, [gone])
  return (
    <section className="border-b border-sailcloth-300 px-4 pb-2.5 pt-1.5" aria-labelledby={id}>
      <h2 id={id}>
        <button
          type="button"
          className={clsx(
            '-mx-1 flex h-[26px] w-[calc(100%+8px)] items-center justify-between rounded-md px-1',
            'text-[13px] font-semibold',
          )}
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          {title}
          <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden className={open ? '' : '-rotate-90'}>
            <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
          </svg>
        </button>
      </h2>
      {open && <div>{children}</div>}
    </section>
  )
}

/** A panel over everything, closed by Escape or a press beside it. */
export function Sheet({
  title,
  onClose,
  children,
  wide,
}: {
  title: string
  onClose: () => void
  children: ReactNode
  wide?: boolean
}) {
  const ref = useRef<HTMLDivElement>(null)
  const id = useId()
  useEffect(() => {
    const before = document.activeElement as HTMLElement | null
    ref.current?.querySelector<HTMLElement>('[data-first]')?.focus()
    if (!ref.current?.contains(document.activeElement)) ref.current?.focus()
    return () => before?.focus()
  }, [])
  return (
    <div
      className="fixed inset-0 z-40 flex items-center justify-center bg-spruce-950/45"
      onPointerDown={(e) => e.target === e.currentTarget && onClose()}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') onClose()
        if (e.key === 'Tab') trap(e, ref.current)
      }}
    >
      <div
        ref={ref}
        role="dialog"
        aria-modal="true"
        aria-labelledby={id}
        tabIndex={-1}
        className={clsx(
          'max-h-[calc(100vh-48px)] overflow-auto focus:!outline-none rounded-md bg-paper',
          'shadow-[0_12px_40px_rgb(12_37_35/0.35)] thin-scroll',
          wide ? 'w-[860px]' : 'w-[560px]',
          'max-w-[calc(100vw-32px)]',
        )}
      >
        <div className="flex items-center justify-between border-b border-sailcloth-300 px-5 py-3">
          <h1 id={id} className="text-[16px] font-semibold">
            {title}
          </h1>
          <Sign name="Close" onClick={onClose} className="hover:bg-sailcloth-200">
            <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden>
              <path d="M1 1l10 10M11 1L1 11" stroke="currentColor" strokeWidth="1.5" />
            </svg>
          </Sign>
        </div>
        {children}
      </div>
    </div>
  )
}

function trap(e: React.KeyboardEvent, root: HTMLElement | null) {
  const all = root?.querySelectorAll<HTMLElement>(
    'button:not(:disabled), input:not(:disabled), select, a[href], textarea',
  )
  if (!all?.length) return
  const [first, last] = [all[0], all[all.length - 1]]
  if (e.shiftKey && document.activeElement === first) {
    e.preventDefault()
    last.focus()
  }
  if (!e.shiftKey && document.activeElement === last) {
    e.preventDefault()
    first.focus()
  }
}
