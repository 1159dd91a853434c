// Cues of a scene: moments where a presenter may be waited for.
import { clsx } from 'clsx'
import { Flag as FlagIcon, Trash2 } from 'lucide-react'
import type { Heading } from '../engine/types'
import { apply, run } from '../project/commands'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { TextField } from '../ui/TextField'
import { Sign } from '../ui/controls'

export function CuesPanel({ scene }: { scene: Heading }) {
  const change = (id: string, patch: object) => apply({ op: 'cue.set', scene: scene.id, id, patch })
  return (
    <Section title="Cues" folded={scene.cues.length === 0}>
      {scene.cues.length === 0 && (
        <p className="mb-2 text-[0.75rem] text-ink-600">
          A cue is a named moment that moves can begin at, and where a presenter may be waited for.
        </p>
      )}
      {scene.cues.map((q) => (
        <div key={q.id} className="mb-1.5 rounded-md bg-sailcloth-100 px-2 py-1.5" data-cue-card={q.name}>
          <div className="flex items-center gap-1">
            <FlagIcon size={14} strokeWidth={1.5} className="shrink-0 text-sea-500" aria-hidden />
            <TextField
              name={`Name of cue ${q.name}`}
              value={q.name}
              onSet={(name) => change(q.id, { name })}
              className="!h-6 flex-1 !border-transparent !bg-transparent font-semibold hover:!border-sailcloth-500"
            />
            <Sign
              name={`Delete cue ${q.name}`}
              className="text-ink-600 hover:bg-sailcloth-200"
              onClick={() => apply({ op: 'cue.delete', scene: scene.id, id: q.id })}
            >
              <Trash2 size={15} strokeWidth={1.5} />
            </Sign>
          </div>
          <div className="mt-1 grid grid-cols-[1.25rem_1fr_2.125rem_1fr] items-center gap-x-1.5">
            <NumberField
              label="at"
              name={`Time of cue ${q.name}`}
              unit="s"
              digits={2}
              step={0.1}
              min={0}
              max={3600}
              value={q.at / 1000}
              onSet={(v) => change(q.id, { at: Math.round(v * 1000) })}
            />
            <NumberField
              label="waits"
              name={`Wait at cue ${q.name}`}
              unit="s"
              digits={2}
              step={0.5}
              min={0}
              max={3600}
              value={(q.wait ?? 0) / 1000}
              onSet={(v) => change(q.id, { wait: Math.round(v * 1000) || null })}
            />
          </div>
        </div>
      ))}
      <button
        type="button"
        className={clsx(
          'h-7 w-full rounded-md border border-dashed border-ink-500/50 font-semibold',
          'text-spruce-800 hover:bg-sailcloth-100',
        )}
        title="At the playhead, or at 0 (C)"
        onClick={() => run('cue.add')}
      >
        Add a cue
      </button>
    </Section>
  )
}
