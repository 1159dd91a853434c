// On or off.
import { Field, Label, Switch } from '@headlessui/react'
import { clsx } from 'clsx'
import type { ReactNode } from 'react'
import { keyed } from './keymap'

export function Check({
  name,
  on,
  disabled,
  children,
  className = 'col-span-2',
  onSet,
}: {
  name: string
  on: boolean
  disabled?: boolean
  children?: ReactNode // what stands there in place of the name
  className?: string
  onSet: (v: boolean) => void
}) {
  return (
    <Field disabled={disabled} className={clsx('flex min-h-6 items-center gap-2 text-[0.75rem]', className)}>
      <Switch
        checked={on}
        onChange={onSet}
        aria-label={children ? name : undefined}
        className="group flex h-6 w-6.5 shrink-0 items-center data-disabled:opacity-45"
      >
        <span
          className={clsx(
            'flex h-3.5 w-6.5 items-center rounded-full border border-ink-500 bg-paper p-[2px]',
            'group-data-checked:border-brass-700 group-data-checked:bg-brass-600',
          )}
        >
          <span
            className={clsx(
              'h-2 w-2 rounded-full bg-ink-600 group-data-checked:translate-x-[12px]',
              'group-data-checked:bg-paper',
            )}
          />
        </span>
      </Switch>
      <Label className="data-disabled:opacity-45">{children ?? keyed(name)}</Label>
    </Field>
  )
}
