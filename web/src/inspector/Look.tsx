// Look: fill, opacity, corners, stroke and effects.
import { engine } from '../engine/engine'
import type { Selected } from '../engine/types'
import { run } from '../project/commands'
import { Fold, Section } from '../ui/Section'
import { Label } from '../ui/controls'
import { Swatch } from '../ui/ColourField'
import { AdjustFields } from './AdjustFields'
import { EffectFields } from './EffectFields'
import { FillField } from './FillField'
import { LooksRow } from './LooksRow'
import { PictureFields } from './PictureFields'
import { RecolourFields } from './RecolourFields'
import { ShapeFields } from './ShapeFields'
import { DescribedField } from './Described'
import { StrokeFields } from './StrokeFields'
import { shared } from './shared'
import { counted } from '../words'

export function Look({ selected }: { selected: Selected[] }) {
  const threads = selected.map((s) => s.layer.thread)
  const layers = selected.map((s) => s.layer)
  const set = (patch: object) => run('set', { threads, patch })
  const filled = layers.filter((l) => l.kind !== 'group' && l.kind !== 'picture')
  const { looks, rounded } = engine.fields()
  const corners = layers.every((l) => rounded.includes(l.kind) && !l.shape?.corners)
  const all = filled.length > 0 && filled.length === layers.length
  const pictures = layers.every((l) => l.kind === 'picture')
  const inGroup = selected.length === 1 && layers[0].kind === 'group' ? selected[0].colours : []
  return (
    <Section title="Look">
      {pictures && <PictureFields selected={selected} />}
      <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
        {all && <FillField layers={layers} threads={threads} />}
        {inGroup.length > 0 && (
          <>
            <Label>Fill</Label>
            <span className="flex items-center gap-1">
              {inGroup.slice(0, 4).map((c) => (
                <Swatch key={c} colour={c} size={22} />
              ))}
              <span className="ml-auto whitespace-nowrap text-[0.75rem] text-ink-500">
                {counted(inGroup.length, 'colour')}
              </span>
            </span>
          </>
        )}
      </div>
      <div className="mt-1.5 grid grid-cols-[3.5rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
        <DescribedField
          field={looks.opacity}
          value={shared(layers.map((l) => l.opacity))}
          onSet={(opacity) => set({ opacity })}
        />
        {corners && (
          <DescribedField
            field={looks.corner}
            value={shared(layers.map((l) => l.corner ?? 0))}
            onSet={(corner) => set({ corner })}
          />
        )}
      </div>
      {pictures && <AdjustFields layers={layers} threads={threads} />}
      {selected.length === 1 && selected[0].inks.length > 0 && <RecolourFields key={layers[0].id} of={selected[0]} />}
      <ShapeFields layers={layers} threads={threads} />
      <div className="mt-1.5 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
        {all && <StrokeFields layers={layers} threads={threads} />}
      </div>
      <EffectFields layers={layers} threads={threads} />
      {!pictures && <AdjustFields layers={layers} threads={threads} />}
      <Fold title="Blend and kept looks" folded={!layers.some((l) => l.blend && l.blend !== 'normal')}>
        <div className="grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
          <DescribedField
            field={looks.blend}
            value={shared(layers.map((l) => (l.blend === 'normal' ? undefined : l.blend)))}
            onSet={(blend) => set({ blend })}
          />
        </div>
        <LooksRow threads={threads} />
      </Fold>
    </Section>
  )
}
