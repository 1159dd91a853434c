// A cell of a table, edited in place: Enter keeps, Shift and Enter breaks the line, Escape takes back.
import { field, giveBack, keepKeys, useTyped } from '../ui/typing'

export function Cell({
  name,
  value,
  head = false,
  onSet,
}: {
  name: string
  value: string
  head?: boolean
  onSet: (v: string) => void
}) {
  const [text, type, typed] = useTyped()
  const shown = text ?? value
  return (
    <textarea
      aria-label={name}
      rows={Math.min(4, shown.split('\n').length)}
      className={`${field} !h-auto min-h-6.5 resize-none !px-1.5 py-0.5 text-[0.75rem] ${head ? 'font-semibold' : ''}`}
      value={shown}
      onChange={(e) => type(e.target.value)}
      onBlur={() => {
        const v = typed.current
        type(null)
        if (v !== undefined && v !== null && v !== value) onSet(v)
      }}
      onKeyDown={(e) => {
        keepKeys(e)
        if (e.key === 'Escape') type(null)
        if ((e.key === 'Enter' && !e.shiftKey) || e.key === 'Escape') {
          e.preventDefault()
          e.currentTarget.blur()
          giveBack(e.currentTarget)
        }
      }}
    />
  )
}
