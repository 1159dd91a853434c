// The one stream of server-sent events of this window.
import type { Export } from '../engine/types'
import { changedElsewhere, ownWindow } from './commands'

type Listener = (e: Export) => void
const listeners = new Set<Listener>()
let build = ''

/** Calls f for every change of an export until the returned function is called. */
export function onExport(f: Listener): () => void {
  listeners.add(f)
  return () => listeners.delete(f)
}

/** Opens the stream. An old page reloads when the server has a newer build. */
export function listen() {
  const source = new EventSource('/api/events')
  source.addEventListener('hello', (e) => {
    const now = (JSON.parse(e.data) as { build: string }).build
    if (build && now !== build) location.reload()
    build = now
  })
  source.addEventListener('export', (e) => {
    const x = JSON.parse(e.data) as Export
    for (const f of listeners) f(x)
  })
  source.addEventListener('change', (e) => {
    const c = JSON.parse(e.data) as { project: string; revision: number; window: string }
    if (c.window !== ownWindow()) void changedElsewhere(c.project, c.revision)
  })
}
