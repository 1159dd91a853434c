// Several layers become one, or many: each way is shown on the page while the pointer or the keyboard rests on it.
import { clsx } from 'clsx'
import { useEffect, useState, type ReactNode } from 'react'
import { combineSelection, endPreview, mergeSelection, previewCombining, ways, type Way } from '../actions/combining'
import { useDesk } from '../project/desk'
import { Section } from '../ui/Section'
import { Button } from '../ui/controls'

// A kite and a sun over each other: what is kept is full.
const kite = 'M9.500 1.500L18 9L9.500 23.500L1 9z'
const sun = 'M25 15.500a7 7 0 1 1-14 0a7 7 0 1 1 14 0z'
const whole = 'M-5-5h40v40h-40z'
const gone = { fill: 'none', strokeDasharray: '2 2', strokeWidth: 1 }

const signs: Record<Way, ReactNode> = {
  unite: <path d={`${kite}${sun}`} />,
  cut: (
    <>
      <path d={kite} clipPath="url(#not-sun)" />
      <path d={sun} {...gone} />
    </>
  ),
  overlap: (
    <>
      <path d={kite} {...gone} />
      <path d={sun} {...gone} />
      <path d={sun} clipPath="url(#in-kite)" />
    </>
  ),
  drop: <path d={`${kite}${sun}`} fillRule="evenodd" stroke="none" />,
  break: (
    <>
      <g transform="translate(-1 -1.500)">
        <path d={kite} stroke="none" clipPath="url(#not-sun)" />
      </g>
      <path d={sun} stroke="none" clipPath="url(#in-kite)" />
      <g transform="translate(1.500 1.500)">
        <path d={sun} stroke="none" clipPath="url(#not-kite)" />
      </g>
    </>
  ),
}

const Clips = () => (
  <svg width="0" height="0" className="absolute" aria-hidden>
    <clipPath id="in-kite">
      <path d={kite} />
    </clipPath>
    <clipPath id="not-kite">
      <path d={`${whole}${kite}`} clipRule="evenodd" />
    </clipPath>
    <clipPath id="not-sun">
      <path d={`${whole}${sun}`} clipRule="evenodd" />
    </clipPath>
  </svg>
)

export function CombinePanel() {
  const preview = useDesk((d) => d.preview)
  useEffect(() => endPreview, [])
  return (
    <Section title="Combine">
      <Clips />
      <div className="grid grid-cols-5 gap-1" onPointerLeave={endPreview}>
        {ways.map(([way, word, what]) => (
          <button
            key={way}
            type="button"
            title={what}
            aria-label={word}
            className={clsx(
              'flex h-17.5 flex-col items-center justify-start gap-1 rounded-md border',
              'border-sailcloth-500 bg-sailcloth-100 px-0.5 pt-1.5 text-[0.6875rem] leading-[0.8125rem] text-ink-700',
              'hover:border-ink-500 hover:bg-paper hover:text-ink-900',
            )}
            onPointerEnter={() => previewCombining(way)}
            onFocus={(e) => {
              if (e.currentTarget.matches(':focus-visible')) previewCombining(way)
            }}
            onBlur={endPreview}
            onClick={() => combineSelection(way)}
          >
            <svg
              width="28"
              height="28"
              viewBox="-1 -1 28 28"
              fill="currentColor"
              stroke="currentColor"
              strokeWidth="1"
              strokeLinejoin="round"
              className="text-spruce-700"
              aria-hidden
            >
              {signs[way]}
            </svg>
            <span className="text-balance">{word}</span>
          </button>
        ))}
      </div>
      <p
        className={clsx(
          'mt-1.5 min-h-7.5 text-[0.75rem] leading-[0.9375rem]',
          preview?.trouble ? 'text-coral-700' : 'text-ink-600',
        )}
        role="status"
      >
        {preview?.trouble
          ? preview.trouble
          : preview
            ? ways.find(([w]) => w === preview.way)![2] + '.'
            : 'The rearmost gives its look, moves and place. Rest on a way to see it on the page.'}
      </p>
    </Section>
  )
}

/** Paints what is selected into a picture. */
export function MergeButton() {
  const [busy, setBusy] = useState(false)
  return (
    <Button
      className="mt-1 w-full"
      disabled={busy}
      title="Painted as they rest, two pixels a px of the page. The layers are kept inside: Take apart gives them back."
      onClick={() => {
        setBusy(true)
        void mergeSelection().finally(() => setBusy(false))
      }}
    >
      {busy ? 'Painting …' : 'Merge into a picture'}
    </Button>
  )
}
