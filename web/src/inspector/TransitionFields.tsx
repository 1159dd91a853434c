// The fields of a transition: into a scene, or the closing one.
import type { TransitionKind } from '../engine/types'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Label } from '../ui/controls'
import { DirectionField } from './DirectionField'
import { EasingField } from './EasingField'

const kinds: { value: TransitionKind; label: string }[] = [
  { value: 'cut', label: 'Cut' },
  { value: 'crossfade', label: 'Crossfade' },
  { value: 'morph', label: 'Morph' },
  { value: 'wipe', label: 'Wipe' },
  { value: 'push', label: 'Push' },
]

export function TransitionFields({
  name = 'Transition',
  kind,
  duration,
  easing,
  direction,
  softness,
  goesOn,
  mayGoOn,
  runs,
  onSet,
}: {
  name?: string
  kind: TransitionKind
  duration: number
  easing: string
  direction: number
  softness: number
  goesOn: boolean
  mayGoOn: boolean
  runs: number
  onSet: (patch: object) => void
}) {
  return (
    <div className="grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2">
      <Label>Kind</Label>
      <Choice name={name} value={kind} of={kinds} onSet={(kind) => onSet({ kind })} />
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
      {(kind === 'wipe' || kind === 'push') && (
        <>
          <Label>Travels</Label>
          <DirectionField
            name={`${name}: direction of travel`}
            value={direction}
            onSet={(d) => onSet({ direction: d || null })}
          />
        </>
      )}
      {kind === 'wipe' && (
        <NumberField
          label="Soft by"
          name={`${name}: softness`}
          unit="px"
          min={0}
          max={4000}
          value={softness}
          onSet={(v) => onSet({ softness: v || null })}
        />
      )}
      {kind === 'morph' && (mayGoOn || goesOn) && (
        <Check name="Moves as one with the morph before" on={goesOn} onSet={(v) => onSet({ goesOn: v || null })} />
      )}
      {kind !== 'cut' && !(goesOn && runs > 1) && (
        <>
          <Label>Easing</Label>
          <EasingField name={`${name} easing`} value={easing || 'ease-in-out'} onSet={(easing) => onSet({ easing })} />
        </>
      )}
      {runs > 1 && (
        <p className="col-span-2 text-[0.6875rem] leading-snug text-ink-600">
          {runs} morphs move as one, in the easing of the first{goesOn ? ': set it there' : '; “Even” is even speed'}.
        </p>
      )}
    </div>
  )
}
