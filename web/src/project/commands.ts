// Carries commands to the engine at once and to the server in order.
import { engine } from '../engine/engine'
import { loadFamilies, loadOwnFonts } from '../engine/fonts'
import {
  desk,
  dropDraft,
  fail,
  goBehind,
  look,
  lookNow,
  mended,
  refresh,
  say,
  set,
  show,
  showDraft,
  tell,
} from './desk'
import type { Command, Done, Intents, Row } from '../engine/types'
import { endOver } from './play'
import { bringBack, pauseOfRow, putAway, rowOfSteps, sameWindow } from './steps'
import { buildSeen } from '../server/build'
import {
  Refusal,
  changesSince,
  loadDocument,
  missingMedia,
  renewSession,
  sendCommand,
  type Stored,
} from '../server/server'
import { forget, keep, leftBehind, type Waiting } from './waiting'
import { fault, notice } from '../words'

const windowID = sameWindow()
let project = ''
let revision = 0
let pending: Waiting[] = []
let sending = false
let keeping: Promise<unknown> = Promise.resolve() // the last that waits on its way to the disk

/** Opens a project in the engine. */
export async function openProject(id: string) {
  const opened = engine.open(await loadDocument(id))
  const shipped = await loadFamilies(engine.familiesWanted())
  const lacking: string[] = []
  if ((await loadOwnFonts((f) => lacking.push(f.family))) || shipped) engine.recompile()
  engine.solo([])
  engine.onNow(false)
  goBehind(null)
  project = id
  revision = opened
  pending = []
  bringBack(id)
  look({
    project: id,
    moment: { rest: true, scene: 0, time: 0 },
    selection: [],
    moves: [],
    scenes: [],
    solo: [],
    marks: [null, null],
    dropped: 0,
    inside: '',
    playing: false,
    tool: 'select',
    pending: 0,
    trouble: null,
    notices: [],
    onNow: false,
    ordering: null,
    lastScene: 0,
    zoom: 'fit',
    pan: { x: 0, y: 0 },
    sheet: 'none',
    large: false,
    missing: [],
  })
  refresh()
  // What a window that is gone could not get stored is carried out again; one that was stored after all is not
  // repeated.
  for (const w of await leftBehind(id, windowID)) {
    try {
      if (engine.carryOut(w.command).length > 0) pending.push(w)
      else void forget(w.id)
    } catch (e) {
      void forget(w.id)
      say(fault('waiting.unfit', e instanceof Error ? e.message : String(e)), 'failed')
    }
  }
  if (pending.length > 0) {
    say(pending.length === 1 ? notice('waiting.back') : notice('waiting.back-many', pending.length))
    set({ pending: pending.length })
    refresh()
    void flush()
  }
  mark()
  for (const family of lacking) say(fault('font.gone', family), 'failed')
  missingMedia(id)
    .then((missing) => {
      set({ missing })
      const heard = new Set(desk().sounds.rows.map((r) => r.media))
      if (missing.some((h) => !heard.has(h))) say(fault('picture.gone'), 'failed')
      if (missing.some((h) => heard.has(h))) say(fault('sound.lost'), 'failed')
    })
    .catch(fail)
}

export function closeProject() {
  putAway(project)
  set({ project: null, film: null, rows: [], selected: [], selection: [], moves: [], scenes: [] })
  delete document.documentElement.dataset.revision
}

// Tests and people with tools can see which revision has been acknowledged, whether anything waits, and how much of it
// would outlive the tab.
function mark() {
  document.documentElement.dataset.revision = String(revision)
  document.documentElement.dataset.pending = String(pending.length)
  document.documentElement.dataset.kept = String(pending.filter((w) => !w.unkept).length)
}

// While it is set, what is asked for is shown and not done; then that is shown until something is done, or it is
// dropped.
let rehearsing = false
let rehearsed = false
let dragging = false // by a drag

/**
 * Shows what would be done: what is asked for inside is a draft. So every field can show what is typed into it, or
 * what it is dragged to, by what it does when that is set.
 */
export function rehearse(f: () => void, dragged = false) {
  rehearsing = rehearsed = true
  dragging = dragged
  try {
    f()
  } finally {
    rehearsing = dragging = false
  }
}

