// What is done to the selected layers as a whole: how they are laid over what is under them, blur, feather and shadow.
import type { Layer } from '../engine/types'
import { draft, run } from '../project/commands'
import { Choice, Label, NumberField } from '../ui/controls'
import { ColourField, inkPatch } from '../ui/ColourField'
import { sharedInk } from './FillField'
import { shared } from './shared'

const blends: [string, string][] = [
  ['normal', 'Normal'],
  ['multiply', 'Multiply'],
  ['screen', 'Screen'],
  ['overlay', 'Overlay'],
  ['darken', 'Darken'],
  ['lighten', 'Lighten'],
  ['colour-dodge', 'Colour dodge'],
  ['colour-burn', 'Colour burn'],
  ['hard-light', 'Hard light'],
  ['soft-light', 'Soft light'],
  ['difference', 'Difference'],
  ['exclusion', 'Exclusion'],
]

export function BlendField({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  return (
    <>
      <Label>Blend</Label>
      <Choice
        name="Blend"
        value={shared(layers.map((l) => l.blend || 'normal')) ?? ''}
        of={blends.map(([value, label]) => ({ value, label }))}
        onSet={(v) => run('set', { threads, patch: { blend: v === 'normal' ? null : v } })}
      />
    </>
  )
}

export function EffectFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const set = (patch: object) => run('set', { threads, patch })
  const shadows = layers.flatMap((l) => (l.shadow ? [l.shadow] : []))
  const cast = shadows.length === layers.length
  const glows = layers.flatMap((l) => (l.glow ? [l.glow] : []))
  const glow = (patch: object | null) => run('glow.set', { threads, patch })
  const shadow = (patch: object | null) => run('shadow.set', { threads, patch })
  return (
    <div className="mt-2 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
      <Label>Blur</Label>
      <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-1.5">
        <NumberField
          name="Blur"
          unit="px"
          digits={1}
          min={0}
          max={500}
          value={shared(layers.map((l) => l.blur ?? 0))}
          onSet={(v) => set({ blur: v || null })}
        />
        <Label>feather</Label>
        <NumberField
          name="Feather"
          unit="px"
          min={0}
          max={500}
          value={shared(layers.map((l) => l.feather ?? 0))}
          onSet={(v) => set({ feather: v || null })}
        />
      </div>
      <Label>Shadow</Label>
      <div className="flex items-center gap-1.5">
        <ColourField
          name="Shadow"
          none
          alpha
          value={cast ? sharedInk(shadows) : null}
          onDraft={(v) => draft('shadow.set', { threads, patch: inkPatch(v) })}
          onSet={(v) => shadow(v ? inkPatch(v) : null)}
        />
        {!cast && (
          <button
            type="button"
            className="h-[26px] rounded-md px-2 text-[12px] text-brass-700 hover:bg-sailcloth-200"
            onClick={() => shadow({})}
          >
            Cast one
          </button>
        )}
      </div>
      {cast && (
        <>
          <Label>Falls</Label>
          <div className="grid grid-cols-3 items-center gap-1.5">
            <NumberField
              name="Shadow to the right"
              unit="px"
              min={-1000}
              max={1000}
              value={shared(shadows.map((s) => s.x))}
              onSet={(v) => shadow({ x: v })}
            />
            <NumberField
              name="Shadow down"
              unit="px"
              min={-1000}
              max={1000}
              value={shared(shadows.map((s) => s.y))}
              onSet={(v) => shadow({ y: v })}
            />
            <NumberField
              name="Softness of the shadow"
              unit="px"
              min={0}
              max={500}
              value={shared(shadows.map((s) => s.blur ?? 0))}
              onSet={(v) => shadow({ blur: v || null })}
            />
          </div>
          <span className="text-[11px] text-ink-500" />
          <div className="-mt-1 grid grid-cols-3 gap-1.5 text-center text-[11px] text-ink-500">
            <span>right</span>
            <span>down</span>
            <span>soft</span>
          </div>
        </>
      )}
      <Label>Glow</Label>
      <div className="flex items-center gap-1.5">
        <ColourField
          name="Glow"
          none
          alpha
          value={glows.length === layers.length ? sharedInk(glows) : null}
          onDraft={(v) => draft('glow.set', { threads, patch: inkPatch(v) })}
          onSet={(v) => glow(v ? inkPatch(v) : null)}
        />
        {glows.length < layers.length ? (
          <button
            type="button"
            className="h-[26px] rounded-md px-2 text-[12px] text-brass-700 hover:bg-sailcloth-200"
            onClick={() => glow({})}
          >
            Light one
          </button>
        ) : (
          <div className="w-[64px]">
            <NumberField
              name="Width of the glow"
              unit="px"
              min={0}
              max={500}
              value={shared(glows.map((g) => g.blur))}
              onSet={(v) => glow(v > 0 ? { blur: v } : null)}
            />
          </div>
        )}
      </div>
    </div>
  )
}
