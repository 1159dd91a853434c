// The plate behind a text: its colour, picked from what lies behind at first, and how well the words stand out from it.
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import type { Plate, Selected } from '../engine/types'
import { draft, run } from '../project/commands'
import { desk, refreshDraft } from '../project/desk'
import { Button, Check, Label, NumberField } from '../ui/controls'
import { ColourField, inkPatch } from '../ui/ColourField'
import { sharedInk } from './FillField'
import { shared } from './Look'

/** The mean colour of the page behind a layer: the page painted without it. */
function behind(thread: string): string {
  const { film, moment, rows, solo } = desk()
  const [x, y, w, h] = boxOf(thread)
  engine.solo(rows.filter((r) => r.here && !r.parent && r.thread !== thread).map((r) => r.thread))
  try {
    const scale = 160 / film!.width
    const c = document.createElement('canvas')
    ;[c.width, c.height] = [160, Math.max(1, Math.round(film!.height * scale))]
    const ctx = c.getContext('2d', { willReadFrequently: true })!
    ctx.fillStyle = '#fff'
    ctx.fillRect(0, 0, c.width, c.height)
    paint(ctx, engine.frame(moment, scale), { scale, x: 0, y: 0 })
    const l = Math.max(0, Math.min(c.width - 1, Math.floor(x * scale)))
    const t = Math.max(0, Math.min(c.height - 1, Math.floor(y * scale)))
    const { data } = ctx.getImageData(l, t, Math.max(1, Math.min(c.width - l, Math.ceil(w * scale))), Math.max(1, Math.min(c.height - t, Math.ceil(h * scale))))
    const sum = [0, 0, 0]
    for (let i = 0; i < data.length; i += 4) for (let k = 0; k < 3; k++) sum[k] += data[i + k]
    return `#${sum.map((v) => Math.round((v * 4) / data.length).toString(16).padStart(2, '0')).join('')}`
  } finally {
    engine.solo(solo)
  }
}

function boxOf(thread: string): [number, number, number, number] {
  const corners = engine.overlay(desk().moment, [thread]).boxes[0]?.corners ?? [[0, 0]]
  const xs = corners.map((c) => c[0])
  const ys = corners.map((c) => c[1])
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)]
}

export function PlateFields({ selected, threads }: { selected: Selected[]; threads: string[] }) {
  const plates = selected.map((s) => s.layer.text!.plate)
  const on = plates.every(Boolean)
  const list = plates as Plate[]
  const set = (plate: object) => run('text.plate', { threads, patch: plate })
  const contrast = selected.length === 1 ? selected[0].contrast : null
  return (
    <>
      <div className="mt-1"><Check name="On a plate" on={on} onSet={(v) => run('text.plate', { threads, on: v, behind: v ? behind(threads[0]) : '' })} /></div>
      {on && (
        <div className="mt-1 grid grid-cols-[56px_1fr_44px_1fr] items-center gap-x-2 gap-y-2">
          <Label>Plate</Label>
          <div className="col-span-3">
            <ColourField
              name="Plate" alpha value={sharedInk(list.map((p) => ({ kind: 'colour', ...p })))}
              onDraft={(v) => { draft('text.plate', { threads, patch: inkPatch(v) }); refreshDraft() }} onSet={(v) => v && set(inkPatch(v))}
            />
          </div>
          <NumberField label="Padding" name="Padding of the plate" unit="px" min={0} max={10000} value={shared(list.map((p) => p.padding ?? 0))} onSet={(v) => set({ padding: v || null })} />
          <NumberField label="Corner" name="Corner of the plate" min={0} max={10000} value={shared(list.map((p) => p.corner ?? 0))} onSet={(v) => set({ corner: v || null })} />
          <div className="col-span-4"><Check name="One plate for all lines" on={list.every((p) => p.whole)} onSet={(v) => set({ whole: v || null })} /></div>
          {contrast && (
            <div className="col-span-4 flex min-h-[26px] items-center gap-2 text-[12px]" role="status" data-contrast={contrast.ratio.toFixed(2)}>
              <span className={contrast.fix ? 'text-coral-700' : 'text-ink-600'}>Contrast {contrast.ratio.toFixed(1)}{contrast.fix ? ', too low' : ' : 1'}</span>
              {contrast.fix && <Button className="ml-auto whitespace-nowrap" title={`The nearest tone of the plate from which the words stand out by 4.5 : 1, ${contrast.fix}`} onClick={() => set({ colour: contrast.fix, role: null, tone: null })}>Make readable</Button>}
            </div>
          )}
        </div>
      )}
    </>
  )
}
