// What is done to the colours of the selected layers.
import { engine } from '../engine/engine'
import type { Layer } from '../engine/types'
import { draft, run } from '../project/commands'
import { showBefore } from '../project/before'
import { Choice } from '../ui/Choice'
import { ColourField, type Ink } from '../ui/ColourField'
import { Slide } from '../ui/Slide'
import { Fold } from '../ui/Section'
import { Button } from '../ui/controls'
import { changeAt, valueAt } from './Described'
import { sharedInk, toneOf } from './FillField'
import { shared } from './shared'

const tonings = [
  { value: '0', label: 'as it is' },
  { value: '1', label: 'of one tone' },
  { value: '2', label: 'from one tone to another' },
] as const

export function AdjustFields({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const set = (patch: object) => run('set', { threads, patch })
  const toned = layers.map((l) => l.adjust?.toned?.tones ?? [])
  const count = shared(toned.map((v) => v.length))
  const some = layers.some((l) => l.adjust && Object.keys(l.adjust).length > 0)
  const share = (path: string) => shared(layers.map((l) => Number(valueAt(l, path) ?? 0)))
  return (
    <Fold title="Adjust" folded={!some}>
      <div className="grid grid-cols-[4.25rem_minmax(0,1fr)_3.5rem] items-center gap-x-2 gap-y-0.5 pt-0.5">
        {engine.fields().adjusts.map((f) => {
          const v = share(f.path)
          return (
            <Slide
              key={f.path}
              label={f.words}
              name={f.name}
              unit={f.unit}
              min={f.least}
              max={f.most}
              value={v === null ? null : Math.round(v * f.times * 100) / 100}
              onSet={(n) => set(changeAt(f.path, n === 0 ? null : n / f.times))}
            />
          )
        })}
        <span className="text-[0.75rem] text-ink-600">Toned</span>
        <span className="col-span-2">
          <Choice
            name="How it is toned"
            value={count === null ? '' : (String(count) as '0' | '1' | '2')}
            of={[...tonings]}
            onSet={(v) => run('adjust.tones', { threads, count: Number(v) })}
          />
        </span>
        {!!count && (
          <>
            <span />
            <span className="col-span-2 flex items-center gap-1.5 py-0.5 text-[0.75rem] text-ink-600">
              {toned[0].map((_, index) => {
                const tone = (v: Ink) => ({ threads, index, tone: toneOf(v) })
                return (
                  <ColourField
                    key={index}
                    compact
                    name={count < 2 ? 'Tone' : index ? 'Tone where it is light' : 'Tone where it is dark'}
                    value={sharedInk(toned.map((v) => v[index]))}
                    onDraft={(v) => draft('adjust.tone', tone(v))}
                    onSet={(v) => v && run('adjust.tone', tone(v))}
                  />
                )
              })}
            </span>
            <Slide
              label="Amount"
              name="How much it is toned"
              unit="%"
              min={0}
              max={100}
              value={Math.round((share('adjust.toned.amount') ?? 0) * 100)}
              onSet={(v) => set({ adjust: { toned: { amount: v / 100 } } })}
            />
          </>
        )}
      </div>
      {some && (
        <div className="grid grid-cols-2 gap-1 py-1">
          <Button
            className="!h-7 !px-1 text-[0.75rem]"
            title="Held: as it was before; also Shift+B"
            onPointerDown={() => showBefore(true)}
            onPointerUp={() => showBefore(false)}
            onPointerLeave={() => showBefore(false)}
          >
            Hold: before
          </Button>
          <Button className="!h-7 !px-1 text-[0.75rem]" onClick={() => set({ adjust: null })}>
            As in its file
          </Button>
        </div>
      )}
    </Fold>
  )
}
