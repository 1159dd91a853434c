// What the editor shows: one store, in slices by subject, each in a file of its own with what is done to it. The
// document itself lives in the engine; here are only the small views of it. All of it is imported from project/desk.
import { create } from 'zustand'
import type { CutoutSlice } from './cutout'
import type { FilmSlice } from './film'
import type { GallerySlice } from './gallery'
import type { LookingSlice } from './looking'
import type { NoticeSlice } from './notices'
import type { SelectionSlice } from './selection'
import type { SoundSlice } from './sounds'
import type { StoringSlice } from './storing'
import type { TimeSlice } from './time'
import type { ToolSlice } from './tools'

export type Desk = FilmSlice &
  TimeSlice &
  SelectionSlice &
  LookingSlice &
  ToolSlice &
  CutoutSlice &
  SoundSlice &
  NoticeSlice &
  StoringSlice &
  GallerySlice

/** Empty until the slices have put in what is theirs: index.ts loads them all. */
export const useDesk = create<Desk>()(() => ({}) as Desk)

export const desk = useDesk.getState
export const set = useDesk.setState

/** Puts a slice into the store. */
export const slice = <S extends Partial<Desk>>(begin: S) => set(begin)
