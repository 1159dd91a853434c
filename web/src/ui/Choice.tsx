// One of a list.
import { clsx } from 'clsx'
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/react'
import { useId, useRef } from 'react'
import { field, giveBack, keepKeys } from './typing'

export function Choice<T extends string>({
  name,
  value,
  of,
  disabled,
  onSet,
  className = '',
}: {
  name: string
  value: T | ''
  of: { value: T; label: string; disabled?: boolean }[]
  disabled?: boolean
  onSet: (v: T) => void
  className?: string
}) {
  const id = useId()
  const button = useRef<HTMLButtonElement>(null)
  // A field that was pressed meanwhile keeps the keyboard.
  const back = () => {
    const has = document.activeElement
    if (button.current && (has === button.current || has === document.body)) giveBack(button.current)
  }
  const choose = (v: T | '') => {
    if (v !== value && of.some((o) => o.value === v)) onSet(v as T)
    // Who chose by pointer goes on with the keys of the page; who chose by keys stays here.
    if (!('keys' in document.documentElement.dataset)) setTimeout(back, 60)
  }
  return (
    <Listbox value={value} onChange={choose} disabled={disabled}>
      <ListboxButton
        aria-labelledby={`${id}n ${id}v`}
        data-choice={name}
        ref={button}
        onKeyDown={(e) => {
          keepKeys(e)
          if (e.key === 'Escape') giveBack(e.currentTarget)
        }}
        className={clsx(field, 'relative flex items-center justify-between gap-1 !pr-1.5 text-left', className)}
      >
        <span id={`${id}n`} className="sr-only">
          {name}
        </span>
        <span id={`${id}v`} className="truncate">
          {of.find((o) => o.value === value)?.label ?? (value === '' ? 'mixed' : value)}
        </span>
        <svg width="9" height="9" viewBox="0 0 10 10" aria-hidden className="shrink-0 text-ink-600">
          <path d="M1 3l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.5" />
        </svg>
      </ListboxButton>
      <ListboxOptions
        anchor={{ to: 'bottom start', gap: 2, padding: 6 }}
        modal={false}
        aria-label={name}
        onKeyDown={keepKeys}
        className={clsx(
          'thin-scroll z-50 min-w-(--button-width) rounded-md border border-sailcloth-300 bg-paper p-1',
          'text-[0.8125rem]',
          'text-ink-900 shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:!outline-none',
        )}
      >
        {of.map((o) => (
          <ListboxOption
            key={o.value}
            value={o.value}
            disabled={o.disabled}
            data-value={o.value}
            className={clsx(
              'flex min-h-6 cursor-default items-center gap-2 whitespace-nowrap rounded-md px-2',
              'data-disabled:opacity-45 data-focus:bg-brass-200 data-selected:font-semibold',
            )}
          >
            {o.label}
          </ListboxOption>
        ))}
      </ListboxOptions>
    </Listbox>
  )
}
