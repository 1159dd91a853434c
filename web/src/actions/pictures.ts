// Takes picture files in: the server checks and stores them, then they become layers.
import { apply, run } from '../project/commands'
import { desk, fail, mended, say, selectNew, set } from '../project/desk'
import { isFont, takeFonts } from '../project/ownfonts'
import { createProject, pictureAnew, uploadPicture } from '../server/server'
import { isCaptions, readCaptions } from './captions'
import { isDrawing, takeDrawing } from './drawings'
import { isSound, takeSounds } from './sounds'
import { forgetPicture, readAgain } from '../engine/paint/bitmaps'
import { bytes } from '../time'
import { notice } from '../words'

/** Takes files in one after another: fonts, and pictures, which become layers at a point of the page. */
export async function takePictures(files: File[], at?: [number, number]) {
  const fonts = files.filter(isFont)
  if (fonts.length) {
    const family = await takeFonts(fonts)
    const texts = desk()
      .selected.filter((s) => s.layer.kind === 'text')
      .map((s) => s.layer.thread)
    if (family && texts.length) run('text.family', { threads: texts, family })
  }
  const sounds = files.filter(isSound)
  if (sounds.length) await takeSounds(sounds)
  for (const file of files.filter(isCaptions)) await readCaptions(file)
  const drawings = files.filter(isDrawing)
  if (drawings.length) await each(drawings, (file, signal) => takeDrawing(file, at, signal))
  const pictures = files.filter((f) => !isFont(f) && !isDrawing(f) && !isSound(f) && !isCaptions(f))
  if (!pictures.length) return
  const before = new Set(desk().rows.map((r) => r.thread))
  const empty = desk().film!.scenes[desk().scene].layers === 0
  const stills: string[] = []
  await each(pictures, async (file, signal) => {
    const { hash, media, space } = await uploadPicture(file, signal)
    mended('intake')
    if (space.near) say(notice('quota.near', bytes(space.used), bytes(space.quota)))
    if (!run('add.picture', { hash, media, at })) return
    if (media.moves) stills.push(media.name)
    selectNew(before) // all that came with it
  })
  if (stills.length)
    say(stills.length === 1 ? notice('picture.still', stills[0]) : notice('picture.stills', stills.length))
  // The first picture of a scene is often its ground, and one that has nearly the pixels for it.
  const { selection, selected } = desk()
  if (selection.length === 1 && (empty || selected[0]?.fills) && !before.has(selection[0])) set({ offer: selection[0] })
}

/** Does something with files one after another; it is said which one is being taken in, and can be cancelled. */
async function each(files: File[], take: (file: File, signal: AbortSignal) => Promise<void>) {
  const stop = new AbortController()
  const cancel = () => stop.abort()
  for (const [i, file] of files.entries()) {
    if (stop.signal.aborted) break
    if (files.length > 1 || file.size > 1e6) set({ taking: { name: file.name, n: i + 1, of: files.length, cancel } })
    try {
      await take(file, stop.signal)
    } catch (e) {
      if (!stop.signal.aborted) fail(e, 'intake')
    }
  }
  set({ taking: null })
  if (stop.signal.aborted) say(notice('picture.cancelled'))
}

/** Puts a file in the place of a picture: on some threads, or wherever a missing one is used. */
export async function replacePicture(from: string, threads: string[], file: File) {
  try {
    const { hash, media } = await uploadPicture(file)
    mended('intake')
    const missing = desk().missing
    if (hash !== from) run('picture.replace', { from, hash, media, threads: missing.includes(from) ? [] : threads })
    else forgetPicture(hash)
    if (!missing.includes(from)) return
    say(notice('picture.replaced', file.name))
    set({ missing: missing.filter((h) => h !== from) })
  } catch (e) {
    fail(e, 'intake')
  }
}

/** Reads a picture again, as pictures are read now. */
export async function readAnew(hash: string) {
  try {
    const { media } = await pictureAnew(hash)
    mended('intake')
    readAgain(hash)
    apply({ op: 'media.add', hash, media })
  } catch (e) {
    fail(e, 'intake')
  }
}

/** Fills layers with a picture, or with a texture of it. */
export async function fillWith(file: File, threads: string[], kind: string) {
  try {
    const { hash, media } = await uploadPicture(file)
    mended('intake')
    run('fill.picture', { threads, kind, hash, media })
  } catch (e) {
    fail(e, 'intake')
  }
}

/** Asks for files and takes them in. */
export const choosePictures = () => document.querySelector<HTMLInputElement>('[data-picture-input]')?.click()

/** Puts a picture behind everything in the scene that is shown: it covers the page and is locked. */
export async function groundOf(file: File) {
  await takePictures([file])
  const { selection, selected } = desk()
  if (selected[0]?.layer.kind === 'picture') run('ground.make', { threads: selection })
  set({ offer: null })
}

type Taken = Awaited<ReturnType<typeof uploadPicture>>

let arriving: Taken | null = null

/** Makes a project of a picture's size, which opens with that as its ground; name says how it is called. */
export async function projectOf(file: File, name: (base: string) => string): Promise<string> {
  const taken = await uploadPicture(file)
  const base = file.name.replace(/\.[^.]*$/, '').trim() || 'Picture'
  const made = await createProject(name(base), taken.media.width ?? 0, taken.media.height ?? 0)
  arriving = taken
  return made.id
}

/** What the project that has just opened was made of. */
export function arrived() {
  const taken = arriving
  arriving = null
  if (!taken || !run('add.picture', { hash: taken.hash, media: taken.media })) return
  run('ground.make', { threads: desk().rows.map((r) => r.thread) })
  if (taken.media.moves) say(notice('picture.still', taken.media.name))
}
