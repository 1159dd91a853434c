// The plate behind a text: its colour, picked from what lies behind at first, and how well the words stand out from it.
import { behind } from '../actions/behind'
import type { Plate, Selected } from '../engine/types'
import { draft, run } from '../project/commands'
import { Check } from '../ui/Check'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { ColourField, inkPatch } from '../ui/ColourField'
import { sharedInk } from './FillField'
import { shared } from './shared'

export function PlateFields({ selected, threads }: { selected: Selected[]; threads: string[] }) {
  const plates = selected.map((s) => s.layer.text!.plate)
  const on = plates.every(Boolean)
  const list = plates as Plate[]
  const set = (plate: object) => run('text.plate', { threads, patch: plate })
  const contrast = selected.length === 1 ? selected[0].contrast : null
  return (
    <>
      <div className="mt-1">
        <Check
          name="On a plate"
          on={on}
          onSet={(v) => run('text.plate', { threads, on: v, behind: v ? behind(threads[0]) : '' })}
        />
      </div>
      {on && (
        <div className="mt-1 grid grid-cols-[3.5rem_1fr_2.75rem_1fr] items-center gap-x-2 gap-y-2">
          <Label>Plate</Label>
          <div className="col-span-3">
            <ColourField
              name="Plate"
              alpha
              value={sharedInk(list.map((p) => ({ kind: 'colour', ...p })))}
              onDraft={(v) => draft('text.plate', { threads, patch: inkPatch(v) })}
              onSet={(v) => v && set(inkPatch(v))}
            />
          </div>
          <NumberField
            label="Padding"
            name="Padding of the plate"
            unit="px"
            min={0}
            max={10000}
            value={shared(list.map((p) => p.padding ?? 0))}
            onSet={(v) => set({ padding: v || null })}
          />
          <NumberField
            label="Corner"
            name="Corner of the plate"
            min={0}
            max={10000}
            value={shared(list.map((p) => p.corner ?? 0))}
            onSet={(v) => set({ corner: v || null })}
          />
          <div className="col-span-4">
            <Check
              name="One plate for all lines"
              on={list.every((p) => p.whole)}
              onSet={(v) => set({ whole: v || null })}
            />
          </div>
          {contrast && (
            <div
              className="col-span-4 flex min-h-6.5 items-center gap-2 text-[0.75rem]"
              role="status"
              data-contrast={contrast.ratio.toFixed(2)}
            >
              <span className={contrast.fix ? 'text-coral-700' : 'text-ink-600'}>
                Contrast {contrast.ratio.toFixed(1)}
                {contrast.fix ? ', too low' : ' : 1'}
              </span>
              {contrast.fix && (
                <Button
                  className="ml-auto whitespace-nowrap"
                  title={
                    contrast.words
                      ? `The words in ${contrast.words}, which stands out by 4.5 : 1; the plate stays`
                      : `The nearest tone of the plate from which the words stand out by 4.5 : 1, ${contrast.fix}`
                  }
                  onClick={() =>
                    contrast.words
                      ? run('set', { threads, patch: { fill: { colour: contrast.words, role: null, tone: null } } })
                      : set({ colour: contrast.fix, role: null, tone: null })
                  }
                >
                  Make readable
                </Button>
              )}
              {contrast.fix && contrast.words && (
                <Button
                  className="whitespace-nowrap !px-2"
                  title={`The words stay; the plate becomes the nearest tone they stand out from, ${contrast.fix}`}
                  onClick={() => set({ colour: contrast.fix, role: null, tone: null })}
                >
                  by the plate
                </Button>
              )}
            </div>
          )}
        </div>
      )}
    </>
  )
}
