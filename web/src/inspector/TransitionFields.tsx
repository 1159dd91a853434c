// The fields of a transition: into a scene, or the closing one.
import { engine } from '../engine/engine'
import { openGallery } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { changeAt, DescribedField, valueAt } from './Described'
import { EasingField } from './EasingField'

export function TransitionFields({
  name = 'Transition',
  kind,
  duration,
  easing,
  params,
  goesOn,
  mayGoOn,
  runs,
  curve,
  onSet,
}: {
  name?: string
  kind: string
  duration: number
  easing: string
  params: object | undefined
  goesOn: boolean
  mayGoOn: boolean
  runs: number
  curve?: boolean
  onSet: (patch: object) => void
}) {
  return (
    <div className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
      <Label>Kind</Label>
      <Choice
        name={name}
        value={kind}
        of={engine.fields().pages.map((v) => ({ value: v.kind, label: v.words }))}
        onSet={(kind) => onSet({ kind })}
      />
      {name === 'Transition' && (
        <Button className="col-span-2 !h-7 text-[0.75rem]" onClick={() => openGallery({ pages: true })}>
          See them on these scenes …
        </Button>
      )}
      {kind !== 'cut' && (
        <NumberField
          label="Takes"
          name={`${name} in seconds`}
          unit="s"
          digits={2}
          step={0.1}
          min={0.01}
          max={3600}
          value={duration / 1000}
          onSet={(v) => onSet({ duration: Math.round(v * 1000) })}
        />
      )}
      {(engine.fields().effects[kind] ?? [])
        .filter((f) => !f.noPage)
        .map((f) => (
          <DescribedField
            key={f.name}
            field={{ ...f, name: `${name}: ${f.name.toLowerCase()}` }}
            value={valueAt({ params }, f.path)}
            onSet={(v) => onSet(changeAt(f.path, v))}
          />
        ))}
      {kind === 'morph' && (mayGoOn || goesOn) && (
        <Check name="Moves as one with the morph before" on={goesOn} onSet={(v) => onSet({ goesOn: v || null })} />
      )}
      {kind !== 'cut' && !(goesOn && runs > 1) && (
        <>
          <Label className="mt-1.5 self-start">Easing</Label>
          <EasingField name={`${name} easing`} value={easing || 'ease-in-out'} onSet={(easing) => onSet({ easing })} />
        </>
      )}
      {runs > 1 && !goesOn && curve !== undefined && (
        <Check name="Along a smooth curve through the scenes" on={curve} onSet={(v) => onSet({ curve: v || null })} />
      )}
      {runs > 1 && (
        <p className="col-span-2 text-[0.6875rem] leading-snug text-ink-600">
          {runs} morphs move as one, in the easing of the first{goesOn ? ': set it there' : '; “Even” is even speed'}.
        </p>
      )}
    </div>
  )
}
