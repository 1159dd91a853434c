// Look: fill, opacity, corners, and how words are set.
import { AlignCenter, AlignLeft, AlignRight } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import type { Selected } from '../engine/types'
import { draft, run } from '../project/commands'
import { desk, refreshDraft, useDesk } from '../project/desk'
import { families } from '../project/families'
import { Choice, Label, NumberField, Section, Sign } from '../ui/controls'
import { Swatch } from '../ui/ColourField'
import { BlendField, EffectFields } from './EffectFields'
import { FillField } from './FillField'
import { LooksRow } from './LooksRow'
import { PictureFields } from './PictureFields'
import { ShapeFields, cornered } from './ShapeFields'
import { StrokeFields } from './StrokeFields'

/** The value all of a list share, or null. */
export function shared<T>(list: T[]): T | null {
  return list.every((v) => v === list[0]) ? list[0] : null
}

export function Look({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const layers = selected.map((s) => s.layer)
  const set = (patch: object) => run('set', { threads, patch })
  const filled = layers.filter((l) => l.kind !== 'group' && l.kind !== 'picture')
  const corners = layers.every((l) => cornered.includes(l.kind) && !l.shape?.corners)
  const texts = layers.every((l) => l.kind === 'text')
  const all = filled.length > 0 && filled.length === layers.length
  const inGroup = selected.length === 1 && layers[0].kind === 'group' ? selected[0].colours : []
  return (
    <Section title="Look">
      {layers.every((l) => l.kind === 'picture') && <PictureFields selected={selected} />}
      <div className="grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
        {all && <FillField layers={layers} threads={threads} />}
        {inGroup.length > 0 && (
          <>
            <Label>Fill</Label>
            <span className="flex items-center gap-1">
              {inGroup.slice(0, 4).map((c) => <Swatch key={c} colour={c} size={22} />)}
              <span className="ml-auto whitespace-nowrap text-[12px] text-ink-500">{inGroup.length} {inGroup.length === 1 ? 'colour' : 'colours'}</span>
            </span>
          </>
        )}
      </div>
      <div className="mt-1.5 grid grid-cols-[56px_1fr_44px_1fr] items-center gap-x-2 gap-y-1.5">
        <NumberField label="Opacity" name="Opacity" unit="%" min={0} max={100} value={percent(shared(layers.map((l) => l.opacity)))} onSet={(v) => set({ opacity: v / 100 })} />
        {corners && <NumberField label="Corner" name="Corner radius" min={0} value={shared(layers.map((l) => l.corner ?? 0))} onSet={(v) => set({ corner: v || null })} />}
      </div>
      <ShapeFields layers={layers} threads={threads} />
      {texts && <Words selected={selected} threads={threads} />}
      <div className="mt-1.5 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
        <BlendField layers={layers} threads={threads} />
        {all && <StrokeFields layers={layers} threads={threads} />}
      </div>
      <EffectFields layers={layers} threads={threads} />
      <LooksRow threads={threads} />
    </Section>
  )
}

const percent = (v: number | null) => (v === null ? null : Math.round(v * 100))

function Words({ selected, threads }: { selected: Selected[]; threads: string[] }) {
  const runs = selected.map((s) => s.layer.text!.runs[0])
  const style = (patch: object) => run('text.style', { threads, patch })
  const family = shared(runs.map((r) => r.family))
  const weights = families().find((f) => f.name === family)?.weights ?? [400]
  const align = shared(selected.map((s) => s.layer.text!.align))
  return (
    <div className="mt-3">
      {selected.length === 1 && <WordsField key={selected[0].layer.id} selected={selected[0]} />}
      <div className="mt-2 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
        <Label>Family</Label>
        <Choice name="Family" value={family ?? ''} of={families().map((f) => ({ value: f.name, label: f.name }))} onSet={(v) => run('text.family', { threads, family: v })} />
        <Label>Weight</Label>
        <Choice name="Weight" value={String(shared(runs.map((r) => r.weight)) ?? '')} of={weights.map((w) => ({ value: String(w), label: names[w] ?? String(w) }))} onSet={(v) => style({ weight: Number(v) })} />
      </div>
      <div className="mt-2 grid grid-cols-[56px_1fr_auto] items-center gap-x-2">
        <NumberField label="Size" name="Size" unit="px" min={1} max={4000} value={shared(runs.map((r) => r.size))} onSet={(v) => style({ size: v })} />
        <span className="flex rounded-md border border-sailcloth-300" role="group" aria-label="Alignment">
          {([['left', AlignLeft], ['centre', AlignCenter], ['right', AlignRight]] as const).map(([a, Icon]) => (
            <Sign key={a} name={`Align ${a}`} pressed={align === a} className={align === a ? 'bg-brass-200' : 'hover:bg-sailcloth-200'} onClick={() => run('text.align', { threads, align: a })}>
              <Icon size={16} strokeWidth={1.5} />
            </Sign>
          ))}
        </span>
      </div>
    </div>
  )
}

const names: Record<number, string> = { 300: '300 light', 400: '400 regular', 500: '500 medium', 600: '600 half bold', 700: '700 bold', 800: '800 heavy', 900: '900 black' }

/** The words, shown on the page while they are typed; leaving the field sets them as one step to undo. */
function WordsField({ selected }: { selected: Selected }) {
  const words = selected.layer.text!.runs.map((r) => r.text).join('')
  const [text, setText] = useState<string | null>(null)
  // What is typed, and what stood there before: the draft shows in the selection too.
  const typed = useRef<{ now: string; before: string } | null>(null)
  const thread = selected.layer.thread
  const commit = () => {
    const t = typed.current
    typed.current = null
    setText(null)
    if (!t) return
    engine.clearDraft()
    if (t.now === t.before || !run('text.words', { thread, text: t.now })) refreshDraft()
  }
  // Leaving by selecting something else takes the field away without a blur.
  const leave = useRef(commit)
  leave.current = commit
  useEffect(() => () => { if (desk().project) leave.current() }, [])
  const dragging = useDesk((d) => d.dragging)
  return (
    <textarea
      data-words aria-label="Words" rows={3} disabled={dragging} value={text ?? words}
      className="thin-scroll w-full resize-none rounded-md border border-sailcloth-300 bg-sailcloth-100 px-2 py-1 focus:border-brass-600 focus:bg-paper focus:outline-none"
      onChange={(e) => {
        typed.current = { now: e.target.value, before: typed.current?.before ?? words }
        setText(e.target.value)
        draft('text.words', { thread, text: e.target.value })
        refreshDraft()
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        e.stopPropagation()
        if (e.key === 'Escape') e.currentTarget.blur()
      }}
    />
  )
}