/** Whether what is asked for is shown while something is dragged. */
export const rehearsingDrag = () => dragging

/** Shows the document again, where a rehearsal is still shown. */
export function endRehearsal() {
  endOver()
  if (rehearsed) dropDraft(true)
  rehearsed = false
}

/** Carries out a command; false and a notice when it is refused. */
export function apply(command: Command): boolean {
  if (rehearsing) {
    const drafted = engine.draft(command, true)
    showDraft(drafted)
    return drafted.trouble === ''
  }
  return carried(() => engine.apply(command, rowOfSteps(), performance.now(), pauseOfRow(), true))
}

/** Carries out what is asked for; false when there is nothing to do, or, with a notice, when it is refused. */
export function run<K extends keyof Intents>(intent: K, args: Intents[K] = {}, across = true): boolean {
  if (rehearsing) return draft(intent, args, true) === ''
  const fresh = rehearsed
  rehearsed = false
  const done = carried(() => {
    lookNow()
    const done = engine.run(intent, args, rowOfSteps(), performance.now(), pauseOfRow(), across, fresh)
    if (!done && fresh) dropDraft(true)
    return done
  })
  if (done && desk().behind && /^(add|bands)\./.test(intent)) goBehind(null)
  return done
}

function carried(carry: () => Done | null, told = ''): boolean {
  try {
    const done = carry()
    if (done) finish(done, told)
    return done !== null
  } catch (e) {
    dropDraft(true)
    fail(e)
    return false
  }
}

// What a command has done is shown, and on its way to the server.
function finish(done: Done, told: string) {
  set({ across: done.later.count + done.later.own > 0 ? { ...done.later, changes: done.changes } : null })
  mended('edit')
  if (done.command) enqueue({ id: done.id, command: done.command })
  const before = desk().rows
  show(done)
  tell(told || outcome(before, done))
}

// What was done, in few words.
function outcome(before: Row[], done: Done): string {
  const [was, is] = [before, done.rows].map((rows) => new Set(rows.map((r) => r.thread)))
  const names = (rows: Row[], other: Set<string>) =>
    rows
      .filter((r) => !other.has(r.thread))
      .slice(0, 3)
      .map((r) => r.name)
      .join(', ')
  if (done.rows.some((r) => !was.has(r.thread))) return notice('told.added', names(done.rows, was))
  if (before.some((r) => !is.has(r.thread))) return notice('told.gone', names(before, is))
  const [one, more] = done.selected
  if (!one || more || !done.changes.some((c) => c.field === 'place')) return notice('told.changed')
  return notice('told.placed', one.layer.name, ...one.box.map((v) => Math.round(v)))
}

/** Shows what an intent would do; with time, in the timeline too. Why it cannot, in words; empty: it does. */
export function draft<K extends keyof Intents>(intent: K, args: Intents[K], time = false): string {
  lookNow()
  const drafted = engine.try(intent, args, time)
  showDraft(drafted)
  return drafted.trouble // half-typed values may be refused; the end of the edit says so
}

/** Draft on the page alone: the fields stay those of what is selected, which may not be in the draft. */
export function draftOnPage<K extends keyof Intents>(intent: K, args: Intents[K]): string {
  const { selected, overlay } = desk()
  const trouble = draft(intent, args)
  set({ selected, overlay })
  return trouble
}

/** Does the last edit to the same threads in later scenes, too; if all, also where they have something of their own. */
export function carryEdit(all = false) {
  const { across } = desk()
  if (across && run('edit.later', { changes: across.changes, all }, false))
    say(notice('edit.later', across.count + (all ? across.own : 0)))
}

// A step that is refused is gone, so that those before it can be reached.
function step(again: boolean) {
  if (!carried(() => engine.back(again), notice(again ? 'told.again' : 'told.undone'))) refresh()
}

export const undo = () => step(false)
export const redo = () => step(true)

function enqueue(w: Waiting) {
  w.unkept = 'yet'
  pending.push(w)
  keeping = keep(project, windowID, w).then(() => void (desk().project && mark()))
  set({ pending: pending.length })
  mark()
  void flush()
}

