// The colours of a group: each of them changed everywhere in it, all shifted, or mapped onto others.
import { useState } from 'react'
import type { Selected } from '../engine/types'
import { endRehearsal, rehearse, run } from '../project/commands'
import { ColourField, type Ink } from '../ui/ColourField'
import { toneOf } from './FillField'
import { Slide } from '../ui/Slide'
import { Fold } from '../ui/Section'
import { Button } from '../ui/controls'

const most = 24 // shown at first

export function RecolourFields({ of }: { of: Selected }) {
  const threads = [of.layer.thread]
  const [all, setAll] = useState(false)
  // While one of them is picked, the colours are those it began from: what is shown on the page is in others already.
  const [held, setHeld] = useState<Selected['inks'] | null>(null)
  const inks = held ?? of.inks
  const shown = all ? inks : inks.slice(0, most)
  const one = (from: Ink, to: Ink) => ({ threads, from: toneOf(from), to: toneOf(to) })
  // What a press would do is shown while the pointer, or the keyboard, is on it.
  const nearest = (roles: boolean) => ({
    onPointerEnter: () => rehearse(() => run('recolour.nearest', { threads, roles }), true),
    onPointerLeave: endRehearsal,
    onClick: () => run('recolour.nearest', { threads, roles }),
  })
  const shift = (name: string, label: string, unit: string, limit: number, of: (v: number) => object) => (
    <Slide
      label={label}
      name={name}
      unit={unit}
      min={-limit}
      max={limit}
      value={0}
      onSet={(v) => v !== 0 && run('recolour.shift', { threads, ...of(v) })}
    />
  )
  return (
    <Fold title="Recolour">
      <div className="flex flex-wrap gap-1.5 py-1" role="group" aria-label="Colours in this group">
        {shown.map((ink, i) => (
          <ColourField
            key={i}
            compact
            alpha
            name={`Colour ${i + 1}, used ${ink.count === 1 ? 'once' : `${ink.count} times`}`}
            value={ink}
            onDraft={(v) => {
              setHeld(inks)
              rehearse(() => run('recolour.one', one(ink, v)), true)
            }}
            onSet={(v) => {
              setHeld(null)
              if (v) run('recolour.one', one(ink, v))
            }}
          />
        ))}
        {shown.length < inks.length && (
          <Button className="!px-2 text-[0.75rem]" onClick={() => setAll(true)}>
            {inks.length - shown.length} more
          </Button>
        )}
      </div>
      <div className="grid grid-cols-[4.25rem_minmax(0,1fr)_3.5rem] items-center gap-x-2 gap-y-0.5">
        {shift('Turn all hues', 'Hue', '°', 180, (v) => ({ hue: v }))}
        {shift('Make all lighter', 'Lighter', '%', 100, (v) => ({ light: v / 100 }))}
        {shift('Make all stronger', 'Stronger', '%', 100, (v) => ({ chroma: v / 100 }))}
      </div>
      <div className="grid grid-cols-2 gap-1 py-1">
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="Each becomes the nearest tone of a role of this scene"
          {...nearest(true)}
        >
          Onto the roles
        </Button>
        <Button
          className="!h-7 !px-1 text-[0.75rem]"
          title="Each becomes the nearest of the film’s other colours"
          {...nearest(false)}
        >
          Onto the film’s
        </Button>
      </div>
    </Fold>
  )
}
