// Tapping along: while the film plays each tap sets the begin of the next selected move, in the order they begin in.
import { run } from '../project/commands'
import { desk, useDesk } from '../project/desk'

let taps: { move: string; at: number }[] = []
let order: string[] = []
let unhear = () => {}

/** The next of the selected moves begins now. */
export function tap() {
  const { playing, moves, rows, moment } = desk()
  if (!playing || !moves.length) return
  if (!taps.length) {
    order = rows
      .flatMap((r) => r.bars)
      .filter((b) => moves.includes(b.move))
      .sort((a, b) => a.begin - b.begin)
      .map((b) => b.move)
    unhear = useDesk.subscribe((d) => {
      if (!d.playing) finish()
    })
  }
  if (!order[taps.length]) return
  taps.push({ move: order[taps.length], at: Math.round(moment.time) })
  if (taps.length === order.length) finish()
}

/** What was tapped is set, as one step. */
function finish() {
  unhear()
  unhear = () => {}
  const list = taps
  taps = []
  if (list.length) run('moves.tapped', { taps: list })
}
