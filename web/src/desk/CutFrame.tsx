// A picture that is cut out on the page: all of it, as it is chosen to be shown, and the strokes that are drawn over
// it. What is kept is drawn in brass, what is dropped in ink, dashed; the ground is hatched.
import { useRef, useState } from 'react'
import type { Crop, CutStroke, XY } from '../engine/types'
import type { View } from '../engine/painter'
import { keyAt, stroke } from '../actions/cutout'
import { useDesk, type CutHow } from '../project/desk'
import { toDesk } from './view'

const ink = '#0C2523'
const halo = '#FFFDF8'
const brass = '#E0A03A'

export function CutFrame({ crop, view }: { crop: Crop; view: View }) {
  const { cutHow, cutForm, cutWidth, cutSoft, cutView, cutBusy } = useDesk((d) => d)
  const strokes = useDesk((d) => d.selected[0]?.layer.picture?.cut?.strokes)
  const [drawn, setDrawn] = useState<XY[] | null>(null)
  const [over, setOver] = useState<XY | null>(null)
  const points = useRef<XY[]>([])
  const [a, b, c, d, e, f] = crop.place
  const [w, h] = crop.size
  const s = view.scale
  // From px of the picture to the desk, and back.
  const k = [(a * s) / w, (b * s) / w, (c * s) / h, (d * s) / h, e * s + view.x, f * s + view.y]
  const det = k[0] * k[3] - k[1] * k[2]
  const place = `matrix(${k})`
  const whole = `M${crop.whole.map((p) => toDesk(view, p)).join('L')}Z`
  const size = Math.sqrt(Math.abs(det)) // px of the desk to one of the picture
  let mip = 0
  while (Math.max(w, h) >> (mip + 1) > 1400) mip++
  const mask = crop.shows.split('-')[1]
  const at = (e: { clientX: number; clientY: number; currentTarget: EventTarget }): XY => {
    const box = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect()
    const [x, y] = [e.clientX - box.left - k[4], e.clientY - box.top - k[5]]
    return [(k[3] * x - k[2] * y) / det, (k[0] * y - k[1] * x) / det]
  }
  const form = cutHow === 'within' && cutForm === '' ? 'area' : cutForm
  const down = (event: React.PointerEvent) => {
    if (event.button !== 0 || !det) return
    event.stopPropagation()
    const p = at(event)
    if (cutHow === 'key') return keyAt(p)
    event.currentTarget.setPointerCapture(event.pointerId)
    points.current = form === 'box' ? [p, p] : [p]
    setDrawn([...points.current])
  }
  const move = (event: React.PointerEvent) => {
    setOver(at(event))
    if (!points.current.length) return
    for (const one of event.nativeEvent.getCoalescedEvents?.() ?? []) {
      if (form !== 'box')
        points.current.push(at({ clientX: one.clientX, clientY: one.clientY, currentTarget: event.currentTarget }))
    }
    const p = at(event)
    points.current = form === 'box' ? [points.current[0], p] : [...points.current, p]
    setDrawn([...points.current])
  }
  const up = () => {
    const all = points.current
    points.current = []
    setDrawn(null)
    if (!all.length || cutHow === 'key') return
    if (form !== '' && all.length < 2) return
    const line = form === ''
    stroke({
      how: cutHow,
      ...(form && { form }),
      points: all,
      ...(line && { width: cutWidth }),
      ...(line && (cutHow === 'paint' || cutHow === 'rub') && cutSoft > 0 && { soft: cutSoft }),
    })
  }
  const letGo = () => {
    points.current = []
    setDrawn(null)
  }
  return (
    <g data-cut-frame data-busy={cutBusy > 0 || undefined}>
      <defs>
        <pattern id="cut-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="7" height="7" fill={halo} fillOpacity="0.3" />
          <path d="M0 0V7" stroke={ink} strokeWidth="2.2" strokeOpacity="0.75" />
        </pattern>
        <pattern id="cut-chequers" width="16" height="16" patternUnits="userSpaceOnUse">
          <rect width="16" height="16" fill={halo} />
          <path d="M0 0H8V8H0ZM8 8H16V16H8Z" fill="#D8D0BE" />
        </pattern>
        <mask id="cut-ground" maskUnits="userSpaceOnUse" x="-20000" y="-20000" width="40000" height="40000">
          <path d={whole} fill="#fff" />
          {mask && <Image address={`${mask}/${mip}`} place={place} w={w} h={h} inverted />}
        </mask>
      </defs>
      {cutView === 'overlay' && (
        <>
          <Image address={`${crop.media}/${mip}`} place={place} w={w} h={h} />
          {mask && <path d={whole} fill="url(#cut-hatch)" mask="url(#cut-ground)" />}
        </>
      )}
      {cutView === 'chequers' && (
        <>
          <path d={whole} fill="url(#cut-chequers)" />
          <Image address={`${crop.shows}/${mip}`} place={place} w={w} h={h} />
        </>
      )}
      {cutView === 'mask' &&
        (mask ? <Image address={`${mask}/${mip}`} place={place} w={w} h={h} /> : <path d={whole} fill="#fff" />)}
      <path d={whole} fill="none" stroke={halo} strokeWidth="3" strokeOpacity="0.8" />
      <path d={whole} fill="none" stroke={ink} strokeWidth="1.2" strokeDasharray="2 4" />
      {cutView !== 'page' && strokes?.map((v, i) => <Stroke key={i} of={v} place={place} size={size} />)}
      {drawn && (
        <Stroke
          of={{ how: cutHow, form, points: drawn, width: form === '' ? cutWidth : undefined } as CutStroke}
          place={place}
          size={size}
          now
        />
      )}
      {over && !drawn && form === '' && cutHow !== 'key' && (
        <g transform={place} pointerEvents="none">
          <Ring at={over} r={cutWidth / 2} size={size} />
        </g>
      )}
      <path
        d={whole}
        fill="transparent"
        style={{ pointerEvents: 'all', cursor: 'crosshair', touchAction: 'none' }}
        data-cut="picture"
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={letGo}
        onPointerLeave={() => setOver(null)}
        onDoubleClick={(event) => event.stopPropagation()}
      />
      {cutBusy > 0 && <path d={whole} fill="none" stroke={brass} strokeWidth="3" className="animate-pulse" />}
    </g>
  )
}

