// Export: a sheet over the editor with the frame at the playhead, what to make, and what is being made.
import { Radio, RadioGroup } from '@headlessui/react'
import { clsx } from 'clsx'
import { Download, Eye, Play, RotateCw, Trash2, X } from 'lucide-react'
import { useEffect, useMemo, useRef, useState } from 'react'
import { engine } from '../engine/engine'
import { paint } from '../engine/painter'
import type { Export } from '../engine/types'
import { apply } from '../project/commands'
import { desk, fail, mended, set, useDesk } from '../project/desk'
import { onExport } from '../project/events'
import { cancelExport, createExport, deleteExport, hello, listExports } from '../server/server'
import { Choice } from '../ui/Choice'
import { NumberField } from '../ui/NumberField'
import { chequers } from '../ui/ColourField'
import { Sheet } from '../ui/Sheet'
import { Button, Label, Progress, Sign } from '../ui/controls'
import { bytes, day, filmTime, seconds } from '../time'
import { fault } from '../words'
import { counted } from '../words'

/** What is known of a format. */
const kindOf = (format: string) => engine.formats().find((k) => k.format === format)!

export function ExportSheet() {
  const film = useDesk((d) => d.film)!
  const project = useDesk((d) => d.project)!
  const pending = useDesk((d) => d.pending)
  const [format, setFormat] = useState('mp4')
  const { heights, first, rates } = useMemo(() => engine.offered(format), [format, film])
  const [typed, setTyped] = useState(() => ({ width: 0, height: first })) // one of both; the other follows
  const [rate, setRate] = useState(`${film.rate.num}/${film.rate.den}`)
  const [once, setOnce] = useState(false)
  const [list, setList] = useState<Export[]>([])
  const [noVideo, setNoVideo] = useState('') // why this machine makes no video
  const moment = useDesk((d) => d.moment)

  useEffect(() => {
    hello()
      .then((h) => {
        setNoVideo(h.noVideo)
        if (h.noVideo) setFormat((f) => (f === 'mp4' ? 'gif' : f))
      })
      .catch(fail)
    listExports(project).then(setList).catch(fail)
    return onExport((e) => {
      if (e.project === project)
        setList((l) => (l.some((o) => o.id === e.id) ? l.map((o) => (o.id === e.id ? e : o)) : [e, ...l]))
    })
  }, [project])

  const [num, den] = rate.split('/').map(Number)
  const size = (s: typeof typed) => engine.delivery(format, s, num, den, once)
  const file = size(typed)
  const kind = kindOf(format)
  const lasts = kind.rests ? `, ${once ? 'lasts' : 'a pass lasts'} ${seconds(file.pass)}` : ''
  const common = heights
    .map((height) => size({ width: 0, height }))
    .filter((c) => c.refused === '' || file.refused !== '')
  const own = !common.some((c) => c.width === file.width && c.height === file.height)
  const side = (axis: 'width' | 'height') => (v: number) => {
    const near = (by: number) => size({ width: 0, height: 0, [axis]: v + by })[axis]
    if (near(0) !== v) fail(new Error(fault('export.odd-side', v, near(-1), near(1))))
    else setTyped({ width: 0, height: 0, [axis]: v })
  }
  const choose = (f: string) => {
    setFormat(f)
    setTyped({ width: 0, height: engine.offered(f).first })
  }
  const make = (e: {
    format: string
    width: number
    height: number
    rate: { num: number; den: number }
    once: boolean
    at?: number
  }) =>
    createExport(project, e).then(
      () => mended('export'),
      (err: unknown) => fail(err, 'export'),
    )
  const rest = (pause: number | null) => apply({ op: 'film.set', patch: { pause } })
  const start = () =>
    make({ format, ...typed, rate: { num, den }, once, at: kind.still ? Math.round(moment.time) : undefined })
  return (
    <Sheet title="Export film" wide onClose={() => set({ sheet: 'none' })}>
      <div className="grid grid-cols-[23.75rem_1fr] gap-6 px-5 py-4 max-[54rem]:grid-cols-1">
        <div>
          <Preview clear={kind.clear} />
          <p className="mt-2 text-[0.75rem] text-ink-600">
            {counted(film.shown, 'scene')}, {filmTime(film.length)}, the frame at the playhead
          </p>
        </div>
        <div>
          <RadioGroup
            value={format}
            onChange={choose}
            aria-label="Kind of file"
            className="mb-3 grid grid-cols-3 gap-1.5"
          >
            {engine.formats().map(({ format: f, words: name, says }) => (
              <Radio
                key={f}
                value={f}
                data-kind={f}
                data-autofocus={format === f || undefined}
                disabled={f === 'mp4' && noVideo !== ''}
                className={clsx(
                  'rounded-md border px-3 py-2 text-left disabled:opacity-45',
                  format === f ? 'border-brass-600 bg-brass-200' : 'border-sailcloth-500 hover:bg-sailcloth-100',
                )}
              >
                <span className="block font-semibold">{name}</span>
                <span className="text-[0.6875rem] text-ink-600">{says}</span>
              </Radio>
            ))}
          </RadioGroup>
          {noVideo && <p className="mb-3 text-[0.75rem] text-coral-700">{noVideo}</p>}
          <div className="grid grid-cols-[4.5rem_1fr] items-center gap-x-2 gap-y-2">
            <Label>Size</Label>
            <span className="grid grid-cols-[1fr_5.25rem_5.25rem] gap-1.5">
              <Choice
                name="Size"
                value={own ? 'own' : String(file.height)}
                onSet={(v) => v !== 'own' && setTyped({ width: 0, height: Number(v) })}
                of={[
                  ...(own ? [{ value: 'own', label: 'own size' }] : []),
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
            {!kind.still && (
              <>
                <Label>Frames</Label>
                <Choice
                  name="Frames a second of the file"
                  value={rate}
                  of={rates.map(({ num, den }) => ({
                    value: `${num}/${den}`,
                    label: `${den === 1 ? num : (num / den).toFixed(3)} a second`,
                  }))}
                  onSet={setRate}
                />
              </>
            )}
            {kind.rests && !once && (
              <>
                <Label>Rests</Label>
                <span className="flex items-center gap-2">
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
                      onSet={(v) => rest(Math.round(v * 1000))}
                    />
                  </span>
                  <span className="text-[0.75rem] text-ink-600">
                    at its end, before it begins again
                    {file.asked && (
                      <>
                        {' '}
                        ·{' '}
                        <button
                          type="button"
                          className="font-semibold text-brass-700 underline"
                          onClick={() => rest(null)}
                        >
                          as the film asks
                        </button>
                      </>
                    )}
                  </span>
                </span>
              </>
            )}
            {kind.rests && (
              <>
                <Label>Plays</Label>
                <Choice
                  name="Plays"
                  value={once ? 'once' : 'ever'}
                  of={[
                    { value: 'ever', label: 'over and over' },
                    { value: 'once', label: 'once' },
                  ]}
                  onSet={(v) => setOnce(v === 'once')}
                />
              </>
            )}
          </div>
          <div className="mt-4 flex items-center gap-3">
            <Button look="main" onClick={start} disabled={pending > 0 || file.refused !== ''} className="!h-8 shrink-0">
              Export {format.toUpperCase()}
            </Button>
            <span className={`text-[0.75rem] ${file.refused ? 'text-coral-700' : 'text-ink-600'}`} data-plan>
              {file.refused
                ? file.refused
                : pending > 0
                  ? 'Waiting until the last change is stored.'
                  : kind.still
                    ? `${file.width} × ${file.height}, at ${filmTime(moment.time)}`
                    : `${file.width} × ${file.height}, ${file.frames} frames${lasts}`}
              {film.clear && !file.refused && (kind.clear ? ', clear' : `, its clear ground filled with ${film.under}`)}
            </span>
          </div>
        </div>
      </div>
      <div className="border-t border-sailcloth-300 px-5 pb-4 pt-3">
        <h2 className="mb-2 font-semibold">Made of this project</h2>
        {list.length === 0 && (
          <p className="text-[0.75rem] text-ink-500">
            Nothing yet. Exports are listed here, and stay until you delete them.
          </p>
        )}
        <ul className="grid gap-1.5">
          {list.map((e) => (
            <Row
              key={e.id}
              e={e}
              onAgain={() =>
                make({
                  format: e.format,
                  width: 0,
                  height: e.height,
                  rate: { num: e.rateNum, den: e.rateDen },
                  once: e.once,
                  at: kindOf(e.format).still ? Math.min(e.at, film.length) : undefined,
                })
              }
              onGone={() => setList((l) => l.filter((o) => o.id !== e.id))}
            />
          ))}
        </ul>
        <p className="mt-3 text-[0.75rem] text-ink-600">
          To carry on elsewhere,{' '}
          <a className="font-semibold text-brass-700 underline" href={`/api/projects/${project}/bundle`} download>
            save the whole project
          </a>{' '}
          as a .capstan bundle; the start screen opens such bundles.
        </p>
      </div>
    </Sheet>
  )
}

function Row({ e, onAgain, onGone }: { e: Export; onAgain: () => void; onGone: () => void }) {
  const share = e.frames > 0 ? e.framesDone / e.frames : 0
  const [shown, setShown] = useState(false)
  const busy = e.state === 'running' || e.state === 'waiting'
  const says = {
    waiting: 'waits for its turn',
    running: `frame ${e.framesDone} of ${e.frames}`,
    done: bytes(e.bytes),
    failed: e.message || 'failed',
    cancelled: 'cancelled, nothing was written',
  }[e.state]
  return (
    <li data-export={e.id} data-state={e.state} className="rounded-md bg-sailcloth-100 px-3 py-1">
      <div className="flex min-h-6.5 items-center gap-3">
        <span
          className={clsx(
            'w-10 shrink-0 rounded-[4px] bg-spruce-900 px-1 text-center font-mono text-[0.6875rem]',
            'leading-[1.125rem] text-foam-100',
          )}
        >
          {e.format}
        </span>
        <span className="w-47.5 shrink-0 truncate" title={e.name}>
          {e.width} × {e.height},{' '}
          {kindOf(e.format).still
            ? `at ${filmTime(e.at)}`
            : `${(e.rateNum / e.rateDen).toFixed(e.rateNum % e.rateDen ? 2 : 0)} a second`}
        </span>
        <span className="min-w-0 flex-1">
          {e.state === 'running' && <Progress name={`Export of ${e.name}`} share={share} className="mb-0.5" />}
          <span className={`block text-[0.75rem] ${e.state === 'failed' ? 'text-coral-700' : 'text-ink-600'}`}>
            {says}
          </span>
        </span>
        {busy && (
          <Button onClick={() => cancelExport(e.id).catch(fail)} aria-label={`Cancel the export of ${e.name}`}>
            <X size={14} strokeWidth={1.5} />
            Cancel
          </Button>
        )}
        {(e.state === 'failed' || e.state === 'cancelled') && (
          <Button aria-label={`Make ${e.name} again`} onClick={onAgain}>
            <RotateCw size={14} strokeWidth={1.5} />
            Again
          </Button>
        )}
        {e.state === 'done' && (
          <Button aria-expanded={shown} aria-label={`Show ${e.name}`} onClick={() => setShown(!shown)}>
            {kindOf(e.format).still ? <Eye size={15} strokeWidth={1.5} /> : <Play size={14} strokeWidth={1.5} />}
            {shown ? 'Hide' : 'Show'}
          </Button>
        )}
        {e.state === 'done' && (
          <a
            href={`/api/exports/${e.id}/file`}
            download
            className={clsx(
              'inline-flex h-6.5 items-center gap-1.5 rounded-md border border-sailcloth-500 bg-paper',
              'px-3 font-semibold hover:bg-sailcloth-200',
            )}
          >
            <Download size={14} strokeWidth={1.5} />
            Download
          </a>
        )}
        {!busy && (
          <Sign
            name={`Delete this export of ${e.name}`}
            className="hover:bg-sailcloth-200"
            onClick={() => deleteExport(e.id).then(onGone).catch(fail)}
          >
            <Trash2 size={15} strokeWidth={1.5} />
          </Sign>
        )}
      </div>
      {shown && e.state === 'done' && <Player e={e} />}
    </li>
  )
}

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

/** A finished file as it is, playing, with what there is to know about it. */
function Player({ e }: { e: Export }) {
  const file = `/api/exports/${e.id}/file`
  const size = 'max-h-75 max-w-120 rounded-[4px] border border-sailcloth-300 bg-paper'
  const facts: [string, string][] = [
    ['File', e.name],
    ['Size', `${e.width} × ${e.height} px, ${bytes(e.bytes)}`],
    ...(kindOf(e.format).still
      ? [['Frame', `at ${filmTime(e.at)}`] as [string, string]]
      : [
          ['Frames', `${e.frames}, ${(e.rateNum / e.rateDen).toFixed(e.rateNum % e.rateDen ? 3 : 0)} a second`] as [
            string,
            string,
          ],
          ['Length', filmTime((1000 * e.frames * e.rateDen) / e.rateNum)] as [string, string],
        ]),
    ...(kindOf(e.format).rests
      ? [
          [
            'Plays',
            e.once ? 'once' : e.endPause ? `over and over, resting ${seconds(e.endPause)} at its end` : 'over and over',
          ] as [string, string],
        ]
      : []),
    ['Made', day(e.endedAt)],
  ]
  return (
    <div className="flex items-start gap-4 py-2">
      {e.format === 'mp4' ? (
        <video
          src={file}
          className={size}
          controls
          loop
          muted
          playsInline
          autoPlay={!still()}
          aria-label={`${e.name}, playing`}
        />
      ) : (
        <img src={file} className={size} alt={e.name} />
      )}
      <dl className="grid grid-cols-[3.5rem_1fr] gap-x-2 gap-y-1 text-[0.75rem]">
        {facts.map(([what, says]) => (
          <div key={what} className="contents">
            <dt className="text-ink-600">{what}</dt>
            <dd className="break-all">{says}</dd>
          </div>
        ))}
      </dl>
    </div>
  )
}

function Preview({ clear }: { clear: boolean }) {
  const ref = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const c = ref.current!
    const { film, moment } = desk()
    const scale = Math.min(380 / film!.width, 300 / film!.height)
    const dpr = window.devicePixelRatio || 1
    c.width = Math.round(film!.width * scale * dpr)
    c.height = Math.round(film!.height * scale * dpr)
    c.style.width = `${film!.width * scale}px`
    const ctx = c.getContext('2d')!
    ctx.clearRect(0, 0, c.width, c.height)
    if (!film!.clear || !clear) {
      ctx.fillStyle = film!.under
      ctx.fillRect(0, 0, c.width, c.height)
    }
    paint(ctx, engine.frame({ ...moment, rest: false }, scale * dpr), { scale: scale * dpr, x: 0, y: 0 })
  }, [clear])
  return (
    <canvas
      ref={ref}
      style={{ background: chequers }}
      aria-label="The frame at the playhead"
      className="rounded-[4px] border border-sailcloth-300"
    />
  )
}
