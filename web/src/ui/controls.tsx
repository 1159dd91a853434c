// Small controls that every part of the page uses.
import { clsx } from 'clsx'
import { keyed } from './keymap'
import type { ButtonHTMLAttributes, LabelHTMLAttributes } from 'react'

type Look = 'plain' | 'main' | 'quiet' | 'danger'

const looks: Record<Look, string> = {
  main: 'bg-spruce-900 text-foam-100 hover:bg-spruce-700 font-semibold border-spruce-900',
  plain: 'bg-paper border-sailcloth-500 text-ink-900 hover:bg-sailcloth-100 font-semibold',
  quiet: 'border-transparent text-ink-900 hover:bg-sailcloth-200',
  danger: 'bg-paper border-sailcloth-500 text-coral-700 hover:bg-sailcloth-100 font-semibold',
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
        'inline-flex h-6.5 items-center justify-center gap-1.5 rounded-md border px-3',
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
        'inline-flex h-6.5 w-6.5 shrink-0 items-center justify-center rounded-md',
        'disabled:opacity-40',
        className,
      )}
    >
      {children}
    </button>
  )
}

export function Label({ className = '', ...rest }: LabelHTMLAttributes<HTMLLabelElement>) {
  return <label {...rest} className={`text-[0.75rem] text-ink-600 ${className}`} />
}

/** How much of something is done: 0..1. */
export function Progress({ name, share, className = '' }: { name: string; share: number; className?: string }) {
  return (
    <span
      className={`block h-1.5 overflow-hidden rounded bg-sailcloth-300 ${className}`}
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
