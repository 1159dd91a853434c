// The words of the selected texts and how they are set.
import { useState } from 'react'
import { AlignCenter, AlignJustify, AlignLeft, AlignRight, Italic } from 'lucide-react'

import type { Run, Selected } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { families, ownFamilies } from '../project/families'
import { startWriting, stopWriting } from '../project/writing'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { TableName } from './TableName'
import { Button, Label, Sign } from '../ui/controls'
import { ColourField } from '../ui/ColourField'
import { FamilyField } from './FamilyField'
import { shared } from './shared'
import { PlateFields } from './PlateFields'

const cases = [
  { value: 'none', label: 'as typed' },
  { value: 'upper', label: 'CAPITALS' },
  { value: 'lower', label: 'small' },
  { value: 'title', label: 'Each Word' },
]
const rooms = [
  { value: 'grows', label: 'grows' },
  { value: 'wraps', label: 'wraps at its width' },
  { value: 'fixed', label: 'keeps its height' },
  { value: 'fit', label: 'words fill it' },
]
const stands = [
  { value: 'top', label: 'from the top' },
  { value: 'middle', label: 'in the middle' },
  { value: 'bottom', label: 'at the foot' },
]
const raises = [
  { value: 'none', label: 'level' },
  { value: 'super', label: 'raised' },
  { value: 'sub', label: 'lowered' },
]

/** The runs of a stretch, in characters. */
function runsIn(runs: Run[], from: number, to: number): Run[] {
  let at = 0
  return runs.filter((r) => {
    const begin = at
    at += [...r.text].length
    return begin < to && at > from
  })
}

