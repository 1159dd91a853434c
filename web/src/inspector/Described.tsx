// Fields made from what the core says of them: name, unit, range, choices, and the control they are set by.
import type { Field } from '../engine/types'
import { Choice } from '../ui/Choice'
import { Label } from '../ui/controls'
import { NumberField } from '../ui/NumberField'
import { DirectionField } from './DirectionField'
import { Signs } from './Signs'

/** What a field shows: its value, undefined where there is none, null where several differ. */
export type Value = number | string | boolean | null | undefined

/** The value at a path of something; undefined: there is none. */
export function valueAt(of: unknown, path: string): Value {
  let v = of
  for (const k of path.split('.')) v = typeof v === 'object' && v !== null ? Reflect.get(v, k) : undefined
  return typeof v === 'number' || typeof v === 'string' || typeof v === 'boolean' ? v : undefined
}

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
  onSet,
  onBy,
}: {
  field: Field
  value: Value
  words?: string
  bare?: boolean // without its label
  onSet: (v: unknown) => void
  onBy?: (how: '+' | '*', by: number) => void
}) {
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
        <DirectionField
          name={f.name}
          value={value === null ? null : Number(value ?? 0)}
          four={f.four}
          onSet={(v) => onSet(v || null)}
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
