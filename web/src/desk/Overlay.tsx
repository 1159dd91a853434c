// What is drawn over the page for the selection: brackets, bars, the turning arc, and motion paths.
import type { Ghost, Overlay as OverlayView, OverlayBox, XY } from '../engine/types'
import { run } from '../project/commands'
import { useDesk } from '../project/desk'
import type { View } from '../engine/painter'
import { CropFrame } from './CropFrame'
import { CutFrame } from './CutFrame'
import { Gradient } from './GradientHandles'
import { Rings } from './Rings'
import { toDesk, type Start } from './view'
import { Ghosts, Ends } from './Ghosts'
import { AwayOutline, MotionPath } from './MotionPath'
import { ViewFrame } from './ViewFrame'

export function Overlay({
  overlay,
  ghosts,
  ends,
  view,
  size,
  onGesture,
}: {
  overlay: OverlayView
  ghosts: Ghost[]
  ends: Ghost[]
  view: View
  size: { w: number; h: number }
  onGesture: Start
}) {
  const dragging = useDesk((d) => d.dragging)
  const pivots = useDesk((d) => d.pivots)
  // A tool in hand, or something the next press is for, comes before every handle.
  const armed = useDesk((d) => d.tool !== 'select' || !!d.picking || d.ordering !== null)
  const preview = useDesk((d) => d.preview)
  const single = overlay.boxes.length === 1
  const crop = useDesk((d) => (single && d.cropping === overlay.boxes[0].thread ? overlay.crop : undefined))
  const cut = useDesk((d) => (single && d.cutting === overlay.boxes[0].thread ? overlay.crop : undefined))
  if (preview) {
    const at = `translate(${toDesk(view, [0, 0])}) scale(${view.scale})`
    return (
      <svg
        className="pointer-events-none absolute inset-0"
        width={size.w}
        height={size.h}
        aria-hidden
        data-preview={preview.way}
      >
        <path
          d={preview.outlines}
          transform={at}
          fill="none"
          stroke="#FFFDF8"
          strokeWidth="2.4"
          strokeOpacity="0.85"
          vectorEffect="non-scaling-stroke"
        />
        <path
          d={preview.outlines}
          transform={at}
          fill="none"
          stroke="#A8731A"
          strokeWidth="1.1"
          strokeDasharray="3 3"
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    )
  }
  return (
    <svg
      className={`absolute inset-0 ${armed ? 'untouched' : 'pointer-events-none'}`}
      width={size.w}
      height={size.h}
      aria-hidden
    >
      <ViewFrame view={view} onGesture={onGesture} />
      <Ghosts ghosts={ghosts} view={view} />
      <Ends ends={ends} view={view} />
      {!dragging && overlay.away.map((a) => <AwayOutline key={a.move} away={a} view={view} />)}
      {overlay.paths.map((p) => (
        <MotionPath key={p.move} path={p} view={view} onGesture={onGesture} />
      ))}
      {overlay.around && <Outlines boxes={overlay.boxes} view={view} />}
      {overlay.around && <Brackets box={overlay.around} view={view} handles quiet={dragging} onGesture={onGesture} />}
      {crop && <CropFrame crop={crop} view={view} onGesture={onGesture} />}
      {cut && <CutFrame crop={cut} view={view} />}
      {!crop &&
        !cut &&
        (single || !overlay.around) &&
        overlay.boxes.map((b) => (
          <Brackets
            key={b.thread}
            box={b}
            view={view}
            handles={single && !b.locked}
            quiet={dragging}
            onGesture={onGesture}
          />
        ))}
      <SnapLines view={view} />
      {single && !dragging && (pivots || overlay.boxes[0].own) && (
        <Pivot
          box={overlay.boxes[0]}
          view={view}
          shown={pivots}
          start={(e) => {
            if (e.button === 0) {
              e.stopPropagation()
              onGesture('pivot', '', '', e)
            }
          }}
        />
      )}
      <Rings rings={overlay.rings} view={view} quiet={dragging} onGesture={onGesture} />
      {overlay.gradient && (
        <Gradient
          line={overlay.gradient}
          view={view}
          quiet={dragging}
          onGesture={(kind, handle, _, e) => onGesture(kind, handle, overlay.boxes.length ? '' : 'background', e)}
        />
      )}
    </svg>
  )
}

