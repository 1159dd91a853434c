// What a stroke is painted with.
import type { Stroke } from '../engine/types'
import { run } from '../project/commands'
import { OneColour, Signs } from './FillField'
import { GradientStrip } from './GradientStrip'

const kinds = [['none', 'No stroke'], ['colour', 'Stroke in one colour'], ['linear', 'Stroke with a linear gradient'], ['radial', 'Stroke with a radial gradient']] as const

export function FillOf({ kind, strokes, threads, onNone, onBegin }: {
  kind: string | null; strokes: Stroke[]; threads: string[]; onNone: () => void; onBegin: () => void
}) {
  const choose = (k: string) => {
    if (k === 'none') onNone()
    else if (kind === 'none' || kind === null) onBegin()
    else run('fill.kind', { threads, part: 'stroke', kind: k })
  }
  return (
    <div className="flex items-center justify-between gap-1.5">
      <Signs name="Kind of stroke" value={kind} of={kind === 'none' ? kinds.slice(0, 2) : kinds} onSet={choose} />
      {kind === 'colour' && <OneColour part="stroke" name="Stroke" fills={strokes.map((s) => s.fill)} threads={threads} />}
    </div>
  )
}

FillOf.Strip = function Strip({ stroke, threads }: { stroke: Stroke; threads: string[] }) {
  return <div className="col-span-2"><GradientStrip part="stroke" threads={threads} stops={stroke.fill.gradient!.stops} /></div>
}
