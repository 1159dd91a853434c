// Commands that are not acknowledged yet, kept in IndexedDB: they outlive the tab and a stopped server.
import type { Command } from '../engine/types'

/** A command that waits; unkept: it does so in memory alone. */
export interface Waiting {
  id: string
  command: Command
  unkept?: boolean
}

interface Kept extends Waiting {
  key?: number
  project: string
  window: string
}

const name = 'capstan'
let opening: Promise<IDBDatabase> | undefined

function database(): Promise<IDBDatabase> {
  opening ??= new Promise((done, fail) => {
    const r = indexedDB.open(name, 1)
    r.onupgradeneeded = () =>
      r.result.createObjectStore('waiting', { keyPath: 'key', autoIncrement: true }).createIndex('id', 'id')
    r.onsuccess = () => done(r.result)
    r.onerror = () => fail(r.error)
  })
  return opening
}

async function store(mode: IDBTransactionMode) {
  return (await database()).transaction('waiting', mode, { durability: 'strict' }).objectStore('waiting')
}

const result = <T>(r: IDBRequest<T>) =>
  new Promise<T>((done, fail) => {
    r.onsuccess = () => done(r.result)
    r.onerror = () => fail(r.error)
  })

/** Keeps a command. Without IndexedDB (a private window, say) it waits in memory only. */
export async function keep(project: string, window: string, w: Waiting) {
  try {
    await result((await store('readwrite')).add({ project, window, ...w } satisfies Kept))
  } catch (e) {
    w.unkept = true
    console.warn('commands wait in memory only', e)
  }
}

/** Forgets a command that is acknowledged or refused. */
export async function forget(id: string) {
  try {
    const s = await store('readwrite')
    const key = await result(s.index('id').getKey(id))
    if (key !== undefined) await result(s.delete(key))
  } catch (e) {
    console.warn('a command could not be forgotten; repeating it is harmless', e)
  }
}

/**
 * Takes over what windows that are gone left waiting for a project, oldest first. Windows that live hold a lock of
 * their name.
 */
export async function leftBehind(project: string, window: string): Promise<Waiting[]> {
  void navigator.locks?.request(window, () => new Promise(() => {}))
  try {
    const all = (await result((await store('readonly')).getAll())) as Kept[]
    const held = new Set(((await navigator.locks?.query())?.held ?? []).map((l) => l.name))
    return all
      .filter((k) => k.project === project && (k.window === window || !held.has(k.window)))
      .map(({ id, command }) => ({ id, command }))
  } catch {
    return []
  }
}
