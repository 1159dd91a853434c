// The calls of the engine with their types. The engine is the core: it holds the open document; the page holds no rule
// of the job.
import { readAnswer } from './forms'
import { calls, engineMemory } from './loading'
import type {
  XY,
  All,
  Area,
  Change,
  Closed,
  Combining,
  Command,
  CopiedLayers,
  CopiedMoves,
  CopiedScenes,
  EasingCurve,
  Delivery,
  Described,
  Done,
  Drafted,
  Dragged,
  Failure,
  FileCell,
  Film,
  Gallery,
  Intents,
  List,
  Look,
  Subtitles,
  Moment,
  Pairs,
  Overlay,
  Offered,
  OwnFont,
  PenView,
  Row,
  Seen,
  Selected,
  Ask,
  FileChoices,
  FileKind,
  ShapeSign,
  Shared,
  Shown,
  Snap,
  SoundSnap,
  Level,
  Target,
  Meeting,
  Under,
  WritingUnit,
  WritingView,
} from './types'

/** Asks the engine; what it cannot do comes back as an error in words. Numbers are the addresses of answers. */
export function call<T>(name: string, ...args: unknown[]): T {
  const out = calls()[name](...args)
  if (typeof out === 'number') {
    const fresh = window.capstanForm
    window.capstanForm = undefined
    return readAnswer(engineMemory(), out, fresh) as T
  }
  if (typeof out === 'string') return JSON.parse(out) as T
  const failed = out as { error?: string }
  if (failed.error !== undefined) throw new Error(failed.error)
  return out as T
}

const finite = (ms: number) => (Number.isFinite(ms) ? ms : 0)

interface RawList {
  width: number
  height: number
  codeCount: number
  numberCount: number
  codes: Uint8Array
  numbers: Uint8Array
  box?: List['box']
  pictures?: string[]
}

let pictures: string[] = []

function list(r: RawList): List {
  pictures = r.pictures ?? pictures
  return {
    width: r.width,
    height: r.height,
    box: r.box,
    codes: new Uint32Array(r.codes.buffer, 0, r.codeCount),
    numbers: new Float64Array(r.numbers.buffer, 0, r.numberCount),
  }
}