/** What a drag has snapped to. */
function SnapLines({ view }: { view: View }) {
  const snap = useDesk((d) => d.snap)
  if (!snap.length) return null
  // Short bars at both ends tell a gap or a size from an edge that goes on.
  const d = snap
    .map(([x0, y0, x1, y1]) => {
      const [a, b] = [toDesk(view, [x0, y0]), toDesk(view, [x1, y1])]
      const [nx, ny] = x0 === x1 ? [4, 0] : [0, 4]
      const bar = ([x, y]: [number, number]) => `M${x - nx} ${y - ny}L${x + nx} ${y + ny}`
      return `M${a}L${b}${bar(a)}${bar(b)}`
    })
    .join('')
  return (
    <g data-snapped={snap.length}>
      <path d={d} fill="none" stroke="#FFFDF8" strokeWidth="3" strokeOpacity="0.85" />
      <path d={d} fill="none" stroke="#A8731A" strokeWidth="1.2" />
    </g>
  )
}

const add = (a: XY, b: XY, k: number): XY => [a[0] + b[0] * k, a[1] + b[1] * k]
const unit = (a: XY, b: XY): XY => {
  const l = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1
  return [(b[0] - a[0]) / l, (b[1] - a[1]) / l]
}

function cursorFor(out: XY): string {
  const deg = ((Math.atan2(out[1], out[0]) * 180) / Math.PI + 180 + 22.5) % 180
  return ['ew-resize', 'nwse-resize', 'ns-resize', 'nesw-resize'][Math.floor(deg / 45)]
}

/** Several: a thin line around each, all in one path, since they may be a thousand. */
function Outlines({ boxes, view }: { boxes: OverlayBox[]; view: View }) {
  const d = boxes.map((b) => `M${b.corners.map((c) => toDesk(view, c)).join('L')}Z`).join('')
  return (
    <g data-outlined={boxes.length}>
      <path d={d} fill="none" stroke="#FFFDF8" strokeWidth="2.6" strokeOpacity="0.8" />
      <path d={d} fill="none" stroke="#A8731A" strokeWidth="1" />
    </g>
  )
}

