// The scene: shown when nothing is selected.
import { clsx } from 'clsx'
import type { Intents } from '../engine/types'
import { ChevronLeft, ChevronRight, ScrollText, Trash2 } from 'lucide-react'
import { apply, run } from '../project/commands'
import { desk, goToScene, select, set as setDesk, useDesk } from '../project/desk'
import { putAside } from '../project/setaside'
import { foldScenes, makeScenes, moveAsOne, splitScene, unfoldScene } from '../actions/series'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { TextField } from '../ui/TextField'
import { Button, Label, Sign } from '../ui/controls'
import { BackgroundField } from './BackgroundField'
import { CuesPanel } from './CuesPanel'
import { ForScenes, useScope } from './ForScenes'
import { FilmPanel } from './FilmPanel'
import { CaptionStyle } from './CaptionPanel'
import { Together } from './Together'
import { RolesPanel } from './RolesPanel'
import { SceneView } from './ViewFields'
import { TransitionFields } from './TransitionFields'

export function ScenePanel() {
  const film = useDesk((d) => d.film)
  const i = useDesk((d) => d.scene)
  const stays = useScope('stay')
  const transitions = useScope('transition')
  const several = useDesk((d) => d.scenes.length)
  const s = film?.scenes[i]
  if (!film || !s) return null
  if (s.template) return <TemplatePanel id={s.id} name={s.name} />
  if (s.aside) return <AsidePanel id={s.id} name={s.name} layers={s.layers} />
  const set = (patch: object) => apply({ op: 'scene.set', ids: [s.id], patch })
  const add = (intent: keyof Intents) => {
    const at = desk().scene
    if (run(intent)) goToScene(at + 1)
  }
  const move = (by: number) => {
    if (apply({ op: 'scene.order', ids: [s.id], index: i + by })) goToScene(i + by)
  }
  return (
    <>
      <div className="flex h-10.25 items-center gap-2 border-b border-sailcloth-300 pl-2 pr-3">
        <TextField
          key={s.id}
          name="Scene name"
          value={s.name}
          onSet={(name) => set({ name })}
          className={clsx(
            'flex-1 !border-transparent !bg-transparent text-[0.875rem] font-semibold',
            'hover:!border-sailcloth-500 focus:!bg-paper',
          )}
        />
        <button
          type="button"
          title="To another scene, by its name (Shift+Z)"
          onClick={(e) => {
            e.currentTarget.blur() // the key that goes to a scene would press it again
            setDesk({ sheet: 'scenes' })
          }}
          className="shrink-0 rounded-md px-1 text-[0.75rem] text-ink-500 hover:bg-sailcloth-200"
        >
          scene {i + 1} of {film.shown}
        </button>
      </div>
      <Section title="Scene">
        <div className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
          {film.clear ? (
            <p className="col-span-2 text-[0.75rem] text-ink-600">
              The film’s ground is clear: no background is painted.
            </p>
          ) : (
            <BackgroundField scene={s} />
          )}
          <NumberField
            label="Stays"
            name="Stay in seconds"
            unit="s"
            digits={2}
            step={0.1}
            min={0}
            max={3600}
            value={s.stay / 1000}
            onSet={(v) => stays.change((ids) => run('scene.stay', { ids, stay: Math.round(v * 1000) }))}
          />
          <Check
            name="As long as its moves and words take"
            on={s.autoStay}
            disabled={!!s.endsAtCue}
            onSet={(v) =>
              stays.change((ids) =>
                apply({
                  op: 'scene.set',
                  ids,
                  patch: v ? { autoStay: true, endsAtCue: null } : { autoStay: null, stay: s.stay },
                }),
              )
            }
          />
          {s.cues.length > 0 && (
            <>
              <Label>Ends</Label>
              <Choice
                name="When the scene ends"
                value={s.endsAtCue || 'stay'}
                of={[
                  { value: 'stay', label: 'after its stay' },
                  ...s.cues.map((q) => ({ value: q.id, label: `at cue ${q.name}` })),
                ]}
                onSet={(v) => set({ endsAtCue: v === 'stay' ? null : v })}
              />
            </>
          )}
        </div>
        <ForScenes scope={stays} what="stay" />
        <div className="-mx-1 mt-2 flex items-center gap-1">
          <Sign
            name="Earlier in the film"
            className="hover:bg-sailcloth-200"
            disabled={i === 0}
            onClick={() => move(-1)}
          >
            <ChevronLeft size={17} strokeWidth={1.5} />
          </Sign>
          <Sign
            name="Later in the film"
            className="hover:bg-sailcloth-200"
            disabled={i === film.shown - 1}
            onClick={() => move(1)}
          >
            <ChevronRight size={17} strokeWidth={1.5} />
          </Sign>
          <Sign
            name="The scene in words (W)"
            className="hover:bg-sailcloth-200"
            onClick={() => setDesk({ sheet: 'words' })}
          >
            <ScrollText size={16} strokeWidth={1.5} />
          </Sign>
          <span className="flex-1" />
          <Sign
            name="Delete scene"
            className="hover:bg-sailcloth-200"
            disabled={film.shown === 1}
            onClick={() => apply({ op: 'scene.delete', ids: [s.id] })}
          >
            <Trash2 size={16} strokeWidth={1.5} />
          </Sign>
        </div>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Button
            className="whitespace-nowrap !px-1"
            onClick={() => add('scene.continue')}
            title="The next scene begins as this one ends: nothing enters twice"
          >
            Continue scene
          </Button>
          <Button
            className="whitespace-nowrap !px-1"
            onClick={() => add('scene.duplicate')}
            title="A copy with all its moves"
          >
            Duplicate scene
          </Button>
          {several > 1 ? (
            <>
              <Button
                className="whitespace-nowrap !px-1"
                onClick={() => foldScenes()}
                title="One scene in which things come, go and change when they did"
              >
                Fold {several} scenes
              </Button>
              <Button
                className="whitespace-nowrap !px-1"
                disabled={several < 3}
                onClick={() => moveAsOne()}
                title="Their morphs in one go, at even speed, along a smooth curve"
              >
                Move as one
              </Button>
            </>
          ) : (
            <>
              <Button
                className="whitespace-nowrap !px-1"
                onClick={splitScene}
                title="What is seen at the playhead begins a scene of its own (/)"
              >
                Split here
              </Button>
              <Button
                className="whitespace-nowrap !px-1"
                onClick={unfoldScene}
                title="A scene for each step of what happens one after another"
              >
                Unfold
              </Button>
            </>
          )}
        </div>
      </Section>
      {i > 0 && (
        <Section title="Transition into it">
          <TransitionFields
            kind={s.transition}
            duration={s.into}
            easing={s.easing}
            params={s.params}
            goesOn={s.goesOn}
            mayGoOn={s.mayGoOn}
            runs={s.run}
            curve={s.curve}
            onSet={(patch) => transitions.change((ids) => run('scene.transition', { ids, patch }))}
          />
          <ForScenes scope={transitions} what="transition" />
          <Button className="mt-2 w-full !h-7 text-[0.75rem]" onClick={() => setDesk({ sheet: 'pairs' })}>
            Pairs: what goes on as what …
          </Button>
        </Section>
      )}
      <SceneView />
      <RolesPanel scene={s} />
      <CuesPanel scene={s} />
      <FilmPanel film={film} />
      <Together />
      <CaptionStyle />
    </>
  )
}

