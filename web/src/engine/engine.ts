// Loads the core (WebAssembly) and gives its calls types. The core holds the open document; the page holds no rule of
// the job.
import { hello, fetchBytes, Refusal } from '../project/server'
import type {
  All,
  Area,
  Carried,
  Change,
  Combining,
  Command,
  CopiedLayers,
  CopiedMoves,
  Delivery,
  Failure,
  Film,
  FontFile,
  Ghost,
  GradientLine,
  Intents,
  List,
  Look,
  Moment,
  Overlay,
  OwnFont,
  PenView,
  Readout,
  Row,
  Selected,
  ShapeSign,
  Shared,
  Snap,
  Target,
  Under,
  WritingUnit,
  WritingView,
} from './types'
import { crowd, manySelected, spread, type Worded } from './many'
import { fault } from '../words'

type Raw = { error?: string }

interface Calls {
  [name: string]: (...args: unknown[]) => unknown
}

declare global {
  interface Window {
    capstanEngine?: Calls
    capstanEngineReady?: () => void
    Go?: new () => { importObject: WebAssembly.Imports; run(i: WebAssembly.Instance): Promise<void> }
  }
}

let calls: Calls
let fontFiles: FontFile[] = []
const added = new Map<string, Promise<void>>()
let loading: Promise<void> | undefined

/** Loads the engine and the fonts that ship; later calls wait for the first. */
export function loadEngine(): Promise<void> {
  loading ??= load().catch((e) => {
    loading = undefined
    throw e
  })
  return loading
}

// How much of the engine has come, and how much there is: bytes as they are unpacked.
let come = 0
let size = 0

/** The share of the engine that has come, 0..1; null where its size is not known. */
export const engineLoaded = () => (size > 0 ? Math.min(1, come / size) : null)

// On slow lines, Mbit/s, where a browser tells: what comes is counted on its way. Elsewhere it is not, since browsers
// keep compiled code only of what they fetched themselves.
const slow = () => ((navigator as Navigator & { connection?: { downlink?: number } }).connection?.downlink ?? 10) < 4

async function fetchEngine(): Promise<Response> {
  const r = await fetch('/engine.wasm')
  if (!slow()) return r
  come = 0
  size = Number(r.headers.get('Capstan-Size') ?? 0)
  if (!r.ok || !r.body) return r
  const counted = r.body.pipeThrough(
    new TransformStream<Uint8Array, Uint8Array>({
      transform(part, to) {
        come += part.length
        to.enqueue(part)
      },
    }),
  )
  return new Response(counted, { headers: { 'Content-Type': 'application/wasm' } })
}

async function load() {
  if (typeof WebAssembly === 'undefined') throw new Error(fault('browser.engineless'))
  await script('/wasm_exec.js')
  const go = new window.Go!()
  const ready = new Promise<void>((done) => {
    window.capstanEngineReady = done
  })
  const [{ instance }, info] = await Promise.all([
    WebAssembly.instantiateStreaming(fetchEngine(), go.importObject),
    hello(),
  ])
  fontFiles = info.fonts
  void go.run(instance)
  await ready
  calls = window.capstanEngine!
}

/** Adds families that ship to the engine, each once; recompile sets texts with them. False: all were there. */
export async function loadFamilies(names: string[]): Promise<boolean> {
  const fresh = names.filter((n) => !added.has(n))
  for (const n of fresh) {
    const files = fontFiles.filter((f) => f.family === n)
    added.set(
      n,
      Promise.all(files.map((f) => fetchBytes(`/api/fonts/${f.file}`)))
        .then((bytes) => {
          files.forEach((f, i) => call('addFont', f.family, f.weight, f.italic ?? false, bytes[i]))
        })
        .catch((e) => {
          added.delete(n)
          throw e
        }),
    )
  }
  await Promise.all(names.map((n) => added.get(n)))
  return fresh.some((n) => fontFiles.some((f) => f.family === n))
}

const gone = new Set<string>() // own fonts whose files are missing: told once

/**
 * Adds the fonts of the document's own that it lacks to the engine; missing says which are not there. False: there was
 * nothing to add.
 */
