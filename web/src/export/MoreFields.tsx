// What is asked for seldom: the name, title and description of a file, its poster, the colours of a GIF.
import { ChevronLeft } from 'lucide-react'
import { engine } from '../engine/engine'
import type { Ask } from '../engine/types'
import { useDesk } from '../project/desk'
import { filmTime } from '../time'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { TextField } from '../ui/TextField'
import { kindOf } from './kinds'
import { MarkFields } from './MarkFields'

const dithers: Record<string, string> = {
  none: 'none: flat steps',
  ordered: 'a pattern that stands still',
  noise: 'noise that stands still',
  diffusion: 'errors spread to neighbours',
}

const gives: Record<string, string> = {
  dither: 'dither',
  loss: 'exactness',
  colours: 'colours',
  rate: 'frames a second',
  size: 'size',
}

export function MoreFields({ ask, change }: { ask: Ask; change: (by: Partial<Ask>) => void }) {
  const time = useDesk((d) => d.moment.time)
  const { colours, loss, dithers: kinds, samples } = engine.choices()
  const kind = kindOf(ask.format)
  const cue = ask.cues ? engine.offered(ask.format).cues[0] : undefined
  const { pattern, says } = engine.delivery(
    ask.scenes ? { ...ask, scene: 1 } : cue ? { ...ask, scene: cue.scene, cue: cue.cue } : ask,
  )
  const order = ask.give ?? kind.gives
  const earlier = (i: number) => {
    const list = [...order]
    ;[list[i - 1], list[i]] = [list[i], list[i - 1]]
    change({ give: list })
  }
  return (
    <div className="mt-2 grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
      {kind.palette && (
        <>
          <Label>Colours</Label>
          <span className="grid grid-cols-[5.25rem_1fr] gap-1.5">
            <NumberField
              quiet
              name="Colours at most"
              min={2}
              max={colours}
              value={ask.colours ?? colours}
              onSet={(v) => change({ colours: v })}
            />
            <Choice
              name="Between colours"
              value={ask.dither ?? 'auto'}
              of={[
                { value: 'auto', label: 'what suits the film' },
                ...kinds.map((d) => ({ value: d, label: dithers[d] ?? d })),
              ]}
              onSet={(v) => change({ dither: v === 'auto' ? undefined : v })}
            />
          </span>
          <Label>Loss</Label>
          <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
            <span className="w-21 shrink-0">
              <NumberField
                quiet
                name="Loss: 0 is exact"
                min={0}
                max={100}
                value={ask.loss ?? loss}
                onSet={(v) => change({ loss: v })}
              />
            </span>
            0 is exact, {loss} is not seen, 20 is
          </span>
        </>
      )}
      {kind.rests && !!ask.target && (
        <>
          <Label>Gives up</Label>
          <ol className="flex flex-wrap gap-1 text-[0.75rem]">
            {order
              .filter((s) => kind.gives.includes(s))
              .map((s, i) => (
                <li
                  key={s}
                  className="flex h-5.5 items-center gap-1 rounded-full border border-sailcloth-500 px-2"
                  data-gives={s}
                >
                  {i > 0 && (
                    <button
                      type="button"
                      aria-label={`Give up ${gives[s] ?? s} earlier`}
                      title={`Give up ${gives[s] ?? s} earlier`}
                      onClick={() => earlier(order.indexOf(s))}
                    >
                      <ChevronLeft size={12} strokeWidth={1.5} />
                    </button>
                  )}
                  {gives[s] ?? s}
                </li>
              ))}
          </ol>
        </>
      )}
      {!kind.still && !kind.piece && (
        <>
          <Label>Blur</Label>
          <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
            <span className="w-21 shrink-0">
              <NumberField
                quiet
                name="Motion blur: how long the shutter is open, degrees of a frame; 0: none"
                unit="°"
                step={45}
                min={0}
                max={360}
                value={ask.shutter ?? 0}
                onSet={(v) => change({ shutter: v || undefined })}
              />
            </span>
            {ask.shutter ? (
              <>
                of
                <span className="w-21 shrink-0">
                  <NumberField
                    quiet
                    name="Moments that a frame is made of"
                    min={2}
                    max={64}
                    value={ask.samples ?? samples}
                    onSet={(v) => change({ samples: v })}
                  />
                </span>
                moments a frame
              </>
            ) : (
              'none; 180° is what film has'
            )}
          </span>
        </>
      )}
      {kind.poster && (
        <>
          <Label>Poster</Label>
          <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
            {ask.poster === undefined ? 'the end of the first scene' : `the frame at ${filmTime(ask.poster)}`}
            <Button className="!h-6" onClick={() => change({ poster: Math.round(time) })}>
              The frame shown here
            </Button>
          </span>
        </>
      )}
      <MarkFields mark={ask.mark} onMark={(mark) => change({ mark })} />
      <Label>Name</Label>
      <TextField
        name="Pattern of the file’s name: {project} {scene} {kind} {size} {version} {date}"
        clears
        value={ask.name ?? pattern}
        onSet={(v) => change({ name: v && v !== pattern ? v : undefined })}
      />
      {kind.texts && (
        <>
          <Label>Title</Label>
          <TextField
            name="Title in the file"
            clears
            value={ask.title ?? ''}
            onSet={(v) => change({ title: v || undefined })}
          />
          <Label>Description</Label>
          <span className="flex gap-1.5">
            <TextField
              name="Description in the file, for people who do not see it"
              clears
              value={ask.description ?? ''}
              onSet={(v) => change({ description: v || undefined })}
            />
            <Button
              className="!px-2"
              disabled={!says || ask.description === says}
              title={says ? `Takes the words of the scenes: ${says}` : 'There are no words in it'}
              onClick={() => change({ description: says })}
            >
              Propose
            </Button>
          </span>
        </>
      )}
    </div>
  )
}
