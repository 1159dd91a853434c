// The sounds of the film, and how they are listened to.
import type { Level, Sounds } from '../../engine/types'
import { look } from './film'
import { set, slice } from './store'

/** A caption of a scene's own: its place among those of the scene. */
export interface CaptionName {
  scene: string
  index: number
}

export interface SoundSlice {
  sounds: Sounds
  heard: string[] // ids of the sounds that are selected
  caption: CaptionName | null // the caption that is selected
  alone: string[] // ids of those that are listened to alone
  hushed: boolean // nothing is heard while the film plays
  speaking: '' | 'words' | 'voice' // a voice is made: of words that are typed, or by the microphone
  level: Level // by which the film is brought to its loudness
}

slice<SoundSlice>({
  sounds: { rows: [], mix: { back: 12, down: 300, up: 800 }, captions: [] },
  heard: [],
  caption: null,
  alone: [],
  hushed: false,
  speaking: '',
  level: { gain: 0, limited: false },
})

/** Selects sounds, and nothing else. */
export function selectSounds(heard: string[]) {
  look({ selection: [], moves: [], scenes: [], across: null })
  set({ heard, caption: null, speaking: '' })
}

/** Selects a caption, and nothing else. */
export function selectCaption(caption: CaptionName | null) {
  look({ selection: [], moves: [], scenes: [], across: null })
  set({ caption, heard: [], speaking: '' })
}