/** What is said of a scene that others are made of. */
function TemplatePanel({ id, name }: { id: string; name: string }) {
  return (
    <>
      <div className="flex h-10.25 items-center gap-2 border-b border-sailcloth-300 pl-2 pr-3">
        <TextField
          key={id}
          name="Scene name"
          value={name}
          onSet={(v) => apply({ op: 'scene.set', ids: [id], patch: { name: v } })}
          className={clsx(
            'flex-1 !border-transparent !bg-transparent text-[0.875rem] font-semibold',
            'hover:!border-sailcloth-500 focus:!bg-paper',
          )}
        />
        <span className="shrink-0 text-[0.75rem] text-ink-500">template</span>
      </div>
      <Section title="Template">
        <p className="text-[0.75rem] text-ink-600">
          It is not in the film. Scenes that are made of it are copies: what is changed here later is for the next ones.
        </p>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Button className="!px-1" onClick={() => makeScenes('template.use', { id })}>
            Make a scene of it
          </Button>
          <Button
            className="!px-1"
            onClick={() => {
              if (apply({ op: 'scene.delete', ids: [id] })) goToScene(desk().lastScene)
            }}
          >
            Delete
          </Button>
        </div>
      </Section>
    </>
  )
}

/** What is said of the scene where layers are set aside. */
function AsidePanel({ id, name, layers }: { id: string; name: string; layers: number }) {
  const last = useDesk((d) => d.film!.scenes[d.lastScene]?.name ?? '')
  return (
    <>
      <div className="flex h-10.25 items-center gap-2 border-b border-sailcloth-300 pl-2 pr-3">
        <TextField
          key={id}
          name="Scene name"
          value={name}
          onSet={(v) => apply({ op: 'scene.set', ids: [id], patch: { name: v } })}
          className={clsx(
            'flex-1 !border-transparent !bg-transparent text-[0.875rem] font-semibold',
            'hover:!border-sailcloth-500 focus:!bg-paper',
          )}
        />
        <span className="shrink-0 text-[0.75rem] text-ink-500">not in the film</span>
      </div>
      <Section title="Set aside">
        <p className="text-[0.75rem] text-ink-600">
          {layers === 0
            ? 'Nothing lies here. Select layers of a scene and press X: they wait here until they are wanted.'
            : 'What lies here is never played or exported. Change it like anything else; select some to bring back.'}
        </p>
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Button
            className="!px-1"
            disabled={layers === 0}
            title={`Into ${last}, where they lie`}
            onClick={() => {
              select(
                desk()
                  .rows.filter((r) => r.here && !r.parent)
                  .map((r) => r.thread),
                '',
              )
              putAside()
            }}
          >
            Bring all back
          </Button>
          <Button
            className="!px-1"
            onClick={() => {
              if (apply({ op: 'scene.delete', ids: [id] })) goToScene(desk().lastScene)
            }}
          >
            Delete
          </Button>
        </div>
      </Section>
    </>
  )
}
