// Deleting moves, or layers with moves, closes the gaps they leave in runs: what begins earlier then is said.
import { notice } from '../words'
import { desk, say } from './desk'

function begins(): Map<string, number> {
  const { film, rows } = desk()
  return new Map(
    rows.flatMap((r) =>
      r.bars.map((b) => [b.move, b.begin - film!.scenes[b.scene].start - film!.scenes[b.scene].into] as const),
    ),
  )
}

/** Deletes something, and says how many moves begin earlier for it. */
export function closing(deletes: () => boolean): boolean {
  const before = begins()
  if (!deletes()) return false
  const n = [...begins()].filter(([move, at]) => (before.get(move) ?? at) > at).length
  if (n > 0) say(n === 1 ? notice('run.closed-one') : notice('run.closed', n))
  return true
}
