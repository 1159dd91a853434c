// The background of a scene: none, a colour, or a gradient whose ends lie on the page; a picture becomes its ground.
import { pictureFiles } from '../server/server'
import { Image as ImageIcon } from 'lucide-react'
import { useRef } from 'react'
import { engine } from '../engine/engine'
import { groundOf } from '../actions/pictures'
import type { Command, Heading } from '../engine/types'
import { apply, run } from '../project/commands'
import { look, showDraft, useDesk } from '../project/desk'
import { ColourField, inkPatch } from '../ui/ColourField'
import { Check } from '../ui/Check'
import { Label, Sign } from '../ui/controls'
import { Signs } from './Signs'
import { GradientStrip } from './GradientStrip'

const kinds = [
  ['none', 'No background'],
  ['colour', 'One colour'],
  ['linear', 'Linear gradient'],
  ['radial', 'Radial gradient'],
] as const

export function BackgroundField({ scene: s }: { scene: Heading }) {
  const handles = useDesk((d) => d.backgroundHandles)
  const file = useRef<HTMLInputElement>(null)
  const fill = s.background
  const graded = fill.kind === 'linear' || fill.kind === 'radial'
  const patch = (v: Parameters<typeof inkPatch>[0]): Command => ({
    op: 'scene.set',
    ids: [s.id],
    patch: { background: { kind: 'colour', ...inkPatch(v) } },
  })
  return (
    <>
      <Label>Background</Label>
      <div className="flex items-center gap-1.5">
        <Signs
          name="Kind of background"
          value={fill.kind}
          of={kinds}
          onSet={(kind) => {
            if (run('fill.kind', { threads: [], part: 'background', kind }))
              look({ backgroundHandles: kind === 'linear' || kind === 'radial' })
          }}
        />
        <Sign
          name="A picture: it becomes the ground"
          className="!h-6 !w-6 hover:bg-sailcloth-200"
          onClick={() => file.current?.click()}
        >
          <ImageIcon size={15} strokeWidth={1.5} />
        </Sign>
        <input
          ref={file}
          type="file"
          accept={pictureFiles}
          hidden
          data-ground-input
          aria-label="Picture for the ground"
          onChange={(e) => {
            const f = e.target.files?.[0]
            if (f) void groundOf(f)
            e.target.value = ''
          }}
        />
      </div>
      {fill.kind === 'colour' && (
        <>
          <Label>Colour</Label>
          <ColourField
            name="Background"
            value={{ colour: fill.colour!, role: fill.role, tone: fill.tone }}
            onDraft={(v) => showDraft(engine.draft(patch(v), false))}
            onSet={(v) => v && apply(patch(v))}
          />
        </>
      )}
      {graded && (
        <div className="col-span-2">
          <GradientStrip part="background" threads={[]} stops={fill.gradient!.stops} />
        </div>
      )}
      {graded && (
        <Check name="Its ends on the page, to drag them" on={handles} onSet={(on) => look({ backgroundHandles: on })} />
      )}
    </>
  )
}
