// For who does not see the screen: what was done, said by a live region.
import { useEffect, useState } from 'react'
import { tell, useDesk, type Desk } from '../project/desk'
import { filmTime } from '../time'
import { notice } from '../words'

/** The last thing that was done; what comes within a moment takes the place of what came before it. */
export function Spoken() {
  const told = useDesk((d) => d.told)
  useEffect(
    () =>
      useDesk.subscribe((d, was) => {
        if (d.playing !== was.playing)
          tell(d.playing ? notice('told.playing') : notice('told.paused', filmTime(d.moment.time)))
        else if (d.selection !== was.selection || d.moves !== was.moves) tell(chosen(d))
      }),
    [],
  )
  const [said, setSaid] = useState('')
  useEffect(() => {
    const t = setTimeout(() => setSaid(told), 250)
    return () => clearTimeout(t)
  }, [told])
  return (
    <p role="status" aria-live="polite" aria-label="What was done" className="sr-only" data-told>
      {said}
    </p>
  )
}

function chosen(d: Desk): string {
  if (d.moves.length > 1) return notice('told.moves', d.moves.length)
  const row = d.rows.find((r) => r.bars.some((b) => b.move === d.moves[0]))
  if (row) return notice('told.move', row.bars.find((b) => b.move === d.moves[0])!.name, row.name)
  if (d.selection.length === 0) return notice('told.nothing')
  if (d.selection.length > 1) return notice('told.many', d.selection.length)
  return notice('told.one', d.rows.find((r) => r.thread === d.selection[0])?.name ?? '')
}
