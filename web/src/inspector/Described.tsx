// Fields made from what the core says of them: name, unit, range, choices, and the control they are set by.
import clsx from 'clsx'
import type { Field } from '../engine/types'
import { Choice } from '../ui/Choice'
import { ColourField } from '../ui/ColourField'
import { Label } from '../ui/controls'
import { NumberField } from '../ui/NumberField'
import { DirectionField } from './DirectionField'
import { Signs } from './Signs'

/** What a field shows: its value, undefined where there is none, null where several differ. */
export type Value = number | string | boolean | number[] | null | undefined

/** The value at a path of something; undefined: there is none. */
export function valueAt(of: unknown, path: string): Value {
  let v = of
  for (const k of path.split('.')) v = typeof v === 'object' && v !== null ? Reflect.get(v, k) : undefined
  return isValue(v) ? v : undefined
}

const isValue = (v: unknown): v is number | string | boolean | number[] =>
  typeof v === 'number' ||
  typeof v === 'string' ||
  typeof v === 'boolean' ||
  (Array.isArray(v) && v.every((n) => typeof n === 'number'))

/** The change that gives the value at a path another one. */
export function changeAt(path: string, value: unknown): object {
  return path.split('.').reduceRight<unknown>((v, k) => ({ [k]: v }), value) as object
}

/**
 * A field with its label, in a grid of labels and fields. value is null where several differ; onBy changes each by a
 * sum or a factor.
 */
export function DescribedField({
  field: f,
  value,
  words = f.words,
  bare,
  moves = [],
  onSet,
  onBy,
}: {
  field: Field
  value: Value
  words?: string
  bare?: boolean // without its label
  moves?: { move: string; words: string }[] // that a field may name
  onSet: (v: unknown) => void
  onBy?: (how: '+' | '*', by: number) => void
}) {
  if (value === undefined && isValue(f.usual)) value = f.usual
  if (f.control === 'number') {
    const shown = typeof value === 'number' ? Math.round(value * f.times * 1000) / 1000 : value === null ? null : 0
    return (
      <NumberField
        label={bare ? undefined : words}
        name={f.name}
        unit={f.unit}
        digits={f.digits}
        step={f.step}
        min={f.least}
        max={f.most}
        value={shown}
        onSet={(v) => {
          const to = f.whole ? Math.round(v) : v / f.times
          onSet(to === 0 && f.clears ? null : to)
        }}
        onBy={onBy && ((how, by) => onBy(how, how === '+' ? by / f.times : by))}
      />
    )
  }
  if (f.control === 'direction') {
    return (
      <>
        <Label>{words}</Label>
        <DirectionField name={f.name} value={value === null ? null : Number(value ?? 0)} four={f.four} onSet={onSet} />
      </>
    )
  }
  if (f.control === 'colour') {
    return (
      <>
        {!bare && <Label>{words}</Label>}
        <ColourField
          name={f.name}
          plain
          value={typeof value === 'string' ? { colour: value } : null}
          onSet={(v) => v && onSet(v.colour)}
        />
      </>
    )
  }
  if (f.control === 'list') return <ListField field={f} words={words} value={value} onSet={onSet} />
  if (f.control === 'move' || f.control === 'layer') {
    if (!moves.length && !value) return null
    const none = f.control === 'move' ? 'its own way' : 'none yet'
    const gone =
      value && !moves.some((m) => m.move === value) ? [{ value: String(value), label: 'one that is gone' }] : []
    return (
      <>
        <Label>{words}</Label>
        <Choice
          name={f.name}
          value={value === null ? '' : String(value || 'none')}
          of={[{ value: 'none', label: none }, ...moves.map((m) => ({ value: m.move, label: m.words })), ...gone]}
          onSet={(v) => onSet(v === 'none' ? null : v)}
        />
      </>
    )
  }
  // The first that is as it is; a value of its own is the last.
  const at = f.options.findIndex((o) => (o.value ?? false) === (value ?? false))
  const keys = f.options.map((o) => String(o.value ?? 'none'))
  const now = value === null ? '' : keys[at < 0 ? keys.length - 1 : at]
  const choose = (key: string) => onSet(f.options[keys.indexOf(key)].value)
  return (
    <>
      {!bare && <Label>{words}</Label>}
      {f.control === 'signs' ? (
        <Signs name={f.name} value={now} of={f.options.map((o, i) => [keys[i], o.words, o.sign])} onSet={choose} />
      ) : (
        <Choice
          name={f.name}
          value={now}
          of={f.options.map((o, i) => ({ value: keys[i], label: o.words }))}
          onSet={choose}
        />
      )}
    </>
  )
}

/** A list of numbers, typed one after another. */
function ListField({
  field: f,
  words,
  value,
  onSet,
}: {
  field: Field
  words: string
  value: Value
  onSet: (v: unknown) => void
}) {
  const shown = Array.isArray(value) ? value.join(' ') : ''
  const done = (text: string) => {
    const list = text
      .split(/[\s,;]+/)
      .filter(Boolean)
      .map(Number)
    if (text.trim() !== shown && list.every((n) => !Number.isNaN(n))) onSet(list.length ? list : null)
  }
  return (
    <>
      <Label>{words}</Label>
      <input
        key={shown}
        aria-label={f.name}
        title={f.name}
        defaultValue={shown}
        placeholder={`as the others, ${f.unit}`}
        className={clsx(
          'h-6.5 w-full rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2 font-mono text-[0.75rem]',
          'placeholder:text-ink-600',
        )}
        onBlur={(e) => done(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === 'Enter') done(e.currentTarget.value)
          if (e.key === 'Escape') e.currentTarget.value = shown
          e.stopPropagation()
        }}
      />
    </>
  )
}
