// Takes picture files in: the server checks and stores them, then they become layers.
import { run } from '../project/commands'
import { desk, fail, say } from '../project/desk'
import { uploadPicture } from '../project/server'
import { selectNew } from './Desk'

export async function takePictures(files: File[], at?: [number, number]) {
  for (const file of files) {
    try {
      if (file.size > 4e6) say(`Taking in “${file.name}” …`)
      const { hash, media } = await uploadPicture(file)
      const before = new Set(desk().rows.map((r) => r.thread))
      if (run('add.picture', { hash, media, at })) selectNew(before)
    } catch (e) {
      fail(e)
    }
  }
}

/** Asks for files and takes them in. */
export const choosePictures = () => document.querySelector<HTMLInputElement>('[data-picture-input]')?.click()