function Image(of: { address: string; place: string; w: number; h: number; inverted?: boolean }) {
  return (
    <image
      href={`/api/media/${of.address}.png`}
      width={of.w}
      height={of.h}
      preserveAspectRatio="none"
      transform={of.place}
      style={of.inverted ? { filter: 'invert(1)' } : undefined}
    />
  )
}

function Ring({ at, r, size }: { at: XY; r: number; size: number }) {
  return (
    <>
      <circle cx={at[0]} cy={at[1]} r={r} fill="none" stroke={halo} strokeWidth={2.6 / size} />
      <circle cx={at[0]} cy={at[1]} r={r} fill="none" stroke={ink} strokeWidth={1.1 / size} />
    </>
  )
}

const keeps = (how: CutHow | CutStroke['how']) => how === 'keep' || how === 'paint' || how === 'within'

/** What a stroke says: how wide it is shows while it is drawn, afterwards its line. */
function Stroke({ of, place, size, now }: { of: CutStroke; place: string; size: number; now?: boolean }) {
  const keep = keeps(of.how)
  const [p, q] = of.points
  const d =
    of.form === 'box'
      ? `M${p}L${[q[0], p[1]]}L${q}L${[p[0], q[1]]}Z`
      : `M${of.points.join('L')}${of.form ? 'Z' : of.points.length === 1 ? `L${p}` : ''}`
  const line = { d, fill: 'none', strokeLinecap: 'round', strokeLinejoin: 'round' } as const
  return (
    <g transform={place} pointerEvents="none" opacity={now ? 1 : 0.85}>
      {now && of.width && <path {...line} stroke={keep ? brass : ink} strokeOpacity="0.45" strokeWidth={of.width} />}
      <path {...line} stroke={keep ? ink : halo} strokeWidth={(keep ? 5 : 4.4) / size} strokeOpacity="0.85" />
      <path
        {...line}
        stroke={keep ? '#F3C04A' : ink}
        strokeWidth={(keep ? 3 : 2.2) / size}
        strokeDasharray={keep ? undefined : `${6 / size} ${5 / size}`}
      />
    </g>
  )
}
