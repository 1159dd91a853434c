// The stroke of the selected layers: none by default.
import type { Layer } from '../engine/types'
import { run } from '../project/commands'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { OneColour } from './FillField'
import { Signs } from './Signs'
import { GradientStrip } from './GradientStrip'
import { shared } from './shared'

const kinds = [
  ['none', 'No stroke'],
  ['colour', 'Stroke in one colour'],
  ['linear', 'Stroke with a linear gradient'],
  ['radial', 'Stroke with a radial gradient'],
] as const

const heads = [
  { value: 'none', label: 'no head' },
  { value: 'triangle', label: 'triangle' },
  { value: 'open', label: 'open' },
  { value: 'dot', label: 'dot' },
  { value: 'bar', label: 'bar' },
]

export function StrokeFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const strokes = layers.flatMap((l) => (l.stroke ? [l.stroke] : []))
  const set = (patch: object | null) => run('stroke.set', { threads, patch })
  const kind =
    strokes.length === 0 ? 'none' : strokes.length < layers.length ? null : shared(strokes.map((s) => s.fill.kind))
  const choose = (k: string) => {
    if (k === 'none') set(null)
    else if (strokes.length < layers.length) set({})
    else run('fill.kind', { threads, part: 'stroke', kind: k })
  }
  const whole = strokes.length === layers.length
  const dash = shared(strokes.map((s) => (s.dash ?? []).join(' ')))
  const [line, gap] = dash ? dash.split(' ').map(Number) : [0, 0]
  const trimmed = (i: 0 | 1) => {
    const v = shared(strokes.map((s) => (s.trim ?? [0, 1])[i]))
    return v === null ? null : v * 100
  }
  // The end that is typed pushes the other one along.
  const trim = (from: number | null, to: number | null) => {
    const [a, b] = strokes[0].trim ?? [0, 1]
    const next = from !== null ? [from, Math.max(from, b)] : [Math.min(a, to!), to!]
    set({ trim: next[0] <= 0 && next[1] >= 1 ? null : next })
  }
  return (
    <>
      <Label>Stroke</Label>
      <div className="flex items-center justify-between gap-1.5">
        <Signs name="Kind of stroke" value={kind} of={kind === 'none' ? kinds.slice(0, 2) : kinds} onSet={choose} />
        {kind === 'colour' && (
          <OneColour part="stroke" name="Stroke" fills={strokes.map((s) => s.fill)} threads={threads} />
        )}
      </div>
      {whole && (
        <>
          {(kind === 'linear' || kind === 'radial') && (
            <div className="col-span-2">
              <GradientStrip part="stroke" threads={threads} stops={strokes[0].fill.gradient!.stops} />
            </div>
          )}
          <Label>Width</Label>
          <div className="flex items-center justify-between gap-1.5">
            <div className="w-17.5">
              <NumberField
                name="Stroke width"
                unit="px"
                digits={1}
                min={0}
                max={8192}
                value={shared(strokes.map((s) => s.width))}
                onSet={(v) => (v > 0 ? set({ width: v }) : set(null))}
              />
            </div>
            <Signs
              name="Side of the stroke"
              value={shared(strokes.map((s) => s.side ?? 'middle'))}
              of={[
                ['inside', 'Inside'],
                ['middle', 'On the line'],
                ['outside', 'Outside'],
              ]}
              onSet={(v) => set({ side: v === 'middle' ? null : v })}
            />
          </div>
          <Label>Ends</Label>
          <div className="flex items-center justify-between gap-1.5">
            <Signs
              name="Ends of the stroke"
              value={shared(strokes.map((s) => s.cap || 'butt'))}
              of={[
                ['butt', 'Cut ends'],
                ['round', 'Round ends', 'cap round'],
                ['square', 'Square ends'],
              ]}
              onSet={(v) => set({ cap: v === 'butt' ? null : v })}
            />
            <Signs
              name="Corners of the stroke"
              value={shared(strokes.map((s) => s.join || 'miter'))}
              of={[
                ['miter', 'Pointed corners'],
                ['round', 'Round corners', 'join round'],
                ['bevel', 'Bevelled corners'],
              ]}
              onSet={(v) => set({ join: v === 'miter' ? null : v })}
            />
          </div>
          {layers.every((l) => l.kind === 'line' || l.kind === 'path' || l.shape?.open) && (
            <>
              <Label>Heads</Label>
              <div className="grid grid-cols-2 gap-1.5">
                {(['startHead', 'endHead'] as const).map((end) => (
                  <Choice
                    key={end}
                    name={end === 'startHead' ? 'Head at the start' : 'Head at the end'}
                    value={shared(strokes.map((s) => s[end] || 'none')) ?? ''}
                    of={heads}
                    onSet={(v) => set({ [end]: v === 'none' ? null : v })}
                  />
                ))}
              </div>
            </>
          )}
          <Label>Dash</Label>
          <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-1.5">
            <NumberField
              name="Dash length"
              unit="px"
              min={0}
              max={10000}
              value={dash === null ? null : line}
              onSet={(v) => run('stroke.dash', { threads, line: v })}
            />
            <Label>gap</Label>
            <NumberField
              name="Dash gap"
              unit="px"
              min={0}
              max={10000}
              value={dash === null ? null : (gap ?? 0)}
              onSet={(v) => run('stroke.dash', { threads, gap: v })}
            />
          </div>
          <Label>Drawn</Label>
          <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-1.5">
            <NumberField
              name="Drawn from"
              unit="%"
              digits={1}
              min={0}
              max={100}
              value={trimmed(0)}
              onSet={(v) => trim(v / 100, null)}
            />
            <Label>to</Label>
            <NumberField
              name="Drawn to"
              unit="%"
              digits={1}
              min={0}
              max={100}
              value={trimmed(1)}
              onSet={(v) => trim(null, v / 100)}
            />
          </div>
          <Button
            className="col-span-2"
            title="Makes an area of the stroke, with points of its own"
            onClick={() => run('outline.stroke', { threads })}
          >
            Outline the stroke
          </Button>
        </>
      )}
    </>
  )
}
