// What is on its way to the server, and what can be undone.
import { slice } from './store'

export interface StoringSlice {
  pending: number // commands not acknowledged yet
  trouble: string | null // why they are not
  canUndo: boolean
  canRedo: boolean
}

slice<StoringSlice>({ pending: 0, trouble: null, canUndo: false, canRedo: false })