export async function loadOwnFonts(missing: (f: OwnFont) => void): Promise<boolean> {
  const wanted = engine.fontsWanted().filter((f) => !gone.has(f.hash))
  await Promise.all(
    wanted.map(async (f) => {
      try {
        call('addOwnFont', f.hash, await fetchBytes(fontAddress(f.hash)))
      } catch (e) {
        gone.add(f.hash)
        if (e instanceof Refusal && e.status === 404) missing(f)
        else throw e
      }
    }),
  )
  return wanted.length > 0
}

/** A font that was taken in again is looked for again. */
export const fontIsBack = (hash: string) => gone.delete(hash)

const fontAddress = (hash: string) => `/api/media/${hash}/font`

/** Where the file lies that a family is shown by in lists: its regular weight. */
export function sampleOf(family: string, own: OwnFont[]): string | undefined {
  const nearest = <T extends { weight: number; italic?: boolean }>(list: T[]) =>
    list.filter((f) => !f.italic).sort((a, b) => Math.abs(a.weight - 400) - Math.abs(b.weight - 400))[0] ?? list[0]
  const shipped = sampleFile(family)
  if (shipped) return `/api/fonts/${shipped}`
  const f = nearest(own.filter((o) => o.family === family))
  return f && fontAddress(f.hash)
}

const sampleFile = (family: string) =>
  fontFiles
    .filter((f) => f.family === family && !f.italic)
    .sort((a, b) => Math.abs(a.weight - 400) - Math.abs(b.weight - 400))[0]?.file

function script(src: string): Promise<void> {
  return new Promise((done, fail) => {
    const e = document.createElement('script')
    e.src = src
    e.onload = () => done()
    e.onerror = () => fail(new Error(fault('engine.unloaded')))
    document.head.append(e)
  })
}

function call<T>(name: string, ...args: unknown[]): T {
  const out = calls[name](...args)
  if (typeof out === 'string') return JSON.parse(out) as T
  const raw = out as Raw
  if (raw && raw.error !== undefined) throw new Error(raw.error)
  return out as T
}

interface RawList {
  width: number
  height: number
  codeCount: number
  numberCount: number
  codes: Uint8Array
  numbers: Uint8Array
  box?: List['box']
}

function list(r: RawList): List {
  return {
    width: r.width,
    height: r.height,
    box: r.box,
    codes: new Uint32Array(r.codes.buffer, 0, r.codeCount),
    numbers: new Float64Array(r.numbers.buffer, 0, r.numberCount),
  }
}

/** What grows along with several layers. */
export type Growth = 'strokes' | 'effects' | 'letters'

