// Small drawings for what is better shown than said: kinds of fill, sides, ends and corners of a stroke.
import type { ReactNode } from 'react'

const Drawing = ({ children }: { children: ReactNode }) => (
  <svg width="16" height="16" viewBox="0 0 16 16" fill="none" stroke="currentColor" strokeWidth="1.5" aria-hidden>
    {children}
  </svg>
)

export const drawings: Record<string, ReactNode> = {
  none: (
    <Drawing>
      <rect x="2.5" y="2.5" width="11" height="11" rx="2" />
      <path d="M3.5 12.5l9-9" stroke="#AE3B21" />
    </Drawing>
  ),
  colour: (
    <Drawing>
      <rect x="2.5" y="2.5" width="11" height="11" rx="2" fill="currentColor" />
    </Drawing>
  ),
  linear: (
    <Drawing>
      <rect x="2.5" y="2.5" width="11" height="11" rx="2" />
      <path d="M4 5h8M4 7h8" strokeWidth="1" />
      <path d="M4 9.5h8" strokeWidth="1.6" />
      <path d="M3.5 12h9" strokeWidth="2.4" />
    </Drawing>
  ),
  radial: (
    <Drawing>
      <circle cx="8" cy="8" r="5.6" />
      <circle cx="8" cy="8" r="3.2" strokeWidth="1" />
      <circle cx="8" cy="8" r="1.3" fill="currentColor" stroke="none" />
    </Drawing>
  ),
  inside: (
    <Drawing>
      <path d="M14 2.5H2.5V14" strokeWidth="1" strokeDasharray="2 1.5" />
      <path d="M14 5H5v9" strokeWidth="2.6" />
    </Drawing>
  ),
  middle: (
    <Drawing>
      <path d="M14 4H4v10" strokeWidth="3.4" />
      <path d="M14 4H4v10" stroke="#F6F2E9" strokeWidth="1" strokeDasharray="2 1.5" />
    </Drawing>
  ),
  outside: (
    <Drawing>
      <path d="M14 3.4H3.4V14" strokeWidth="2.6" />
      <path d="M14 6H6v8" strokeWidth="1" strokeDasharray="2 1.5" />
    </Drawing>
  ),
  butt: (
    <Drawing>
      <path d="M2 8h8" strokeWidth="6" />
      <path d="M2 8h12" stroke="#F6F2E9" strokeWidth="1" />
    </Drawing>
  ),
  'cap round': (
    <Drawing>
      <path d="M2 8h8" strokeWidth="6" />
      <path d="M10 8h0.01" strokeWidth="6" strokeLinecap="round" />
      <path d="M2 8h8" stroke="#F6F2E9" strokeWidth="1" />
    </Drawing>
  ),
  square: (
    <Drawing>
      <path d="M2 8h11" strokeWidth="6" />
      <path d="M2 8h8" stroke="#F6F2E9" strokeWidth="1" />
    </Drawing>
  ),
  miter: (
    <Drawing>
      <path d="M4 14V4h10" strokeWidth="4" />
    </Drawing>
  ),
  'join round': (
    <Drawing>
      <path d="M4 14V4h10" strokeWidth="4" strokeLinejoin="round" />
    </Drawing>
  ),
  'head start': (
    <Drawing>
      <path d="M14 8H3M6.5 4.5L3 8l3.5 3.5" />
    </Drawing>
  ),
  'head end': (
    <Drawing>
      <path d="M2 8h11M9.500 4.500L13 8l-3.500 3.500" />
    </Drawing>
  ),
  'head both': (
    <Drawing>
      <path d="M3 8h10M5.500 5L2.500 8l3 3M10.500 5l3 3-3 3" />
    </Drawing>
  ),
  'along row': (
    <Drawing>
      <rect x="1.500" y="6" width="3.500" height="4" />
      <rect x="6.250" y="6" width="3.500" height="4" />
      <rect x="11" y="6" width="3.500" height="4" />
    </Drawing>
  ),
  'along grid': (
    <Drawing>
      <rect x="2" y="2.500" width="4.500" height="4" />
      <rect x="9.500" y="2.500" width="4.500" height="4" />
      <rect x="2" y="9.500" width="4.500" height="4" />
      <rect x="9.500" y="9.500" width="4.500" height="4" />
    </Drawing>
  ),
  'along ring': (
    <Drawing>
      <circle cx="8" cy="3" r="1.700" />
      <circle cx="12.500" cy="8" r="1.700" />
      <circle cx="8" cy="13" r="1.700" />
      <circle cx="3.500" cy="8" r="1.700" />
    </Drawing>
  ),
  picture: (
    <Drawing>
      <rect x="2.500" y="3" width="11" height="10" rx="2" />
      <path d="M3 12l3.500-4 2.500 2.500 1.500-1.500 3 3" />
    </Drawing>
  ),
  texture: (
    <Drawing>
      <rect x="2.500" y="2.500" width="11" height="11" rx="2" />
      <path d="M5 5l1.500 1.500M9 5l1.500 1.500M5 9.500L6.500 11M9 9.500l1.500 1.500" />
    </Drawing>
  ),
  bevel: (
    <Drawing>
      <path d="M4 14V4h10" strokeWidth="4" strokeLinejoin="bevel" />
    </Drawing>
  ),
}
