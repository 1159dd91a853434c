// A direction of travel: eight arrows round a compass, or four.
import { clsx } from 'clsx'
const places = [
  [5, 225],
  [3, 270],
  [6, 315],
  [1, 180],
  [-1, -1],
  [0, 0],
  [4, 135],
  [2, 90],
  [7, 45],
] as const
const arrows: Record<number, string> = { 0: '→', 45: '↘', 90: '↓', 135: '↙', 180: '←', 225: '↖', 270: '↑', 315: '↗' }
const words: Record<number, string> = {
  0: 'to the right',
  45: 'down right',
  90: 'down',
  135: 'down left',
  180: 'to the left',
  225: 'up left',
  270: 'up',
  315: 'up right',
}

export function DirectionField({
  name,
  value,
  four = false,
  onSet,
}: {
  name: string
  value: number | null
  four?: boolean
  onSet: (degrees: number) => void
}) {
  const now = value === null ? -1 : ((value % 360) + 360) % 360
  return (
    <div className="flex items-center gap-2">
      <div
        role="radiogroup"
        aria-label={name}
        className="grid grid-cols-3 gap-px rounded-md border border-sailcloth-300 bg-sailcloth-100 p-px"
      >
        {places.map(([k, deg]) => {
          if (deg < 0)
            return (
              <span key="middle" className="flex h-[24px] w-[24px] items-center justify-center">
                <span className="h-[5px] w-[5px] rounded-full bg-ink-500/50" />
              </span>
            )
          if (four && deg % 90 !== 0) return <span key={k} />
          return (
            <button
              key={k}
              type="button"
              role="radio"
              aria-checked={now === deg}
              aria-label={words[deg]}
              title={words[deg]}
              onClick={() => onSet(deg)}
              className={clsx(
                'flex h-[24px] w-[24px] items-center justify-center rounded-[4px]',
                now === deg ? 'bg-brass-200 text-ink-900' : 'text-ink-600 hover:bg-sailcloth-200',
              )}
            >
              <svg width="14" height="14" viewBox="-7 -7 14 14" aria-hidden style={{ transform: `rotate(${deg}deg)` }}>
                <path
                  d="M-5 0H4M0.5 -3.5L4 0L0.5 3.5"
                  fill="none"
                  stroke="currentColor"
                  strokeWidth="1.6"
                  strokeLinecap="round"
                  strokeLinejoin="round"
                />
              </svg>
            </button>
          )
        })}
      </div>
      <span className="text-[11px] text-ink-600">
        {now < 0 ? 'mixed' : `${arrows[now] ?? ''} ${words[now] ?? `${Math.round(now)}°`}`}
      </span>
    </div>
  )
}
