// A caption: its words and times, how fast it asks to be read, and how captions are shown in the film.
import { useRef, useState } from 'react'
import { deleteCaption, nameNow, nameOf } from '../actions/captions'
import type { Captioned, CaptionRow } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { ColourField } from '../ui/ColourField'
import { NumberField } from '../ui/NumberField'
import { Section } from '../ui/Section'
import { Button, Label } from '../ui/controls'

const grid = 'grid grid-cols-[5.25rem_1fr] items-center gap-x-2 gap-y-2'
const ms = (v: number) => Math.round(v * 1000)

export function CaptionPanel({ of: c }: { of: CaptionRow }) {
  const [typed, setTyped] = useState<{ of: CaptionRow; text: string } | null>(null) // while it is typed
  const dropped = useRef(false)
  const film = useDesk((d) => d.film)!
  const scene = film.scenes.find((s) => s.id === c.scene)
  const zero = scene ? scene.start + scene.into : 0
  const move = (part: string, by: number) => run('caption.move', { ...nameOf(c), part, by })
  const take = () => {
    const name = !dropped.current && typed && typed.text.trim() !== typed.of.text ? nameNow(typed.of) : null
    if (name) run('caption.say', { ...name, text: typed!.text })
    dropped.current = false
    setTyped(null)
  }
  return (
    <div data-caption-panel>
      <div className="flex h-10.25 items-center gap-2 border-b border-sailcloth-300 px-4">
        <h2 className="flex-1 text-[0.875rem] font-semibold">Caption</h2>
        <span className="text-[0.75rem] text-ink-500">{scene?.name}</span>
      </div>
      <Section title="Words">
        <textarea
          data-caption-words
          aria-label="Words of the caption"
          value={typed?.text ?? c.text}
          rows={3}
          maxLength={500}
          className="w-full rounded-md border border-sailcloth-500 bg-sailcloth-100 px-2 py-1.5 leading-snug"
          onChange={(e) => setTyped({ of: typed?.of ?? c, text: e.target.value })}
          onBlur={take}
          onKeyDown={(e) => {
            e.stopPropagation()
            dropped.current = e.key === 'Escape'
            if (e.key === 'Escape' || (e.key === 'Enter' && !e.shiftKey)) {
              e.preventDefault()
              e.currentTarget.blur()
            }
          }}
        />
        <p className={`text-[0.75rem] leading-snug ${c.fast ? 'text-coral-700' : 'text-ink-600'}`} data-caption-pace>
          {c.pace} characters a second
          {c.fast ? ': faster than most can read. Give it more time, or fewer words.' : ', which most can read.'}
        </p>
      </Section>
      <Section title="When">
        <div className={grid}>
          <NumberField
            label="Begins"
            name="When the caption begins on the scene’s clock"
            unit="s"
            digits={2}
            step={0.1}
            min={-3600}
            max={7200}
            value={(c.from - zero) / 1000}
            onSet={(v) => move('whole', ms(v) - (c.from - zero))}
          />
          <NumberField
            label="Shown for"
            name="How long the caption is shown"
            unit="s"
            digits={2}
            step={0.1}
            min={0.01}
            max={7200}
            value={(c.to - c.from) / 1000}
            onSet={(v) => move('end', ms(v) - (c.to - c.from))}
          />
        </div>
        <Button look="danger" className="mt-2 !h-7 text-[0.75rem]" onClick={deleteCaption}>
          Delete
        </Button>
      </Section>
      <CaptionStyle />
    </div>
  )
}

/** Whether and how the film shows its captions. */
export function CaptionStyle() {
  const { captions, captioned: is } = useDesk((d) => d.sounds)
  const height = useDesk((d) => d.film?.height ?? 0)
  if (captions.length === 0) return null
  const set = (by: Partial<Captioned>) =>
    run('sound.captions', { shown: true, patch: { size: 0, top: false, colour: '', plate: '', ...is, ...by } })
  const own = !!(is?.colour || is?.plate)
  return (
    <Section title="Captions in the film">
      <div className={grid}>
        <Check name="They are shown in the picture" on={!!is} onSet={(shown) => run('sound.captions', { shown })} />
        {is && (
          <>
            <Label>Side</Label>
            <Choice
              name="Side of the page at which captions are"
              value={is.top ? 'upper' : 'lower'}
              of={[
                { value: 'lower', label: 'Lower' },
                { value: 'upper', label: 'Upper' },
              ]}
              onSet={(v) => set({ top: v === 'upper' })}
            />
            <NumberField
              label="Size"
              name="Size of captions"
              unit="px"
              min={4}
              max={1000}
              value={is.size || Math.round(height / 18)}
              onSet={(size) => set({ size })}
            />
            <Check
              name="In the roles of their scene"
              on={!own}
              onSet={(roles) => set(roles ? { colour: '', plate: '' } : { colour: '#fffdf8', plate: '#10302ed9' })}
            />
            {own && (
              <>
                <Label>Words</Label>
                <ColourField
                  plain
                  name="Colour of captions"
                  value={{ colour: is.colour || '#fffdf8' }}
                  onSet={(v) => v && set({ colour: v.colour })}
                />
                <Label>Plate</Label>
                <ColourField
                  plain
                  alpha
                  name="Plate of captions"
                  value={{ colour: is.plate || '#10302ed9' }}
                  onSet={(v) => v && set({ plate: v.colour })}
                />
              </>
            )}
          </>
        )}
      </div>
    </Section>
  )
}