export const engine = {
  /** Families the document uses that have not been added. */
  familiesWanted: () => call<string[]>('familiesWanted'),
  /** Fonts of the document's own that have not been added. */
  fontsWanted: () => call<OwnFont[]>('fontsWanted'),
  familiesUsed: () => call<string[]>('familiesUsed'),
  recompile: () => call<boolean>('recompile'),
  /** Opens a document as the server sends it; its revision. */
  open: (sent: string) => call<number>('open', sent),
  /**
   * Carries out a command that this window can undo; small steps of one row without a pause of so many ms between them
   * are one.
   */
  apply: (command: Command, row: string, now: number, pause: number) =>
    call<Change[] | null>('apply', JSON.stringify(command), row, now, Number.isFinite(pause) ? pause : 0) ?? [],
  /** Carries out a command of before. */
  carryOut: (command: Command) => call<Change[] | null>('carryOut', JSON.stringify(command)) ?? [],
  /** Takes the last step back, or does it again; the command that did so, to be stored. */
  undo: () => call<Command | null>('undo'),
  redo: () => call<Command | null>('redo'),
  /** How many steps can be undone, and how many done again. */
  steps: () => call<[number, number]>('steps'),
  /** What can be undone, to be brought back after a reload. */
  keepSteps: () => call<string>('keepSteps'),
  bringSteps: (kept: string) => call<boolean>('bringSteps', kept),
  /** The oldest command that waits is stored. */
  acknowledge: () => call<boolean>('acknowledge'),
  /** Puts stored changes under the commands that wait, and says which of these no longer fit. */
  catchUp: (patches: Change[][], drop: boolean) => call<Failure[]>('catchUp', JSON.stringify(patches), drop),
  draft: (command: Command) => call<boolean>('draft', JSON.stringify(command)),
  clearDraft: () => call<boolean>('clearDraft'),
  newID: () => call<string>('newID'),
  film: () => call<Film>('film'),
  rows: (m: Moment) => call<Row[]>('rows', m),
  selection: (m: Moment, threads: string[]) =>
    threads.length > manySelected
      ? spread(call<Worded>('many', m, threads))
      : call<Selected[]>('selection', m, threads),
  overlay: (m: Moment, threads: string[]) =>
    threads.length > manySelected ? crowd(call<Worded>('crowd', m, threads)) : call<Overlay>('overlay', m, threads),
  sceneAt: (m: Moment) => call<number>('sceneAt', m),
  colours: () => call<string[] | null>('colours') ?? [],
  hit: (m: Moment, x: number, y: number, slack: number, selected: string[] = []) =>
    call<string[]>('hit', m, x, y, slack, selected),
  /** All layers that show at a point, from the front. */
  under: (m: Moment, x: number, y: number, slack: number) => call<Under[]>('under', m, x, y, slack),
  /** What can be selected at one level of the group tree, and what of it touches the page. */
  all: (m: Moment, inside: string) => call<All>('all', m, inside),
  /** The names of layers that would come forward past others when they were grouped. */
  forward: (m: Moment, threads: string[]) => call<string[]>('forward', m, threads),
  alike: (m: Moment, threads: string[], what: 'kind' | 'look') => call<string[]>('alike', m, threads, what),
  /** Says which aids are shown, and so are snapped to; the safe areas of the page. */
  aids: (grid: number, safe: boolean) => call<Area[]>('aids', grid, safe),
  /** In how many later scenes changes could be made too, and which. */
  later: (changes: Change[]) => call<Carried>('later', JSON.stringify(changes)),
  within: (m: Moment, l: number, t: number, r: number, b: number, inside: string) =>
    call<string[]>('within', m, l, t, r, b, inside),
  /** The gradient of the background of the moment's scene as it lies on the page, null where it has none. */
  backgroundLine: (m: Moment) => call<GradientLine | null>('backgroundLine', m),
  /** The moves that one's start, end or repetition may hang on, nearest first, and why not on others. */
  targets: (move: string, part: 'start' | 'end' | 'until', when: 'begins' | 'ends') =>
    call<Target[]>('targets', move, part, when),
  /** What several moves have in common. */
  shared: (moves: string[]) => call<Shared>('shared', moves),
  /** What a file would be at a height, or, where that is 0, at a width. */
  delivery: (format: string, size: { width: number; height: number }, num: number, den: number, once: boolean) =>
    call<Delivery>('delivery', format, size.width, size.height, num, den, once),
  /** The film time of the frame n frames on. */
  step: (time: number, n: number) => call<number>('step', time, n),
  /** How far bars are dragged when the first snaps to what lies within a tolerance (ms), where and on what. */
  snapBar: (m: Moment, moves: string[], part: string, by: number, tolerance: number) =>
    call<Snap>('snapBar', m, moves, part, by, tolerance),
  /** The outline a bar names: heights at equal steps. */
  profile: (key: string) => call<number[]>('profile', key),
  /** The film time of the start, end or rest of a move. */
  momentOf: (move: string, what: 'start' | 'end' | 'rest') => call<number>('momentOf', move, what),
  /** From when to when moves last; without any, the scene. */
  span: (m: Moment, moves: string[]) => call<[number, number]>('span', m, moves),
  /** Where the selected layers stand at even times. */
  ghosts: (m: Moment, threads: string[]) => call<Ghost[]>('ghosts', m, threads),
  /** Where the selected layers stand when their moves begin and end. */
  ends: (m: Moment, threads: string[]) => call<Ghost[]>('ends', m, threads),
  /** They alone, as they are then. */
  endsFrame: (m: Moment, threads: string[], scale: number) => list(call<RawList>('endsFrame', m, threads, scale)),
  /** The masks among the selected layers, faintly. */
  masksFrame: (m: Moment, threads: string[], scale: number) => list(call<RawList>('masksFrame', m, threads, scale)),
  /** Scenes at rest show only what is on at the playhead. */
  onNow: (on: boolean) => call<boolean>('onNow', on),
  /** Says what grows along when several layers, or a group, are resized. */
  grows: (what: Growth[]) => call<boolean>('grows', what),
  /** The scene in sentences. */
  summary: (scene: number) => call<string[]>('summary', scene),
  /** Which of these scenes have a stay or transition of their own. */
  ownScenes: (ids: string[], what: 'stay' | 'transition') => call<string[]>('ownScenes', ids, what),
  solo: (threads: string[]) => call<boolean>('solo', threads),
  copyMoves: (m: Moment, threads: string[], moves: string[]) => call<CopiedMoves>('copyMoves', m, threads, moves),
  copy: (m: Moment, threads: string[]) => call<CopiedLayers>('copy', m, threads),
  /** The command for what is asked for, or null when there is nothing to do. */
  intent: <K extends keyof Intents>(name: K, m: Moment, args: Intents[K]) =>
    call<Command | null>('intent', name, m, JSON.stringify(args)),
  begin: (kind: string, m: Moment, threads: string[], handle: string, move: string, x: number, y: number) =>
    call<boolean>('begin', kind, m, threads, handle, move, x, y),
  /**
   * Follows the pointer; things snap within reach, px of the page, unless free is set. lines lead from what they
   * snapped to.
   */
  update: (x: number, y: number, shift: boolean, alt: boolean, reach = 0, free = false) =>
    call<Readout>('update', x, y, shift, alt, reach, free),
  end: () => call<Command | null>('end'),
  /** The pen: press, drag, release, hover, back, mirror. */
  pen: (m: Moment, what: string, x: number, y: number, shift: boolean, alt: boolean, slack: number, thread: string) =>
    call<PenView>('pen', m, what, x, y, shift, alt, slack, thread),
  /** The command that makes what the pen drew a layer, or null. */
  penEnd: (m: Moment) => call<Command | null>('penEnd', m),
  penDrop: () => call<boolean>('penDrop'),
  /** Where the caret and what is marked of a text stand on the page; places count characters. */
  writing: (m: Moment, thread: string, anchor: number, caret: number) =>
    call<WritingView | null>('writing', m, thread, anchor, caret),
  /** The stretch that a press on a text selects, within slack px of its box; else null. */
  writingAt: (m: Moment, thread: string, x: number, y: number, unit: WritingUnit, slack: number) =>
    call<[number, number] | null>('writingAt', m, thread, x, y, unit, slack),
  /** Where a caret goes from a place. */
  writingStep: (m: Moment, thread: string, at: number, to: 'up' | 'down' | 'begin' | 'end') =>
    call<number>('writingStep', m, thread, at, to),
  /** ms of the film that a typed time is. */
  time: (text: string) => call<number>('time', text),
  /** Works out what is typed where a number is wanted: a sum, with lengths, and shares of whole. */
  sum: (text: string, whole: number, unit: string) => call<number>('sum', text, whole, unit),
  combining: (m: Moment, threads: string[], how: string) => call<Combining>('combining', m, threads, how),
  /** A drawn path with its points in plain numbers; desk/outline.ts reads them. */
  outlineOf: (m: Moment, thread: string) => new Float64Array(call<Uint8Array>('outlineOf', m, thread).buffer),
  /** How many points a drawn path keeps when it may move by tolerance px. */
  simplifiedTo: (m: Moment, thread: string, tolerance: number) => call<number>('simplifiedTo', m, thread, tolerance),
  /** The place on a drawn path nearest to a point of the page. */
  spotAt: (m: Moment, thread: string, x: number, y: number) => call<string>('spotAt', m, thread, x, y),
  /** How a layer is painted, to be given to others. */
  lookOf: (m: Moment, thread: string) => call<Look | null>('lookOf', m, thread),
  /** All kinds of shapes in the order in which they are offered. */
  shapes: () => call<ShapeSign[]>('shapes'),
  /** The tones of a colour from the darkest to the lightest, itself in the middle. */
  tones: (colour: string) => call<string[]>('tones', colour),
  pictures: () => call<string[] | null>('pictures') ?? [],
  /** The display list of a moment. It is valid until the next call that returns a list. */
  frame: (m: Moment, scale: number) => list(call<RawList>('frame', m, scale)),
  /** A small picture of a scene, at rest, with all of its layers. */
  thumb: (scene: number, scale: number) => list(call<RawList>('thumb', scene, scale)),
  only: (layer: string, scale: number) => list(call<RawList>('only', layer, scale)),
  outline: (key: number) => call<{ verbs: Uint8Array; points: Uint8Array }>('outline', key),
}
