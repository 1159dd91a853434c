// A track to slide a number along, with a field for it.
import { useRef, useState } from 'react'
import { endRehearsal, rehearse } from '../project/commands'
import { NumberField } from './NumberField'
import { keepKeys } from './typing'

/** What it is slid to is shown, and set when it is let go of. */
export function Slide({
  label,
  name,
  value,
  unit,
  min,
  max,
  onSet,
}: {
  label: string
  name: string
  value: number | null
  unit: string
  min: number
  max: number
  onSet: (v: number) => void
}) {
  const [slid, setSlid] = useState<number | null>(null)
  const now = useRef<number | null>(null)
  const slide = (v: number | null) => {
    now.current = v
    setSlid(v)
  }
  const done = () => {
    const v = now.current
    if (v === null) return
    onSet(v)
    endRehearsal()
    slide(null)
  }
  return (
    <>
      <span className="text-[0.75rem] text-ink-600">{label}</span>
      <input
        type="range"
        aria-label={`${name}, slid`}
        className="slide"
        data-middle={min < 0 || undefined}
        min={min}
        max={max}
        value={slid ?? value ?? 0}
        onChange={(e) => {
          const v = Number(e.target.value)
          slide(v)
          rehearse(() => onSet(v), true)
        }}
        onPointerUp={done}
        onKeyUp={done}
        onBlur={done}
        onKeyDown={(e) => {
          keepKeys(e)
          if (e.key !== 'Escape' || now.current === null) return
          slide(null)
          endRehearsal()
        }}
      />
      <NumberField name={name} unit={unit} min={min} max={max} value={slid ?? value} onSet={onSet} />
    </>
  )
}