let described: Described | undefined
let signs: ShapeSign[] | undefined
let kinds: FileKind[] | undefined
let fileChoices: FileChoices | undefined

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
   * are one. across: later scenes are looked through for what could be changed in the same way.
   */
  apply: (command: Command, row: string, now: number, pause: number, across: boolean) =>
    call<Done>('apply', JSON.stringify(command), row, now, finite(pause), across),
  /**
   * Carries out what is asked for at the moment that is looked at; null when there is nothing to do. fresh: a draft is
   * shown, and what is asked for is worked out from the document.
   */
  run: <K extends keyof Intents>(
    name: K,
    args: Intents[K],
    row: string,
    now: number,
    pause: number,
    across: boolean,
    fresh: boolean,
  ) => call<Done | null>('run', name, JSON.stringify(args), row, now, finite(pause), across, fresh),
  /** Carries out a command of before. */
  carryOut: (command: Command) => call<Change[] | null>('carryOut', JSON.stringify(command)) ?? [],
  /** Takes the last step back, or does it again; null where there is none. */
  back: (again: boolean) => call<Done | null>('back', again),
  /** What can be undone, to be brought back after a reload. */
  keepSteps: () => call<string>('keepSteps'),
  bringSteps: (kept: string) => call<boolean>('bringSteps', kept),
  /** The oldest command that waits is stored. */
  acknowledge: () => call<boolean>('acknowledge'),
  /** Puts stored changes under the commands that wait, and says which of these no longer fit. */
  catchUp: (patches: Change[][], drop: boolean) => call<Failure[]>('catchUp', JSON.stringify(patches), drop),
  /** Shows what a command would make; with time, what it does to the timeline too. */
  draft: (command: Command, time: boolean) => call<Drafted>('draft', JSON.stringify(command), time),
  /** Shows what an intent would do, worked out from the document and not from the draft before. */
  try: <K extends keyof Intents>(name: K, args: Intents[K], time: boolean) =>
    call<Drafted>('try', name, JSON.stringify(args), time),
  clearDraft: (time = false) => call<Drafted>('clearDraft', time),
  newID: () => call<string>('newID'),
  film: () => call<Film>('film'),
  rows: (m: Moment, all = true) => call<Row[]>('rows', m, all),
  /** Looks at a moment, and of that at the selected layers; ghosts, ends and ground say what of them. */
  watch: (
    m: Moment,
    threads: string[],
    ghosts: boolean,
    ends: boolean,
    ground: boolean,
    all: boolean,
    outline: string,
  ) => call<Seen>('watch', m, threads, ghosts, ends, ground, all, outline),
  /** Shows layers as they are after changes, and edits that; none: at rest again. */
  changing: (moves: string[]) => call<Shown>('changing', moves),
  /** Whether a film that goes round closes, and what does not. */
  closes: () => call<Closed>('closes'),
  /** What film.fit would change, in words. */
  fits: () => call<string[]>('fits'),
  /** All that is shown of the document as it is now. */
  all: () => call<Shown>('all'),
  selection: (m: Moment, threads: string[]) => call<Selected[]>('selection', m, threads),
  overlay: (m: Moment, threads: string[]) => call<Overlay>('overlay', m, threads),
  sceneAt: (m: Moment) => call<number>('sceneAt', m),
  hit: (m: Moment, x: number, y: number, slack: number, selected: string[] = []) =>
    call<string[]>('hit', m, x, y, slack, selected),
  /** All layers that show at a point, from the front. */
  under: (m: Moment, x: number, y: number, slack: number) => call<Under[]>('under', m, x, y, slack),
  /** What can be selected at one level of the group tree, and what of it touches the page. */
  selectable: (m: Moment, inside: string) => call<All>('selectable', m, inside),
  /** The names of layers that would come forward past others when they were grouped. */
  forward: (m: Moment, threads: string[]) => call<string[]>('forward', m, threads),
  alike: (m: Moment, threads: string[], what: 'kind' | 'look') => call<string[]>('alike', m, threads, what),
  /** Says which aids are shown, and so are snapped to; the safe areas of the page. */
  aids: (grid: number, safe: boolean) => call<Area[]>('aids', grid, safe),
  within: (m: Moment, l: number, t: number, r: number, b: number, inside: string) =>
    call<string[]>('within', m, l, t, r, b, inside),
  /** The moves that one's start, end or repetition may hang on, nearest first, and why not on others. */
  targets: (move: string, part: 'start' | 'end' | 'until', when: 'begins' | 'ends') =>
    call<Target[]>('targets', move, part, when),
  /** What several moves have in common. */
  /** The ways in which two moves can be made to end together, live. */
  meets: (moves: string[]) => call<Meeting[]>('meets', moves),
  shared: (moves: string[]) => call<Shared>('shared', moves),
  /** What a file would be at a height, or, where that is 0, at a width. */
  /** Frames that a file could show, from one on, for whoever times them by hand. */
  deliveryCells: (ask: Ask, from: number, count: number) =>
    call<FileCell[]>('deliveryCells', JSON.stringify(ask), from, count),
  delivery: (ask: Ask) => call<Delivery>('delivery', JSON.stringify(ask)),
  /** HTML that shows a file of a name in a web page; empty where browsers do not. */
  markup: (ask: Ask, name: string) => call<string>('markup', JSON.stringify(ask), name),
  /** What files are asked for by name. */
  choices: () => (fileChoices ??= call<FileChoices>('choices')),
  /** The kinds of files in the order in which they are offered. */
  formats: () => (kinds ??= call<FileKind[]>('formats')),
  /** The sizes and rates that are offered for files of a format. */
  offered: (format: string) => call<Offered>('offered', format),
  /** The film time of the frame n frames on. */
  step: (time: number, n: number) => call<number>('step', time, n),
  /** How far bars are dragged when the first snaps to what lies within a tolerance (ms), where and on what. */
  snapBar: (m: Moment, moves: string[], part: string, by: number, tolerance: number) =>
    call<Snap>('snapBar', m, moves, part, by, tolerance),
  /** How far sounds are dragged when an end of the first snaps to what lies within a tolerance (ms). */
  snapSound: (m: Moment, ids: string[], part: string, by: number, tolerance: number) =>
    call<SoundSnap>('snapSound', m, ids, part, by, tolerance),
  /**
   * Frames of the film's sound from one on, left and right in turns; of some sounds alone, where only names any.
   * wants are pieces of recordings that were not there: media and number in turns.
   */
  mix: (from: number, frames: number, only: string[], level: Level) => {
    const v = call<{ samples: Uint8Array; wants: (string | number)[] }>(
      'mix',
      from,
      frames,
      only,
      level.gain,
      level.limited,
    )
    return { samples: new Float32Array(v.samples.slice(0, 8 * frames).buffer), wants: v.wants }
  },
  /** Hands a piece of a recording over. */
  tape: (media: string, piece: number, samples: Uint8Array) => call<boolean>('tape', media, piece, samples),
  /** The captions of a file. */
  subtitles: (file: Uint8Array) => call<Subtitles>('subtitles', file),
  /** An easing as it is drawn; null where it cannot be read. */
  easing: (css: string) => call<EasingCurve | null>('easing', css),
  /** The outline a bar names: heights at equal steps. */
  profile: (key: string) => call<number[]>('profile', key),
  /** The film time of the start, end or rest of a move. */
  momentOf: (move: string, what: 'start' | 'end' | 'rest') => call<number>('momentOf', move, what),
  /** From when to when moves last; without any, the scene. */
  span: (m: Moment, moves: string[]) => call<[number, number]>('span', m, moves),
  /** They alone, as they are then. */
  endsFrame: (m: Moment, threads: string[], scale: number) => list(call<RawList>('endsFrame', m, threads, scale)),
  /** The masks among the selected layers, faintly. */
  masksFrame: (m: Moment, threads: string[], scale: number) => list(call<RawList>('masksFrame', m, threads, scale)),
  /** Scenes at rest show only what is on at the playhead. */
  onNow: (on: boolean) => call<boolean>('onNow', on),
  /** The outline of a layer on a picture, in px of its file, as one closed line. */
  along: (m: Moment, picture: string, thread: string) => call<XY[] | null>('along', m, picture, thread),
  /** Says behind which thread what is added goes, and through which it is seen; empty: in front of all, and whole. */
  goesBehind: (thread: string, window: string) => call<boolean>('goesBehind', thread, window),
  /** Says what grows along when several layers, or a group, are resized. */
  grows: (what: Growth[]) => call<boolean>('grows', what),
  /** The scene in sentences. */
  summary: (scene: number) => call<string[]>('summary', scene),
  /** Which of these scenes have a stay or transition of their own. */
  ownScenes: (ids: string[], what: 'stay' | 'transition') => call<string[]>('ownScenes', ids, what),
  solo: (threads: string[]) => call<boolean>('solo', threads),
  copyMoves: (m: Moment, threads: string[], moves: string[]) => call<CopiedMoves>('copyMoves', m, threads, moves),
  copyScenes: (ids: string[]) => call<CopiedScenes>('copyScenes', ids),
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
    call<Dragged>('update', x, y, shift, alt, reach, free),
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
  /** What can be set of layers and moves, and the moves that can be added. */
  fields: () => (described ??= call<Described>('fields')),
  /** All kinds of shapes in the order in which they are offered. */
  shapes: () => (signs ??= call<ShapeSign[]>('shapes')),
  /** The tones of a colour from the darkest to the lightest, itself in the middle. */
  tones: (colour: string) => call<string[]>('tones', colour),
  /** The pictures that lists refer to by their place here: media by hash. */
  pictures: () => pictures,
  /** The display list of a moment. It is valid until the next call that returns a list. */
  frame: (m: Moment, scale: number) => list(call<RawList>('frame', m, scale)),
  /** A small picture of a scene, at rest, with all of its layers. */
  /** Which layers of a scene go on from which of the scene before. */
  /** Does a small piece of what morphs need planned; false when all is. */
  prepare: () => call<boolean>('prepare'),
  /** An outline on its way into a scene, at a share of it, as path data in page px. */
  outlineAt: (scene: string, thread: string, share: number) => call<string>('outlineAt', scene, thread, share),
  pairsInto: (scene: number) => call<Pairs>('pairsInto', scene),
  thumb: (scene: number, scale: number) => list(call<RawList>('thumb', scene, scale)),
  only: (layer: string, scale: number) => list(call<RawList>('only', layer, scale)),
  /** Opens a gallery of moves for layers, or to find another in place of a move. */
  gallery: (m: Moment, threads: string[], replaces: string) => call<Gallery>('gallery', m, threads, replaces),
  /** Opens a gallery of transitions into a scene. */
  galleryOfPages: (scene: number) => call<Gallery>('galleryOfPages', scene),
  /** What fits some words of what the open gallery offers. */
  sought: (text: string) => call<Gallery>('sought', text),
  closeGallery: () => call<boolean>('closeGallery'),
  /** The small film of a card at a time of its showing, ms. */
  smallFrame: (card: number, ms: number, scale: number) => list(call<RawList>('smallFrame', card, ms, scale)),
  /** What lies behind the layer that the open gallery is for. */
  behind: (m: Moment, scale: number) => list(call<RawList>('behind', m, scale)),
  /** From when to when what the draft changes goes on, ms of the film. */
  tried: () => call<[number, number]>('tried'),
  outline: (key: number) => call<{ verbs: Uint8Array; points: Uint8Array }>('outline', key),
}
