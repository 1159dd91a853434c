// What to make: a preset or a kind, its size, rate and part, and what else can be asked for.
import { Radio, RadioGroup } from '@headlessui/react'
import { clsx } from 'clsx'
import { Fragment, useMemo, useState } from 'react'
import { engine } from '../engine/engine'
import type { Ask } from '../engine/types'
import { fail, say, useDesk } from '../project/desk'
import { bytes, filmTime, seconds } from '../time'
import { Check } from '../ui/Check'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { Button, Label } from '../ui/controls'
import { fault, notice } from '../words'
import { useEstimate } from './estimate'
import { alike, kindOf, rateWords } from './kinds'
import { MoreFields } from './MoreFields'
import { Presets } from './Presets'

/** What a kind of file is called on the button that makes it. */
const short = (words: string) => words.replace(/ (video|still|sound)$/, '')

const sizeWords = (e: { bytes: number; packed: number }) =>
  e.packed ? `${bytes(e.bytes)}, ${bytes(e.packed)} as servers send it` : `about ${bytes(e.bytes)}`

export function FileForm({
  ask,
  onAsk,
  also,
  rows,
  lacks,
  onStart,
  byHand,
  onByHand,
}: {
  ask: Ask
  onAsk: (a: Ask) => void
  also: string[]
  rows: number // variants that each is made of; 0: of the film itself
  lacks: Record<string, string>
  onStart: () => void
  byHand: boolean
  onByHand: (v: boolean) => void
}) {
  const film = useDesk((d) => d.film)!
  const pending = useDesk((d) => d.pending)
  const marks = useDesk((d) => d.marks)
  const time = useDesk((d) => d.moment.time)
  const sounds = useDesk((d) => d.sounds.rows.some((r) => !r.muted))
  const spoken = useDesk((d) => d.sounds.captions.length > 0)
  const [more, setMore] = useState(false)
  const { heights, rates, ranges, cues } = useMemo(() => engine.offered(ask.format), [ask.format, film])
  const kind = kindOf(ask.format)
  const change = (by: Partial<Ask>) => onAsk({ ...ask, ...by })
  /** Other frames than before: what was timed by hand is no longer among them. */
  const instead = (a: Ask) => {
    if (ask.times)
      say(notice('export.times-gone', ask.times.length), 'said', { act: { word: 'Undo', run: () => onAsk(ask) } })
    onAsk(a)
  }
  const reframe = (by: Partial<Ask>) => instead({ ...ask, ...by, times: undefined })
  const sized = (by: { width?: number; height?: number }): Ask => ({
    ...ask,
    width: undefined,
    height: undefined,
    ...by,
  })
  const file = engine.delivery(kind.still && !ask.scene && !kind.sheet ? { ...ask, from: Math.round(time) } : ask)
  const estimate = useEstimate(
    ask,
    file.refused === '' && pending === 0 && (!kind.heard || !!kind.track) && !(kind.still && (ask.scenes || ask.cues)),
  )

  const common = heights
    .map((height) => engine.delivery(sized({ height })))
    .filter((c) => c.refused === '' || file.refused !== '')
  const ownSize = !common.some((c) => c.width === file.width && c.height === file.height)
  const side = (axis: 'width' | 'height') => (v: number) => {
    const near = (by: number) => engine.delivery(sized({ [axis]: v + by }))[axis]
    if (near(0) !== v) fail(new Error(fault('export.odd-side', v, near(-1), near(1))))
    else onAsk(sized({ [axis]: v }))
  }
  const rate = ask.frame ? 'ms' : ask.rate ? `${ask.rate.num}/${ask.rate.den}` : `${rates[0].num}/${rates[0].den}`
  const parts = [
    ...ranges,
    ...(marks[0] !== null && marks[1] !== null
      ? [{ words: 'between the marks', from: Math.round(marks[0]), to: Math.round(marks[1]) }]
      : []),
  ]
  const part = parts.findIndex((r) => r.from === (ask.from ?? 0) && r.to === (ask.to || film.length))
  const plays = ask.passes ?? 0
  const pictured = !kind.piece && !kind.heard
  // Of a film without sound no files with nothing but sound are offered.
  const uses = engine.choices().uses.filter((u) => sounds || engine.formats().some((k) => k.use === u.name && !k.heard))
  const scenes = ranges.slice(1)
  const files =
    Math.max(1, rows) *
    ((kind.sheet ? 1 : ask.scenes ? scenes.length : ask.cues ? cues.length : 1) +
      also.filter((f) => f !== ask.format).length)
  const shows = kind.sheet
    ? 'all scenes'
    : ask.scenes
      ? `${scenes.length} files, one of each scene`
      : ask.cues
        ? `${cues.length} files, one of each cue`
        : ask.cue
          ? `at ${filmTime(file.from)}`
          : ask.scene
            ? `scene ${ask.scene} as it rests`
            : `at ${filmTime(time)}`
  const says = [
    kind.still
      ? `${file.width} × ${file.height}, ${shows}`
      : !kind.heard && `${file.width} × ${file.height}${kind.piece ? '' : `, ${file.frames} frames`}`,
    kind.rests && `${plays === 1 ? 'lasts' : 'a pass lasts'} ${seconds(file.pass)}`,
    !kind.still && !kind.rests && `lasts ${seconds(file.length)}`,
    film.clear && (kind.clear ? 'clear' : `its clear ground filled with ${film.under}`),
    estimate === 'working' ? 'its size is being estimated …' : !!estimate?.bytes && sizeWords(estimate),
  ].filter(Boolean)
  const limits = [
    ...file.limits,
    ...(estimate && estimate !== 'working' && estimate.parts.length > 0
      ? [`${estimate.parts.map((p) => `${bytes(p.bytes)} are ${p.words}`).join(', ')}`]
      : []),
    ...(estimate && estimate !== 'working' && estimate.alone
      ? ['its frames are so large that it is made by itself, and its size is not known before']
      : []),
  ]
  return (
    <div className="min-w-0">
      <Presets ask={ask} onUse={instead} />
      <RadioGroup
        value={ask.format}
        onChange={(format: string) => onAsk(alike(ask, format))}
        aria-label="Kind of file"
        className="mb-2 grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5"
      >
        {uses.map((use) => (
          <Fragment key={use.name}>
            <Label>{use.words}</Label>
            <span className="flex flex-wrap gap-1.5">
              {engine
                .formats()
                .filter((k) => k.use === use.name && (spoken || !(k.heard && k.caption)))
                .map(({ format: f, words: name, says }) => (
                  <Radio
                    key={f}
                    value={f}
                    data-kind={f}
                    title={lacks[f] ?? says}
                    data-autofocus={ask.format === f || undefined}
                    disabled={f in lacks}
                    className={clsx(
                      'flex h-6.5 items-center rounded-md border px-2.5 font-semibold disabled:opacity-45',
                      ask.format === f
                        ? 'border-brass-600 bg-brass-200'
                        : 'border-sailcloth-500 hover:bg-sailcloth-100',
                    )}
                  >
                    {name}
                  </Radio>
                ))}
            </span>
          </Fragment>
        ))}
      </RadioGroup>
      <p className="mb-3 text-[0.75rem] text-ink-600">
        {kind.words}: {kind.says}.
      </p>
      {[...new Set(Object.values(lacks))].map((why) => (
        <p key={why} className="mb-3 text-[0.75rem] text-coral-700">
          {why}
        </p>
      ))}
      <div className="grid grid-cols-[4.5rem_minmax(0,1fr)] items-center gap-x-2 gap-y-2">
        {kind.sheet ? (
          ask.format === 'sheet' && (
            <>
              <Label>Size</Label>
              <span className="w-21">
                <NumberField
                  quiet
                  name="Wide, px"
                  unit="w"
                  step={100}
                  min={640}
                  max={8192}
                  value={file.width}
                  onSet={(width) => onAsk({ ...ask, width, height: undefined })}
                />
              </span>
            </>
          )
        ) : kind.heard ? null : (
          <>
            <Label>Size</Label>
            <span className="grid grid-cols-[minmax(0,1fr)_5.25rem_5.25rem] gap-1.5">
              <Choice
                name="Size"
                value={ownSize ? 'own' : String(file.height)}
                onSet={(v) => v !== 'own' && onAsk(sized({ height: Number(v) }))}
                of={[
                  ...(ownSize ? [{ value: 'own', label: 'own size' }] : []),
                  ...common.map((c) => ({ value: String(c.height), label: `${c.width} × ${c.height} px` })),
                ]}
              />
              <NumberField
                quiet
                name="Wide, px; an even number"
                unit="w"
                step={2}
                min={16}
                max={8192}
                value={file.width}
                onSet={side('width')}
              />
              <NumberField
                quiet
                name="High, px; an even number"
                unit="h"
                step={2}
                min={16}
                max={8192}
                value={file.height}
                onSet={side('height')}
              />
            </span>
          </>
        )}
        {kind.still && !kind.sheet && (scenes.length > 0 || cues.length > 0) && (
          <>
            <Label>Shows</Label>
            <Choice
              name="What the still shows"
              value={
                ask.scenes
                  ? 'each'
                  : ask.cues
                    ? 'cues'
                    : ask.cue
                      ? `${ask.scene} ${ask.cue}`
                      : ask.scene
                        ? String(ask.scene)
                        : 'now'
              }
              of={[
                { value: 'now', label: `the frame at the playhead, ${filmTime(time)}` },
                ...(scenes.length > 0
                  ? [{ value: 'each', label: `each scene as it rests, ${scenes.length} files` }]
                  : []),
                ...(cues.length > 0 ? [{ value: 'cues', label: `each cue, ${cues.length} files` }] : []),
                ...scenes.map((s, i) => ({ value: String(i + 1), label: `${s.words}, as it rests` })),
                ...cues.map((c) => ({ value: `${c.scene} ${c.cue}`, label: `cue ${c.words}, scene ${c.scene}` })),
              ]}
              onSet={(v) => {
                const [scene, cue] = v.split(' ').map(Number)
                change({
                  scenes: v === 'each' || undefined,
                  cues: v === 'cues' || undefined,
                  scene: scene || undefined,
                  cue: cue || undefined,
                })
              }}
            />
          </>
        )}
        {!kind.still && (
          <>
            {pictured && <Label>Frames</Label>}
            {pictured && (
              <span className="grid grid-cols-[minmax(0,1fr)_5.25rem] gap-1.5">
                <Choice
                  name="Frames a second of the file"
                  value={rate}
                  of={[
                    ...(ask.frame ? [{ value: 'ms', label: `${ask.frame} ms each` }] : []),
                    ...rates.map((r) => ({ value: `${r.num}/${r.den}`, label: rateWords(r.num, r.den) })),
                  ]}
                  onSet={(v) => {
                    const [num, den] = v.split('/').map(Number)
                    if (v !== 'ms') reframe({ rate: { num, den }, frame: undefined })
                  }}
                />
                <NumberField
                  quiet
                  name="How long a frame stays, ms, in place of a rate"
                  unit="ms"
                  min={1}
                  max={600000}
                  value={ask.frame ?? Math.round((1000 * file.rateDen) / Math.max(1, file.rateNum))}
                  onSet={(v) => reframe({ frame: v, rate: undefined })}
                />
              </span>
            )}
            {parts.length > 1 && (
              <>
                <Label>Part</Label>
                <Choice
                  name="Part of the film"
                  value={part < 0 ? 'own' : String(part)}
                  of={[
                    ...(part < 0
                      ? [{ value: 'own', label: `${filmTime(ask.from ?? 0)} to ${filmTime(ask.to || film.length)}` }]
                      : []),
                    ...parts.map((r, i) => ({
                      value: String(i),
                      label: i === 0 ? r.words : `${r.words}, ${filmTime(r.from)} to ${filmTime(r.to)}`,
                    })),
                  ]}
                  onSet={(v) => {
                    const r = parts[Number(v)]
                    if (v !== 'own')
                      reframe(v === '0' ? { from: undefined, to: undefined } : { from: r.from, to: r.to })
                  }}
                />
              </>
            )}
          </>
        )}
        {kind.numbers.length > 0 && (
          <>
            <Label>Quality</Label>
            <Choice
              name="Quality of the file"
              value={ask.quality ?? engine.choices().qualities[0].name}
              of={engine
                .choices()
                .qualities.map((q, i) => ({
                  value: q.name,
                  label: `${q.words} (${kind.video ? 'CRF ' : ''}${kind.numbers[i]})`,
                }))}
              onSet={(quality) => change({ quality })}
            />
          </>
        )}
        {kind.track && !kind.heard && sounds && (
          <Check name="With what is heard" on={!ask.silent} onSet={(v) => change({ silent: !v || undefined })} />
        )}
        {kind.caption && !kind.heard && spoken && (
          <Check
            name="With captions, which players show or hide"
            on={!!ask.captions}
            onSet={(v) => change({ captions: v || undefined })}
          />
        )}
        {kind.rests && (
          <>
            <Label>Plays</Label>
            <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
              <Choice
                name="Plays"
                className="w-34"
                value={plays === 0 ? 'ever' : plays === 1 ? 'once' : 'times'}
                of={[
                  { value: 'ever', label: 'over and over' },
                  { value: 'once', label: 'once' },
                  { value: 'times', label: 'a few times' },
                ]}
                onSet={(v) => change({ passes: v === 'ever' ? undefined : v === 'once' ? 1 : 3 })}
              />
              {plays > 1 && (
                <span className="w-21">
                  <NumberField
                    quiet
                    name="How often it plays"
                    unit="×"
                    min={2}
                    max={65535}
                    value={plays}
                    onSet={(passes) => change({ passes })}
                  />
                </span>
              )}
              {plays !== 1 && (
                <>
                  <span className="shrink-0">and rests</span>
                  <span className="w-21 shrink-0">
                    <NumberField
                      quiet
                      name="Rest of the last frame before it begins again"
                      unit="s"
                      digits={2}
                      step={0.1}
                      min={0}
                      max={3600}
                      value={file.rest / 1000}
                      onSet={(v) => change({ pause: Math.round(v * 1000) })}
                    />
                  </span>
                  {file.asked && (
                    <button
                      type="button"
                      className="font-semibold text-brass-700 underline"
                      onClick={() => change({ pause: undefined })}
                    >
                      as the film asks
                    </button>
                  )}
                </>
              )}
            </span>
            {kind.piece ? (
              ask.format === 'html' && (
                <>
                  <Label>Starts</Label>
                  <Choice
                    name="How it starts"
                    value={ask.waits ? 'pressed' : 'itself'}
                    of={[
                      { value: 'itself', label: 'by itself' },
                      { value: 'pressed', label: 'when it is pressed' },
                    ]}
                    onSet={(v) => change({ waits: v === 'pressed' || undefined })}
                  />
                </>
              )
            ) : (
              <>
                <Label>At most</Label>
                <span className="flex items-center gap-2 text-[0.75rem] text-ink-600">
                  <span className="w-34 shrink-0">
                    <NumberField
                      quiet
                      name="Size the file is kept to, KB; 0: any"
                      unit="KB"
                      step={50}
                      min={0}
                      max={1000000}
                      value={(ask.target ?? 0) / 1000}
                      onSet={(v) => change({ target: v > 0 ? v * 1000 : undefined })}
                    />
                  </span>
                  <span className="min-w-0 truncate">
                    {ask.target ? 'gives things up until it fits' : '0: as large as it becomes'}
                  </span>
                </span>
              </>
            )}
          </>
        )}
      </div>
      <span className="mt-2 flex gap-4 text-[0.75rem] font-semibold text-brass-700">
        <button type="button" aria-expanded={more} className="underline" onClick={() => setMore(!more)}>
          {more ? 'Less' : 'More: name, title, colours …'}
        </button>
        {!kind.still && pictured && (
          <button type="button" aria-expanded={byHand} className="underline" onClick={() => onByHand(!byHand)}>
            {byHand ? 'Close the frames' : 'Frame by frame …'}
          </button>
        )}
      </span>
      {more && <MoreFields ask={ask} change={change} />}
      <div className="mt-3 flex items-center gap-3">
        <Button look="main" onClick={onStart} disabled={pending > 0 || file.refused !== ''} className="!h-8 shrink-0">
          {files > 1 ? `Export ${files} files` : `Export ${short(kind.words)}`}
        </Button>
        <span className={`text-[0.75rem] ${file.refused ? 'text-coral-700' : 'text-ink-600'}`} data-plan>
          {file.refused || (pending > 0 ? 'Waiting until the last change is stored.' : says.join(', '))}
        </span>
      </div>
      {limits.length > 0 && (
        <p className="mt-2 text-[0.75rem] text-ink-600" data-limits>
          {kind.piece ? 'What it is made of' : 'What limits it'}: {limits.join('; ')}.
        </p>
      )}
    </div>
  )
}