function Brackets({
  box,
  view,
  handles,
  quiet,
  onGesture,
}: {
  box: OverlayBox
  view: View
  handles: boolean
  quiet: boolean
  onGesture: Start
}) {
  const raw = box.corners.map((c) => toDesk(view, c)) as [XY, XY, XY, XY]
  const x = unit(raw[0], raw[1])
  const y = unit(raw[0], raw[3])
  const w = Math.hypot(raw[1][0] - raw[0][0], raw[1][1] - raw[0][1])
  const h = Math.hypot(raw[3][0] - raw[0][0], raw[3][1] - raw[0][1])
  const out = 4 // brackets stand a little off the layer
  const c: XY[] = [
    add(add(raw[0], x, -out), y, -out),
    add(add(raw[1], x, out), y, -out),
    add(add(raw[2], x, out), y, out),
    add(add(raw[3], x, -out), y, out),
  ]
  const arm = Math.max(4, Math.min(14, (Math.min(w, h) + 2 * out) / 3))
  const dirs: [number, number][] = [
    [1, 1],
    [-1, 1],
    [-1, -1],
    [1, -1],
  ]
  const corner = c
    .map((p, i) => {
      const a = add(p, x, dirs[i][0] * arm)
      const b = add(p, y, dirs[i][1] * arm)
      return `M${a}L${p}L${b}`
    })
    .join('')
  const mid = (i: number, j: number): XY => [(c[i][0] + c[j][0]) / 2, (c[i][1] + c[j][1]) / 2]
  const sides: [string, XY, XY, XY][] = [
    ['n', mid(0, 1), x, [-y[0], -y[1]]],
    ['e', mid(1, 2), y, x],
    ['s', mid(3, 2), x, y],
    ['w', mid(0, 3), y, [-x[0], -x[1]]],
  ]
  const shownSides = sides.filter(([n]) =>
    box.kind === 'text' ? n === 'e' || n === 'w' : box.kind === 'line' ? false : box.kind !== 'group',
  )
  const roomy = (n: string) => (n === 'n' || n === 's' ? w : h) > 40
  const bars = shownSides
    .filter(([n]) => roomy(n))
    .map(([, p, d]) => `M${add(p, d, -7)}L${add(p, d, 7)}`)
    .join('')
  const arcAt = add(add(c[2], x, 14), y, 14) // clear of the corner: both are seized with the pointer
  const arc = `M${add(add(arcAt, x, -1), y, -17)}Q${add(add(arcAt, x, 2), y, 2)} ${add(add(arcAt, y, -1), x, -17)}`
  const names = ['nw', 'ne', 'se', 'sw']
  const start = (kind: string, handle: string) => (e: React.PointerEvent) => {
    if (e.button !== 0) return
    e.stopPropagation()
    onGesture(kind, handle, '', e)
  }
  const d = corner + (handles ? bars : '')
  return (
    <g>
      <path d={d} fill="none" stroke="#FFFDF8" strokeWidth="5" strokeLinecap="round" strokeLinejoin="round" />
      <path d={d} fill="none" stroke="#A8731A" strokeWidth="2.2" strokeLinecap="round" strokeLinejoin="round" />
      {handles && !quiet && (
        <>
          <path d={arc} fill="none" stroke="#FFFDF8" strokeWidth="5" strokeLinecap="round" />
          <path d={arc} fill="none" stroke="#A8731A" strokeWidth="2" strokeLinecap="round" />
          <circle
            cx={arcAt[0]}
            cy={arcAt[1]}
            r="13"
            fill="transparent"
            style={{ pointerEvents: 'all', cursor: 'grab' }}
            data-handle="turn"
            onPointerDown={start('turn', '')}
          />
          {shownSides
            .filter(([n]) => roomy(n))
            .map(([n, p, , o]) => (
              <circle
                key={n}
                cx={p[0]}
                cy={p[1]}
                r="12"
                fill="transparent"
                style={{ pointerEvents: 'all', cursor: cursorFor(o) }}
                data-handle={n}
                onPointerDown={start('size', n)}
              />
            ))}
          {box.kind !== 'line' &&
            c.map((p, i) => (
              <circle
                key={names[i]}
                cx={p[0]}
                cy={p[1]}
                r="12"
                fill="transparent"
                style={{
                  pointerEvents: 'all',
                  cursor: cursorFor([p[0] - (c[0][0] + c[2][0]) / 2, p[1] - (c[0][1] + c[2][1]) / 2]),
                }}
                data-handle={names[i]}
                onPointerDown={start('size', names[i])}
              />
            ))}
        </>
      )}
    </g>
  )
}

/**
 * The pivot: what turns turn about. It is seized only while it is shown on purpose, before all else then; pressed
 * twice it goes back to the middle.
 */
function Pivot({
  box,
  view,
  shown,
  start,
}: {
  box: OverlayBox
  view: View
  shown: boolean
  start: (e: React.PointerEvent) => void
}) {
  const [x, y] = toDesk(view, box.pivot)
  const d = `M${x - 8} ${y}h5M${x + 3} ${y}h5M${x} ${y - 8}v5M${x} ${y + 3}v5`
  return (
    <g opacity={shown ? 1 : 0.6} data-pivot={shown ? 'shown' : 'own'}>
      <path d={d} stroke="#FFFDF8" strokeWidth="4" />
      <path d={d} stroke="#A8731A" strokeWidth="1.6" />
      <circle cx={x} cy={y} r="3" fill="none" stroke="#A8731A" strokeWidth="1.6" />
      {shown && (
        <circle
          cx={x}
          cy={y}
          r="12"
          fill="transparent"
          style={{ pointerEvents: 'all', cursor: 'crosshair' }}
          data-handle="pivot"
          onPointerDown={start}
          onDoubleClick={(e) => {
            e.stopPropagation()
            run('pivot', { threads: [box.thread], reset: true })
          }}
        >
          <title>Pivot: turns go about it</title>
        </circle>
      )}
    </g>
  )
}
