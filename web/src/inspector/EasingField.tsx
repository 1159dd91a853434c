// An easing by name, as a curve that is dragged, or as CSS writes it.
import { useMemo, useState } from 'react'
import { engine } from '../engine/engine'
import { grouped } from '../project/steps'
import { Choice } from '../ui/Choice'
import { TextField } from '../ui/TextField'
import { EasingCurve, EasingSign } from './EasingCurve'

const known = [
  { value: 'linear', label: 'Even' },
  { value: 'ease', label: 'Soft' },
  { value: 'ease-out', label: 'Slows down' },
  { value: 'ease-in', label: 'Speeds up' },
  { value: 'ease-in-out', label: 'Both' },
  { value: 'cubic-bezier(0.3,1.5,0.6,1)', label: 'Overshoots' },
  { value: 'steps(8,jump-end)', label: 'Eight steps' },
]

/** plain is a choice in front of the others: no easing of its own; shown is what is drawn for it. */
export function EasingField({
  name,
  value,
  onSet,
  plain,
  shown = '',
}: {
  name: string
  value: string
  onSet: (v: string) => void
  plain?: { value: string; label: string }
  shown?: string
}) {
  const [open, setOpen] = useState(false)
  const offered = plain ? [plain, ...known] : known
  const named = value === '' || offered.some((k) => k.value === value) // nothing: several differ
  const css = value === '' || value === plain?.value ? shown : value
  const curve = useMemo(() => (css ? engine.easing(css) : null), [css])
  // A drag, or arrow keys that follow one another, are one step.
  const drag = (v: string) => grouped(`easing ${name}`, () => onSet(v), 2000)
  return (
    <div className="grid gap-1">
      <div className="flex items-center gap-1">
        <Choice
          name={name}
          className="min-w-0 flex-1"
          value={named ? value : 'own'}
          of={[...offered, { value: 'own', label: 'Own curve …' }]}
          onSet={(v) => {
            setOpen(v === 'own')
            if (v !== 'own') onSet(v)
          }}
        />
        <button
          type="button"
          aria-label={`${name}: the curve`}
          aria-expanded={open}
          title={open ? 'Fold the curve' : 'The curve, to be dragged or typed'}
          onClick={() => setOpen(!open)}
          className={`flex h-7 w-7 shrink-0 items-center justify-center rounded-md ${
            open ? 'bg-brass-200' : 'hover:bg-sailcloth-200'
          }`}
        >
          <EasingSign curve={curve} />
        </button>
      </div>
      {open && (
        <>
          {curve && <EasingCurve name={name} curve={curve} onSet={drag} />}
          <TextField name={`${name}, as CSS`} value={css} onSet={onSet} className="font-mono text-[0.6875rem]" />
        </>
      )}
    </div>
  )
}
