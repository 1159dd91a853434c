// A path that is acted: the layer is dragged over the page, and when it was where is how it goes. The film plays along
// meanwhile.
import { engine } from '../engine/engine'
import type { Moment } from '../engine/types'
import { run } from '../project/commands'
import { desk, dropDraft, fail, goTo, say, selectMoves, set, showDraft } from '../project/desk'
import { notice } from '../words'

export interface Acting {
  kind: 'act'
  x: number
  y: number
  page: [number, number] // where the pointer is
  rest: Moment // what was shown before
  began: number // ms, with its first move or at the end of the count; 0: it has not
  counted: boolean // time runs from the end of a count of three
  over: boolean
  points: [number, number, number][] // ms since then, page px
  tell: (words: string) => void // says something at the pointer
}

// How long each of a count of three is said, ms.
const beat = 700

/** The layers that are selected are held where the pointer presses. */
export function hold(x: number, y: number, page: [number, number], tell: Acting['tell']): Acting | null {
  const d = desk()
  if (!d.selection.length) return null
  const g: Acting = {
    kind: 'act',
    x,
    y,
    page,
    rest: d.moment,
    began: 0,
    counted: d.counted,
    over: false,
    points: [],
    tell,
  }
  if (g.counted) count(g, 3)
  else if (!take(g)) return null
  return g
}

function count(g: Acting, n: number) {
  if (g.over) return
  if (n > 0) {
    g.tell(String(n))
    setTimeout(() => count(g, n - 1), beat)
    return
  }
  if (take(g)) start(g, performance.now())
}

/** From now on the layers follow the pointer. */
function take(g: Acting): boolean {
  const d = desk()
  try {
    engine.begin('move', g.rest, d.selection, '', '', g.page[0], g.page[1])
  } catch (e) {
    fail(e)
    g.over = true
    return false
  }
  g.points = [[0, ...g.page]]
  set({ dragging: true })
  return true
}

/** Time runs, and the film with it, at the speed that is acted at. */
function start(g: Acting, now: number) {
  g.began = now
  const d = desk()
  const scene = d.film!.scenes[d.scene]
  const first = scene.start + scene.into
  const last = first + scene.stay
  const from = Math.min(Math.max(g.rest.time, first), last)
  if (d.playsAlong && !scene.aside) set({ playing: true })
  const tick = () => {
    if (g.over) return
    const ms = performance.now() - g.began
    g.tell(`${((ms * (desk().slowly ? 0.5 : 1)) / 1000).toFixed(2)} s`)
    if (desk().playing)
      goTo({ rest: false, scene: 0, time: Math.min(from + ms * (desk().slowly ? 0.5 : 1), last - 0.5) })
    requestAnimationFrame(tick)
  }
  tick()
}

/** They follow the pointer; without a count time runs from its first move. */
export function follow(g: Acting, page: [number, number], now: number) {
  g.page = page
  if (!g.points.length) return // it is being counted
  if (!g.began) start(g, now)
  g.points.push([now - g.began, ...page])
  try {
    showDraft(engine.update(page[0], page[1], false, false, 0, true))
  } catch (e) {
    fail(e)
  }
}

/** Nothing is recorded any more; what was shown before is shown again. */
export function leave(g: Acting) {
  g.over = true
  g.tell('')
  if (desk().playing) {
    set({ playing: false })
    goTo(g.rest)
  }
}

/** What was acted becomes a path. */
export function done(g: Acting) {
  leave(g)
  set({ tool: 'select', dragging: false, snap: [] })
  if (!g.points.length) return // let go of within the count
  const d = desk()
  const before = new Set(d.selected.flatMap((s) => s.moves.map((m) => m.id)))
  engine.end()
  dropDraft()
  if (!run('path.acted', { threads: d.selection, points: g.points, speed: d.slowly ? 2 : 1, counted: g.counted }))
    return
  const come = desk().selected.flatMap((s) => s.moves.filter((m) => !before.has(m.id)))
  selectMoves(
    come.map((m) => m.id),
    false,
  )
  const m = come[0]
  if (m?.path) say(notice('path.acted', m.points, `${((m.finish - m.begin) / 1000).toFixed(2)} s`))
}
