// What recordings were decoded to, piece by piece for the engine, and their peaks for drawing.
import { engine } from '../engine/engine'
import { desk } from '../project/desk'

/** Frames a second, and how many a piece has, as the core has them. */
export const rate = 48000
const pieceFrames = 1 << 16

const coming = new Map<string, Promise<void>>()

async function bytesOf(address: string, range?: [number, number]): Promise<Uint8Array> {
  const answer = await fetch(address, range ? { headers: { Range: `bytes=${range[0]}-${range[1]}` } } : {})
  if (!answer.ok) throw new Error(`${answer.status}`)
  return new Uint8Array(await answer.arrayBuffer())
}

/** Brings pieces that a mix wanted; they come once, whoever asks. */
export function bring(wants: (string | number)[]): Promise<unknown> {
  const all: Promise<void>[] = []
  for (let i = 0; i + 1 < wants.length; i += 2) {
    const [media, piece] = [String(wants[i]), Number(wants[i + 1])]
    const key = `${media}/${piece}`
    const row = desk().sounds.rows.find((r) => r.media === media)
    if (!row) continue
    const size = pieceFrames * row.channels * 4
    const last = row.samples * row.channels * 4 - 1
    const one =
      coming.get(key) ??
      bytesOf(`/api/media/${media}/frames`, [piece * size, Math.min((piece + 1) * size - 1, last)])
        .then((b) => void engine.tape(media, piece, b))
        .catch(() => {}) // it stays silent; that the file is missing is said elsewhere
        .finally(() => coming.delete(key))
    coming.set(key, one)
    all.push(one)
  }
  return Promise.all(all)
}

const peaks = new Map<string, Int8Array | null>()
const drawers = new Set<() => void>()

/** Has something drawn again when peaks have come; what is returned ends that. */
export function onPeaks(draw: () => void) {
  drawers.add(draw)
  return () => void drawers.delete(draw)
}

/** The peaks of a recording at a level, pairs of least and greatest; null where they have not come yet. */
export function peaksOf(media: string, level: number): Int8Array | null {
  const key = `${media}/${level}`
  const known = peaks.get(key)
  if (known !== undefined) return known
  if (peaks.size > 200) peaks.clear()
  peaks.set(key, null)
  bytesOf(`/api/media/${media}/peaks-${level}`)
    .then((b) => {
      peaks.set(key, new Int8Array(b.buffer))
      for (const draw of drawers) draw()
    })
    .catch(() => {})
  return null
}
