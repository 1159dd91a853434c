// Look: fill, opacity, corners, stroke and effects.
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { Label, NumberField, Section } from '../ui/controls'
import { Swatch } from '../ui/ColourField'
import { BlendField, EffectFields } from './EffectFields'
import { FillField } from './FillField'
import { LooksRow } from './LooksRow'
import { PictureFields } from './PictureFields'
import { ShapeFields, cornered } from './ShapeFields'
import { StrokeFields } from './StrokeFields'
import { shared } from './shared'
import { counted } from '../words'

export function Look({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const layers = selected.map((s) => s.layer)
  const set = (patch: object) => run('set', { threads, patch })
  const filled = layers.filter((l) => l.kind !== 'group' && l.kind !== 'picture')
  const corners = layers.every((l) => cornered.includes(l.kind) && !l.shape?.corners)
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
              {inGroup.slice(0, 4).map((c) => (
                <Swatch key={c} colour={c} size={22} />
              ))}
              <span className="ml-auto whitespace-nowrap text-[12px] text-ink-500">
                {counted(inGroup.length, 'colour')}
              </span>
            </span>
          </>
        )}
      </div>
      <div className="mt-1.5 grid grid-cols-[56px_1fr_44px_1fr] items-center gap-x-2 gap-y-1.5">
        <NumberField
          label="Opacity"
          name="Opacity"
          unit="%"
          min={0}
          max={100}
          value={percent(shared(layers.map((l) => l.opacity)))}
          onSet={(v) => set({ opacity: v / 100 })}
        />
        {corners && (
          <NumberField
            label="Corner"
            name="Corner radius"
            min={0}
            value={shared(layers.map((l) => l.corner ?? 0))}
            onSet={(v) => set({ corner: v || null })}
          />
        )}
      </div>
      <ShapeFields layers={layers} threads={threads} />
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
