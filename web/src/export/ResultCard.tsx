// A finished file as it is, playing, with what there is to know about it, and beside the page.
import { useEffect, useState } from 'react'
import type { Export } from '../engine/types'
import { engine } from '../engine/engine'
import { fail, say, useDesk } from '../project/desk'
import { compareExport, resoundExport } from '../server/server'
import { notice } from '../words'
import { bytes, day, filmTime, seconds } from '../time'
import { Button } from '../ui/controls'
import { chequers } from '../ui/ColourField'
import { askOf, kindOf, rateWords, stillWords } from './kinds'
import { Piece, PieceBeside } from './Piece'

const still = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches

export function ResultCard({ e }: { e: Export }) {
  const [comparing, setComparing] = useState(false)
  const [embedding, setEmbedding] = useState(false)
  const sounding = useDesk((d) => d.sounds.rows.some((r) => !r.muted))
  const file = `/api/exports/${e.id}/file`
  const size = 'max-h-75 max-w-120 rounded-[4px] border border-sailcloth-300'
  const kind = kindOf(e.format)
  const ask = askOf(e)
  const plays = ask.passes === 1 ? 'once' : ask.passes ? `${ask.passes} times` : 'over and over'
  const facts: [string, string][] = [
    ['File', e.name],
    ['Size', kind.heard ? bytes(e.bytes) : `${e.width} × ${e.height} px, ${bytes(e.bytes)}`],
    ...(kind.still
      ? [['Frame', stillWords(e)] as [string, string]]
      : kind.piece || kind.heard
        ? [['Length', filmTime(e.length)] as [string, string]]
        : [
            ['Frames', `${e.frames}, ${rateWords(e.rateNum, e.rateDen)}`] as [string, string],
            ['Length', filmTime(e.length || (1000 * e.frames * e.rateDen) / e.rateNum)] as [string, string],
          ]),
    ...(kind.rests
      ? [
          ['Plays', e.endPause && ask.passes !== 1 ? `${plays}, resting ${seconds(e.endPause)} at its end` : plays] as [
            string,
            string,
          ],
        ]
      : []),
    ...(e.message ? [['Gave up', e.message] as [string, string]] : []),
    ['Made', day(e.endedAt)],
  ]
  return (
    <div className="py-2">
      <div className="flex items-start gap-4">
        {kindOf(e.format).plays === 'video' ? (
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
        ) : kind.heard && kind.plays === 'sound' ? (
          <audio src={file} controls className="w-75" aria-label={`${e.name}, to be heard`} />
        ) : kind.piece ? (
          <Piece file={file} className={size} name={e.name} />
        ) : kindOf(e.format).plays === 'picture' ? (
          <img src={file} className={size} style={{ background: chequers }} alt={e.name} />
        ) : (
          <p className={`${size} grid place-items-center bg-sailcloth-100 p-4 text-center text-[0.75rem] text-ink-600`}>
            Browsers do not show such files.{!kind.sheet && !kind.heard && ' Compare shows a frame of it.'}
          </p>
        )}
        <div>
          <dl className="grid grid-cols-[3.5rem_1fr] gap-x-2 gap-y-1 text-[0.75rem]">
            {facts.map(([what, says]) => (
              <div key={what} className="contents">
                <dt className="text-ink-600">{what}</dt>
                <dd className="break-all">{says}</dd>
              </div>
            ))}
          </dl>
          {!kind.sheet && !kind.heard && (
            <Button className="mt-2 mr-1.5" aria-expanded={comparing} onClick={() => setComparing(!comparing)}>
              Compare with the page
            </Button>
          )}
          {kind.track && !kind.heard && sounding && (
            <Button
              className="mt-2 mr-1.5"
              title="Another file with the film’s sound as it is now; its pictures are copied as they are"
              onClick={() => void resoundExport(e.id).catch(fail)}
            >
              New sound
            </Button>
          )}
          {kindOf(e.format).plays && (
            <Button className="mt-2" aria-expanded={embedding} onClick={() => setEmbedding(!embedding)}>
              Markup
            </Button>
          )}
        </div>
      </div>
      {comparing && (kind.piece ? <PieceBeside e={e} file={file} /> : <Beside e={e} />)}
      {embedding && <Markup e={e} />}
    </div>
  )
}

/** HTML that shows the file in a web page. */
function Markup({ e }: { e: Export }) {
  const html = engine.markup(askOf(e), e.name)
  const still = kindOf(e.format).still
  return (
    <div className="mt-3" data-markup>
      <textarea
        readOnly
        rows={html.trim().split('\n').length + 1}
        aria-label="Markup that shows the file in a web page"
        className="w-full rounded-md border border-sailcloth-500 bg-paper p-2 font-mono text-[0.6875rem]"
        value={html}
        onFocus={(v) => v.target.select()}
      />
      <p className="mt-1 flex items-center justify-between gap-3 text-[0.75rem] text-ink-600">
        <span>
          {still || kindOf(e.format).plays === 'page'
            ? 'It is described by the words of its scenes where nothing else is said.'
            : 'A PNG still of its name stands for it, for people who ask for little motion too: export one beside it.'}
        </span>
        <Button
          className="shrink-0"
          onClick={() => navigator.clipboard.writeText(html).then(() => say(notice('export.copied')), fail)}
        >
          Copy
        </Button>
      </p>
    </div>
  )
}

/** A frame of the file and what the page shows at the same time, side by side. */
function Beside({ e }: { e: Export }) {
  const last = Math.max(0, e.frames - 1)
  const [frame, setFrame] = useState(() => Math.floor(last / 2))
  const [seen, setSeen] = useState<Awaited<ReturnType<typeof compareExport>> | null>(null)
  useEffect(() => {
    let gone = false
    const timer = setTimeout(
      () =>
        compareExport(e.id, frame).then(
          (v) => !gone && setSeen(v),
          (err: unknown) => !gone && fail(err),
        ),
      120,
    )
    return () => {
      gone = true
      clearTimeout(timer)
    }
  }, [e.id, frame])
  const side = 'w-full rounded-[4px] border border-sailcloth-300'
  return (
    <div className="mt-3" data-compared={seen ? frame : undefined}>
      {last > 0 && (
        <label className="mb-2 flex items-center gap-2 text-[0.75rem] text-ink-600">
          Frame
          <input
            type="range"
            className="slide min-w-0 flex-1"
            aria-label="Frame that is compared"
            min={0}
            max={last}
            value={frame}
            onChange={(v) => setFrame(Number(v.target.value))}
          />
          <span className="w-24 text-right">
            {frame + 1} of {e.frames}
          </span>
        </label>
      )}
      <div className="grid grid-cols-2 gap-3 text-[0.75rem] text-ink-600">
        {(['file', 'page'] as const).map((which) => (
          <figure key={which}>
            {seen && (
              <img
                src={`data:image/png;base64,${seen[which]}`}
                className={side}
                style={{ background: chequers }}
                alt={which === 'file' ? 'The file’s frame' : 'The page at the same time'}
              />
            )}
            <figcaption className="mt-1">{which === 'file' ? 'the file' : 'the page at the same time'}</figcaption>
          </figure>
        ))}
      </div>
      {seen && (
        <p className="mt-1 text-[0.75rem]">
          Likeness {(100 * seen.ssim).toFixed(1)} % (SSIM of luma), at {filmTime(seen.at)}
        </p>
      )}
    </div>
  )
}
