// A picture that is cut out on the page: what the next stroke says, and how it is shown.
import { engine } from '../../engine/engine'
import { set, slice } from './store'

export type CutHow = 'keep' | 'drop' | 'within' | 'paint' | 'rub' | 'key'
export type CutForm = '' | 'area' | 'box'
export type CutView = 'page' | 'chequers' | 'overlay' | 'mask'

export interface CutoutSlice {
  cutting: string | null // thread of the picture that is cut out
  cutHow: CutHow
  cutForm: CutForm
  cutWidth: number // of a brush, px of the picture
  cutSoft: number // of a brush by hand, 0..1
  cutView: CutView
  cutBusy: number // how much is still being worked out
  cutStop: (() => void) | null // gives up what takes longest: the ground of a cut-out
  cutTold: string // what is to be known of the last
  cutStands: string // how well the foreground stands out, in words
  behind: { thread: string; name: string; window?: string } | null // what is added next goes behind this
}

slice<CutoutSlice>({
  cutting: null,
  cutHow: 'keep',
  cutForm: '',
  cutWidth: 24,
  cutSoft: 0.5,
  cutView: 'overlay',
  cutBusy: 0,
  cutStop: null,
  cutTold: '',
  cutStands: '',
  behind: null,
})

/** Says behind what the next layer goes; null: in front of all, as ever. */
export function goBehind(behind: CutoutSlice['behind']) {
  engine.goesBehind(behind?.thread ?? '', behind?.window ?? '')
  set({ behind })
}
