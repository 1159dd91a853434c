// Moves: what the selected layers do in time, one card each.
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import type { Move, Selected } from '../engine/types'
import { run } from '../project/commands'
import { set as setDesk, toRest, useDesk } from '../project/desk'
import { Choice, Label, NumberField, Section, Sign } from '../ui/controls'
import { tints } from '../timeline/tints'
import { EasingField } from './EasingField'

const kinds = [
  { label: 'Fade in', kind: 'entrance', effect: 'fade', says: 'entrance' },
  { label: 'Fade out', kind: 'exit', effect: 'fade', says: 'exit' },
  { label: 'At once, in', kind: 'entrance', effect: 'at-once', says: 'entrance' },
  { label: 'At once, out', kind: 'exit', effect: 'at-once', says: 'exit' },
  { label: 'Motion path', kind: 'path', effect: 'along', says: 'a quarter page to the right, then drag its ends' },
  { label: 'Spin', kind: 'loop', effect: 'spin', says: 'loop, whole scene' },
]

export function Moves({ selected }: { selected: Selected[] }) {
  const [open, setOpen] = useState<string | null>(null)
  const threads = selected.map((s) => s.layer.thread)
  const one = selected.length === 1 ? selected[0] : null
  return (
    <Section title="Moves">
      {one?.moves.map((m) => (
        <Card key={m.id} move={m} tint={tints[(one.layer.tint ?? 0) & 7]} open={open === m.id} onOpen={() => setOpen(open === m.id ? null : m.id)} />
      ))}
      {one && one.moves.length === 0 && <p className="mb-2 text-[12px] text-ink-500">It stands still. Let it come, go, travel or spin.</p>}
      {!one && <p className="mb-2 text-[12px] text-ink-500">A move added here is given to each of them.</p>}
      <Menu>
        <MenuButton className="h-[28px] w-full rounded-md border border-dashed border-ink-500/50 font-semibold text-spruce-800 hover:bg-sailcloth-100">Add a move</MenuButton>
        <MenuItems anchor={{ to: 'top', gap: 4, padding: 8 }} className="z-50 w-[248px] rounded-md border border-sailcloth-300 bg-paper p-1 shadow-[0_8px_28px_rgb(12_37_35/0.25)] focus:outline-none">
          {kinds.map((k) => (
            <MenuItem key={k.label}>
              <button
                type="button" className="flex w-full flex-col rounded-md px-2 py-1 text-left data-focus:bg-brass-200"
                onClick={() => run('move.add', { threads, kind: k.kind, effect: k.effect })}
              >
                {k.label}<span className="text-[11px] text-ink-500">{k.says}</span>
              </button>
            </MenuItem>
          ))}
          <MenuItem>
            <button type="button" className="flex w-full flex-col rounded-md px-2 py-1 text-left data-focus:bg-brass-200" onClick={() => { toRest(); setDesk({ tool: 'path' }) }}>
              Motion path, drawn on the page<span className="text-[11px] text-ink-500">drag from the layer, or from the wings</span>
            </button>
          </MenuItem>
        </MenuItems>
      </Menu>
    </Section>
  )
}

function Card({ move, tint, open, onOpen }: { move: Move; tint: string; open: boolean; onOpen: () => void }) {
  return (
    <div className={`mb-1.5 rounded-md border ${open ? 'border-brass-400 bg-brass-200/55' : 'border-transparent bg-sailcloth-100'}`}>
      <div className="flex items-center">
        <button type="button" aria-expanded={open} onClick={onOpen} className="flex min-w-0 flex-1 items-center gap-2 px-2 py-1.5 text-left">
          <Curve move={move} tint={tint} />
          <span className="min-w-0">
            <span className="block font-semibold">{move.name}</span>
            <span className="block text-[11px] leading-tight text-ink-600">{move.words}{move.early ? ' · as early as it can' : ''}</span>
          </span>
        </button>
        <Sign name={`Delete ${move.name}`} className="mr-1 text-ink-600 hover:bg-sailcloth-200" onClick={() => run('move.delete', { move: move.id })}><Trash2 size={15} strokeWidth={1.5} /></Sign>
      </div>
      {open && <Fields move={move} />}
    </div>
  )
}

function Curve({ move, tint }: { move: Move; tint: string }) {
  const p = move.profile
  const d = p.map((v, i) => `L${((i / (p.length - 1)) * 30).toFixed(1)} ${(22 - v * 19).toFixed(1)}`).join('')
  return <svg width="30" height="23" viewBox="0 0 30 23" className="shrink-0" aria-hidden><path d={`M0 22${d}L30 22Z`} fill={tint} /></svg>
}

const starts = [
  { value: 'at', label: 'at a time' }, { value: 'begins', label: 'when … begins' },
  { value: 'ends', label: 'when … ends' }, { value: 'scene-end', label: 'before scene end' },
]

