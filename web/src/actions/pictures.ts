// Takes picture files in: the server checks and stores them, then they become layers.
import { run } from '../project/commands'
import { desk, fail, mended, say, selectNew, set } from '../project/desk'
import { isFont, takeFonts } from '../project/ownfonts'
import { uploadPicture } from '../server/server'
import { forgetPicture } from '../engine/paint/bitmaps'
import { bytes } from '../time'
import { notice } from '../words'

export async function takePictures(files: File[], at?: [number, number]) {
  const fonts = files.filter(isFont)
  if (fonts.length) {
    const family = await takeFonts(fonts)
    const texts = desk()
      .selected.filter((s) => s.layer.kind === 'text')
      .map((s) => s.layer.thread)
    if (family && texts.length) run('text.family', { threads: texts, family })
  }
  const before = new Set(desk().rows.map((r) => r.thread))
  const empty = desk().film!.scenes[desk().scene].layers === 0
  for (const file of files.filter((f) => !isFont(f))) {
    try {
      if (file.size > 4e6) say(notice('picture.taking', file.name))
      const { hash, media, space } = await uploadPicture(file)
      mended('intake')
      if (space.near) say(notice('quota.near', bytes(space.used), bytes(space.quota)))
      if (!run('add.picture', { hash, media, at })) continue
      selectNew(before) // all that came with it
    } catch (e) {
      fail(e, 'intake')
    }
  }
  // The first picture of a scene is often its ground.
  if (empty && desk().selection.length === 1) set({ offer: desk().selection[0] })
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