const pause = () => new Promise((r) => setTimeout(r, 1500))

async function flush() {
  if (sending) return
  sending = true
  while (pending.length > 0) {
    const next = pending[0]
    try {
      const answer = await sendCommand(project, revision, windowID, next.id, next.command, buildSeen())
      set({ trouble: null })
      // Stored on top of what others did meanwhile, or before this document was loaded.
      if (answer.since ?? answer.more)
        await follow({ revision: answer.revision, since: answer.since ?? [], more: answer.more }, true)
      else if (answer.known) await follow({ revision, since: [] }, true)
      else {
        revision = answer.revision
        engine.acknowledge()
        pending.shift()
        void forget(next.id)
        set({ pending: pending.length })
      }
    } catch (e) {
      // What waits is kept, and sent by the new page.
      if (e instanceof Refusal && e.code === 'stale.build') return keeping.then(() => location.reload())
      if (e instanceof Refusal && e.status === 409) await follow(e.body as Stored, false)
      else if (e instanceof Refusal && e.status === 401) {
        // what waits is kept until there is a session again
        set({ trouble: e.message })
        await renewSession()
        await pause()
      } else if (e instanceof Refusal && e.status > 0 && e.status < 500) {
        say(e.message, 'failed') // the server refuses what the engine took: it is taken back here too
        await follow({ revision, since: [] }, true)
      } else {
        set({ trouble: e instanceof Error ? e.message : String(e) })
        await pause()
      }
    }
    mark()
  }
  sending = false
}

// Puts what was stored in between under the pending commands. drop leaves out the oldest of these.
async function follow(stored: Stored, drop: boolean) {
  if (stored.more) {
    if (drop) void forget(pending.shift()!.id)
    await reload()
    set({ pending: pending.length })
    mark()
    refresh()
    return
  }
  try {
    const failed = engine.catchUp(
      stored.since.map((c) => c.patch),
      drop,
    )
    revision = stored.revision
    const gone = new Set(failed.map((f) => f.index).concat(drop ? [0] : []))
    for (const f of failed) say(fault('window.unfit', f.words), 'failed')
    for (const [i, w] of pending.entries()) if (gone.has(i)) void forget(w.id)
    pending = pending.filter((_, i) => !gone.has(i))
  } catch {
    await reload()
  }
  set({ pending: pending.length })
  mark()
  refresh()
}

// The last resort: the stored document, with what was pending carried out again.
async function reload() {
  try {
    revision = engine.open(await loadDocument(project))
    pending = pending.filter((w) => {
      try {
        return engine.carryOut(w.command).length > 0
      } catch (e) {
        void forget(w.id)
        fail(e)
        return false
      }
    })
  } catch (e) {
    set({ trouble: e instanceof Error ? e.message : String(e) })
    await pause()
  }
}

// The browser asks before what waits in memory alone is lost: what is on its way to the disk is on its way to the
// server, too, unless that is away.
window.addEventListener('beforeunload', (e) => {
  if (pending.some((w) => w.unkept === 'never' || (w.unkept && desk().trouble))) e.preventDefault()
})

window.addEventListener('pagehide', () => {
  if (project && desk().project) putAway(project)
})

/** Waits until all that was done here is stored. */
export async function allStored() {
  while (pending.length > 0) {
    if (desk().trouble) throw new Error(desk().trouble!)
    await new Promise((r) => setTimeout(r, 20))
  }
}

/** The id of this window; the server's events name the window that made a change. */
export const ownWindow = () => windowID

/** Another window changed the project that is open here. */
export async function changedElsewhere(id: string, to: number) {
  if (id === project && to > revision) await lookAgain()
}

/** Takes over what others did: also when it may not have been heard, since the stream of events was gone. */
export async function lookAgain() {
  const id = project
  if (!desk().project || pending.length > 0 || desk().dragging) return // the next command learns of it
  try {
    const stored = await changesSince(project, revision)
    if (id === project && stored.revision > revision && pending.length === 0 && !desk().dragging)
      await follow(stored, false)
  } catch (e) {
    set({ trouble: e instanceof Error ? e.message : String(e) })
  }
}
