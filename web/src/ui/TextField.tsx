// A field for a line of text.
import { field, giveBack, keepKeys, useTyped } from './typing'

export function TextField({
  name,
  value,
  onSet,
  className = '',
  clears = false,
}: {
  name: string
  value: string
  onSet: (v: string) => void
  className?: string
  clears?: boolean // it may be empty
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
        if (v !== undefined && v !== null && (v || clears) && v !== value) onSet(v)
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
