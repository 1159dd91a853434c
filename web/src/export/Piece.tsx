// A web piece: playing, and standing still beside the page.
import { useEffect, useMemo, useRef, useState } from 'react'
import type { Export } from '../engine/types'
import { fail } from '../project/desk'
import { filmTime } from '../time'
import { chequers } from '../ui/ColourField'
import { askOf } from './kinds'
import { paintFrame } from './Preview'

/** The picture in the file of a piece: all of it, or what is in the page around it. */
function useSVG(file: string): string {
  const [svg, setSVG] = useState('')
  useEffect(() => {
    let gone = false
    fetch(file)
      .then((r) => r.text())
      .then((t) => !gone && setSVG(t.slice(t.indexOf('<svg'), t.lastIndexOf('</svg>') + 6)), fail)
    return () => {
      gone = true
    }
  }, [file])
  return svg
}

/** The address of a picture, as long as it is shown; at: it stands still there, ms. */
function useAddress(svg: string, at?: number): string {
  const [address, setAddress] = useState('')
  useEffect(() => {
    if (!svg) return
    const stands = at === undefined ? '' : `*{animation-delay:${-at}ms!important;animation-play-state:paused!important}`
    const url = URL.createObjectURL(new Blob([svg.replace('</style>', `${stands}</style>`)], { type: 'image/svg+xml' }))
    setAddress(url)
    return () => URL.revokeObjectURL(url)
  }, [svg, at])
  return address
}

export function Piece({ file, name, className }: { file: string; name: string; className: string }) {
  const address = useAddress(useSVG(file))
  return address ? <img src={address} className={className} style={{ background: chequers }} alt={name} /> : null
}

const frame = 'max-h-75 rounded-[4px] border border-sailcloth-300'

/** A moment of the piece and what the page shows at the same time, side by side. */
export function PieceBeside({ e, file }: { e: Export; file: string }) {
  const [at, setAt] = useState(() => Math.round(e.length / 2))
  const address = useAddress(useSVG(file), at)
  const page = useRef<HTMLCanvasElement>(null)
  const from = askOf(e).from ?? 0
  const look = useMemo(() => ({ time: from + at }), [from, at])
  useEffect(() => paintFrame(page.current!, look, { w: 380, h: 300 }, true), [look])
  return (
    <div className="mt-3" data-compared={at}>
      <label className="mb-2 flex items-center gap-2 text-[0.75rem] text-ink-600">
        Moment
        <input
          type="range"
          className="slide min-w-0 flex-1"
          aria-label="Moment that is compared, ms"
          min={0}
          max={e.length}
          value={at}
          onChange={(v) => setAt(Number(v.target.value))}
        />
        <span className="w-24 text-right">{filmTime(at)}</span>
      </label>
      <div className="grid grid-cols-2 gap-3">
        {address && (
          <img src={address} className={frame} style={{ background: chequers }} alt="The file at that moment" />
        )}
        <canvas ref={page} className={frame} style={{ background: chequers }} aria-label="The page at the same time" />
      </div>
      <p className="mt-1 text-[0.75rem] text-ink-600">The file, and the page at the same time.</p>
    </div>
  )
}
