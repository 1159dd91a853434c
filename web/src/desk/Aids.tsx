// What helps to place things and is not in the film: rulers with guides, a grid, safe areas.
import { useMemo, useState } from 'react'
import { engine } from '../engine/engine'
import type { View } from '../engine/painter'
import { run } from '../project/commands'
import { desk, set, useDesk, type Aids as Shown } from '../project/desk'
import { toDesk, toPage } from './view'
import { hold, letGo } from '../ui/drags'

/** How wide the rulers are, px. */
const wide = 18

export const setAids = (a: Partial<Shown>) => {
  const aids = { ...desk().aids, ...a }
  engine.aids(aids.grid, aids.safe)
  set({ aids })
}

export function Aids({ view, size }: { view: View; size: { w: number; h: number } }) {
  const aids = useDesk((d) => d.aids)
  const film = useDesk((d) => d.film)!
  const scene = useDesk((d) => d.scene)
  const guides = film.scenes[scene]?.guides ?? []
  const areas = useMemo(() => (aids.safe ? engine.aids(aids.grid, true) : []), [aids, film.width, film.height])
  // The guide in hand: an index, or the axis of a new one.
  const [held, setHeld] = useState<{
    index: number | null
    axis: 'upright' | 'level'
    at: number
    out: boolean
  } | null>(null)

  const place = (axis: 'upright' | 'level', e: React.PointerEvent) => {
    const r = document.querySelector('[data-desk]')!.getBoundingClientRect()
    const [x, y] = [e.clientX - r.left, e.clientY - r.top]
    const p = toPage(view, x, y)
    const at = axis === 'upright' ? p[0] : p[1]
    return { at: Math.round(e.shiftKey ? Math.round(at / 10) * 10 : at), out: axis === 'upright' ? x < wide : y < wide }
  }
  const start = (index: number | null, axis: 'upright' | 'level') => (e: React.PointerEvent) => {
    if (e.button !== 0 || (index !== null && aids.locked)) return
    e.stopPropagation()
    e.currentTarget.setPointerCapture(e.pointerId)
    setHeld({ index, axis, ...place(axis, e) })
    hold(() => setHeld(null))
  }
  const move = (e: React.PointerEvent) => {
    if (held) setHeld({ ...held, ...place(held.axis, e) })
  }
  const end = (e: React.PointerEvent) => {
    if (!held) return
    letGo()
    const { at, out } = place(held.axis, e)
    setHeld(null)
    if (held.index === null && !out) run('guide', { axis: held.axis, at })
    else if (held.index !== null) run('guide', out ? { index: held.index } : { index: held.index, at })
  }
  const hand = {
    onPointerMove: move,
    onPointerUp: end,
    onPointerCancel: () => {
      letGo()
      setHeld(null)
    },
  }

  const line = (axis: 'upright' | 'level', at: number) => {
    const [x, y] = toDesk(view, [at, at])
    return axis === 'upright' ? `M${x} 0V${size.h}` : `M0 ${y}H${size.w}`
  }
  const shown = aids.rulers ? guides : []
  const step = niceStep(view.scale)
  return (
    <>
      <svg className="pointer-events-none absolute inset-0" width={size.w} height={size.h} aria-hidden data-aids>
        {aids.grid > 0 && aids.grid * view.scale >= 4 && (
          <Grid step={aids.grid} view={view} w={film.width} h={film.height} />
        )}
        {areas.map((a) => {
          const [x, y] = toDesk(view, [a.box[0], a.box[1]])
          const [w, h] = [a.box[2] * view.scale, a.box[3] * view.scale]
          return (
            <g key={a.name} data-area={a.name}>
              <rect
                x={x}
                y={y}
                width={w}
                height={h}
                fill="none"
                stroke="#FFFDF8"
                strokeWidth="2.6"
                strokeOpacity="0.7"
              />
              <rect
                x={x}
                y={y}
                width={w}
                height={h}
                fill="none"
                stroke="#10302E"
                strokeWidth="1"
                strokeDasharray={a.name === 'action' ? '1 4' : a.name === 'titles' ? '5 4' : '10 3 2 3'}
              />
              <text
                x={a.name === 'action' ? x + w - 4 : x + 4}
                y={y + h - 5}
                textAnchor={a.name === 'action' ? 'end' : 'start'}
                fontSize="11"
                fill="#10302E"
                stroke="#FFFDF8"
                strokeWidth="3"
                strokeOpacity="0.8"
                paintOrder="stroke"
              >
                {a.name}
              </text>
            </g>
          )
        })}
        {shown.map((g, i) =>
          held?.index === i ? null : (
            <g key={i} data-guide={`${g.axis} ${g.at}`}>
              <path d={line(g.axis, g.at)} stroke="#4C9AB8" strokeWidth="1" />
              <path
                d={line(g.axis, g.at)}
                stroke="transparent"
                strokeWidth="9"
                style={{
                  pointerEvents: aids.locked ? 'none' : 'stroke',
                  cursor: g.axis === 'upright' ? 'ew-resize' : 'ns-resize',
                }}
                onPointerDown={start(i, g.axis)}
                {...hand}
              />
            </g>
          ),
        )}
        {held && (
          <path
            d={line(held.axis, held.at)}
            stroke="#4C9AB8"
            strokeWidth="1.5"
            strokeDasharray={held.out ? '3 4' : undefined}
          />
        )}
      </svg>
      {aids.rulers && (
        <>
          <Ruler axis="level" view={view} length={size.w} step={step} onPointerDown={start(null, 'level')} {...hand} />
          <Ruler
            axis="upright"
            view={view}
            length={size.h}
            step={step}
            onPointerDown={start(null, 'upright')}
            {...hand}
          />
          <div
            className="absolute left-0 top-0 border-b border-r border-sailcloth-300 bg-paper"
            style={{ width: wide, height: wide }}
          />
        </>
      )}
      {held && (
        <div
          className="pointer-events-none absolute rounded-md bg-paper px-2 py-0.5 font-mono text-[0.75rem] shadow"
          style={
            held.axis === 'upright'
              ? { left: toDesk(view, [held.at, 0])[0] + 8, top: wide + 6 }
              : { left: wide + 6, top: toDesk(view, [0, held.at])[1] + 6 }
          }
        >
          {held.out ? 'let go: no guide' : `${held.at} px`}
        </div>
      )}
    </>
  )
}

