// Commands that are not acknowledged yet, kept in IndexedDB: they outlive the tab and a stopped server.
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Command } from '../engine/types'

/** A command that waits; unkept: it does so in memory alone, since it is not on the disk yet, or could not be. */
export interface Waiting {
  id: string
  command: Command
  unkept?: 'yet' | 'never'
}

interface Kept extends Waiting {
  key?: number
  project: string
  window: string
}

interface Shape extends DBSchema {
  waiting: { key: number; value: Kept; indexes: { id: string } }
}

let opening: Promise<IDBPDatabase<Shape>> | undefined

const database = () =>
  (opening ??= openDB<Shape>('capstan', 1, {
    upgrade(db) {
      db.createObjectStore('waiting', { keyPath: 'key', autoIncrement: true }).createIndex('id', 'id')
    },
  }))

// Each is one transaction that is on the disk when it is done.
const store = async () => (await database()).transaction('waiting', 'readwrite', { durability: 'strict' }).store

/** Keeps a command. Without IndexedDB (a private window, say) it waits in memory only. */
export async function keep(project: string, window: string, w: Waiting) {
  try {
    const { id, command } = w
    const s = await store()
    await s.add({ project, window, id, command })
    await s.transaction.done
    w.unkept = undefined
  } catch (e) {
    w.unkept = 'never'
    console.warn('commands wait in memory only', e)
  }
}

/** Forgets a command that is acknowledged or refused. */
export async function forget(id: string) {
  try {
    const s = await store()
    const key = await s.index('id').getKey(id)
    if (key !== undefined) await s.delete(key)
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
    const all = await (await database()).getAll('waiting')
    const held = new Set(((await navigator.locks?.query())?.held ?? []).map((l) => l.name))
    return all
      .filter((k) => k.project === project && (k.window === window || !held.has(k.window)))
      .map(({ id, command }) => ({ id, command }))
  } catch {
    return []
  }
}
