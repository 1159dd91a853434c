// One of a row of signs: kinds of fill, sides, ends and corners of a stroke, which are better shown than said.
import { Radio, RadioGroup } from '@headlessui/react'
import { drawings } from './drawings'

export function Signs({
  name,
  value,
  of,
  onSet,
}: {
  name: string
  value: string | null
  of: readonly (readonly [string, string, string?])[]
  onSet: (v: string) => void
}) {
  return (
    <RadioGroup
      value={value}
      onChange={(v) => v !== null && onSet(v)}
      aria-label={name}
      className="inline-flex rounded-md border border-sailcloth-500"
    >
      {of.map(([v, label, drawing]) => (
        <Radio
          key={v}
          value={v}
          aria-label={label}
          title={label}
          className={
            'flex h-6 w-6 items-center justify-center rounded-md hover:bg-sailcloth-200 data-checked:bg-brass-200'
          }
        >
          {drawings[drawing ?? v]}
        </Radio>
      ))}
    </RadioGroup>
  )
}
