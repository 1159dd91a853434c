// Fonts in the engine: those that ship and those of documents, each added once.
import { call, engine } from './engine'
import { fontFiles } from './loading'
import { fetchBytes, Refusal } from '../server/server'
import type { OwnFont } from './types'

const added = new Map<string, Promise<void>>()

/** Adds families that ship to the engine, each once; recompile sets texts with them. False: all were there. */
export async function loadFamilies(names: string[]): Promise<boolean> {
  const fresh = names.filter((n) => !added.has(n))
  for (const n of fresh) {
    const files = fontFiles().filter((f) => f.family === n)
    added.set(
      n,
      Promise.all(files.map((f) => fetchBytes(`/api/fonts/${f.file}`)))
        .then((bytes) => {
          files.forEach((f, i) => call('addFont', f.family, f.weight, f.italic ?? false, bytes[i]))
        })
        .catch((e) => {
          added.delete(n)
          throw e
        }),
    )
  }
  await Promise.all(names.map((n) => added.get(n)))
  return fresh.some((n) => fontFiles().some((f) => f.family === n))
}

const gone = new Set<string>() // own fonts whose files are missing: told once

/**
 * Adds the fonts of the document's own that it lacks to the engine; missing says which are not there. False: there was
 * nothing to add.
 */
export async function loadOwnFonts(missing: (f: OwnFont) => void): Promise<boolean> {
  const wanted = engine.fontsWanted().filter((f) => !gone.has(f.hash))
  await Promise.all(
    wanted.map(async (f) => {
      try {
        call('addOwnFont', f.hash, await fetchBytes(fontAddress(f.hash)))
      } catch (e) {
        gone.add(f.hash)
        if (e instanceof Refusal && e.status === 404) missing(f)
        else throw e
      }
    }),
  )
  return wanted.length > 0
}

/** A font that was taken in again is looked for again. */
export const fontIsBack = (hash: string) => gone.delete(hash)

const fontAddress = (hash: string) => `/api/media/${hash}/font`

/** Where the file lies that a family is shown by in lists: its regular weight. */
export function sampleOf(family: string, own: OwnFont[]): string | undefined {
  const nearest = <T extends { weight: number; italic?: boolean }>(list: T[]) =>
    list.filter((f) => !f.italic).sort((a, b) => Math.abs(a.weight - 400) - Math.abs(b.weight - 400))[0] ?? list[0]
  const shipped = sampleFile(family)
  if (shipped) return `/api/fonts/${shipped}`
  const f = nearest(own.filter((o) => o.family === family))
  return f && fontAddress(f.hash)
}

const sampleFile = (family: string) =>
  fontFiles()
    .filter((f) => f.family === family && !f.italic)
    .sort((a, b) => Math.abs(a.weight - 400) - Math.abs(b.weight - 400))[0]?.file
