// Server-sent events. Browsers allow six connections a host, so all windows share one stream: the window that holds the
// lock has it and tells the others.
import type { Export } from '../engine/types'
import { seeBuild } from '../server/build'
import { changedElsewhere, lookAgain, ownWindow } from './commands'
import { desk, tell } from './desk'
import { notice } from '../words'
import { renewSession } from '../server/server'

type Listener = (e: Export) => void
const listeners = new Set<Listener>()

/** Calls f for every change of an export until the returned function is called. */
export function onExport(f: Listener): () => void {
  listeners.add(f)
  return () => listeners.delete(f)
}

const onLists = new Set<() => void>()

/** Calls f whenever the list of projects or stages has changed, until the returned function is called. */
export function onProjects(f: () => void): () => void {
  onLists.add(f)
  return () => onLists.delete(f)
}

function handle(kind: string, data: string) {
  const v = JSON.parse(data) as never
  if (kind === 'hello') {
    // An old page reloads when the server has a newer build.
    if (!seeBuild((v as { build: string }).build)) location.reload()
    else void lookAgain()
  } else if (kind === 'export') {
    const e = v as Export
    for (const f of listeners) f(e)
    if (e.state === 'done' && e.project === desk().project) tell(notice('told.exported', e.format, e.name))
  } else if (kind === 'projects') {
    for (const f of onLists) f()
  } else if (kind === 'change') {
    const c = v as { project: string; revision: number; window: string }
    if (c.window !== ownWindow()) void changedElsewhere(c.project, c.revision)
  }
}

/** Begins to listen, by an own stream or by the window that has one. */
export function listen() {
  const others = new BroadcastChannel('capstan-events')
  others.onmessage = (e: MessageEvent<{ kind: string; data: string }>) => handle(e.data.kind, e.data.data)
  void navigator.locks.request('capstan-events', () => {
    const open = () => {
      const source = new EventSource('/api/events')
      for (const kind of ['hello', 'export', 'change', 'projects']) {
        source.addEventListener(kind, (e) => {
          const data = (e as MessageEvent<string>).data
          handle(kind, data)
          others.postMessage({ kind, data })
        })
      }
      // Browsers try again by themselves but where they were refused: then the session is another one by now.
      source.onerror = () => {
        if (source.readyState === EventSource.CLOSED) setTimeout(() => void renewSession().then(open), 3000)
      }
    }
    open()
    return new Promise(() => {}) // until this window closes
  })
}
