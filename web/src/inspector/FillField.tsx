// What a part of the selected layers is filled with: its kind, and then its colour or its gradient.
import { pictureFiles } from '../server/server'
import { useRef } from 'react'
import { fillWith } from '../actions/pictures'
import type { Fill, Layer } from '../engine/types'
import { draft, run } from '../project/commands'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { ColourField, inkPatch, type Ink } from '../ui/ColourField'
import { GradientStrip } from './GradientStrip'
import { Signs } from './Signs'
import { shared } from './shared'

const kinds = [
  ['none', 'No fill'],
  ['colour', 'One colour'],
  ['linear', 'Linear gradient'],
  ['radial', 'Radial gradient'],
  ['picture', 'A picture'],
  ['texture', 'A texture: a picture laid side by side'],
] as const

export function FillField({ layers, threads }: { layers: Layer[]; threads: string[] }) {
  const kind = shared(layers.map((l) => l.fill.kind))
  const input = useRef<HTMLInputElement>(null)
  const wanted = useRef('picture')
  const toned = layers.flatMap((l) => l.adjust?.toned?.tones.slice(0, 1) ?? [])
  return (
    <>
      <Label>Fill</Label>
      <div className="flex items-center justify-between gap-1.5">
        <Signs
          name="Kind of fill"
          value={kind}
          of={kinds}
          onSet={(k) => {
            if (k !== 'picture' && k !== 'texture') {
              run('fill.kind', { threads, part: 'fill', kind: k })
              return
            }
            const hash = shared(layers.map((l) => l.fill.media ?? null))
            if (hash) run('fill.picture', { threads, kind: k, hash })
            else {
              wanted.current = k
              input.current?.click()
            }
          }}
        />
        <input
          ref={input}
          type="file"
          accept={pictureFiles}
          hidden
          data-fill-input
          aria-label="Picture to fill with"
          onChange={(e) => {
            const f = e.target.files?.[0]
            if (f) void fillWith(f, threads, wanted.current)
            e.target.value = ''
          }}
        />
      </div>
      {kind === 'colour' && (
        <>
          <Label>Colour</Label>
          <OneColour part="fill" name="Fill" fills={layers.map((l) => l.fill)} threads={threads} whole />
        </>
      )}
      {kind === 'texture' && (
        <>
          <Label>Colour</Label>
          <ColourField
            name="Colour of the texture"
            none
            value={toned.length === layers.length ? sharedInk(toned) : null}
            onDraft={(v) => draft('adjust.tone', { threads, index: 0, tone: toneOf(v) })}
            onSet={(v) =>
              v
                ? run('adjust.tone', { threads, index: 0, tone: toneOf(v) })
                : run('adjust.tones', { threads, count: 0 })
            }
          />
        </>
      )}
      {(kind === 'picture' || kind === 'texture') && (
        <>
          <Label>{kind === 'texture' ? 'Tiles' : 'Picture'}</Label>
          <div className="flex items-center gap-1.5">
            {kind === 'texture' && (
              <div className="w-20">
                <NumberField
                  name="Width of a tile"
                  unit="px"
                  min={1}
                  value={shared(layers.map((l) => Math.round(l.fill.size ?? 0)))}
                  onSet={(size) => run('set', { threads, patch: { fill: { size } } })}
                />
              </div>
            )}
            <Button
              className="flex-1"
              onClick={() => {
                wanted.current = kind
                input.current?.click()
              }}
            >
              Another file …
            </Button>
          </div>
        </>
      )}
      {(kind === 'linear' || kind === 'radial') && (
        <div className="col-span-2">
          <GradientStrip part="fill" threads={threads} stops={layers[0].fill.gradient!.stops} />
        </div>
      )}
      {kind === 'radial' && (
        <>
          <Label>Across</Label>
          <div title="How far it reaches across its line, as a share of that: 100 is a circle">
            <NumberField
              name="Reach of the gradient across its line"
              unit="%"
              min={1}
              max={1000}
              value={shared(layers.map((l) => Math.round(100 * (l.fill.gradient?.ratio || 1))))}
              onSet={(v) =>
                run('set', { threads, patch: { fill: { gradient: { ratio: v === 100 ? null : v / 100 } } } })
              }
            />
          </div>
        </>
      )}
    </>
  )
}

/** The ink all of a list have, or null. */
/** A colour as a tone of what is toned. */
export const toneOf = (v: Ink) => ({
  colour: v.colour,
  ...(v.role && { role: v.role }),
  ...(v.tone && { tone: v.tone }),
})

export function sharedInk(list: { colour?: string; role?: string; tone?: number }[]): Ink | null {
  const [a] = list
  return a?.colour &&
    list.every((b) => a.colour === b.colour && (a.role ?? '') === (b.role ?? '') && (a.tone ?? 0) === (b.tone ?? 0))
    ? { colour: a.colour, role: a.role, tone: a.tone }
    : null
}

export function OneColour({
  part,
  name,
  fills,
  threads,
  whole,
}: {
  part: 'fill' | 'stroke'
  name: string
  fills: Fill[]
  threads: string[]
  whole?: boolean
}) {
  const patch = (v: Ink) => {
    const fill = { kind: 'colour', ...inkPatch(v) }
    return part === 'fill' ? { fill } : { stroke: { fill } }
  }
  return (
    <ColourField
      name={name}
      alpha
      compact={!whole}
      value={sharedInk(fills)}
      onDraft={(c) => draft('set', { threads, patch: patch(c) })}
      onSet={(v) => v && run('set', { threads, patch: patch(v) })}
    />
  )
}