function Fields({ move }: { move: Move }) {
  const rows = useDesk((d) => d.rows)
  const scene = useDesk((d) => d.scene)
  const set = (patch: object) => run('move.set', { move: move.id, patch })
  const others = rows.flatMap((r) => r.bars.filter((b) => b.scene === scene && b.move !== move.id).map((b) => ({ bar: b, row: r })))
  const hangs = move.start.when === 'begins' || move.start.when === 'ends'
  const targets = others.filter((o) => move.start.when !== 'ends' || !o.bar.whole)
  const timed = move.effect !== 'at-once'
  const whole = move.kind === 'loop' && move.lasts === 'scene'
  const start = (when: string) => {
    if (when === 'begins' || when === 'ends') {
      const first = others.find((o) => when !== 'ends' || !o.bar.whole)
      if (!first) return
      run('move.start', { move: move.id, when, of: hangs ? move.start.of : first.bar.move })
    } else run('move.start', { move: move.id, when, of: '' })
  }
  return (
    <div className="grid grid-cols-[62px_1fr] items-center gap-x-2 gap-y-2 px-2 pb-2 pt-1">
      {!whole && (
        <>
          <Label>Starts</Label>
          <Choice name="Starts" value={move.start.when} of={others.length ? starts : [starts[0], starts[3]]} onSet={start} />
          {hangs && (
            <>
              <Label>of</Label>
              <Choice name="Hangs on" value={move.start.of ?? ''} of={targets.map((o) => ({ value: o.bar.move, label: `${o.bar.name} of ${o.row.name}` }))} onSet={(of) => run('move.start', { move: move.id, when: move.start.when, of })} />
            </>
          )}
          <NumberField label={hangs ? 'Offset' : move.start.when === 'scene-end' ? 'Before' : 'At'} name="Start" unit="s" digits={2} step={0.1} value={(move.start.offset ?? 0) / 1000} onSet={(v) => set({ start: { offset: Math.round(v * 1000) } })} />
        </>
      )}
      {timed && (
        <NumberField
          label={move.kind === 'loop' ? 'One turn' : 'Takes'} name="Duration" unit="s" digits={2} step={0.1} min={0.01} max={3600}
          value={(move.duration ?? 0) / 1000} onSet={(v) => set({ duration: Math.round(v * 1000) })}
        />
      )}
      {move.kind === 'path' && (
        <>
          {move.reach && (
            <>
              <NumberField label="Across by" name="Path: across by" value={Math.round(move.reach[0] * 10) / 10} onSet={(x) => run('path.reach', { move: move.id, x, y: move.reach![1] })} />
              <NumberField label="Down by" name="Path: down by" value={Math.round(move.reach[1] * 10) / 10} onSet={(y) => run('path.reach', { move: move.id, x: move.reach![0], y })} />
            </>
          )}
          <Label>Speed</Label><span className="font-mono text-[12px]">{Math.round(move.speed)} px/s</span>
          <Label>Rest pose</Label>
          <Choice name="Rest pose" value={move.path?.rest || 'departs'} of={[{ value: 'departs', label: 'departs from it' }, { value: 'arrives', label: 'arrives at it' }]} onSet={(rest) => set({ path: { rest } })} />
          <Check name="Turn along the path" on={!!move.path?.turnAlong} onSet={(v) => set({ path: { turnAlong: v || null } })} />
        </>
      )}
      {move.kind === 'loop' && (
        <>
          <Label>Sense</Label>
          <Choice name="Sense" value={move.spin?.anticlockwise ? 'anti' : 'clock'} of={[{ value: 'clock', label: 'clockwise' }, { value: 'anti', label: 'anticlockwise' }]} onSet={(v) => set({ spin: { anticlockwise: v === 'anti' || null } })} />
          <Label>Lasts</Label>
          <Choice name="Lasts" value={whole ? 'scene' : 'passes'} of={[{ value: 'scene', label: 'the whole scene' }, { value: 'passes', label: 'a number of turns' }]} onSet={(v) => set(v === 'scene' ? { lasts: 'scene', repeat: null } : { lasts: null, repeat: 1 })} />
        </>
      )}
      {timed && !whole && move.kind !== 'entrance' && move.kind !== 'exit' && (
        <NumberField label={move.kind === 'loop' ? 'Turns' : 'Passes'} name="Repeat" digits={2} step={1} min={0.01} max={10000} value={move.repeat || 1} onSet={(v) => set({ repeat: v })} />
      )}
      {timed && move.kind !== 'entrance' && move.kind !== 'exit' && <Check name="There and back" on={!!move.alternate} onSet={(v) => set({ alternate: v || null })} />}
      {timed && (
        <>
          <Label>Easing</Label>
          <EasingField name="Easing" value={move.easing || move.easingUsed} onSet={(easing) => set({ easing })} />
        </>
      )}
    </div>
  )
}

function Check({ name, on, onSet }: { name: string; on: boolean; onSet: (v: boolean) => void }) {
  return (
    <label className="col-span-2 flex h-6 items-center gap-2 text-[12px]">
      <input type="checkbox" checked={on} onChange={(e) => onSet(e.target.checked)} className="h-4 w-4 accent-brass-600" />{name}
    </label>
  )
}

