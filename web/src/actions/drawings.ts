// Takes drawings in: the server makes a group of layers of an SVG, and says what it could not keep.
import { run } from '../project/commands'
import { desk, mended, say, selectNew, set } from '../project/desk'
import { uploadDrawing } from '../server/server'
import { notice } from '../words'

/** Whether a file is a drawing in SVG, packed or not. */
export const isDrawing = (f: File) => f.type === 'image/svg+xml' || /\.svgz?$/i.test(f.name)

/** Text that is a drawing, as a file of it; null: it is none. */
export const drawingIn = (text: string): File | null =>
  /^\s*<(svg|\?xml|!--|!doctype svg)/i.test(text) && text.includes('<svg') ? new File([text], 'Drawing.svg') : null

export async function takeDrawing(file: File, at?: [number, number], signal?: AbortSignal) {
  const { film, project, rows } = desk()
  const before = new Set(rows.map((r) => r.thread))
  const name = file.name.replace(/\.svgz?$/i, '').trim() || 'Drawing'
  const made = await uploadDrawing(project!, film!.film ?? '', file, name, signal)
  mended('intake')
  if (!run('add.drawing', { layer: made.layer, media: made.media, at })) return
  selectNew(before)
  if (made.lost.length)
    say(notice('drawing.lost', made.lost.length), 'said', {
      act: { word: 'Show', run: () => set({ sheet: 'losses', losses: { name, list: made.lost } }) },
    })
}