export function TextPanel({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const texts = selected.map((s) => s.layer.text!)
  // A stretch that is selected among the words on the page is set by itself.
  const writing = useDesk((d) => d.writing)
  const stretch =
    writing && writing.anchor !== writing.caret
      ? { from: Math.min(writing.anchor, writing.caret), to: Math.max(writing.anchor, writing.caret) }
      : {}
  const part = 'to' in stretch
  const runs = part ? runsIn(texts[0].runs, stretch.from!, stretch.to!) : texts.flatMap((t) => t.runs)
  const style = (patch: object) => run('text.style', { threads, patch, ...stretch })
  const set = (text: object) => run('set', { threads, patch: { text } })
  const family = shared(runs.map((r) => r.family))
  const fonts = useDesk((d) => d.film?.fonts) ?? []
  const all = [...families(), ...ownFamilies(fonts)]
  const weights = all.find((f) => f.name === family)?.weights ?? [400]
  const absent = [...new Set(runs.map((r) => r.family))].filter((n) => !all.some((f) => f.name === n))
  const words = texts[0].runs.map((r) => r.text).join('')
  const missing = selected.map((s) => s.missing).join('')
  const align = shared(texts.map((t) => t.align))
  const wraps = texts.every((t) => t.wrap && !t.ring)
  const room = shared(texts.map((t) => t.room ?? (t.wrap ? 'wraps' : 'grows')))
  const fit = selected.length === 1 ? selected[0].fit : null
  const rings = texts.map((t) => t.ring)
  const ring = (patch: object) => set({ ring: patch })
  const signs = [
    ['left', AlignLeft],
    ['centre', AlignCenter],
    ['right', AlignRight],
    ...(wraps ? [['justified', AlignJustify]] : []),
  ] as [string, typeof AlignLeft][]
  return (
    <Section title="Text">
      {absent.length > 0 && (
        <p role="status" className="mt-1 text-[0.75rem] text-coral-700">
          {absent.join(', ')} is not here: the words are set in another family. Add its font file, or choose another.
        </p>
      )}
      {missing && (
        <p role="status" className="mt-1 text-[0.75rem] text-coral-700">
          No family has {[...missing].join(' ')}. Boxes stand for {[...missing].length > 1 ? 'them' : 'it'}; type
          something else there.
        </p>
      )}
      {selected.length === 1 && (
        <p className="flex items-center justify-between gap-2">
          <span className="truncate text-ink-600" title={words}>
            {words || 'No words yet'}
          </span>
          <Button
            className="shrink-0"
            title="Edit the words on the page (Enter, or press the text twice)"
            aria-pressed={!!writing}
            onClick={() => (writing ? stopWriting() : startWriting(threads[0], 'end'))}
          >
            {writing ? 'Done' : 'Edit words'}
          </Button>
        </p>
      )}
      <div className="mt-2 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
        <Label>Family</Label>
        <FamilyField
          family={family}
          words={texts[0].runs.map((r) => r.text).join('')}
          threads={threads}
          stretch={stretch}
        />
        {part && (
          <>
            <Label>Colour</Label>
            <div className="flex items-center gap-2">
              <ColourField
                name="Colour of the stretch"
                none
                compact
                value={shared(runs.map((r) => r.colour ?? '')) ? { colour: runs[0].colour! } : null}
                onSet={(v) => style({ colour: v?.colour ?? null })}
              />
              <span className="text-[0.75rem] text-ink-600">of the selected words</span>
            </div>
          </>
        )}
        <Label>Weight</Label>
        <div className="flex items-center gap-1">
          <Choice
            name="Weight"
            value={String(shared(runs.map((r) => r.weight)) ?? '')}
            of={weights.map((w) => ({ value: String(w), label: names[w] ?? String(w) }))}
            onSet={(v) => style({ weight: Number(v) })}
          />
          <Sign
            name="Italic (Ctrl+I)"
            pressed={runs.length > 0 && runs.every((r) => r.italic)}
            disabled={!all.find((f) => f.name === family)?.italics?.length}
            className={runs.every((r) => r.italic) ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}
            onClick={() => run('text.toggle', { threads, what: 'italic', ...stretch })}
          >
            <Italic size={16} strokeWidth={1.5} />
          </Sign>
        </div>
      </div>
      <div className="mt-2 grid grid-cols-[3.5rem_1fr_auto] items-center gap-x-2">
        <NumberField
          label="Size"
          name="Size"
          unit="px"
          min={1}
          max={4000}
          value={shared(runs.map((r) => r.size))}
          onSet={(v) => style({ size: v })}
        />
        <span className="flex rounded-md border border-sailcloth-500" role="group" aria-label="Alignment">
          {signs.map(([a, Icon]) => (
            <Sign
              key={a}
              name={a === 'justified' ? 'Justify' : `Align ${a}`}
              pressed={align === a}
              className={align === a ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}
              onClick={() => run('text.align', { threads, align: a })}
            >
              <Icon size={16} strokeWidth={1.5} />
            </Sign>
          ))}
        </span>
      </div>
      <div className="mt-2 grid grid-cols-[3.5rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-2">
        <NumberField
          label="Letters"
          name="Space between letters"
          unit="px"
          digits={1}
          min={-1000}
          max={1000}
          value={shared(texts.map((t) => t.letterSpacing ?? 0))}
          onSet={(v) => set({ letterSpacing: v || null })}
        />
        <NumberField
          label="Lines"
          name="Height of lines, in sizes; 0: the family’s own"
          digits={2}
          step={0.05}
          min={0}
          max={10}
          value={shared(texts.map((t) => t.lineHeight ?? 0))}
          onSet={(v) => set({ lineHeight: v || null })}
        />
        <Label>Case</Label>
        <div className="col-span-3 grid grid-cols-[1.25fr_1fr] gap-2">
          <Choice
            name="Case"
            value={shared(runs.map((r) => r.case ?? 'none')) ?? ''}
            of={cases}
            onSet={(v) => style({ case: v === 'none' ? null : v })}
          />
          <Choice
            name="Raised or lowered"
            value={shared(runs.map((r) => r.raise ?? 'none')) ?? ''}
            of={raises}
            onSet={(v) => style({ raise: v === 'none' ? null : v })}
          />
        </div>
      </div>
      {!rings.some(Boolean) && !texts.some((t) => t.stacked) && (
        <>
          <div className="mt-2 grid grid-cols-[3.5rem_1.25fr_1fr] items-center gap-x-2">
            <Label>Box</Label>
            <Choice name="Box" value={room ?? ''} of={rooms} onSet={(v) => run('text.room', { threads, room: v })} />
            {room === 'fixed' || room === 'fit' ? (
              <Choice
                name="Where the lines stand in it"
                value={shared(texts.map((t) => t.stand ?? 'top')) ?? ''}
                of={stands}
                onSet={(v) => set({ stand: v === 'top' ? null : v })}
              />
            ) : (
              <span />
            )}
          </div>
          {fit && room === 'fit' && (
            <p className="mt-1 pl-16 text-[0.75rem] text-ink-600" data-fit={fit.scale}>
              Fills it at{' '}
              {Math.round(fit.scale * (shared(texts[0].runs.map((r) => r.size)) ?? texts[0].runs[0].size) * 10) / 10} px
            </p>
          )}
          {fit && fit.over > 0.5 && (
            <p role="status" className="mt-1 text-[0.75rem] text-coral-700">
              The words need {Math.ceil(fit.over)} px more height. Make the box higher, or let them fit.
            </p>
          )}
        </>
      )}
      <div className="mt-1.5 grid grid-cols-2 gap-x-2 [&>label]:col-span-1">
        <Check
          name="Letters stacked"
          on={texts.every((t) => t.stacked)}
          disabled={rings.some(Boolean)}
          onSet={(v) => set({ stacked: v || null })}
        />
        <Check name="On a ring" on={rings.every(Boolean)} onSet={(on) => run('text.ring', { threads, on })} />
      </div>
      {rings.every(Boolean) && (
        <>
          <div className="mt-1 grid grid-cols-[3.5rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-2">
            <NumberField
              label="Radius"
              name="Radius of the ring"
              unit="px"
              min={1}
              max={10000}
              value={shared(rings.map((r) => r!.radius))}
              onSet={(v) => ring({ radius: v })}
            />
            <NumberField
              label="At"
              name="Where it stands on the ring, clockwise from the top"
              unit="°"
              min={-3600}
              max={3600}
              value={shared(rings.map((r) => r!.start + 90))}
              onSet={(v) => ring({ start: v - 90 })}
            />
            <NumberField
              label="Fills"
              name="Share of the ring it fills; 0: as it comes"
              unit="%"
              digits={1}
              min={0}
              max={100}
              value={shared(rings.map((r) => (r!.share ?? 0) * 100))}
              onSet={(v) => ring({ share: v / 100 || null })}
            />
          </div>
          <div className="mt-1 grid grid-cols-2 gap-x-2 [&>label]:col-span-1">
            <Check
              name="Within the ring"
              on={rings.every((r) => r!.inside)}
              onSet={(v) => ring({ inside: v || null })}
            />
            <Check
              name="Upright below"
              on={rings.every((r) => r!.flip)}
              onSet={(v) =>
                ring({
                  flip: v || null,
                  ...(shared(rings.map((r) => r!.start)) === (v ? -90 : 90) ? { start: v ? 90 : -90 } : {}),
                })
              }
            />
          </div>
        </>
      )}
      <PlateFields selected={selected} threads={threads} />
      <div className="mt-2 grid grid-cols-[3.5rem_1fr_1fr_1fr] items-center gap-1.5">
        <Label>Split</Label>
        {(
          [
            ['letter', 'Letters'],
            ['word', 'Words'],
            ['line', 'Lines'],
          ] as const
        ).map(([unit, word]) => (
          <Button
            key={unit}
            className="!px-1"
            title={`A group with a layer for each of its ${word.toLowerCase()}; it can be joined again`}
            onClick={() => run('text.split', { threads, unit })}
          >
            {word}
          </Button>
        ))}
      </div>
      <div className="mt-2 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
        <TableName selected={selected} />
      </div>
      {threads.length === 1 && !texts[0].ring && <Band thread={threads[0]} />}
    </Section>
  )
}

/** A text as a strip that runs across the page. */
function Band({ thread }: { thread: string }) {
  const [angle, setAngle] = useState(0)
  return (
    <div className="mt-2 grid grid-cols-[3.5rem_4.25rem_1fr] items-center gap-1.5">
      <NumberField
        quiet
        label="Band"
        name="Angle of the band"
        unit="°"
        min={-360}
        max={360}
        value={angle}
        onSet={setAngle}
      />
      <Button
        className="whitespace-nowrap !px-1"
        title="On its plate, across the page at this angle, without end"
        onClick={() => run('text.band', { thread, angle })}
      >
        Running band
      </Button>
    </div>
  )
}

const names: Record<number, string> = {
  300: '300 light',
  400: '400 regular',
  500: '500 medium',
  600: '600 half bold',
  700: '700 bold',
  800: '800 heavy',
  900: '900 black',
}
