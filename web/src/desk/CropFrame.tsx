// A picture that is cropped on the page: its frame in ink, with wedges in the corners and lozenges on the sides that
// move the frame over it; all of it faint around, with rings that zoom it and an arc that turns it. Nothing of it looks
// or acts like the brackets that size.
import type { Crop, XY } from '../engine/types'
import type { View } from '../engine/painter'
import { leaveCrop } from '../actions/cropping'
import { useDesk } from '../project/desk'
import { toDesk, type Start } from './view'

const ink = '#0C2523'
const halo = '#FFFDF8'
const names = ['nw', 'ne', 'se', 'sw']
const sides: [string, number, number][] = [
  ['n', 0, 1],
  ['e', 1, 2],
  ['s', 2, 3],
  ['w', 3, 0],
]
const mid = (a: XY, b: XY, t = 0.5): XY => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t]
const along = (a: XY, b: XY, px: number) => mid(a, b, px / (Math.hypot(b[0] - a[0], b[1] - a[1]) || 1))
const polygon = (c: XY[]) => `M${c.join('L')}Z`

export function CropFrame({ crop, view, onGesture }: { crop: Crop; view: View; onGesture: Start }) {
  const dragging = useDesk((d) => d.dragging)
  const frame = crop.frame.map((c) => toDesk(view, c))
  const whole = crop.whole.map((c) => toDesk(view, c))
  const [a, b, c, d, e, f] = crop.place
  const s = view.scale
  let mip = 0
  while (Math.max(...crop.size) >> mip > 1400) mip++
  const start = (handle: string) => (event: React.PointerEvent) => {
    if (event.button !== 0) return
    event.stopPropagation()
    onGesture('crop', handle, '', event)
  }
  const seized = { fill: 'transparent', style: { pointerEvents: 'all' as const } }
  // Wedges lie inside the frame; on a small one they are as large as there is room for.
  const arm = Math.min(
    14,
    Math.hypot(frame[1][0] - frame[0][0], frame[1][1] - frame[0][1]) / 3,
    Math.hypot(frame[3][0] - frame[0][0], frame[3][1] - frame[0][1]) / 3,
  )
  const wedges = frame
    .map((p, i) => polygon([p, along(p, frame[(i + 1) % 4], arm), along(p, frame[(i + 3) % 4], arm)]))
    .join('')
  const lozenge = ([x, y]: XY) => `M${x} ${y - 5}L${x + 5} ${y}L${x} ${y + 5}L${x - 5} ${y}Z`
  const lozenges = arm < 8 ? '' : sides.map(([, i, j]) => lozenge(mid(frame[i], frame[j]))).join('')
  // Off the corner of the picture that lies farthest down to the right.
  const last = whole.reduce((m, p, i) => (p[0] + p[1] > whole[m][0] + whole[m][1] ? i : m), 0)
  const centre = mid(whole[0], whole[2])
  const turn = along(
    whole[last],
    centre,
    -Math.min(22, Math.hypot(whole[last][0] - centre[0], whole[last][1] - centre[1])),
  )
  const thirds = [1 / 3, 2 / 3]
    .map(
      (t) =>
        `M${mid(frame[0], frame[1], t)}L${mid(frame[3], frame[2], t)}` +
        `M${mid(frame[0], frame[3], t)}L${mid(frame[1], frame[2], t)}`,
    )
    .join('')
  return (
    <g
      data-crop-frame
      onDoubleClick={(event) => {
        event.stopPropagation()
        leaveCrop()
      }}
    >
      <clipPath id="crop-rest">
        <path d={`${polygon(whole)}${polygon(frame)}`} clipRule="evenodd" />
      </clipPath>
      <g clipPath="url(#crop-rest)">
        <image
          href={`/api/media/${crop.media}/${mip}.png`}
          width="1"
          height="1"
          preserveAspectRatio="none"
          opacity="0.35"
          transform={`matrix(${a * s} ${b * s} ${c * s} ${d * s} ${e * s + view.x} ${f * s + view.y})`}
        />
      </g>
      <path
        d={polygon(whole)}
        {...seized}
        style={{ pointerEvents: 'all', cursor: 'move' }}
        data-crop="picture"
        onPointerDown={start('picture')}
      />
      <path d={polygon(whole)} fill="none" stroke={halo} strokeWidth="2.4" strokeOpacity="0.8" />
      <path d={polygon(whole)} fill="none" stroke={ink} strokeWidth="1" strokeDasharray="2 4" />
      {dragging && <path d={thirds} fill="none" stroke={halo} strokeWidth="1" strokeOpacity="0.7" />}
      <path d={polygon(frame)} fill="none" stroke={halo} strokeWidth="4" />
      <path d={polygon(frame)} fill="none" stroke={ink} strokeWidth="1.8" />
      {!dragging && (
        <>
          <path d={wedges + lozenges} fill={ink} stroke={halo} strokeWidth="1.2" strokeLinejoin="round" />
          {whole.map((p, i) => (
            <g key={names[i]}>
              <circle cx={p[0]} cy={p[1]} r="5" fill={halo} stroke={ink} strokeWidth="1.6" />
              <circle
                cx={p[0]}
                cy={p[1]}
                r="11"
                {...seized}
                style={{ pointerEvents: 'all', cursor: 'zoom-in' }}
                data-crop={`zoom-${names[i]}`}
                onPointerDown={start('zoom')}
              />
            </g>
          ))}
          <path
            d={`M${turn[0] - 7} ${turn[1] + 4}A8 8 0 1 0 ${turn[0] + 4} ${turn[1] - 7}`}
            fill="none"
            stroke={halo}
            strokeWidth="5"
            strokeLinecap="round"
          />
          <path
            d={`M${turn[0] - 7} ${turn[1] + 4}A8 8 0 1 0 ${turn[0] + 4} ${turn[1] - 7}`}
            fill="none"
            stroke={ink}
            strokeWidth="2"
            strokeLinecap="round"
          />
          <circle
            cx={turn[0]}
            cy={turn[1]}
            r="12"
            {...seized}
            style={{ pointerEvents: 'all', cursor: 'grab' }}
            data-crop="turn"
            onPointerDown={start('turn')}
          />
          {sides.map(([n, i, j]) => (
            <line
              key={n}
              x1={along(frame[i], frame[j], arm)[0]}
              y1={along(frame[i], frame[j], arm)[1]}
              x2={along(frame[j], frame[i], arm)[0]}
              y2={along(frame[j], frame[i], arm)[1]}
              stroke="transparent"
              strokeWidth="14"
              style={{ pointerEvents: 'stroke', cursor: n === 'n' || n === 's' ? 'row-resize' : 'col-resize' }}
              data-crop={n}
              onPointerDown={start(n)}
            />
          ))}
          {frame.map((p, i) => (
            <circle
              key={names[i]}
              cx={p[0]}
              cy={p[1]}
              r="12"
              {...seized}
              style={{ pointerEvents: 'all', cursor: 'crosshair' }}
              data-crop={names[i]}
              onPointerDown={start(names[i])}
            />
          ))}
        </>
      )}
    </g>
  )
}
