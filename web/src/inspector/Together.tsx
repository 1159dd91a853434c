// How all sounds of the film go together: how loud it is, and how music steps back under voices.
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Fold, Section } from '../ui/Section'
import { Label } from '../ui/controls'

const grid = 'grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2'
const ms = (v: number) => Math.round(v * 1000)

/** How all sounds of the film go together. */
export function Together() {
  const mix = useDesk((d) => d.sounds.mix)
  const level = useDesk((d) => d.level)
  const some = useDesk((d) => d.sounds.rows.length > 0)
  const set = (patch: object) => run('sound.mix', { patch })
  const target = String(mix.loudness ?? 0)
  if (!some) return null
  return (
    <Section title="All sounds">
      <div className={grid}>
        <Label>Film</Label>
        <Choice
          name="Loudness of the whole film"
          value={target}
          onSet={(v) => set({ loudness: Number(v) })}
          of={[
            { value: '0', label: 'As loud as it comes' },
            { value: '-14', label: '−14 LUFS, for posts' },
            { value: '-23', label: '−23 LUFS, for air' },
            ...(['0', '-14', '-23'].includes(target) ? [] : [{ value: target, label: `${target} LUFS` }]),
          ]}
        />
        {mix.loudness ? (
          <p className="col-span-2 text-[0.75rem] leading-snug text-ink-600" data-level>
            {level.gain === 0
              ? 'It is that loud already, or nothing is heard.'
              : `Made ${Math.abs(level.gain).toFixed(1)} dB ${level.gain > 0 ? 'louder' : 'softer'}`}
            {level.gain !== 0 && (level.limited ? '; its peaks are turned down.' : '.')}
          </p>
        ) : null}
      </div>
      <Fold title="Music steps back" folded={mix.back === 12 && mix.down === 300 && mix.up === 800}>
        <div className={`${grid} pt-1`}>
          <NumberField
            label="By"
            name="By how much music steps back under voices"
            unit="dB"
            digits={1}
            min={0}
            max={60}
            value={mix.back}
            onSet={(back) => set({ back })}
          />
          <NumberField
            label="Within"
            name="How long it takes to step back"
            unit="s"
            digits={2}
            step={0.1}
            min={0}
            max={60}
            value={mix.down / 1000}
            onSet={(v) => set({ down: ms(v) })}
          />
          <NumberField
            label="Comes back"
            name="How long it takes to come back"
            unit="s"
            digits={2}
            step={0.1}
            min={0}
            max={60}
            value={mix.up / 1000}
            onSet={(v) => set({ up: ms(v) })}
          />
        </div>
      </Fold>
    </Section>
  )
}
