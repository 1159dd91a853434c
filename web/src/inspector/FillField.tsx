// What a part of the selected layers is filled with: its kind, and then its colour or its gradient.
import type { Fill, Layer } from '../engine/types'
import { draft, run } from '../project/commands'
import { refreshDraft } from '../project/desk'
import { Label, Sign } from '../ui/controls'
import { ColourField, inkPatch, type Ink } from '../ui/ColourField'
import { GradientStrip } from './GradientStrip'
import { drawings } from './signs'
import { shared } from './Look'

const kinds = [['none', 'No fill'], ['colour', 'One colour'], ['linear', 'Linear gradient'], ['radial', 'Radial gradient']] as const

/** A row of signs of which one is pressed. */
export function Signs({ name, value, of, onSet }: { name: string; value: string | null; of: readonly (readonly [string, string, string?])[]; onSet: (v: string) => void }) {
  return (
    <span className="inline-flex rounded-md border border-sailcloth-300" role="group" aria-label={name}>
      {of.map(([v, label, drawing]) => (
        <Sign key={v} name={label} pressed={value === v} className={`!h-6 !w-6 ${value === v ? 'bg-brass-200' : 'hover:bg-sailcloth-200'}`} onClick={() => onSet(v)}>
          {drawings[drawing ?? v]}
        </Sign>
      ))}
    </span>
  )
}

export function FillField({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const kind = shared(layers.map((l) => l.fill.kind))
  return (
    <>
      <Label>Fill</Label>
      <div className="flex items-center justify-between gap-1.5">
        <Signs name="Kind of fill" value={kind} of={kinds} onSet={(k) => run('fill.kind', { threads, part: 'fill', kind: k })} />
        {kind === 'colour' && <OneColour part="fill" name="Fill" fills={layers.map((l) => l.fill)} threads={threads} />}
      </div>
      {(kind === 'linear' || kind === 'radial') && (
        <div className="col-span-2"><GradientStrip part="fill" threads={threads} stops={layers[0].fill.gradient!.stops} /></div>
      )}
    </>
  )
}

/** The ink all of a list have, or null. */
export function sharedInk(list: { colour?: string; role?: string; tone?: number }[]): Ink | null {
  const [a] = list
  return a?.colour && list.every((b) => a.colour === b.colour && (a.role ?? '') === (b.role ?? '') && (a.tone ?? 0) === (b.tone ?? 0)) ? { colour: a.colour, role: a.role, tone: a.tone } : null
}

export function OneColour({ part, name, fills, threads }: { part: 'fill' | 'stroke'; name: string; fills: Fill[]; threads: string[] }) {
  const patch = (v: Ink) => {
    const fill = { kind: 'colour', ...inkPatch(v) }
    return part === 'fill' ? { fill } : { stroke: { fill } }
  }
  return (
    <ColourField
      name={name} alpha compact value={sharedInk(fills)}
      onDraft={(c) => { draft('set', { threads, patch: patch(c) }); refreshDraft() }}
      onSet={(v) => v && run('set', { threads, patch: patch(v) })}
    />
  )
}
