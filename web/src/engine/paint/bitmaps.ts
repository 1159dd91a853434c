// The pictures of the film as they come from the server, by hash and halvings.
const bitmaps = new Map<string, ImageBitmap | 'loading' | 'failed'>()
const used = new Map<string, number>() // when bitmaps were asked for last, ms
const spare = 10_000 // a cut-out that was not asked for so long is let go of: each stroke makes another
const waiting = new Set<() => void>()
const onPicture = () => waiting.forEach((f) => f())
let arrived = 0
const anew = new Set<string>() // that were read anew: what the browser keeps of them is out of date

/** Calls f whenever a picture that was missing has arrived, until what it returns is called. */
export function whenPictureArrives(f: () => void): () => void {
  waiting.add(f)
  return () => void waiting.delete(f)
}

/** Goes up with every picture that has arrived: what was painted before may lack it. */
export const picturesArrived = () => arrived

export function picture(hash: string, mip: number): ImageBitmap | undefined {
  const key = `${hash}/${mip}`
  const b = bitmaps.get(key)
  used.set(key, performance.now())
  if (b instanceof ImageBitmap) return b
  if (b === undefined) {
    bitmaps.set(key, 'loading')
    fetch(`/api/media/${key}.png`, { cache: anew.has(hash) ? 'reload' : 'default' })
      .then((r) => (r.ok ? r.blob() : Promise.reject(new Error(r.statusText))))
      .then((blob) => createImageBitmap(blob, { colorSpaceConversion: 'none' }))
      .then((bitmap) => {
        bitmaps.set(key, bitmap)
        letGo()
        arrived++
        onPicture()
      })
      .catch(() => {
        bitmaps.set(key, 'failed')
        onPicture()
      })
  }
  for (let k = 0; k < 14; k++) {
    // Until it arrives, any other size of it will do.
    const other = bitmaps.get(`${hash}/${k}`)
    if (other instanceof ImageBitmap) return other
  }
  // A new cut-out is on its way: the picture as it was seen last stands in for it.
  const [base, mask] = hash.split('-')
  if (!mask) return undefined
  let last: ImageBitmap | undefined
  let at = -1
  for (const [other, bitmap] of bitmaps)
    if (bitmap instanceof ImageBitmap && other.startsWith(base) && (used.get(other) ?? 0) > at) {
      last = bitmap
      at = used.get(other) ?? 0
    }
  return last
}

function letGo() {
  const now = performance.now()
  for (const [key, bitmap] of bitmaps)
    if (key.includes('-') && bitmap instanceof ImageBitmap && now - (used.get(key) ?? 0) > spare) {
      bitmap.close()
      bitmaps.delete(key)
      used.delete(key)
    }
}

/** Asks for a picture again that was read anew. */
export function readAgain(hash: string) {
  anew.add(hash)
  forgetPicture(hash)
}

/** Asks for a picture again whose file has come back. */
export function forgetPicture(hash: string) {
  for (const key of bitmaps.keys()) if (key.startsWith(hash)) bitmaps.delete(key)
  arrived++
  onPicture()
}

/** Whether the file of a picture is not there. */
export function pictureMissing(hash: string): boolean {
  for (const [key, b] of bitmaps) if (b === 'failed' && key.startsWith(hash)) return true
  return false
}

/** Whether every picture asked for so far has arrived or failed. */
export function picturesSettled(): boolean {
  for (const b of bitmaps.values()) if (b === 'loading') return false
  return true
}
