// Hitches of what is selected: thin lines from what a move hangs on to its begin, and to its end where that is live.
import type { Bar, Film } from '../engine/types'
import type { Drawing } from './hitching'
import { laneTop, px, rowHeight, type Placed, type Scale } from './scale'

interface Line {
  key: string
  x0: number
  y0: number
  x1: number
  y1: number
  live: boolean
  tie?: boolean
}

export function Hitches({
  placed,
  height,
  selection,
  moves,
  drawing,
  film,
  scale,
}: {
  placed: Placed[]
  height: number
  selection: string[]
  moves: string[]
  drawing: Drawing | null
  film: Film
  scale: Scale
}) {
  const lines = linesOf(placed, selection, moves, film, scale)
  if (!lines.length && !drawing) return null
  return (
    <svg
      className="pointer-events-none absolute left-0 top-0"
      width={scale.width}
      height={Math.max(height, 1)}
      aria-hidden
      data-hitches
    >
      {lines.map((l) =>
        l.tie ? (
          <Tie key={l.key} line={l} />
        ) : (
          <g key={l.key} fill="none" stroke="#4C9AB8" strokeWidth="1.4">
            <path d={curve(l.x0, l.y0, l.x1, l.y1)} strokeDasharray={l.live ? '4 3' : undefined} />
            <circle cx={l.x0} cy={l.y0} r="2.4" fill="#4C9AB8" />
            <circle cx={l.x1} cy={l.y1} r="2.4" fill="#0C2523" />
          </g>
        ),
      )}
      {drawing && (
        <g fill="none" stroke="#F0DDB2" strokeWidth="1.8">
          <path d={curve(drawing.x0, drawing.y0, drawing.x, drawing.y)} />
          <circle cx={drawing.x} cy={drawing.y} r="3" fill="#F0DDB2" />
        </g>
      )}
    </svg>
  )
}

/** A tie: two lines beside each other, from the driver's row to what it drives. */
function Tie({ line: l }: { line: Line }) {
  const d = curve(l.x0, l.y0, l.x1, l.y1)
  return (
    <g fill="none" data-tie>
      <path d={d} stroke="#F0DDB2" strokeWidth="4" />
      <path d={d} stroke="#0C2523" strokeWidth="1.6" />
      <path d={`M${l.x0 - 4} ${l.y0}l4 -4l4 4l-4 4Z`} fill="#F0DDB2" />
      <path d={`M${l.x1 - 4} ${l.y1}l4 -4l4 4l-4 4Z`} fill="#0C2523" stroke="#F0DDB2" strokeWidth="1.4" />
    </g>
  )
}

const curve = (x0: number, y0: number, x1: number, y1: number) =>
  `M${x0} ${y0}C${x0} ${(y0 + y1) / 2} ${x1} ${(y0 + y1) / 2} ${x1} ${y1}`

function linesOf(placed: Placed[], selection: string[], moves: string[], film: Film, scale: Scale): Line[] {
  const at = new Map<string, { bar: Bar; y: number }>()
  for (const p of placed) for (const b of p.row.bars) at.set(b.move, { bar: b, y: laneTop(p, b.lane) + rowHeight / 2 })
  const chosen = (id: string) => moves.includes(id)
  const out: Line[] = []
  for (const p of placed) {
    for (const b of p.row.bars) {
      const shown = moves.length
        ? chosen(b.move) || chosen(b.of) || chosen(b.endOf)
        : selection.includes(p.row.thread) || b.drivers?.some((t) => selection.includes(t))
      if (!shown) continue
      const y1 = at.get(b.move)!.y
      for (const thread of b.drivers ?? []) {
        const driver = placed.find((q) => q.row.thread === thread)
        if (!driver) continue
        const own = driver.row.bars.find((o) => o.scene === b.scene && o.kind === 'path')
        out.push({
          key: `${b.move}t${thread}`,
          x0: px(scale, own ? (own.begin + own.end) / 2 : b.begin),
          y0: own ? laneTop(driver, own.lane) + rowHeight / 2 : driver.top + rowHeight / 2,
          x1: px(scale, b.begin + ((b.end - b.begin) * (b.drivers!.indexOf(thread) + 1)) / (b.drivers!.length + 1)),
          y1,
          live: true,
          tie: true,
        })
      }
      const from = at.get(b.of)
      if (from && b.endOf === '')
        out.push({
          key: `${b.move}b`,
          x0: px(scale, b.when === 'ends' ? from.bar.end : from.bar.begin),
          y0: from.y,
          x1: px(scale, b.begin),
          y1,
          live: false,
        })
      const end = at.get(b.endOf)
      if (end)
        out.push({
          key: `${b.move}e`,
          x0: px(scale, b.endWhen === 'ends' ? end.bar.end : end.bar.begin),
          y0: end.y,
          x1: px(scale, b.end),
          y1,
          live: true,
        })
      const cue = b.cue ? film.scenes[b.scene]?.cues.find((q) => q.id === b.cue) : undefined
      if (cue)
        out.push({ key: `${b.move}c`, x0: px(scale, cue.passed), y0: 0, x1: px(scale, b.begin), y1, live: false })
    }
  }
  return out
}
