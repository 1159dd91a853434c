// A direction of travel: eight arrows round a compass, or four.
import { Radio, RadioGroup } from '@headlessui/react'
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
      <RadioGroup
        aria-label={name}
        value={now < 0 ? null : now}
        onChange={(deg) => deg !== null && onSet(deg)}
        className="grid grid-cols-3 gap-px rounded-md border border-sailcloth-500 bg-sailcloth-100 p-px"
      >
        {places.map(([k, deg]) => {
          if (deg < 0)
            return (
              <span key="middle" className="flex h-6 w-6 items-center justify-center">
                <span className="h-1.25 w-1.25 rounded-full bg-ink-500/50" />
              </span>
            )
          if (four && deg % 90 !== 0) return <span key={k} />
          return (
            <Radio
              key={k}
              value={deg}
              aria-label={words[deg]}
              title={words[deg]}
              className={clsx(
                'flex h-6 w-6 items-center justify-center rounded-[4px]',
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
            </Radio>
          )
        })}
      </RadioGroup>
      <span className="text-[0.6875rem] text-ink-600">
        {now < 0 ? 'mixed' : `${arrows[now] ?? ''} ${words[now] ?? `${Math.round(now)}°`}`}
      </span>
    </div>
  )
}
