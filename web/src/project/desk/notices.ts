// What Capstan says.
import { desk, set, slice } from './store'

/** What is said for a while, or went wrong: that goes with its cause. */
export interface Notice {
  id: number
  kind: 'said' | 'failed'
  text: string
  cause?: Cause
  act?: { word: string; run: () => void }
}

/** What a failure came of: something else of the kind that succeeds shows that it is over. */
export type Cause = 'edit' | 'intake' | 'export' | 'keys'

export interface NoticeSlice {
  notices: Notice[]
  told: string // what was done last, for who does not see it
}

slice<NoticeSlice>({ notices: [], told: '' })

/** How long what is said stays, in ms. */
const stays = 8000

let notice = 0

/** Says something for a while; failures stay until they are closed, or their cause has gone. */
export function say(text: string, kind: Notice['kind'] = 'said', more: Pick<Notice, 'cause' | 'act'> = {}) {
  const n = { id: ++notice, kind, text, ...more }
  set({
    notices: [
      ...desk()
        .notices.filter((o) => o.text !== text)
        .slice(-3),
      n,
    ],
  })
  if (kind === 'said') setTimeout(() => dismiss(n.id), stays)
}

export const dismiss = (id: number) => set({ notices: desk().notices.filter((n) => n.id !== id) })

export const fail = (e: unknown, cause: Cause = 'edit') =>
  say(e instanceof Error ? e.message : String(e), 'failed', { cause })

/** Tells who does not see the screen what was done. */
export const tell = (told: string) => set({ told })

/** Something of a kind has succeeded: failures of that kind are over. */
export function mended(cause: Cause) {
  const { notices } = desk()
  if (notices.some((n) => n.cause === cause)) set({ notices: notices.filter((n) => n.cause !== cause) })
}
