// Takes font files in: the server checks and stores them, then they are the project's own.
import { fontIsBack } from '../engine/fonts'
import { run } from './commands'
import { bringFonts, desk, fail, say } from './desk'
import { uploadFont } from '../server/server'
import { notice } from '../words'
import { bytes } from '../time'

export const isFont = (file: File) => /\.(ttf|otf|woff2?|ttc)$/i.test(file.name)

/** Takes files in and returns the family of the last, or null when none was taken. */
export async function takeFonts(files: File[]): Promise<string | null> {
  let last: string | null = null
  for (const file of files) {
    try {
      const { hash, media, space } = await uploadFont(file)
      if (space.near) say(notice('quota.near', bytes(space.used), bytes(space.quota)))
      fontIsBack(hash)
      if (!desk().film?.fonts.some((f) => f.hash === hash)) run('font.add', { hash, media })
      await bringFonts()
      last = media.family ?? ''
      say(media.stays ? notice('font.added-stays', last) : notice('font.added', last))
    } catch (e) {
      fail(e)
    }
  }
  return last
}
