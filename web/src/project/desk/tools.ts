// What is in hand: the tool, what is drawn, dragged, written or picked with it.
import { engine, type Growth } from '../../engine/engine'
import type { PenView } from '../../engine/types'
import { set, slice } from './store'

/** What a press on the page does: select, draw words or a motion path, or a shape of this kind. */
export type Tool = 'select' | 'text' | 'path' | 'act' | (string & {})

export const drawsShape = (tool: Tool) => !['select', 'text', 'path', 'act', 'pen', 'hand'].includes(tool)

export interface ToolSlice {
  tool: Tool
  dragging: boolean
  snap: [number, number, number, number][] // lines of the page to what a drag snapped to
  grows: Growth[] // what grows along with several layers, and with a group
  pen: PenView | null // what is being drawn
  mirror: boolean // the pen draws both sides
  slowly: boolean // what is acted is acted at half its speed
  counted: boolean // after a count of three
  playsAlong: boolean // the film plays meanwhile
  smoothing: number // of lines drawn by hand, px on the screen
  // The text whose words are edited; from anchor to caret they are selected.
  writing: { thread: string; anchor: number; caret: number } | null
  cropping: string | null // thread of the picture that is cropped on the page
  editing: string | null // thread of the path whose points are edited
  points: string[] // of them, those that are selected
  parted: string[] // of them, those whose handles go by themselves
  preview: { way: string; outlines: string; trouble: string } | null // of combining what is selected
  taking: { name: string; n: number; of: number; cancel: () => void } | null // what is being taken in
  picking: ((colour: string) => void) | null // what is done with the colour that is picked from the page next
}

slice<ToolSlice>({
  tool: 'select',
  dragging: false,
  snap: [],
  grows: ['strokes', 'effects', 'letters'],
  pen: null,
  mirror: false,
  slowly: false,
  counted: false,
  playsAlong: true,
  smoothing: 4,
  writing: null,
  cropping: null,
  editing: null,
  points: [],
  parted: [],
  preview: null,
  taking: null,
  picking: null,
})

/** Says what grows along with several layers. */
export function setGrows(grows: Growth[]) {
  engine.grows(grows)
  set({ grows })
}
