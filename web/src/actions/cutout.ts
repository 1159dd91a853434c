// A picture is cut out on the page: strokes, colours and sides go to the server, which works its mask out; each is one
// step to undo.
import { forgetPicture } from '../engine/paint/bitmaps'
import type { CutKey, Cutout, CutStroke } from '../engine/types'
import { run } from '../project/commands'
import { desk, fail, goBehind, mended, select, set } from '../project/desk'
import { standsOf, cutoutOf, groundOf } from '../server/server'

/** The thread of the picture that is cut out on the page, while it is selected. */
export const cutting = () => {
  const d = desk()
  return d.cutting && d.selection.length === 1 && d.selection[0] === d.cutting ? d.cutting : null
}

export function openCutout(looks = true) {
  const [one, more] = desk().selected
  if (one?.layer.kind === 'picture' && !more && !one.layer.locked)
    set({ cutting: one.layer.thread, cropping: null, cutTold: '', cutStands: '', tool: 'select' })
  const hash = one?.layer.picture?.media
  if (!looks || !hash || desk().cutting !== one.layer.thread) return
  // Before it begins, how much will be to be drawn.
  standsOf(hash).then(
    (cutStands) => cutting() && picture(desk().cutting!)?.media === hash && set({ cutStands }),
    (e) => fail(e, 'intake'),
  )
}

export const leaveCutout = () => set({ cutting: null })

const picture = (thread: string) => {
  const [one] = desk().selected
  return one?.layer.thread === thread ? one.layer.picture : undefined
}

let last: Promise<void> = Promise.resolve()

/** Changes the cut-out of the selected picture: one after another, each on what the one before has come to. */
export function recut(change: (cut: Partial<Cutout>) => Partial<Cutout>, propose = false) {
  const [one] = desk().selected
  const thread = one?.layer.thread
  if (!thread || !one.layer.picture) return
  const { project, moment } = desk()
  set({ cutBusy: desk().cutBusy + 1 })
  last = last.then(async () => {
    try {
      const of = picture(thread)
      if (!of || desk().project !== project || desk().moment.scene !== moment.scene) return
      const { cut, media, told, stands } = await cutoutOf(of.media, change(of.cut ?? {}), propose)
      mended('intake')
      if (desk().project !== project || picture(thread)?.media !== cut.of) return
      run('cutout.set', { threads: [thread], cut, media })
      if (desk().missing.includes(cut.mask)) {
        forgetPicture(`${cut.of}-${cut.mask}`)
        set({ missing: desk().missing.filter((h) => h !== cut.mask) })
      }
      set({ cutTold: told ?? '', ...(stands && { cutStands: stands }) })
    } catch (e) {
      fail(e, 'intake')
    } finally {
      set({ cutBusy: desk().cutBusy - 1 })
    }
  })
}

export const stroke = (s: CutStroke) => recut((cut) => ({ ...cut, strokes: [...(cut.strokes ?? []), s] }))

export const keyAt = (at: CutKey['at']) => recut((cut) => ({ ...cut, keys: [...(cut.keys ?? []), { colour: '', at }] }))

/** Finds a foreground by itself: strokes that were drawn count on. */
export const findForeground = () => recut((cut) => cut, true)

export function removeCutout(threads: string[]) {
  run('cutout.set', { threads, cut: null })
  set({ cutTold: '', cutStands: '' })
}

/** Makes two layers of the selected picture: what is kept of it, and its ground; what is added next goes between. */
export function splitInTwo() {
  const [one] = desk().selected
  const thread = one?.layer.thread
  if (!thread || !one.layer.picture?.cut) return
  const { project } = desk()
  const stop = new AbortController()
  set({ cutBusy: desk().cutBusy + 1, cutStop: () => stop.abort() })
  last = last.then(async () => {
    try {
      const of = picture(thread)
      if (stop.signal.aborted || !of?.cut || desk().project !== project) return
      const { hash, media } = await groundOf(of.media, of.cut.mask, `${one.layer.name} behind`, stop.signal)
      mended('intake')
      if (desk().project !== project || picture(thread)?.cut?.mask !== of.cut.mask) return
      if (!run('cutout.split', { thread, hash, media })) return
      set({ cutting: null })
      select([thread])
      if (!one.in) goBehind({ thread, name: `${one.layer.name} in front` })
    } catch (e) {
      if (!stop.signal.aborted) fail(e, 'intake')
    } finally {
      set({ cutBusy: desk().cutBusy - 1, cutStop: null })
    }
  })
}
