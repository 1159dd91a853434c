// A file that is or was made: how far it is, and what can be done with it.
import { clsx } from 'clsx'
import { Download, Eye, Pause, Play, RotateCw, SlidersHorizontal, Trash2, X } from 'lucide-react'
import { useState } from 'react'
import type { Ask, Export } from '../engine/types'
import { fail } from '../project/desk'
import { deleteExport, turnExport } from '../server/server'
import { bytes, filmTime } from '../time'
import { Button, Progress, Sign } from '../ui/controls'
import { askOf, kindOf, rateWords, stillWords } from './kinds'
import { ResultCard } from './ResultCard'

/** How long it still takes, for people. */
function leftWords(ms: number): string {
  if (!ms) return ''
  const s = Math.ceil(ms / 1000)
  return s < 90 ? `, about ${s} s left` : `, about ${Math.round(s / 60)} min left`
}

export function Made({
  e,
  more,
  onAgain,
  onUse,
  onGone,
}: {
  e: Export
  more: boolean // several wait
  onAgain: (a: Ask) => void
  onUse: (a: Ask) => void
  onGone: () => void
}) {
  const share = e.frames > 0 ? e.framesDone / e.frames : 0
  const [shown, setShown] = useState(false)
  const busy = e.state === 'running' || e.state === 'waiting' || e.state === 'paused'
  const turn = (how: 'cancel' | 'pause' | 'resume' | 'first') => () => turnExport(e.id, how).catch(fail)
  const tried = e.message ? `${e.message}; ` : ''
  const says = {
    waiting: 'waits for its turn',
    running: kindOf(e.format).piece
      ? `${Math.floor(100 * share)} % written${leftWords(e.left)}`
      : `${tried}frame ${e.framesDone} of ${e.frames}${leftWords(e.left)}`,
    paused: e.framesDone > 0 ? `paused at frame ${e.framesDone} of ${e.frames}` : 'paused',
    done: bytes(e.bytes),
    failed: e.message || 'failed',
    cancelled: 'cancelled, nothing was written',
  }[e.state]
  return (
    <li data-export={e.id} data-state={e.state} className="rounded-md bg-sailcloth-100 px-3 py-1">
      <div className="flex min-h-6.5 items-center gap-3">
        <span
          className={clsx(
            'w-13 shrink-0 rounded-[4px] bg-spruce-900 px-1 text-center font-mono text-[0.6875rem]',
            'leading-[1.125rem] text-foam-100',
          )}
        >
          {e.name.slice(e.name.lastIndexOf('.') + 1)}
        </span>
        <span className="w-47.5 shrink-0 truncate" title={e.name}>
          {e.width} × {e.height},{' '}
          {kindOf(e.format).still
            ? stillWords(e)
            : kindOf(e.format).piece
              ? filmTime(e.length)
              : rateWords(e.rateNum, e.rateDen)}
        </span>
        <span className="min-w-0 flex-1">
          {(e.state === 'running' || e.state === 'paused') && (
            <Progress name={`Export of ${e.name}`} share={share} className="mb-0.5" />
          )}
          <span className={`block text-[0.75rem] ${e.state === 'failed' ? 'text-coral-700' : 'text-ink-600'}`}>
            {says}
          </span>
        </span>
        {e.state === 'waiting' && more && (
          <Button onClick={turn('first')} aria-label={`Make ${e.name} next`}>
            Make next
          </Button>
        )}
        {(e.state === 'running' || e.state === 'waiting') && (
          <Sign name={`Pause the export of ${e.name}`} className="hover:bg-sailcloth-200" onClick={turn('pause')}>
            <Pause size={15} strokeWidth={1.5} />
          </Sign>
        )}
        {e.state === 'paused' && (
          <Button onClick={turn('resume')} aria-label={`Go on with ${e.name}`}>
            <Play size={14} strokeWidth={1.5} />
            Go on
          </Button>
        )}
        {busy && (
          <Button onClick={turn('cancel')} aria-label={`Cancel the export of ${e.name}`}>
            <X size={14} strokeWidth={1.5} />
            Cancel
          </Button>
        )}
        {(e.state === 'failed' || e.state === 'cancelled') && (
          <Button aria-label={`Make ${e.name} again`} onClick={() => onAgain(askOf(e))}>
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
            name={`Use the settings of ${e.name}`}
            className="hover:bg-sailcloth-200"
            onClick={() => onUse(askOf(e))}
          >
            <SlidersHorizontal size={15} strokeWidth={1.5} />
          </Sign>
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
      {shown && e.state === 'done' && <ResultCard e={e} />}
    </li>
  )
}