/** Steps of a ruler, in page px, that lie far enough apart to be read. */
function niceStep(scale: number): number {
  for (const s of [10, 20, 50, 100, 200, 500, 1000, 2000, 5000]) if (s * scale >= 46) return s
  return 10000
}

function Ruler({
  axis,
  view,
  length,
  step,
  ...rest
}: { axis: 'upright' | 'level'; view: View; length: number; step: number } & Omit<
  React.SVGProps<SVGSVGElement>,
  'ref'
>) {
  const level = axis === 'level'
  const from = (level ? -view.x : -view.y) / view.scale
  const ticks: number[] = []
  for (let v = Math.ceil(from / step) * step; v <= from + length / view.scale; v += step) ticks.push(v)
  const at = (v: number) => v * view.scale + (level ? view.x : view.y)
  return (
    <svg
      className={`absolute left-0 top-0 bg-paper ${level ? 'border-b' : 'border-r'} border-sailcloth-300`}
      width={level ? length : wide}
      height={level ? wide : length}
      style={{ cursor: level ? 'ns-resize' : 'ew-resize', touchAction: 'none' }}
      data-ruler={axis}
      {...rest}
    >
      <title>{level ? 'Drag down for a level guide' : 'Drag to the right for an upright guide'}</title>
      {ticks.map((v) =>
        level ? (
          <g key={v}>
            <path d={`M${at(v)} 11v7`} stroke="#596660" />
            <text x={at(v) + 3} y="10" fontSize="9" fill="#55625D" fontFamily="Spline Sans Mono">
              {v}
            </text>
          </g>
        ) : (
          <g key={v}>
            <path d={`M11 ${at(v)}h7`} stroke="#596660" />
            <text
              transform={`translate(9 ${at(v) - 3}) rotate(-90)`}
              fontSize="9"
              fill="#55625D"
              fontFamily="Spline Sans Mono"
            >
              {v}
            </text>
          </g>
        ),
      )}
    </svg>
  )
}

function Grid({ step, view, w, h }: { step: number; view: View; w: number; h: number }) {
  const [x0, y0] = toDesk(view, [0, 0])
  const [x1, y1] = toDesk(view, [w, h])
  let d = ''
  for (let x = step; x < w; x += step) d += `M${x * view.scale + x0} ${y0}V${y1}`
  for (let y = step; y < h; y += step) d += `M${x0} ${y * view.scale + y0}H${x1}`
  return (
    <g data-grid={step}>
      <path d={d} stroke="#FFFDF8" strokeWidth="1" strokeOpacity="0.35" />
      <path d={d} stroke="#10302E" strokeWidth="0.5" strokeOpacity="0.45" />
    </g>
  )
}
