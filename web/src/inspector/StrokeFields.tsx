// The stroke of the selected layers: none by default.
import type { Layer } from '../engine/types'
import { run } from '../project/commands'
import { Label, NumberField } from '../ui/controls'
import { FillOf } from './StrokeFill'
import { Signs } from './FillField'
import { shared } from './Look'

export function StrokeFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const strokes = layers.flatMap((l) => (l.stroke ? [l.stroke] : []))
  const set = (patch: object | null) => run('stroke.set', { threads, patch })
  const kind = strokes.length === 0 ? 'none' : strokes.length < layers.length ? null : shared(strokes.map((s) => s.fill.kind))
  const whole = strokes.length === layers.length
  const dash = shared(strokes.map((s) => (s.dash ?? []).join(' ')))
  const [line, gap] = dash ? dash.split(' ').map(Number) : [0, 0]
  return (
    <>
      <Label>Stroke</Label>
      <FillOf kind={kind} strokes={strokes} threads={threads} onNone={() => set(null)} onBegin={() => set({})} />
      {whole && (
        <>
          {(kind === 'linear' || kind === 'radial') && <FillOf.Strip stroke={strokes[0]} threads={threads} />}
          <Label>Width</Label>
          <div className="flex items-center justify-between gap-1.5">
            <div className="w-[70px]"><NumberField name="Stroke width" unit="px" digits={1} min={0} max={8192} value={shared(strokes.map((s) => s.width))} onSet={(v) => (v > 0 ? set({ width: v }) : set(null))} /></div>
            <Signs
              name="Side of the stroke" value={shared(strokes.map((s) => s.side ?? 'middle'))} of={[['inside', 'Inside'], ['middle', 'On the line'], ['outside', 'Outside']]}
              onSet={(v) => set({ side: v === 'middle' ? null : v })}
            />
          </div>
          <Label>Ends</Label>
          <div className="flex items-center justify-between gap-1.5">
            <Signs
              name="Ends of the stroke" value={shared(strokes.map((s) => s.cap || 'butt'))} of={[['butt', 'Cut ends'], ['round', 'Round ends', 'cap round'], ['square', 'Square ends']]}
              onSet={(v) => set({ cap: v === 'butt' ? null : v })}
            />
            <Signs
              name="Corners of the stroke" value={shared(strokes.map((s) => s.join || 'miter'))} of={[['miter', 'Pointed corners'], ['round', 'Round corners', 'join round'], ['bevel', 'Bevelled corners']]}
              onSet={(v) => set({ join: v === 'miter' ? null : v })}
            />
          </div>
          <Label>Dash</Label>
          <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-1.5">
            <NumberField name="Dash length" unit="px" min={0} max={10000} value={dash === null ? null : line} onSet={(v) => set({ dash: v > 0 || gap > 0 ? [v, gap || v] : null })} />
            <Label>gap</Label>
            <NumberField name="Dash gap" unit="px" min={0} max={10000} value={dash === null ? null : (gap ?? 0)} onSet={(v) => set({ dash: v > 0 ? [line, v] : null })} />
          </div>
        </>
      )}
    </>
  )
}
