// The numbers of a shape. The core says what each kind has; here is what each is called.
import { clsx } from 'clsx'
import { Minus, Plus } from 'lucide-react'
import type { Layer } from '../engine/types'
import { run } from '../project/commands'
import { Choice, Label, NumberField, Sign } from '../ui/controls'
import { Signs } from './FillField'
import { shared } from './shared'

type Field = {
  key: 'hole' | 'start' | 'sweep' | 'count' | 'depth' | 'thickness' | 'head' | 'base'
  label: string
  unit?: string
  min: number
  max: number
  by?: number
  usual: number
}

const fields: Record<string, Field[]> = {
  ring: [{ key: 'hole', label: 'Hole', unit: '%', min: 0, max: 100, by: 100, usual: 0.6 }],
  sector: [
    { key: 'start', label: 'Start', unit: '°', min: -360, max: 360, usual: -90 },
    { key: 'sweep', label: 'Sweep', unit: '°', min: 1, max: 360, usual: 90 },
    { key: 'hole', label: 'Hole', unit: '%', min: 0, max: 100, by: 100, usual: 0 },
  ],
  polygon: [{ key: 'count', label: 'Sides', min: 3, max: 100, usual: 6 }],
  star: [
    { key: 'count', label: 'Points', min: 3, max: 100, usual: 5 },
    { key: 'depth', label: 'Depth', unit: '%', min: 0, max: 100, by: 100, usual: 0.55 },
  ],
  arrow: [
    { key: 'thickness', label: 'Shaft', unit: '%', min: 1, max: 100, by: 100, usual: 0.4 },
    { key: 'head', label: 'Head', unit: '%', min: 5, max: 10000, by: 100, usual: 0.8 },
  ],
  bubble: [{ key: 'base', label: 'Tail', unit: '%', min: 1, max: 100, by: 100, usual: 0.22 }],
  cross: [{ key: 'thickness', label: 'Arms', unit: '%', min: 1, max: 100, by: 100, usual: 0.34 }],
  cloud: [{ key: 'count', label: 'Humps', min: 3, max: 100, usual: 9 }],
  wave: [
    { key: 'count', label: 'Waves', min: 1, max: 100, usual: 3 },
    { key: 'depth', label: 'Height', unit: '%', min: 0, max: 100, by: 100, usual: 0.35 },
  ],
  ribbon: [{ key: 'thickness', label: 'Width', unit: '%', min: 1, max: 100, by: 100, usual: 0.5 }],
}

/** Shapes whose corners can be rounded. */
export const cornered = ['rectangle', 'picture', 'polygon', 'star', 'arrow', 'bubble', 'cross']

export function ShapeFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const kind = shared(layers.map((l) => l.kind))
  const list = kind ? fields[kind] : undefined
  const set = (patch: object) => run('shape.set', { threads, patch })
  const corners = kind === 'rectangle' && layers.every((l) => l.shape?.corners)
  if (!list && kind !== 'rectangle' && kind !== 'line') return null
  return (
    <>
      {list && (
        <div className="mt-1.5 grid grid-cols-[56px_1fr_44px_1fr] items-center gap-x-2 gap-y-1.5">
          {list.map((f) => (
            <NumberField
              key={f.key}
              label={f.label}
              name={f.label}
              unit={f.unit}
              min={f.min}
              max={f.max}
              value={shared(layers.map((l) => Math.round((l.shape ? (l.shape[f.key] ?? 0) : f.usual) * (f.by ?? 1))))}
              onSet={(v) => set({ [f.key]: f.key === 'count' ? Math.round(v) : v / (f.by ?? 1) })}
            />
          ))}
        </div>
      )}
      {kind === 'sector' && (
        <div className="mt-1.5 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2">
          <Label>Shown</Label>
          <Choice
            name="What of the sector is shown"
            value={shared(layers.map((l) => (l.shape?.open ? 'arc' : 'slice'))) ?? ''}
            of={[
              { value: 'slice', label: 'slice' },
              { value: 'arc', label: 'its arc only' },
            ]}
            onSet={(v) => set({ open: v === 'arc' })}
          />
        </div>
      )}
      {kind === 'arrow' && (
        <div className="mt-1.5 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2">
          <Label>Heads</Label>
          <Signs
            name="Heads of the arrow"
            value={shared(layers.map((l) => l.shape?.heads ?? 'end'))}
            of={[
              ['start', 'At its start', 'head start'],
              ['end', 'At its end', 'head end'],
              ['both', 'At both ends', 'head both'],
            ]}
            onSet={(v) => set({ heads: v === 'end' ? null : v })}
          />
        </div>
      )}
      {kind === 'ribbon' && (
        <div className="mt-1.5 grid grid-cols-[56px_minmax(0,1fr)] items-center gap-x-2">
          <Label>Bends</Label>
          <span className="flex items-center gap-1">
            <Sign
              name="One bend less"
              className="border border-sailcloth-300 hover:bg-sailcloth-200"
              onClick={() => run('shape.bend', { threads, less: true })}
            >
              <Minus size={14} strokeWidth={1.5} />
            </Sign>
            <Sign
              name="Another bend"
              className="border border-sailcloth-300 hover:bg-sailcloth-200"
              onClick={() => run('shape.bend', { threads })}
            >
              <Plus size={14} strokeWidth={1.5} />
            </Sign>
            <span className="ml-1 text-[11px] text-ink-600">dragged on the page</span>
          </span>
        </div>
      )}
      {kind === 'rectangle' && (
        <div className="mt-1.5">
          {!corners && (
            <button
              type="button"
              className="h-[24px] rounded-md px-1 text-[12px] text-brass-700 hover:bg-sailcloth-200"
              onClick={() => set({ corners: [0, 1, 2, 3].map(() => shared(layers.map((l) => l.corner ?? 0)) ?? 0) })}
            >
              A radius for each corner
            </button>
          )}
          {corners && (
            <div className="grid grid-cols-[56px_repeat(4,1fr)] items-center gap-x-1.5">
              <Label>Corners</Label>
              {['Upper left corner', 'Upper right corner', 'Lower right corner', 'Lower left corner'].map((name, i) => (
                <NumberField
                  key={name}
                  name={name}
                  min={0}
                  value={shared(layers.map((l) => l.shape!.corners![i]))}
                  onSet={(v) => set({ corners: layers[0].shape!.corners!.map((c, k) => (k === i ? v : c)) })}
                />
              ))}
              <button
                type="button"
                className={clsx(
                  'col-span-5 mt-1 h-[24px] justify-self-start rounded-md px-1 text-[12px] text-brass-700',
                  'hover:bg-sailcloth-200',
                )}
                onClick={() => set({ corners: null })}
              >
                One radius for all
              </button>
            </div>
          )}
        </div>
      )}
    </>
  )
}
