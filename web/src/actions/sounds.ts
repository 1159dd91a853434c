// Takes files with sound in: the server decodes them, then they are heard.
import { run } from '../project/commands'
import { desk, fail, mended, say, selectSounds, set } from '../project/desk'
import { uploadSound } from '../server/server'
import { bytes } from '../time'
import { addCaption, chooseCaptions } from './captions'
import { notice } from '../words'

const ends = /\.(mp3|wav|aiff?|flac|ogg|oga|opus|m4a|aac|mp4|m4v|mov|webm|mkv)$/i

/** Whether a file is taken in as a sound. */
export const isSound = (f: File) => /^(audio|video)\//.test(f.type) || (f.type === '' && ends.test(f.name))

/** Takes files in one after another; the last that came is selected. A move is what they are bound to. */
export async function takeSounds(files: File[], move = '') {
  const stop = new AbortController()
  const cancel = () => stop.abort()
  for (const [i, file] of files.entries()) {
    if (stop.signal.aborted) break
    if (files.length > 1 || file.size > 5e5) set({ taking: { name: file.name, n: i + 1, of: files.length, cancel } })
    try {
      const { hash, media, space } = await uploadSound(file, stop.signal)
      mended('intake')
      if (space.near) say(notice('quota.near', bytes(space.used), bytes(space.quota)))
      const before = new Set(desk().sounds.rows.map((r) => r.id))
      if (!run('sound.add', { hash, media, move })) continue
      const come = desk().sounds.rows.filter((r) => !before.has(r.id))
      selectSounds(come.map((r) => r.id))
      requestAnimationFrame(() =>
        document.querySelector(`[data-sound="${come[0]?.id}"]`)?.scrollIntoView({ block: 'nearest' }),
      )
    } catch (e) {
      if (!stop.signal.aborted) fail(e, 'intake')
    }
  }
  set({ taking: null })
  if (stop.signal.aborted) say(notice('sound.cancelled'))
}

/** Puts another file in a sound's place. */
export async function replaceSound(id: string, file: File) {
  try {
    const { hash, media } = await uploadSound(file)
    mended('intake')
    run('sound.replace', { id, hash, media })
    set({ missing: desk().missing.filter((h) => h !== hash) })
  } catch (e) {
    fail(e, 'intake')
  }
}

/** Asks for files and takes them in. */
export const chooseSounds = () => document.querySelector<HTMLInputElement>('[data-sound-input]')?.click()

/** Opens the panel in which a voice is made: of words that are typed, or by the microphone. */
export function startSpeaking(speaking: 'words' | 'voice') {
  selectSounds([])
  set({ speaking })
}

/** What can be brought in that is heard. */
export const soundChoices = () => [
  { word: 'From disk …', key: 'Shift+S', run: chooseSounds },
  { word: 'Speak some words …', run: () => startSpeaking('words') },
  { word: 'Record a voice …', run: () => startSpeaking('voice') },
  { word: 'Write a caption', run: addCaption },
  { word: 'Captions from disk (SRT, WebVTT) …', run: chooseCaptions },
]

/** Takes the selected sounds out of the film. */
export function deleteSounds() {
  const ids = desk().heard
  if (ids.length && run('sound.delete', { ids })) selectSounds([])
}
