// Carries commands to the engine at once and to the server in order; keeps what undo needs.
import { engine, type Change } from '../engine/engine'
import { desk, fail, refresh, say, select, set } from './desk'
import { Refusal, loadDocument, sendCommand } from './server'

interface Pending { id: string; command: object }

const windowID = crypto.randomUUID()
let project = ''
let revision = 0
let pending: Pending[] = []
let sending = false
let undone: Change[][] = []
let doneStack: Change[][] = []

/** Opens a project in the engine. */
export async function openProject(id: string) {
  const loaded = await loadDocument(id)
  engine.open(loaded.document)
  project = id
  revision = loaded.revision
  pending = []
  doneStack = []
  undone = []
  set({
    project: id, moment: { rest: true, scene: 0, time: 0 }, scene: 0, selection: [], inside: '', playing: false, tool: 'select',
    pending: 0, trouble: null, canUndo: false, canRedo: false, notices: [], zoom: 'fit', pan: { x: 0, y: 0 }, sheet: 'none',
  })
  mark()
  refresh()
}

export function closeProject() {
  set({ project: null, film: null, rows: [], selected: [], selection: [] })
  delete document.documentElement.dataset.revision
}

// Tests and people with tools can see which revision has been acknowledged, and whether anything waits.
function mark() {
  document.documentElement.dataset.revision = String(revision)
  document.documentElement.dataset.pending = String(pending.length)
}

/** Carries out a command; false and a notice when it is refused. */
export function apply(command: object): boolean {
  try {
    const patch = engine.apply(command)
    if (patch.length > 0) {
      doneStack.push(patch)
      if (doneStack.length > 500) doneStack.shift()
      undone = []
      enqueue(command)
    }
    refresh()
    return true
  } catch (e) {
    engine.clearDraft()
    refresh()
    fail(e)
    return false
  }
}

/** Asks the engine for the command for an intent and carries it out. */
export function run(intent: string, args: object = {}): boolean {
  try {
    const command = engine.intent(intent, desk().moment, args)
    return command ? apply(command) : false
  } catch (e) {
    fail(e)
    return false
  }
}

/** Shows what an intent would do, without doing it. */
export function draft(intent: string, args: object) {
  try {
    const command = engine.intent(intent, desk().moment, args)
    if (command) engine.draft(command)
  } catch {
    engine.clearDraft() // half-typed values may be refused; the end of the edit says so
  }
}

const inverse = (p: Change[]): Change[] => [...p].reverse().map((c) => ({ part: c.part, field: c.field, before: c.after, after: c.before }))

function step(from: Change[][], to: Change[][]) {
  const patch = from.pop()
  if (!patch) return
  const back = { op: 'patch', changes: inverse(patch) }
  try {
    to.push(engine.apply(back))
    enqueue(back)
    refresh()
    const threads = new Set(desk().rows.map((r) => r.thread))
    select(desk().selection.filter((t) => threads.has(t)))
  } catch (e) {
    from.push(patch)
    fail(e)
  }
  set({ canUndo: doneStack.length > 0, canRedo: undone.length > 0 })
}

export const undo = () => step(doneStack, undone)
export const redo = () => step(undone, doneStack)

function enqueue(command: object) {
  pending.push({ id: engine.newID(), command })
  set({ pending: pending.length, canUndo: doneStack.length > 0, canRedo: undone.length > 0 })
  mark()
  void flush()
}

async function flush() {
  if (sending) return
  sending = true
  while (pending.length > 0) {
    const next = pending[0]
    try {
      revision = await sendCommand(project, revision, windowID, next.id, next.command)
      pending.shift()
      set({ pending: pending.length, trouble: null })
    } catch (e) {
      if (e instanceof Refusal && e.status === 409) await catchUp()
      else if (e instanceof Refusal && e.status > 0 && e.status < 500) {
        // The server refuses what the engine took: go back to what the server has.
        pending.shift()
        fail(e)
        await catchUp()
      } else {
        set({ trouble: e instanceof Error ? e.message : String(e) })
        await new Promise((r) => setTimeout(r, 1500))
      }
    }
    mark()
  }
  sending = false
}

// Another window was faster: take its state and carry out again what this window has not got acknowledged.
async function catchUp() {
  try {
    const loaded = await loadDocument(project)
    engine.open(loaded.document)
    revision = loaded.revision
    const kept: Pending[] = []
    for (const p of pending) {
      try {
        engine.apply(p.command)
        kept.push(p)
      } catch (e) {
        fail(e)
      }
    }
    pending = kept
    doneStack = []
    undone = []
    set({ pending: pending.length, canUndo: false, canRedo: false })
    mark()
    refresh()
    say('The project was changed in another window. This window has caught up.')
  } catch (e) {
    set({ trouble: e instanceof Error ? e.message : String(e) })
    await new Promise((r) => setTimeout(r, 1500))
  }
}

/** The id of this window; the server's events name the window that made a change. */
export const ownWindow = () => windowID

/** Another window changed the project that is open here. */
export async function changedElsewhere(id: string, to: number) {
  if (id === project && to > revision && pending.length === 0 && !desk().dragging) await catchUp()
}
