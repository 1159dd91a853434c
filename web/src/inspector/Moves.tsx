// Moves: what the selected layers do in time, one card each.
import { clsx } from 'clsx'
import { Trash2 } from 'lucide-react'
import { useEffect, useRef } from 'react'
import type { Move, Selected } from '../engine/types'
import { closing } from '../project/closing'
import { run } from '../project/commands'
import { desk, openGallery, set as setDesk, useDesk } from '../project/desk'
import { Section } from '../ui/Section'
import { Button, Sign } from '../ui/controls'
import { tints } from '../ui/tints'
import { MoveFields, SharedFields } from './MoveFields'
import { RunBar } from './RunBar'

export function Moves({ selected }: { selected: Selected[] }) {
  const chosen = useDesk((d) => d.moves)
  const one = selected.length === 1 ? selected[0] : null
  return (
    <Section title="Moves">
      {one?.moves.map((m) => (
        <Card
          key={m.id}
          move={m}
          tint={tints[(one.layer.tint ?? 0) & 7]}
          chosen={chosen.includes(m.id)}
          open={chosen.length === 1 && chosen[0] === m.id}
        />
      ))}
      {!one && <Kinds selected={selected} chosen={chosen} />}
      {chosen.length > 1 && <SharedFields ids={chosen} />}
      {one && one.moves.length === 0 && (
        <p className="mb-2 text-[0.75rem] text-ink-500">It stands still. Let it come, go, travel or spin.</p>
      )}
      {!one && <p className="mb-2 text-[0.75rem] text-ink-500">A move added here is given to each of them.</p>}
      <button
        type="button"
        aria-haspopup="true"
        className={clsx(
          'h-7 w-full rounded-md border border-dashed border-ink-500/50 font-semibold',
          'text-spruce-800 hover:bg-sailcloth-100',
        )}
        onClick={() => openGallery()}
      >
        Add a move
      </button>
    </Section>
  )
}

/** The moves of several layers by what they are: pressed, all of a kind are selected, and their shared fields shown. */
function Kinds({ selected, chosen }: { selected: Selected[]; chosen: string[] }) {
  const kinds = new Map<string, string[]>()
  for (const s of selected) for (const m of s.moves) kinds.set(m.name, [...(kinds.get(m.name) ?? []), m.id])
  if (kinds.size === 0) return null
  const now = new Set(chosen)
  return (
    <div className="mb-2 grid gap-1" role="group" aria-label="Moves by kind">
      {[...kinds].map(([name, ids]) => {
        const on = ids.every((id) => now.has(id)) && now.size > 0
        return (
          <button
            key={name}
            type="button"
            aria-pressed={on}
            title={on ? 'Let go of them' : 'Select all of them, to change them together'}
            onClick={(e) => {
              const rest = e.shiftKey || e.ctrlKey || e.metaKey ? chosen.filter((id) => !ids.includes(id)) : []
              const next = on ? rest : [...rest, ...ids]
              setDesk({ moves: next, purposely: true })
            }}
            className={clsx(
              'flex h-6.5 items-center justify-between rounded-md border px-2 text-left',
              on ? 'border-brass-400 bg-brass-200/55' : 'border-transparent bg-sailcloth-100 hover:bg-sailcloth-200',
            )}
          >
            <span className="font-semibold">{name}</span>
            <span className="text-[0.6875rem] text-ink-600">{ids.length === 1 ? 'one' : `${ids.length} of them`}</span>
          </button>
        )
      })}
    </div>
  )
}

function Card({ move, tint, open, chosen }: { move: Move; tint: string; open: boolean; chosen: boolean }) {
  // A bar that is pressed in the timeline shows its fields.
  const ref = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const column = ref.current?.parentElement?.closest('.thin-scroll')?.getBoundingClientRect()
    const card = ref.current?.getBoundingClientRect()
    if (open && card && column && (card.top < column.top || card.bottom > column.bottom))
      ref.current!.scrollIntoView({ block: 'start' })
  }, [open])
  return (
    <div
      ref={ref}
      data-card={open ? move.id : undefined}
      className={clsx(
        'mb-1.5 scroll-mt-2 rounded-md border',
        open
          ? 'border-brass-400 bg-brass-200/55'
          : chosen
            ? 'border-brass-400 bg-sailcloth-100'
            : 'border-transparent bg-sailcloth-100',
      )}
    >
      <div className="flex items-center">
        <button
          type="button"
          aria-expanded={open}
          className="flex min-w-0 flex-1 items-center gap-2 px-2 py-1.5 text-left"
          onClick={(e) => {
            const now = desk().moves
            if (e.shiftKey || e.ctrlKey || e.metaKey)
              setDesk({
                moves: now.includes(move.id) ? now.filter((m) => m !== move.id) : [...now, move.id],
                purposely: true,
              })
            else setDesk({ moves: open ? [] : [move.id], purposely: true })
          }}
        >
          <Curve move={move} tint={tint} />
          <span className="min-w-0">
            <span className="block font-semibold">{move.name}</span>
            <span className="block text-[0.6875rem] leading-tight text-ink-600">{move.words}</span>
          </span>
        </button>
        <Sign
          name={`Delete ${move.name}`}
          className="mr-1 text-ink-600 hover:bg-sailcloth-200"
          onClick={() => closing(() => run('move.delete', { move: move.id }))}
        >
          <Trash2 size={15} strokeWidth={1.5} />
        </Sign>
      </div>
      {open && (
        <>
          {move.run.length > 1 && <RunBar run={move.run} move={move.id} />}
          <MoveFields move={move} />
          <Actions move={move} />
        </>
      )}
    </div>
  )
}

/** What is done with a move as a whole. */
function Actions({ move }: { move: Move }) {
  const act = (word: string, title: string, onClick: () => void) => (
    <Button className="!h-7 !px-2 text-[0.75rem]" title={title} onClick={onClick}>
      {word}
    </Button>
  )
  const comes = move.kind === 'entrance' || move.kind === 'exit'
  return (
    <div className="flex flex-wrap gap-1 px-2 pb-2">
      {move.kind !== 'path' &&
        act('Replace …', `Another in place of ${move.name}: times and hitches stay`, () =>
          openGallery({ replaces: move.id }),
        )}
      {move.kind !== 'change' && act('Mirror', 'The other way', () => run('moves.mirror', { moves: [move.id] }))}
      {comes &&
        act(move.kind === 'entrance' ? 'As an exit' : 'As an entrance', 'The same the other way round in time', () =>
          run('moves.turn', { moves: [move.id] }),
        )}
      {move.tied &&
        act('Untie and keep these times', 'It goes by its own time again, when it does now', () =>
          run('untie', { move: move.id }),
        )}
      {act('Last values', 'As a move of this kind was last given', () => run('move.last', { move: move.id }))}
    </div>
  )
}

function Curve({ move, tint }: { move: Move; tint: string }) {
  const p = move.profile
  const d = p.map((v, i) => `L${((i / (p.length - 1)) * 30).toFixed(1)} ${(22 - v * 19).toFixed(1)}`).join('')
  return (
    <svg width="30" height="23" viewBox="0 0 30 23" className="shrink-0" aria-hidden>
      <path d={`M0 22${d}L30 22Z`} fill={tint} />
    </svg>
  )
}
