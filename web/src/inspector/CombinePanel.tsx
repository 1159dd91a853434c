// Several layers become one, or many: each way is shown on the page while the pointer or the keyboard rests on it.
import { useEffect, type ReactNode } from 'react'
import { combineSelection, endPreview, previewCombining, ways, type Way } from '../project/combining'
import { useDesk } from '../project/desk'
import { Section } from '../ui/controls'

// Two sails over each other; what is kept is full.
const kite = 'M2 3h13v13H2z'
const disc = 'M24.500 17a7.500 7.500 0 1 1-15 0a7.500 7.500 0 1 1 15 0z'
const both = 'M15 9.770V16H9.570A7.500 7.500 0 0 1 15 9.770z'
const signs: Record<Way, ReactNode> = {
  unite: <path d={`${kite}${disc}`} fill="currentColor" />,
  cut: <><path d="M2 3h13v6.770A7.500 7.500 0 0 0 9.570 16H2z" fill="currentColor" /><path d={disc} strokeDasharray="2 2" /></>,
  overlap: <><path d={kite} strokeDasharray="2 2" /><path d={disc} strokeDasharray="2 2" /><path d={both} fill="currentColor" /></>,
  drop: <><path d={`${kite}${disc}`} fill="currentColor" fillRule="evenodd" /></>,
  break: <><path d="M1 2h13v6.500A7.500 7.500 0 0 0 8.500 15H1z" fill="currentColor" /><path d="M16 9.500a7.500 7.500 0 1 1-6.500 8H16z" fill="currentColor" /><path d="M14.800 10.800v5.200h-4.300a6.500 6.500 0 0 1 4.300-5.200z" strokeWidth="1" /></>,
}

export function CombinePanel() {
  const preview = useDesk((d) => d.preview)
  useEffect(() => endPreview, [])
  return (
    <Section title="Combine">
      <div className="grid grid-cols-5 gap-1" onPointerLeave={endPreview}>
        {ways.map(([way, word, what]) => (
          <button
            key={way} type="button" title={what} aria-label={word}
            className="flex h-[64px] flex-col items-center justify-start gap-1 rounded-md border border-sailcloth-300 bg-sailcloth-100 px-0.5 pt-1.5 text-[11px] leading-[13px] text-ink-700 hover:border-ink-500 hover:bg-paper hover:text-ink-900"
            onPointerEnter={() => previewCombining(way)} onFocus={(e) => { if (e.currentTarget.matches(':focus-visible')) previewCombining(way) }} onBlur={endPreview} onClick={() => combineSelection(way)}
          >
            <svg width="26" height="26" viewBox="0 0 26 26" fill="none" stroke="currentColor" strokeWidth="1.300" aria-hidden>{signs[way]}</svg>
            <span className="text-balance">{word}</span>
          </button>
        ))}
      </div>
      <p className={`mt-1.5 min-h-[30px] text-[12px] leading-[15px] ${preview?.trouble ? 'text-coral-700' : 'text-ink-600'}`} role="status">
        {preview?.trouble ? preview.trouble : preview ? ways.find(([w]) => w === preview.way)![2] + '.' : 'The rearmost gives its look, moves and place. Rest on a way to see it on the page.'}
      </p>
    </Section>
  )
}
