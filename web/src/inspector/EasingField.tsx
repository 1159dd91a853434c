// An easing by name, or as CSS writes it.
import { useState } from 'react'
import { Choice } from '../ui/Choice'
import { TextField } from '../ui/TextField'

const known = [
  { value: 'linear', label: 'Even' },
  { value: 'ease', label: 'Soft' },
  { value: 'ease-out', label: 'Slows down' },
  { value: 'ease-in', label: 'Speeds up' },
  { value: 'ease-in-out', label: 'Both' },
  { value: 'cubic-bezier(0.3,1.5,0.6,1)', label: 'Overshoots' },
  { value: 'steps(8,jump-end)', label: 'Eight steps' },
]

/** plain is a choice in front of the others: no easing of its own. */
export function EasingField({
  name,
  value,
  onSet,
  plain,
}: {
  name: string
  value: string
  onSet: (v: string) => void
  plain?: { value: string; label: string }
}) {
  const [own, setOwn] = useState(false)
  const offered = plain ? [plain, ...known] : known
  const named = value === '' || offered.some((k) => k.value === value) // nothing: several differ
  return (
    <div className="grid gap-1">
      <Choice
        name={name}
        value={named && !own ? value : 'own'}
        of={[...offered, { value: 'own', label: 'Own curve …' }]}
        onSet={(v) => {
          setOwn(v === 'own')
          if (v !== 'own') onSet(v)
        }}
      />
      {(own || !named) && (
        <TextField
          name={`${name}, as CSS`}
          value={value}
          onSet={(v) => {
            onSet(v)
            setOwn(false)
          }}
          className="font-mono text-[0.6875rem]"
        />
      )}
    </div>
  )
}
