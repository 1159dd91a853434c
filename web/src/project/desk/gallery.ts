// The gallery: what it is open for.
import { set, slice, desk } from './store'

export interface GallerySlice {
  gallery: Opened | null
}

export interface Opened {
  replaces: string // the move in whose place one is sought; empty: one is added
  at: number | null // ms of the film at which it starts; null: at the playhead, or as its kind does
  pages: boolean // transitions into the scene that is shown
  from: Element | null // what had the keyboard
}

slice<GallerySlice>({ gallery: null })

/** Opens the gallery of moves for what is selected, or of transitions, in the place of the timeline's rows. */
export function openGallery(of: Partial<Opened> = {}) {
  const d = desk()
  if (!of.pages && !of.replaces && d.selection.length === 0) return
  set({
    gallery: { replaces: '', at: null, pages: false, from: document.activeElement, ...of },
    room: d.room === 'desk' ? 'both' : d.room,
  })
}

export function closeGallery() {
  const from = desk().gallery?.from
  set({ gallery: null })
  // Once the rows are there again, and the key that closed it has had its say.
  setTimeout(() => {
    const to = from?.isConnected && from !== document.body ? from : document.querySelector('[data-desk]')
    if (to instanceof HTMLElement || to instanceof SVGElement) to.focus({ preventScroll: true })
  }, 40)
}
