// What is done to the selected layers as a whole: how they are laid over what is under them, blur, feather and shadow.
import { engine } from '../engine/engine'
import type { Layer } from '../engine/types'
import { draft, run } from '../project/commands'
import { NumberField } from '../ui/NumberField'
import { Label } from '../ui/controls'
import { ColourField, inkPatch } from '../ui/ColourField'
import { sharedInk } from './FillField'
import { DescribedField } from './Described'
import { shared } from './shared'

export function EffectFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const { looks } = engine.fields()
  const set = (patch: object) => run('set', { threads, patch })
  const shadows = layers.flatMap((l) => (l.shadow ? [l.shadow] : []))
  const cast = shadows.length === layers.length
  const glows = layers.flatMap((l) => (l.glow ? [l.glow] : []))
  const glow = (patch: object | null) => run('glow.set', { threads, patch })
  const shadow = (patch: object | null) => run('shadow.set', { threads, patch })
  return (
    <div className="mt-2 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
      <Label>Blur</Label>
      <div className="grid grid-cols-[1fr_auto_1fr] items-center gap-1.5">
        <DescribedField
          bare
          field={looks.blur}
          value={shared(layers.map((l) => l.blur ?? 0))}
          onSet={(blur) => set({ blur })}
        />
        <Label>{looks.feather.words}</Label>
        <DescribedField
          bare
          field={looks.feather}
          value={shared(layers.map((l) => l.feather ?? 0))}
          onSet={(feather) => set({ feather })}
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
            className="h-6.5 rounded-md px-2 text-[0.75rem] text-brass-700 hover:bg-sailcloth-200"
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
          <span className="text-[0.6875rem] text-ink-500" />
          <div className="-mt-1 grid grid-cols-3 gap-1.5 text-center text-[0.6875rem] text-ink-500">
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
            className="h-6.5 rounded-md px-2 text-[0.75rem] text-brass-700 hover:bg-sailcloth-200"
            onClick={() => glow({})}
          >
            Light one
          </button>
        ) : (
          <div className="w-16">
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
