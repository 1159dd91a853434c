// Pairs: which layers of a scene go on from which of the scene before. Both scenes side by side, a line for each pair.
import { clsx } from 'clsx'
import { useMemo, useState } from 'react'
import { engine } from '../engine/engine'
import type { Mate } from '../engine/types'
import { run } from '../project/commands'
import { set, useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { Button } from '../ui/controls'
import { counted } from '../words'
import { middleOf, ScenePage, type Placing } from './ScenePage'

const wide = 352 // px of a page
const between = 116 // px, where the lines go

/** What has no pair, and is not part of a group that has none. */
const loner = (m: Mate) => !m.paired && !m.inside

export function PairsSheet() {
  const film = useDesk((d) => d.film)!
  const version = useDesk((d) => d.version)
  const scene = useDesk((d) => d.scene)
  const pairs = useMemo(() => engine.pairsInto(scene), [scene, version])
  const [drag, setDrag] = useState<{ from: Mate; side: 0 | 1; x: number; y: number } | null>(null)
  const [over, setOver] = useState<string | null>(null) // thread that is pointed at
  const join = (list: { from: string; to: string }[]) =>
    run('thread.join', { scene: pairs.scene, pairs: list.map(({ from, to }) => ({ from, to })) })
  const scale = Math.min(wide / film.width, 330 / film.height)
  const placing: Placing = { scale, w: film.width * scale, h: film.height * scale }
  const rightAt = placing.w + between
  const both = pairs.before.filter((m) => m.paired)
  const lines = both.flatMap((a) => {
    const b = pairs.after.find((m) => m.thread === a.thread)
    // Of a group that is paired, the parts go along: a line for each would hide the others.
    return b && (a.depth === 0 || b.depth === 0 || a.thread === over) ? [{ a, b }] : []
  })
  const loose = { before: pairs.before.filter(loner), after: pairs.after.filter(loner) }
  const nameOf = (list: Mate[], thread: string) => list.find((m) => m.thread === thread)?.name ?? ''
  const drop = (to: Mate, side: 0 | 1) => {
    if (!drag || drag.side === side) return
    const [a, b] = side === 1 ? [drag.from, to] : [to, drag.from]
    join([{ from: a.thread, to: b.thread }])
  }
  const from = drag && middleOf(drag.from, placing)
  return (
    <Sheet title="Pairs" wide onClose={() => set({ sheet: 'none' })}>
      <div className="px-5 pb-4 pt-3" data-pairs>
        <p className="mb-2 max-w-150 text-[0.75rem] text-ink-600">
          What goes on from “{pairs.from}” in “{pairs.to}”. Drag from a layer of one scene to one of the other to join
          them; press a line to cut it.
        </p>
        <div
          className="relative touch-none select-none"
          style={{ width: 2 * placing.w + between, height: placing.h + 20 }}
          onPointerMove={(e) => {
            const r = e.currentTarget.getBoundingClientRect()
            if (drag) setDrag({ ...drag, x: e.clientX - r.left, y: e.clientY - r.top })
          }}
          onPointerUp={() => setDrag(null)}
          onPointerLeave={() => setDrag(null)}
        >
          {([0, 1] as const).map((side) => (
            <ScenePage
              key={side}
              scene={scene - 1 + side}
              name={side === 0 ? pairs.from : pairs.to}
              left={side === 0 ? 0 : rightAt}
              placing={placing}
              mates={side === 0 ? pairs.before : pairs.after}
              over={over}
              onOver={setOver}
              onGrab={(m, e) => {
                const r = e.currentTarget.closest('[data-pairs] > .relative')!.getBoundingClientRect()
                setDrag({ from: m, side, x: e.clientX - r.left, y: e.clientY - r.top })
              }}
              onDrop={(m) => drop(m, side)}
            />
          ))}
          <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible">
            {lines.map(({ a, b }) => {
              const [p, q] = [middleOf(a, placing), middleOf(b, placing)]
              const d = `M${p.x} ${p.y}L${q.x + rightAt} ${q.y}`
              const cut = () => run('thread.cut', { threads: [a.thread] })
              return (
                <g
                  key={a.thread}
                  role="button"
                  tabIndex={0}
                  aria-label={`Cut “${b.name}” from the scene before`}
                  data-pair={a.thread}
                  className="group pointer-events-auto cursor-pointer focus:outline-none"
                  onPointerEnter={() => setOver(a.thread)}
                  onPointerLeave={() => setOver(null)}
                  onClick={cut}
                  onKeyDown={(e) => {
                    if (e.key === 'Enter' || e.key === 'Delete') cut()
                  }}
                >
                  <path d={d} stroke="transparent" strokeWidth="9" />
                  <path
                    d={d}
                    className={clsx(
                      'group-hover:stroke-coral-700 group-focus-visible:stroke-coral-700',
                      over === a.thread ? 'stroke-brass-600' : 'stroke-spruce-700',
                    )}
                    strokeWidth={over === a.thread ? 2.5 : 1.25}
                    opacity={over && over !== a.thread ? 0.35 : 0.9}
                  />
                  <circle cx={p.x} cy={p.y} r="3" className="fill-spruce-700" />
                  <circle cx={q.x + rightAt} cy={q.y} r="3" className="fill-spruce-700" />
                </g>
              )
            })}
            {from && (
              <path
                d={`M${from.x + (drag.side === 1 ? rightAt : 0)} ${from.y}L${drag.x} ${drag.y}`}
                className="stroke-brass-600"
                strokeWidth="2.5"
                strokeDasharray="6 4"
              />
            )}
          </svg>
        </div>
        <h2 className="mb-1.5 mt-3 flex h-7 items-center gap-3 font-semibold">
          {pairs.offers.length > 0 ? 'Could go on as' : 'Not paired'}
          {pairs.offers.length > 1 && (
            <Button className="!h-6 text-[0.75rem]" onClick={() => join(pairs.offers.flatMap((o) => [o, ...o.parts]))}>
              Join all {pairs.offers.length}
            </Button>
          )}
        </h2>
        <ul className="grid gap-1 text-[0.75rem]">
          {pairs.offers.map((o) => (
            <li key={o.to} className="flex h-7 items-center gap-2" data-offered={o.to}>
              <span className="w-80 shrink-0 truncate">
                {nameOf(pairs.before, o.from)} → {nameOf(pairs.after, o.to)}
              </span>
              <span className="flex-1 text-ink-600">
                {o.why}
                {o.parts.length > 0 && `, with ${counted(o.parts.length, 'part')}`}
              </span>
              <Button className="!h-6" onClick={() => join([o, ...o.parts])}>
                Join
              </Button>
            </li>
          ))}
          {loose.after
            .filter((m) => !pairs.offers.some((o) => o.to === m.thread))
            .map((m) => (
              <li key={m.id} className="flex h-7 items-center gap-2" data-loose={m.thread}>
                <span className="w-60 shrink-0 truncate">{m.name}</span>
                <span className="shrink-0 text-ink-600">goes on from</span>
                <Choice
                  name={`What “${m.name}” goes on from`}
                  className="w-60"
                  value=""
                  of={[
                    { value: '', label: 'nothing: it is new here' },
                    ...loose.before.map((a) => ({ value: a.thread, label: a.name })),
                  ]}
                  onSet={(from) => from && join([{ from, to: m.thread }])}
                />
              </li>
            ))}
        </ul>
        <p className="mt-2 text-[0.75rem] text-ink-600">
          {counted(both.length, 'pair')}
          {loose.before.length > 0 && `; only in “${pairs.from}”: ${loose.before.map((m) => m.name).join(', ')}`}
        </p>
      </div>
    </Sheet>
  )
}
