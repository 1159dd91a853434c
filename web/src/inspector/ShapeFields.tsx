// The numbers of a shape, as the core describes them, and what is more than a number.
import { clsx } from 'clsx'
import { Minus, Plus } from 'lucide-react'
import { engine } from '../engine/engine'
import type { Field, Layer } from '../engine/types'
import { run } from '../project/commands'
import { NumberField } from '../ui/NumberField'
import { Label, Sign } from '../ui/controls'
import { changeAt, DescribedField, valueAt } from './Described'
import { shared } from './shared'

export function ShapeFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const kind = shared(layers.map((l) => l.kind))
  const list = kind ? engine.fields().shapes[kind] : undefined
  const set = (patch: object) => run('shape.set', { threads, patch })
  const described = (f: Field) => (
    <DescribedField
      key={f.name}
      field={f}
      value={shared(layers.map((l) => valueAt(l.shape, f.path)))}
      onSet={(v) => set(changeAt(f.path, v))}
    />
  )
  const corners = kind === 'rectangle' && layers.every((l) => l.shape?.corners)
  if (!list && kind !== 'rectangle' && kind !== 'line') return null
  return (
    <>
      {list && (
        <div className="mt-1.5 grid grid-cols-[3.5rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-1.5">
          {list.filter((f) => f.control === 'number').map(described)}
        </div>
      )}
      {list?.some((f) => f.control !== 'number') && (
        <div className="mt-1.5 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
          {list.filter((f) => f.control !== 'number').map(described)}
        </div>
      )}
      {kind === 'ribbon' && (
        <div className="mt-1.5 grid grid-cols-[3.5rem_minmax(0,1fr)] items-center gap-x-2">
          <Label>Bends</Label>
          <span className="flex items-center gap-1">
            <Sign
              name="One bend less"
              className="border border-sailcloth-500 hover:bg-sailcloth-200"
              onClick={() => run('shape.bend', { threads, less: true })}
            >
              <Minus size={14} strokeWidth={1.5} />
            </Sign>
            <Sign
              name="Another bend"
              className="border border-sailcloth-500 hover:bg-sailcloth-200"
              onClick={() => run('shape.bend', { threads })}
            >
              <Plus size={14} strokeWidth={1.5} />
            </Sign>
            <span className="ml-1 text-[0.6875rem] text-ink-600">dragged on the page</span>
          </span>
        </div>
      )}
      {kind === 'rectangle' && (
        <div className="mt-1.5">
          {!corners && (
            <button
              type="button"
              className="h-6 rounded-md px-1 text-[0.75rem] text-brass-700 hover:bg-sailcloth-200"
              onClick={() => set({ corners: [0, 1, 2, 3].map(() => shared(layers.map((l) => l.corner ?? 0)) ?? 0) })}
            >
              A radius for each corner
            </button>
          )}
          {corners && (
            <div className="grid grid-cols-[3.5rem_repeat(4,1fr)] items-center gap-x-1.5">
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
                  'col-span-5 mt-1 h-6 justify-self-start rounded-md px-1 text-[0.75rem] text-brass-700',
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
