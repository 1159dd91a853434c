// The scene: shown when nothing is selected.
import { ChevronLeft, ChevronRight, Trash2 } from 'lucide-react'
import { engine } from '../engine/engine'
import { apply, run } from '../project/commands'
import { desk, goToScene, refreshDraft, useDesk } from '../project/desk'
import { Button, Choice, Label, NumberField, Section, Sign, TextField } from '../ui/controls'
import { ColourField } from '../ui/ColourField'
import { EasingField } from './EasingField'

const rates = ['24/1', '25/1', '30/1', '50/1', '60/1', '24000/1001', '30000/1001']

export function ScenePanel() {
  const film = useDesk((d) => d.film)
  const i = useDesk((d) => d.scene)
  const s = film?.scenes[i]
  if (!film || !s) return null
  const set = (patch: object) => apply({ op: 'scene.set', ids: [s.id], patch })
  const add = (intent: string) => {
    const at = desk().scene
    if (run(intent)) goToScene(at + 1)
  }
  const move = (by: number) => {
    if (apply({ op: 'scene.move', id: s.id, index: i + by })) goToScene(i + by)
  }
  const rate = `${film.rate.num}/${film.rate.den}`
  return (
    <>
      <div className="flex h-[41px] items-center gap-2 border-b border-sailcloth-300 pl-2 pr-3">
        <TextField key={s.id} name="Scene name" value={s.name} onSet={(name) => set({ name })} className="flex-1 !border-transparent !bg-transparent text-[14px] font-semibold hover:!border-sailcloth-300 focus:!bg-paper" />
        <span className="shrink-0 text-[12px] text-ink-500">scene {i + 1} of {film.scenes.length}</span>
      </div>
      <Section title="Scene">
        <div className="grid grid-cols-[84px_1fr] items-center gap-x-2 gap-y-2">
          <Label>Background</Label>
          <ColourField
            name="Background" value={s.background.kind === 'colour' ? s.background.colour! : null}
            onDraft={(c) => {
              try { engine.draft({ op: 'scene.set', ids: [s.id], patch: { background: { kind: 'colour', colour: c, role: null } } }); refreshDraft() } catch { engine.clearDraft() }
            }}
            onSet={(c) => c && set({ background: { kind: 'colour', colour: c, role: null } })}
          />
          <NumberField label="Stays" name="Stay in seconds" unit="s" digits={2} step={0.1} min={0} max={3600} value={s.stay / 1000} onSet={(v) => set({ stay: Math.round(v * 1000), autoStay: false })} />
        </div>
        <div className="-mx-1 mt-3 flex items-center gap-1">
          <Sign name="Earlier in the film" className="hover:bg-sailcloth-200" disabled={i === 0} onClick={() => move(-1)}><ChevronLeft size={17} strokeWidth={1.5} /></Sign>
          <Sign name="Later in the film" className="hover:bg-sailcloth-200" disabled={i === film.scenes.length - 1} onClick={() => move(1)}><ChevronRight size={17} strokeWidth={1.5} /></Sign>
          <Sign name="Delete scene" className="hover:bg-sailcloth-200" disabled={film.scenes.length === 1} onClick={() => apply({ op: 'scene.delete', ids: [s.id] })}><Trash2 size={16} strokeWidth={1.5} /></Sign>
        </div>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Button className="whitespace-nowrap !px-1" onClick={() => add('scene.continue')} title="The next scene begins as this one ends: nothing enters twice">Continue scene</Button>
          <Button className="whitespace-nowrap !px-1" onClick={() => add('scene.duplicate')} title="A copy with all its moves">Duplicate scene</Button>
          <Button onClick={() => add('scene.add')}>Blank scene</Button>
        </div>
      </Section>
      {i > 0 && (
        <Section title="Transition into it">
          <div className="grid grid-cols-[84px_1fr] items-center gap-x-2 gap-y-2">
            <Label>Kind</Label>
            <Choice
              name="Transition" value={s.transition} onSet={(kind) => run('scene.transition', { id: s.id, kind })}
              of={[{ value: 'cut', label: 'Cut' }, { value: 'crossfade', label: 'Crossfade' }, { value: 'morph', label: 'Morph' }]}
            />
            {s.transition !== 'cut' && (
              <>
                <NumberField label="Takes" name="Transition in seconds" unit="s" digits={2} step={0.1} min={0.01} max={3600} value={s.into / 1000} onSet={(v) => set({ transition: { duration: Math.round(v * 1000) } })} />
                <Label>Easing</Label>
                <EasingField name="Transition easing" value={s.easing || 'ease-in-out'} onSet={(easing) => set({ transition: { easing } })} />
              </>
            )}
          </div>
        </Section>
      )}
      <Section title="Film">
        <div className="grid grid-cols-[84px_1fr] items-center gap-x-2 gap-y-2">
          <Label>Page</Label>
          <span className="font-mono text-[12px]">{film.width} × {film.height} px</span>
          <Label>Frames</Label>
          <Choice
            name="Frames a second" value={rate} onSet={(v) => { const [num, den] = v.split('/').map(Number); apply({ op: 'film.set', patch: { rate: { num, den } } }) }}
            of={[...new Set([...rates, rate])].map((r) => { const [n, d] = r.split('/').map(Number); return { value: r, label: `${d === 1 ? n : (n / d).toFixed(3)} a second` } })}
          />
          <Label>Length</Label>
          <span className="font-mono text-[12px]">{(film.length / 1000).toFixed(2)} s · {film.frames} frames</span>
        </div>
      </Section>
    </>
  )
}
