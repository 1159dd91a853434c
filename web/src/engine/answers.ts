// Written by go run ./scripts/schema from the types of the core; a test fails where it is stale.

/**
 * What becomes of fields: a value takes the place of what was there, an object changes it field by field, null takes it
 * away.
 */
export type Fields = object | null

/**
 * Adjust is what is done to the colours of all that a layer shows, before its blur and shadow; the zero value leaves
 * them. What each number does to a pixel is said by state.Adjust.
 */
export interface Adjust {
  /** -1..1 */
  brightness?: number
  /** -1..1 */
  contrast?: number
  /** -1..1; -1: greys */
  saturation?: number
  /** degrees, -360..360 */
  hue?: number
  /** -1..1; below 0: cooler */
  warmth?: number
  /** 0..1 */
  sharpness?: number
  toned?: Toned
}

/** After says that layers are shown, and edited, as they are after changes of theirs. */
export interface After {
  /** the changes */
  moves: string[]
  /** "after the change at 1.40 s" */
  words: string
}

/** All is what can be selected at one level of the group tree. */
export interface All {
  threads: string[]
  /** those of them that touch the page */
  onPage: string[]
}

/** Anchor says what a live end hangs on. */
export interface Anchor {
  /** begins, ends, scene-end */
  when: string
  of?: string
  /** the start stays, and the duration is solved for */
  stretches?: boolean
}

/** Area is a part of the page that something is kept to. */
export interface Area {
  name: string
  /** left, top, width, height, page px */
  box: [number, number, number, number]
}

/** Ask is what somebody wants. What is left out is left to Capstan. */
export interface Ask {
  format: string
  /** px; what is 0 follows from the other and the page, the page's own size where both are */
  width?: number
  /** px */
  height?: number
  /** frames a second; the film's where it is zero */
  rate?: Rate
  /** ms a frame, in place of a rate */
  frame?: number
  /** ms of the film; a still is the frame there */
  from?: number
  /** of a still: the number of a scene, from 1, as it rests, in place of From */
  scene?: number
  /** stills of all scenes, each as it rests; see Each */
  scenes?: boolean
  /** of a still: the number of a cue of Scene, from 1: the frame there */
  cue?: number
  /** stills of all cues; see Each */
  cues?: boolean
  /** of a variant: the row of the project's table, from 1, which the film has been filled from */
  row?: number
  /** a file, or files, of each of these; see Each */
  rows?: number[]
  /** ms of the film; 0: its end */
  to?: number
  /** how often what goes round plays; 0: for ever */
  passes?: number
  /** ms the last frame rests, of what goes round; else as the film asks */
  pause?: number
  /** frames that are timed by hand */
  times?: FileHold[]
  quality?: string
  /** ms of the film: the picture that stands for it; else the end of its first scene */
  poster?: number
  colours?: number
  dither?: string
  loss?: number
  /** bytes that a file that goes round may have; 0: any */
  target?: number
  /** degrees of a frame, 360 being all of it, that light falls in; 0: no motion blur */
  shutter?: number
  /** moments that a frame with motion blur is made of; 0: Samples */
  samples?: number
  /** what is given up for the target, in this order; else Sacrifices */
  give?: string[]
  /** a web page that stands still until it is started */
  waits?: boolean
  /** what lies over it */
  mark?: FileMark
  /** of a film with sound: nothing is heard */
  silent?: boolean
  /** of a video: the id of a file that was made, whose encoded pictures it has */
  pictures?: string
  /** a track of what voices say, which players show or hide */
  captions?: boolean
  title?: string
  description?: string
  /** pattern of the file's name; else Plan.Pattern */
  name?: string
}

/** Away is where a layer is when a move of it begins or ends that has it elsewhere than at rest. */
export interface Away {
  move: string
  /** ms on the scene's clock */
  at: number
  /** of its box, page px */
  corners: [[number, number], [number, number], [number, number], [number, number]]
}

/** Bar is a move in the timeline. Its outline is its motion. Times are ms of the film. */
export interface Bar {
  move: string
  layer: string
  scene: number
  kind: string
  name: string
  words: string
  begin: number
  end: number
  /** ms that it has gone on for at its begin here, since it began in a scene before */
  before?: number
  /** ms beyond the scene's end that are not played */
  cut: number
  whole: boolean
  /** of loops: after this time the profile repeats */
  cycle: number
  /** of loops: how far into the cycle they begin */
  phase: number
  /** the move it hangs on, if any */
  of: string
  /** begins or ends: which end of that */
  when: string
  /** the move its live end hangs on, if any */
  endOf: string
  /** begins or ends; scene-end */
  endWhen: string
  /** the cue it begins at, if any */
  cue: string
  /** the run of moves it is in, if any */
  run: string
  /** its effect is one of a newer version: it plays as nothing */
  unknown: boolean
  /** asked to begin before its scene's own transition */
  early: boolean
  /** names the outline; ask Profile for it */
  profile: string
  /** its place among the moves of its layer */
  lane: number
  /** its edge can be tied to another layer's */
  ties: boolean
  /** it is tied: the threads of the layers that drive it; its begin and end come from them */
  drivers?: string[]
}

/**
 * Becomes are the fields of a layer that a change names, with what they come to at its end: absolute rest values in the
 * units of the document. What is missing stays as it is.
 */
export interface Becomes {
  /** of its place, in its parent's axes */
  x?: number
  y?: number
  w?: number
  h?: number
  turn?: number
  /** how many times as large as at rest, about its pivot */
  scale?: number
  /** how many times as far from its pivot as at rest its letters, or a group's parts, lie */
  apart?: number
  opacity?: number
  fill?: Fill
  /** of width 0: none */
  stroke?: Stroke
  corner?: number
  blur?: number
  feather?: number
  shadow?: Shadow
  glow?: Glow
  adjust?: Adjust
  /** another part of it, or another picture, into which it dissolves */
  picture?: PictureUse
  shape?: Shape
  path?: string
  text?: Text
}

/** Caption is some words with their times, ms from a begin that whoever holds them knows. */
export interface Caption {
  from: number
  to: number
  text: string
}

/** Caption is one line in the timeline. */
export interface CaptionRow {
  /** ms of the film */
  from: number
  to: number
  text: string
  /** the voice that says it; empty: it is a scene's own */
  sound: string
  /** whose own it is */
  scene: string
  /** among those */
  index: number
  /** characters a second */
  pace: number
  /** more than most can read */
  fast: boolean
}

/** Captioned is how captions are shown in a film. */
export interface Captioned {
  /** px of the page; 0: an eighteenth of its height */
  size?: number
  /** at the upper side of the page; else at the lower one */
  top?: boolean
  /** of the words, #rrggbb; empty: the role words of the scene, or paper */
  colour?: string
  /** behind them, #rrggbb or #rrggbbaa; empty: the role ground of the scene, or ink */
  plate?: string
}

/** Card is one thing that can be chosen. */
export interface Card {
  /** its place among all cards */
  at: number
  kind: string
  effect: string
  /** of the effect; empty: the plain one */
  variant: string
  /** under its heading */
  words: string
  /** by itself */
  name: string
  /** "0.60 s"; empty: it takes no time */
  lasts: string
  /** ms of one showing of its small film */
  length: number
}

/** Carried is what the last edit would be in later scenes, where the same threads live. */
export interface Carried {
  /** scenes in which something would change */
  count: number
  /** scenes that have something of their own there, which they keep */
  own: number
  /** the fields that it changes, in words */
  what: string
}

/**
 * Change is one field of one part of a document, before and after. A part is "project", "film" (the first), "film/ID",
 * "scene/ID" or "layer/SCENE/ID"; a field that is not there is null. Scenes of the film, layers of a scene and children
 * of a group appear as lists of ids.
 */
export interface Change {
  part: string
  field: string
  before?: unknown
  after?: unknown
}

/** ChangeParams says what a change makes of its layer. */
export interface ChangeParams {
  to: Becomes
}

/** Changes are fields that a change names, by what they are called together. */
export interface Changes {
  words: string
  fields: string[]
}

/**
 * Closed says whether a film that goes round closes: its end shows what its start shows, and it lasts a whole number of
 * frames.
 */
export interface Closed {
  closes: boolean
  words: string
  /**
   * Stay is what the last scene would have to stay for a whole number of frames, ms, where that alone is missing; -1:
   * nothing is, or more.
   */
  stay: number
}

/** Closing is the transition from the last scene back to the first. */
export interface Closing extends Transition {
  /** ms of the film */
  begin: number
}

/** Combining is what is known of combining layers before it is done. */
export interface Combining {
  /** the layers whose moves are lost, as a list in words; empty: none */
  drops: string
  /** of all of them on the page, as path data */
  outlines: string
  /** so many points that working it out takes a moment */
  heavy: boolean
}

/** Contrast is how well words stand out from their plate. */
export interface Contrast {
  /** 1..21 */
  ratio: number
  /**
   * the words in the nearest colour that makes it 4.5 on the plate as it is: a tone of theirs, white or ink; empty:
   * none does
   */
  words: string
  /** the plate's colour, in the nearest tone that makes it 4.5; empty where it is */
  fix: string
}

/** Copied are layers to paste, with when their moves began. */
export interface CopiedLayers {
  layers: Layer[]
  /** by move, ms on their scene's clock */
  begins: Record<string, number>
  /** the project */
  from: string
  /** that they use, by hash */
  media: Record<string, Media>
}

/** CopiedMoves are moves to paste on other layers: the sets of one or more layers, with when each began. */
export interface CopiedMoves {
  sets: DocumentMove[][]
  /** ms on their scene's clock */
  begins: Record<string, number>
}

/** Copied are scenes to paste, with all that they need. */
export interface CopiedScenes {
  scenes: DocumentScene[]
  /** the project */
  from: string
  /** that they use, by hash */
  media: Record<string, Media>
}

/** Credit is what a picture that a film shows says of itself. */
export interface Credit {
  hash: string
  name: string
  source: string
  licence: string
}

/** Crop is all of a picture of which its frame shows a part. */
export interface Crop {
  media: string
  /** what is seen of the file: its hash, and of a cut-out that of the mask */
  shows: string
  /** of its file, px */
  size: [number, number]
  /** maps 1 by 1 of all of it to the page */
  place: [number, number, number, number, number, number]
  /** corners of its frame, as of boxes */
  frame: [[number, number], [number, number], [number, number], [number, number]]
  /** those of all of it */
  whole: [[number, number], [number, number], [number, number], [number, number]]
}

/** Cue is a named moment of a scene where a presenter may be waited for. */
export interface Cue {
  id: string
  name: string
  /** ms on the scene's clock */
  at: number
  /** ms */
  wait?: number
}

/** CueAt is a cue of a scene, both counted from 1. */
export interface CueAt {
  words: string
  scene: number
  cue: number
}

/** CutKey is a colour that is clear. */
export interface CutKey {
  /** #rrggbb */
  colour: string
  /** where it was picked, px of the picture */
  at: [number, number]
}

/** CutStroke says of a part of a picture that it is kept or dropped. */
export interface CutStroke {
  /** one of CutHows */
  how: string
  /** empty: a line; area: within a line that is closed; box: between two corners */
  form?: string
  /** px of the picture */
  points: [number, number][]
  /** of a line, px of the picture */
  width?: number
  /** of a line by hand: share of half its width over which it fades, 0..1 */
  soft?: number
}

/**
 * Cutout lifts what is kept of a picture off its ground. What it was made by stands beside the mask that came out of
 * it, which is what counts: it is never worked out again but when something of it is changed.
 */
export interface Cutout {
  /** hash of the picture that it was made for: on another it is kept, and nothing is cut */
  of: string
  /** hash of the mask, a grey picture of the same size: how much of each pixel stays */
  mask: string
  /** sides of the picture that are ground, where a foreground was proposed: some of l, t, r, b */
  ground?: string
  /** in their order */
  strokes?: CutStroke[]
  /** colours that are clear */
  keys?: CutKey[]
  /** of keys: what is so near to one of them in OKLab is clear, 0..1 */
  tolerance?: number
  /** of keys: over so much more it becomes opaque, 0..1 */
  softness?: number
  /** of keys: only what is joined to where they were picked */
  joined?: boolean
  /** px of the picture over which its edge fades, 0..100 */
  soften?: number
  /** px of the picture by which its edge goes outwards, below 0: inwards; -50..50 */
  spread?: number
  /** what is kept is dropped, and the other way round */
  inverted?: boolean
}

/** Delivery is what a file of the whole film would be. */
export interface Delivery {
  width: number
  height: number
  /** ms of the film; of a still, what it shows */
  from: number
  frames: number
  /** ms its last frame rests */
  rest: number
  /** the document says so */
  asked: boolean
  /** ms from one begin to the next, with the rest */
  pass: number
  /** why there can be none, in words */
  refused: string
  /** ms that it lasts, without its rest */
  length: number
  /** frames that the rate makes of the film, before any is timed by hand */
  sampled: number
  /** ms that a frame stays at least */
  least: number
  /** frames a second */
  rateNum: number
  rateDen: number
  /** by which it is named where nothing else is asked for */
  pattern: string
  /** what it cannot have, in words */
  limits: string[]
  /** what is said of it for people who do not see it, where nothing else is */
  says: string
}

/** All is all that is described. */
export interface Described {
  /** numbers of shapes by kind */
  shapes: Record<string, Field[]>
  /** of moves by effect */
  effects: Record<string, Field[]>
  looks: LookFields
  /** what is done to the colours of layers */
  adjusts: Field[]
  /** that pictures are cut to */
  ratios: Ratio[]
  /** kinds whose corners can be rounded */
  rounded: string[]
  /** what each kind of layer is called */
  kinds: Record<string, string>
  moves: Offers[]
  /** kinds of transitions */
  pages: Page[]
}

/** Film is a list of scenes on pages of one size. */
export interface DocumentFilm {
  /** page px, 16..8192 */
  width: number
  /** page px, 16..8192 */
  height: number
  rate: Rate
  loop?: boolean
  /** from the last scene back to the first */
  closing?: Transition
  /** ms the last frame of a GIF rests before it begins again; nil: as the film's end asks for */
  pause?: number
  /** the page has no ground: backgrounds are not painted */
  clear?: boolean
  /** threads that go on by a step from scene to scene */
  shifts?: Shift[]
  /** #rrggbb: what files that cannot be clear are filled with; empty: white */
  under?: string
  /** on the film's clock */
  sounds?: Sound[]
  /** how all sounds go together; nil: StandardMix */
  mix?: Mix
  /** how what voices say is shown; nil: it is not */
  captions?: Captioned
  /** in their order; those set aside follow */
  scenes: DocumentScene[]
}

/** Move is one thing a layer does in time. */
export interface DocumentMove {
  id: string
  kind: 'entrance' | 'exit' | 'loop' | 'path' | 'change'
  effect: string
  start: Start
  /** live end; the begin is solved for */
  end?: Anchor
  /** ms that it has gone on for at that time, 0 to MaxTime: it began in a scene that was cut in two */
  begun?: number
  duration?: number
  /** "", scene or thread; loops go on through transitions */
  lasts?: string
  /** of a path that lasts the scene: "" its distance, or speed */
  keeps?: string
  /** CSS easing; empty: the effect's own */
  easing?: string
  /** passes; 0 counts as 1 */
  repeat?: number
  /** repeats until this move begins */
  until?: string
  alternate?: boolean
  /** the loop of the scene before that this one goes on */
  continues?: string
  /** "", line, word, letter, part */
  unit?: string
  /** of the units: "", backwards, middle, shuffled, outwards, columns, rows, point */
  order?: string
  /** of neighbouring units, 0..1 */
  overlap?: number
  /** of the shuffled order */
  seed?: number
  /** of an order by distance: the point, in shares of the layer's box; nil: its upper left corner */
  from?: [number, number]
  /** an exit: back the way it came, instead of on through */
  back?: boolean
  /** of a motion path */
  path?: PathParams
  /** of a change */
  change?: ChangeParams
  /** of the effect */
  params?: Record<string, unknown>
}

/** Scene is one page of a film with what lies on it, back to front. */
export interface DocumentScene {
  id: string
  name: string
  /** ms */
  stay: number
  /** stay follows the moves and words */
  autoStay?: boolean
  /** into this scene; duration 0 in the first */
  transition: Transition
  background: Fill
  /** colour roles: name to #rrggbb */
  roles?: Record<string, string>
  cues?: Cue[]
  /** the scene stays until this cue is passed */
  endsAtCue?: string
  runs?: MoveRun[]
  guides?: Guide[]
  /** it is not in the film; layers lie there until they are wanted */
  aside?: boolean
  /** it is aside to be put into the film again and again; layers are not set aside there */
  template?: boolean
  /** on the scene's clock */
  sounds?: Sound[]
  /** on the scene's clock, rising; none over another */
  captions?: Caption[]
  layers: Layer[]
}

/** Done is what a command has done. */
export interface Done extends Shown {
  /** to be stored; null where nothing has changed */
  command: Command | null
  /** a new one, for the command to be stored under */
  id: string
  changes: Change[]
  /** of later scenes that could have the same */
  later: Carried
}

/** Dot is a point of a drawn path, or a handle of one. */
export interface Dot {
  /** contour.point, and .in or .out for a handle */
  id: string
  at: [number, number]
  handle: boolean
  /** of a handle: its point */
  of: [number, number]
  smooth: boolean
}

/** Drafted is what a draft shows. */
export interface Drafted extends Held {
  /** why there is none, in words */
  trouble: string
  film?: Film
  rows?: Row[]
  sounds?: Sounds
}

/** Dragged is what a move of the pointer comes to. */
export interface Dragged extends Readout, Held {
}

/** EasingCurve is an easing as it is drawn. */
export interface EasingCurve {
  /** its progress at equal steps of 0..1 */
  at: number[]
  /** x1 y1 x2 y2 of its control points; null where it is no single curve */
  handles: [number, number, number, number] | null
}

/** Failure is a pending command that could not be carried out again, by its place among those that waited. */
export interface Failure {
  index: number
  words: string
}

/** Field is one value that can be set. */
export interface Field {
  /** in what it belongs to: params.angle, shape.hole */
  path: string
  /** beside it */
  words: string
  /** the same of an exit, where it differs */
  out: string
  /** by itself */
  name: string
  /** Number, Choice, Signs, Direction, List, Colour, Move or Layer */
  control: 'number' | 'choice' | 'signs' | 'direction' | 'list' | 'colour' | 'move' | 'layer'
  unit: string
  /** what is shown is the value times this: 100 for shares in % */
  times: number
  /** as it is shown */
  least: number
  most: number
  /** of the arrow keys */
  step: number
  digits: number
  /** whole numbers alone */
  whole: boolean
  /** 0 is taken away instead of being written */
  clears: boolean
  /** what a missing value is; null: 0, or nothing */
  usual: unknown
  /** of a Choice or Signs */
  options: FieldOption[]
  /** of directions only left, right, up and down */
  four: boolean
  /** shown only where the value at this path is set */
  needs: string
  /** and is this word; empty: whatever it is */
  needsIs: string
  /** not of moves that go unit by unit */
  noUnit: boolean
  /** not of transitions */
  noPage: boolean
}

/** Option is one of what there is to choose from. */
export interface FieldOption {
  /** as it is written; null: nothing is */
  value: unknown
  words: string
  /** the name of its drawing */
  sign: string
}

/** File is the file of a picture. */
export interface File {
  /** "WebP, 1500 × 900 px" */
  words: string
  /** who made it, or where it is from */
  source: string
  /** how it may be used */
  licence: string
  /** of its sides: how much is cut off on the left, above, on the right, below, shares */
  crop: [number, number, number, number]
  /** how many times as large it is as just covers its frame */
  zoom: number
  /** degrees clockwise by which it is turned in its frame */
  turned: number
  /** it has clear margins that are shown */
  trims: boolean
  /** it was read as pictures are no longer */
  old: boolean
  /** up to how many device px to one of the page a smaller copy is painted than at the page's own size; 0: at none */
  shrinks: number
  /** how large it is shown of its own pixels at rest, per cent, where that is more than they are; else 0 */
  enlarged: number
}

/** Cell is a frame that a file could show, for whoever times frames by hand. */
export interface FileCell {
  frame: number
  /** ms of the film */
  at: number
  /** how long it is shown; 0: it is dropped */
  ms: number
  /** it was timed by hand */
  hand: boolean
}

/** Choices are what files are asked for by name, in the order in which they are offered. */
export interface FileChoices {
  uses: Use[]
  qualities: Quality[]
  dithers: string[]
  /** of a GIF, at most */
  colours: number
  /** of a GIF that is left to Capstan */
  loss: number
  /** moments of a frame with motion blur */
  samples: number
  /** where a mark may lie */
  corners: string[]
  presets: FilePreset[]
}

/** Hold is how long a frame is shown that was timed by hand. */
export interface FileHold {
  /** of those the rate makes of the part of the film, from 0 */
  frame: number
  /** 0: it is dropped */
  ms: number
}

/** Kind is a format as it is offered. */
export interface FileKind {
  format: string
  words: string
  /** what it is for */
  says: string
  /** one frame */
  still: boolean
  /** it goes round, and may rest before it begins again */
  rests: boolean
  /** it can be clear where the page is */
  clear: boolean
  /** all scenes on one, with their names and lengths */
  sheet: boolean
  /** browsers move what is in it: it has no frames of its own */
  piece: boolean
  /** what it is made for */
  use: string
  /** how a file of it is shown: video, picture; empty: browsers do not show it */
  plays: string
  /** its frames follow each other at one rate */
  video: boolean
  /** it has a picture that stands for it */
  poster: boolean
  /** what qualities are to its encoder; empty: it has none */
  numbers: number[]
  /** colours, dither and loss can be asked for */
  palette: boolean
  /** it carries a title and a description */
  texts: boolean
  /** it has a track of sound, where the film has sound */
  track: boolean
  /** it has nothing else */
  heard: boolean
  /** it has captions, or can have a track of them, where something is spoken */
  caption: boolean
  /** what can be given up for a size, in the order it is where none is asked for */
  gives: string[]
}

/** Mark lies over a file from its beginning to its end, whatever the film shows: words, or a picture of the project. */
export interface FileMark {
  words?: string
  /** hash of one of the project's media, in place of words */
  picture?: string
  /** of Corners; empty: the first */
  corner?: string
  /** 0..1; 0: 0.6 */
  opacity?: number
  /** of the page's width; 0: 0.1 */
  share?: number
  /** from the corner, share of the page's width; 0: 0.04 */
  inset?: number
}

/** Preset is what is asked for by a name. */
export interface FilePreset {
  name: string
  says: string
  ask: Ask
}

/** Range is a part of a film. */
export interface FileRange {
  words: string
  /** ms */
  from: number
  to: number
}

/** Fill is what a shape is filled with. */
export interface Fill {
  /** none, colour, linear, radial, picture, texture */
  kind: 'none' | 'colour' | 'linear' | 'radial' | 'picture' | 'texture'
  /** #rrggbb or #rrggbbaa */
  colour?: string
  /** a colour role of the scene, before Colour */
  role?: string
  /** -5..5: steps darker or lighter than the role */
  tone?: number
  /** of linear and radial fills */
  gradient?: Gradient
  /** of pictures and textures */
  media?: string
  /** of a texture: width of a tile in px; 0: as many as the picture has */
  size?: number
}

/** Film is what the interface shows of the film as a whole. */
export interface Film {
  project: string
  /** its id; empty: the project's first */
  film?: string
  name: string
  width: number
  height: number
  rate: Rate
  /** ms */
  length: number
  frames: number
  loop: boolean
  /** its page has no ground */
  clear: boolean
  /** what files that cannot be clear are filled with, #rrggbb */
  under: string
  closing: Closing | null
  /** in their order; those set aside follow */
  scenes: Heading[]
  /** how many of them are in the film */
  shown: number
  palette: string[]
  /** of the document's own */
  fonts: OwnFont[]
  looks: SavedLook[]
  roleSets: RoleSet[]
  /** of all pictures that its scenes show */
  credits: Credit[]
}

/** Fit is how the words of a text fill a box of a height of its own. */
export interface Fit {
  /** of their sizes */
  scale: number
  /** px that the box is too low for them */
  over: number
}

/** Flag is a cue on the film's time. */
export interface Flag extends Cue {
  /** ms of the film: with all waits up to it */
  passed: number
}

/** Flight is a layer that comes in or goes out by a side of the page, with a morph. */
export interface Flight {
  /** of the layer */
  scene: number
  /** ms of the film */
  begin: number
  end: number
  layer: string
  in: boolean
  side: string
}

/** Frame is what part of the page a scene shows. */
export interface Frame {
  thread: string
  name: string
  /** page px, from its upper left clockwise */
  corners: [[number, number], [number, number], [number, number], [number, number]]
  /** how many times as large it shows the page */
  zoom: number
}

/** View is what a gallery offers. */
export interface Gallery {
  /** what it is for: "Red kite", "3 layers" */
  of: string
  /** those without cards are left out */
  rows: GalleryRow[]
  /** where something is sought: the card that fits best; -1: none does */
  first: number
  /** the part of the page that small films show: x y w h, px */
  region: [number, number, number, number]
  /** the layer that small films are laid over what lies behind; empty: they show whole pages */
  behind: string
}

/** Row holds cards that do one thing. */
export interface GalleryRow {
  heading: string
  /** last used first */
  cards: Card[]
}

/** Ghost is where a layer was or will be: the corners of its box on the page at a time of the film. */
export interface Ghost {
  /** ms of the film */
  time: number
  corners: [[number, number], [number, number], [number, number], [number, number]]
}

/** Glow is light around a layer. */
export interface Glow {
  /** px, deviation of a Gaussian */
  blur: number
  /** #rrggbb or #rrggbbaa */
  colour: string
  /** a colour role of the scene, before Colour */
  role?: string
  /** -5..5: steps darker or lighter than the role */
  tone?: number
}

/**
 * Gradient runs through colours. Its points are shares of the layer's box, 0 at the left or top, 1 at the right or
 * bottom; they may lie outside. Distances are those on the layer: a radial gradient is round, whatever its box, unless
 * its ratio says how flat it is.
 */
export interface Gradient {
  /** where it begins; the middle of a radial one */
  from: [number, number]
  /** where it ends; on the rim of a radial one */
  to: [number, number]
  /** of a radial one: where its first colour is; default: its middle */
  focus?: [number, number]
  /** of a radial one: how far it reaches across its line, as a share of that; 0: as far, a circle */
  ratio?: number
  /** 2 to 32 */
  stops: Stop[]
}

/** GradientAt is a colour of a gradient on the page. */
export interface GradientAt {
  at: [number, number]
  colour: string
}

/** GradientLine is a gradient as it lies on the page, to be taken by its points. */
export interface GradientLine {
  radial: boolean
  from: [number, number]
  to: [number, number]
  focus: [number, number]
  /** of a radial one: its circle as it is seen, 48 points */
  rim: [number, number][]
  stops: GradientAt[]
}

/** Guide is a line that layers snap to; it is never exported. */
export interface Guide {
  /** upright or level */
  axis: 'upright' | 'level'
  /** page px */
  at: number
}

/** Heading is a scene along time. Times are ms of the film. */
export interface Heading {
  id: string
  name: string
  /** when its transition begins */
  start: number
  /** the transition's duration */
  into: number
  stay: number
  autoStay: boolean
  transition: string
  easing: string
  /** of the transition */
  params: Record<string, unknown>
  goesOn: boolean
  /** the scene before does not stay and a morph leads into it */
  mayGoOn: boolean
  /** how many morphs move as one with this transition; 0: it moves by itself */
  run: number
  /** in the colours it has */
  background: Fill
  roles: Role[]
  layers: number
  cues: Flag[]
  endsAtCue: string
  guides: Guide[]
  /** it is not in the film */
  aside: boolean
  /** it is aside, and scenes are made of it */
  template: boolean
  /** of the first morph of a run: positions lie on a smooth curve */
  curve: boolean
}

/** Held is what is shown of the selected layers: it is asked for again with every move of a drag. */
export interface Held {
  selected: Selected[]
  /** in place of Selected: they are a lot */
  many?: Many
  overlay: Overlay
  /** of each of many, from its own upper left clockwise, eight numbers; in place of Overlay.Boxes */
  corners?: number[]
  ghosts: Ghost[]
  ends: Ghost[]
  /** what the outline of the one thread becomes, where that is watched */
  outline?: Outline
  /** of the scene at rest: what part of the page it shows */
  view?: Frame
}

/** InkUse is a colour that a group is painted with, as it is in its scene, and how often. */
export interface InkUse extends Tone {
  count: number
}

/** InsetUse plays an inset. */
export interface InsetUse {
  inset: string
  /** ms on the scene's clock */
  start?: number
  /** 0 counts as 1 */
  speed?: number
  /** loop, there-and-back, stop */
  mode?: string
}

/** Join is a thread that goes on as another. */
export interface Join {
  /** the thread in the scene before */
  from: string
  /** the thread in the scene, which gets that of the other */
  to: string
}

/** Knot is a point of a free path that can be dragged: one the line goes through, or a handle of one. */
export interface Knot {
  /** page px */
  at: [number, number]
  /** among the path's points */
  index: number
  /** bends the line towards it */
  handle: boolean
  /** of handles: the point it belongs to */
  of: [number, number]
}

/** Layer is one thing on a page. Its identity across scenes is its thread. */
export interface Layer {
  id: string
  thread: string
  name: string
  kind: string
  place: Place
  opacity: number
  fill: Fill
  /** shapes, paths and texts */
  stroke?: Stroke
  /** with what lies under it; empty: normal */
  blend?: string
  /** px, deviation of a Gaussian */
  blur?: number
  /** px over which its border fades, inwards */
  feather?: number
  shadow?: Shadow
  glow?: Glow
  /** what is done to the colours of what it shows */
  adjust?: Adjust
  /** px, pictures and shapes with corners */
  corner?: number
  /** of a layer in a group: it is not painted, and the others show inside or outside of it */
  mask?: 'inside' | 'outside'
  /** another layer that it is seen through */
  through?: Through
  /** of shapes: what is not by default */
  shape?: Shape
  /** SVG path data in the layer's own axes */
  path?: string
  text?: Text
  picture?: PictureUse
  marker?: Marker
  /** of a path or picture that was made of other layers */
  made?: Made
  inset?: InsetUse
  /** how many times as far away it is as the page: it moves so much less; 0: 1 */
  depth?: number
  /** it stays while the view moves */
  stays?: boolean
  /** its name for tables: what fills its words, or its picture, in variants */
  column?: string
  /** 0..7, the row's colour in the timeline */
  tint?: number
  locked?: boolean
  hidden?: boolean
  moves?: DocumentMove[]
  children?: Layer[]
}

/** Level is how a score is brought to a loudness. */
export interface Level {
  /** dB */
  gain: number
  /** peaks would go beyond Ceiling: they are turned down */
  limited: boolean
}

/** Look is how a layer is painted, whatever it shows. */
export interface Look {
  fill: Fill
  stroke?: Stroke
  opacity: number
  blend?: string
  blur?: number
  feather?: number
  shadow?: Shadow
  glow?: Glow
  adjust?: Adjust
  corner?: number
}

/** LookFields are the fields of any layer's look. */
export interface LookFields {
  opacity: Field
  /** of Rounded */
  corner: Field
  blend: Field
  blur: Field
  feather: Field
}

/**
 * Made keeps what a layer was made of, so that it can be taken apart again. The layers do not show and are not found;
 * they keep their ids for when they come back, unless these are taken by then.
 */
export interface Made {
  how: string
  /** from the rearmost, without moves; their places are in the axes of the layer that keeps them */
  of: Layer[]
}

/**
 * Many are a lot of selected layers in the inspector, in few words: there is no use in what is worked out for one of
 * them, and a thousand whole views would take a fifth of a second. What layers have in common is told once.
 */
export interface Many {
  /** layers but for who they are, where they lie and what moves them */
  looks: Selected[]
  /** for each its id, thread and name */
  layers: string[]
  /** which of Looks it has */
  look: number[]
  /**
   * for each x y w h of its box as in Selected.Box, its turn, how many layers are in it, and in how many later scenes
   * its thread lives
   */
  numbers: number[]
  /** for each its moves: id, kind, effect, name and what they start by */
  moves: string[][]
}

/** Mark is a moment of a sound that moves can begin at. */
export interface MarkAt {
  id: string
  /** ms of the film */
  at: number
  name: string
}

/** Marker says which scene this is among those its thread lives in. */
export interface Marker {
  /** dots, bars, count */
  style: 'dots' | 'bars' | 'count'
}

/** Mate is a layer of one of the two scenes. */
export interface Mate {
  id: string
  thread: string
  name: string
  /** groups it lies in */
  depth: number
  /** on the page at rest, px: left, top, width, height */
  box: [number, number, number, number]
  paired: boolean
  /** in a group that is not */
  inside: boolean
}

/** Media says what an imported file is; its bytes live beside the document. */
export interface Media {
  /** as the person called it */
  name: string
  /** media type of the original, such as image/png */
  type: string
  /** size of the original */
  bytes: number
  /** px, upright */
  width?: number
  /** px, upright */
  height?: number
  /** no pixel lets the ground through */
  opaque?: boolean
  /** who made it, or where it is from, at most MaxCredit characters */
  source?: string
  /** how it may be used, likewise */
  licence?: string
  /** the original has more pictures than the first, which is shown */
  moves?: boolean
  /** the part that is not clear all around, where there is more than that */
  shown?: [number, number, number, number]
  /** of a mask: roughly where it keeps anything, as Covers writes it */
  covers?: string
  /** which of Capstan's ways to read pictures it was read by; see Intake */
  intake?: number
  /** of a recording, SampleRate a second */
  samples?: number
  /** of a recording: 1, or 2 */
  channels?: number
  /** Of fonts, whose type is font/ttf or font/otf. */
  family?: string
  /** 1..1000 */
  weight?: number
  italic?: boolean
  /** it may not be handed on in a bundle */
  stays?: boolean
}

/** Meeting is a way for two moves to end together, live: move.end with its fields brings it about. */
export interface Meeting {
  /** the later one */
  move: string
  /** the one whose end it meets */
  of: string
  /** its length follows, not its begin */
  stretches: boolean
  /** "Stretch “Kite” by 0.30 s" */
  words: string
}

/** Mix is how all sounds of a film go together. */
export interface Mix {
  /** dB that music steps back under voices, 0 to 60 */
  back: number
  /** ms it takes to, before a voice begins */
  down: number
  /** ms it takes to come back */
  up: number
  /** LUFS that the whole film is brought to, -40 to -5; 0: as it comes */
  loudness?: number
}

/** Moment is what the page shows: scene Scene at rest, or the film at Time. */
export interface Moment {
  /** its id; empty: the project's first */
  film?: string
  rest: boolean
  scene: number
  /** ms of the film */
  time: number
}

/** MoveView is a move in the inspector: its own fields, and what is worked out of them. */
export interface Move extends DocumentMove, MoveFacts {
}

/** MoveFacts are what is worked out of a move. Times are ms on the scene's clock but for Film. */
export interface MoveFacts {
  name: string
  words: string
  begin: number
  finish: number
  early: boolean
  /** the loop of the scene before that it could go on from */
  before: string
  /** what it can be divided into */
  units: string[]
  /** ms of the film at its begin */
  film: number
  /** ms beyond the scene's end */
  cut: number
  easingUsed: string
  /** px/s of a path */
  speed: number
  profile: number[]
  /** of a path: from its begin to its end, px */
  reach: [number, number] | null
  /** how often a scroll comes round in its scene, and in the film */
  rounds: [number, number] | null
  /** Of its effect:it takes time */
  timed: boolean
  /** its easing has a say */
  eased: boolean
  /** how long a cycle is follows from its parameters */
  counted: boolean
  /** its duration is how long it runs, not a cycle */
  runs: boolean
  /** it takes its layer along a line */
  drifts: boolean
  /** it goes by its seed */
  chance: boolean
  /** a cycle of it: "One turn" */
  cycles: string
  /** how many: "Turns" */
  times: string
  /** to which side it goes first; empty: that goes without saying */
  first: string
  /** other moves, or layers by their threads, that a parameter of it may name */
  others: Named[]
  /** of those that go one after another with it, in their order; none: it goes by itself */
  run: Turn[]
  /** what a change names */
  becomes: Changes[]
  /** of a path, by its numbers; null: of other moves */
  line: Preset | null
  /** of a path's line; 0: of other moves */
  points: number
  /** its layer has letters or parts that a change can bring apart */
  parted: boolean
  /** other layers drive its edges: it has no begin and end of its own */
  tied: boolean
  /** what a wheel seems to do; null: what it does */
  wheel: Wheel | null
}

/**
 * MoveRun is an ordered list of moves of a scene: each but the first hangs on the one before it, and its offset is the
 * gap. Dragging one past another changes the order; the gaps stay where they are.
 */
export interface MoveRun {
  id: string
  /** ends: one after another; begins: a cascade */
  when: string
  moves: string[]
}

/** Named is a move by what it is called. */
export interface Named {
  /** or the thread of a layer */
  move: string
  words: string
}

/** Offer is a move that can be added. */
export interface Offer {
  /** under its heading */
  words: string
  /** by itself */
  name: string
  kind: string
  effect: string
  /** of the effect; empty: the plain one */
  variant: string
}

/**
 * Offered are the sizes and rates that are offered for files of a format, each of which there can be, with the first
 * choice.
 */
export interface Offered {
  /** px, the largest first */
  heights: number[]
  /** of them: the page's own, but a GIF is smaller */
  first: number
  /** frames a second, that which is made where none is asked for first */
  rates: Rate[]
  /** the whole film, and its scenes */
  ranges: FileRange[]
  /** that stills can show */
  cues: CueAt[]
}

/** Offers are moves that do one thing, under its heading. */
export interface Offers {
  heading: string
  moves: Offer[]
}

/** Outline is a Correspondence as the page draws it, in page px. */
export interface Outline {
  /** that the morph leads into */
  scene: string
  thread: string
  /** path data of both outlines */
  from: string
  to: string
  /** they are drawn beside each other, not where they are */
  apart: boolean
  /** how points go: straight, turned, bent */
  goes: string
  /** an outline is no longer that of which points were given */
  changed: boolean
  /** points and parts that were given and no longer fit */
  lost: number
  parts: OutlinePart[]
  marks: OutlineMark[]
}

/** OutlineMark is a point of both outlines that is the same. */
export interface OutlineMark {
  /** in the list of parts */
  part: number
  a: [number, number]
  b: [number, number]
  /** somebody said so */
  given: boolean
}

/** OutlinePart is a part of one outline and its partner of the other. */
export interface OutlinePart {
  /** -1: none */
  from: number
  to: number
  back: boolean
  /** somebody said so */
  given: boolean
  /** the middles of both */
  a: [number, number]
  b: [number, number]
}

/** Overlay is what is drawn over the page for the selection, in page px. */
export interface Overlay {
  boxes: OverlayBox[]
  /** of several: upright, around all that are not locked */
  around?: OverlayBox
  paths: OverlayPath[]
  /** where moves of the layers begin or end elsewhere than at rest */
  away: Away[]
  /** of the fill of a single layer */
  gradient?: GradientLine
  /** of the shape of a single layer */
  rings: Ring[]
  /** of a single picture */
  crop?: Crop
}

/** Box is a selected layer's box as it stands at the moment: corners from its own upper left clockwise. */
export interface OverlayBox {
  thread: string
  kind: string
  corners: [[number, number], [number, number], [number, number], [number, number]]
  pivot: [number, number]
  /** the pivot is not the middle of the box */
  own: boolean
  /** degrees, full turns counted, at rest */
  turn: number
  locked: boolean
}

/** Path is a motion path of a selected layer. */
export interface OverlayPath {
  move: string
  /** SVG path data */
  d: string
  /** where it begins */
  from: [number, number]
  to: [number, number]
  /** half way, where it is bent */
  mid: [number, number]
  /** direction of travel at its end, degrees */
  angle: number
  /** ms on the scene's clock */
  begin: number
  end: number
  /** at even time steps */
  dots: [number, number][]
  /** the layer's outline at the end that is not rest */
  ghost: [[number, number], [number, number], [number, number], [number, number]]
  /** of free paths */
  knots: Knot[]
}

/** OwnFont is a font file of the document's own. */
export interface OwnFont {
  hash: string
  family: string
  weight: number
  italic: boolean
  /** it may not be handed on */
  stays: boolean
}

/** Page is a kind of transition. */
export interface Page {
  kind: string
  words: string
  /** its sign: SVG paths within 10 px about a middle, of the page that goes */
  leaves: string
  /** and of the one that comes */
  comes: string
  /** the sign is turned in the direction of travel */
  turns: boolean
}

/** Offer is two layers that look as if one went on as the other. */
export interface PairOffer {
  /** threads */
  from: string
  to: string
  /** in words */
  why: string
  /** of groups: those of their parts that are alike */
  parts: Join[]
}

/** Pairs is which layers of a scene go on from which of the scene before. */
export interface Pairs {
  /** the later one */
  scene: string
  /** names of both */
  from: string
  to: string
  before: Mate[]
  after: Mate[]
  /** what could be joined, the likeliest first; nothing is joined by guessing */
  offers: PairOffer[]
}

/** PartPair says that one part of an outline becomes one of another, and which points of both are the same. */
export interface PartPair {
  /** which part of the earlier outline, from 0, as it is drawn */
  from: number
  /** and of the later */
  to: number
  /** the later goes the other way round than it is drawn, against the earlier */
  back?: boolean
  /** shares of both lengths, 0..1 from where each is begun to be drawn; they follow each other alike round both */
  points?: [number, number][]
}

/** PathParams is the line of a motion path, in page px relative to the rest pose. */
export interface PathParams {
  /** SVG path data */
  d: string
  /** departs (default), arrives, passes */
  rest?: string
  share?: number
  turnAlong?: boolean
  /** level or upright: a straight line that edits keep so */
  axis?: string
  /**
   * the thread whose outline it follows, while that is there; d, from the middle of the layer at rest, is what it was
   * when it was chosen
   */
  along?: string
}

/** PenView is what the pen has drawn so far. */
export interface PenView {
  /** the line, SVG path data in page px */
  d: string
  /** the stretch that a press would add */
  next: string
  /** its points */
  knots: Dot[]
  /** a press would close it */
  closes: boolean
  /** it is whole: PenEnd makes it */
  done: boolean
  words: string
}

/** PictureUse shows an imported picture, or the part of it given by Crop. */
export interface PictureUse {
  media: string
  crop?: [number, number, number, number]
  /** degrees clockwise by which it is turned in its frame, about the middle of the part; -360..360 */
  turn?: number
  /** what is lifted off its ground */
  cut?: Cutout
}

/**
 * Place says where a layer rests, in its parent's axes. The origin (X, Y) is the centre of shapes and pictures. Text
 * hangs from its origin: the origin is the middle of its upper edge, or the upper corner it is aligned to. A group's
 * origin is where its children's coordinates begin.
 */
export interface Place {
  x: number
  y: number
  w?: number
  h?: number
  turn?: number
  flipX?: boolean
  flipY?: boolean
  /** in the layer's own axes; default: middle of its box */
  pivot?: [number, number]
}

/** Plate is laid behind the words of a text. */
export interface Plate {
  /** #rrggbb or #rrggbbaa */
  colour: string
  role?: string
  tone?: number
  /** px on all sides */
  padding?: number
  /** px */
  corner?: number
  /** one plate; else one for each line */
  whole?: boolean
}

/**
 * Preset is the line of a motion path, by its numbers; px. The document holds the line alone: which numbers it has is
 * read from that.
 */
export interface Preset {
  shape: string
  /**
   * of an arc at its middle, and of the first crest of a wave, over the straight way: upwards; of an ellipse all of it
   */
  height: number
  /** of waves, by halves */
  count: number
  /** of an ellipse */
  width: number
  /** of an ellipse, degrees clockwise from its top: where it begins */
  start: number
  /** of an ellipse: anticlockwise */
  back: boolean
}

/** Quality is how true a file is. */
export interface Quality {
  name: string
  words: string
}

/** Rate is a number of frames a second as an exact fraction, 1/1000 to 240, of numbers up to a million. */
export interface Rate {
  num: number
  den: number
}

/** Ratio is a ratio of sides that pictures are cut to. */
export interface Ratio {
  words: string
  across: number
  down: number
}

/** Readout is what a gesture says at the pointer. */
export interface Readout {
  words: string
  /** of the page: from what it snapped to, to where it lies */
  lines?: [number, number, number, number][]
}

/** Reshape is what a person has said of how the outline of a thread becomes that of the next scene. */
export interface Reshape {
  /** how its points go: straight, turned, bent; empty: the simplest that is good */
  way?: string
  /** what the outlines of both scenes were when parts were paired: 16 hexadecimal digits */
  from?: string
  to?: string
  /** parts (subpaths) that become each other; others are paired by themselves */
  parts?: PartPair[]
}

/** Ring is a handle of a shape's number as it lies on the page. */
export interface Ring {
  id: string
  name: string
  value: string
  at: [number, number]
}

/** Role is a colour role of a scene. */
export interface Role {
  name: string
  colour: string
  /** how often the scene takes its colour from it */
  uses: number
}

/** RoleSet is a saved set of colour roles. */
export interface RoleSet {
  id: string
  name: string
  roles: Record<string, string>
}

/** Row is one thread in the timeline. */
export interface Row {
  /** the film it lives in; empty: the project's first */
  film?: string
  thread: string
  /** id in the scene at the moment; empty where it is absent */
  layer: string
  name: string
  kind: string
  tint: number
  depth: number
  /** has rows inside */
  group: boolean
  parent: string
  here: boolean
  locked: boolean
  hidden: boolean
  /** what it is to those it lies with */
  mask: '' | 'inside' | 'outside'
  spans: Span[]
  bars: Bar[]
  flights: Flight[]
}

/** Run is a stretch of text in one setting. Line ends are \n. */
export interface Run {
  text: string
  family: string
  /** 100..900 */
  weight: number
  italic?: boolean
  /** px */
  size: number
  /** empty: the layer's fill */
  colour?: string
  /** upper, lower, title; empty: as it is written */
  case?: 'upper' | 'lower' | 'title'
  /** super, sub */
  raise?: 'super' | 'sub'
}

/** SavedLook is a look that was put aside under a name. */
export interface SavedLook {
  id: string
  name: string
  look: Look
}

/** Seen is what changes when a window looks at something else. */
export interface Seen extends Held {
  scene: number
}

/** Selected is a selected layer in the inspector: its own fields, and what is worked out of them. */
export interface Selected {
  /** without children and moves */
  layer: Layer
  /** layers inside a group */
  count: number
  moves: Move[]
  /** x y of the middle in the parent's axes, w h, at rest */
  box: [number, number, number, number]
  /** corners, sides and middle of the box in the axes of the parent, row by row */
  refs: [number, number][]
  /** x y turn where it is now, when that differs from rest */
  now: [number, number, number] | null
  /** in shares of the box */
  pivot: [number, number]
  /** the name of the group it lies in */
  in: string
  later: number
  /** by how much it goes on from scene to scene, where that was set */
  shift: Shifted | null
  /** the morphs that it goes through into the scene and, of the last, out of it */
  strands: Strand[]
  /** the one scene in which it stands as in the one before, though it moves into all others; empty: none */
  stands: string
  /** fills found in a group */
  colours: string[]
  /** all colours of a group, the most used first */
  inks: InkUse[]
  /** names of the layers it was made of */
  kept: string[]
  /** how it was made of them */
  made: string
  /** of a text with its plate */
  contrast: Contrast | null
  /** characters of a text that no family has */
  missing: string
  /** of a text whose box has a height of its own */
  fit: Fit | null
  /** covers an area by itself */
  closed: boolean
  /** is of a kind that is combined with others */
  unites: boolean
  /** may fill the page */
  grounds: boolean
  /** of a picture; null: of other layers */
  file: File | null
  /** a picture with nearly the pixels that it takes to fill the page */
  fills: boolean
  /** of what covers the page at rest, but not all along its way: how much of that shows, and when; else empty */
  bares: string
}

/** Shadow is cast by a layer. It falls the same way on the page however the layer is turned. */
export interface Shadow {
  /** px to the right */
  x: number
  /** px down */
  y: number
  /** px, deviation of a Gaussian */
  blur?: number
  /** #rrggbb or #rrggbbaa */
  colour: string
  /** a colour role of the scene, before Colour */
  role?: string
  /** -5..5: steps darker or lighter than the role */
  tone?: number
}

/** Shape holds the numbers of a layer's shape. Which of them a kind has, package shape says; others are left alone. */
export interface Shape {
  /** px: radii of a rectangle from the upper left clockwise, before Corner */
  corners?: [number, number, number, number]
  /** 0..1 of the radius: ring, sector */
  hole?: number
  /** degrees clockwise from the right: sector */
  start?: number
  /** degrees, 0..360: sector */
  sweep?: number
  /** only the line: a sector that is an arc */
  open?: boolean
  /** sides, points, humps, waves */
  count?: number
  /** 0..1: how deep a star is cut, how high waves are */
  depth?: number
  /** 0..1 of the height: an arrow's shaft; of both sides: a cross; a ribbon's band */
  thickness?: number
  /** length of an arrow's head, in heights */
  head?: number
  /** of an arrow: "" at its end, start, both */
  heads?: string
  /** where a bubble points, in shares of its box that may lie outside */
  tip?: [number, number]
  /** 0..1 of the shorter side: how wide a bubble's tail begins */
  base?: number
  /** points of a ribbon's line, in shares of its box */
  bends?: [number, number][]
}

/** ShapeSign is a kind of shape with its name and its outline in a small box, for buttons. */
export interface ShapeSign {
  kind: string
  name: string
  /** SVG path data about the middle, 18 by 14 */
  d: string
  /** it has an inside */
  closed: boolean
}

/** Shared is what several moves have in common in the inspector. */
export interface Shared {
  /** a MoveView with the fields that all of them share */
  move: Partial<Move>
  /** the others, by their path: "duration", "params.direction" */
  mixed: string[]
  /** what they are, each kind once: "Fade, in" */
  kinds: string[]
}

/**
 * Shift says that a thread goes on by one step from each of a run of scenes to the next. The layers have plain numbers,
 * which it does not hold to: it is for what comes between them later.
 */
export interface Shift {
  id: string
  thread: string
  /** by id, as they follow one another in the film */
  scenes: string[]
  step: Step
}

/** Shifted is by how much a thread goes on from each of some scenes to the next. */
export interface Shifted {
  step: Step
  /** how many */
  scenes: number
  /** the first of them */
  first: number
}

/** Shown is all that a window shows of the document beside its frames. */
export interface Shown extends Held {
  film: Film
  rows: Row[]
  sounds: Sounds
  /** the one that is looked at, within the film as it is */
  moment: Moment
  scene: number
  /** those that are selected and still there */
  threads: string[]
  colours: string[]
  /** steps that can be undone */
  undo: number
  redo: number
  /** layers are shown as they are after changes; null: at rest */
  after: After | null
  /** it uses fonts that have not been added */
  lacks: boolean
}

/** Snap is where dragged bars come to lie, and on what, in words. */
export interface Snap {
  /** ms, instead of the asked ones */
  by: number
  /** ms of the film, where it snapped; -1: nowhere */
  at: number
  /** "begins when Path of Kite ends" */
  words: string
  /** which end of the bar snapped: begin or end */
  part: '' | 'begin' | 'end'
  /** what it may hang on: begins, ends, cue, scene-end; empty: nothing */
  when: string
  of: string
}

/**
 * Sound is a stretch of a recording that is heard: with the film, on its clock, or with a scene, on that of the scene.
 */
export interface Sound {
  id: string
  name: string
  media: string
  /** music, effect or voice */
  use: string
  /** of a scene's as that of a move; of the film's at a time */
  start: Start
  /** of a scene's: it is heard until this; it always stretches */
  end?: Anchor
  /** ms it is heard, where nothing ends it */
  length: number
  /** ms into the recording at which it begins */
  from?: number
  /** the recording begins again at its end, without a seam */
  loops?: boolean
  /** of the recording, MinSpeed to MaxSpeed; 0 counts as 1 */
  speed?: number
  /** at another speed; else its pitch goes along */
  keepsPitch?: boolean
  /** dB */
  gain?: number
  /** the course of its volume, by rising times */
  points?: VolumePoint[]
  /** ms */
  fadeIn?: number
  /** ms */
  fadeOut?: number
  /** of its fades */
  curve?: string
  /** -1 is left, 1 is right */
  pan?: number
  /** it pans along with the layer of the move that its start hangs on */
  along?: boolean
  muted?: boolean
  /** of its recording, ms into it, rising */
  beats?: number[]
  /** by rising times */
  marks?: SoundMark[]
  /** what its recording was made of; nil: it was not made here */
  spoken?: Spoken
}

/** Corner is a corner of a line along film time. */
export interface SoundCorner {
  /** ms of film time */
  at: number
  db: number
}

/** SoundMark is a moment of a recording that moves of its scene can begin at. */
export interface SoundMark {
  id: string
  /** ms into the recording */
  at: number
  name: string
  /** it stands where a word begins, and moves with that as the voice is spoken anew */
  word?: boolean
}

/** Piece is a part of a recording: PieceFrames of it, or what is left. */
export interface SoundPiece {
  media: string
  /** counted from its begin */
  piece: number
}

/** Row is one sound in the timeline. Times are ms of the film. */
export interface SoundRow {
  id: string
  name: string
  use: 'music' | 'effect' | 'voice'
  /** on whose clock it is; -1: the film's */
  scene: number
  media: string
  begin: number
  /** within the film */
  end: number
  length: number
  /** ms into the recording */
  from: number
  /** ms of the whole recording */
  lasts: number
  /** of it */
  samples: number
  channels: number
  speed: number
  keepsPitch: boolean
  loops: boolean
  /** frames of the recording before it begins again */
  round: number
  /** dB */
  gain: number
  /** the same */
  percent: number
  points: VolumePoint[]
  fadeIn: number
  fadeOut: number
  curve: '' | 'line' | 'level'
  pan: number
  along: boolean
  muted: boolean
  /** that its start hangs on; empty: none */
  move: string
  /** its end hangs on something */
  ends: boolean
  /** when it is heard */
  words: string
  /** ms of the film */
  beats: number[]
  /** beats a minute; 0: not known */
  pace: number
  marks: MarkAt[]
  /** what its recording was made of */
  spoken?: Spoken
  /** how loud it is: ms of the film, and dB */
  course: SoundCorner[]
}

/** Snap is how far sounds are dragged when an end of the first comes near something: to what, and in words. */
export interface SoundSnap {
  by: number
  /** ms of the film; -1: it is near nothing */
  at: number
  words: string
}

/** Sounds are those of the film. */
export interface Sounds {
  rows: SoundRow[]
  mix: Mix
  captions: CaptionRow[]
  /** how captions are drawn in the film; nil: they are not */
  captioned?: Captioned
}

/** Span is where a thread lives: in a scene's stay, or as a strand through a morph. Times are ms of the film. */
export interface Span {
  scene: number
  begin: number
  end: number
  strand: boolean
  layer: string
  /** degrees that a strand turns by */
  by?: number
  /** of a strand through a run of morphs: when it passes the scenes between, ms of the film */
  passes?: number[]
}

/** Spoken is what a voice was made of by a speech engine: it is spoken anew when that changes. */
export interface Spoken {
  text: string
  /** language and accent, as the engine calls it, such as en-gb */
  voice: string
  /** of the voice, as the engine calls it */
  variant?: string
  /** 0.5 to 2 times as fast as the voice speaks; 0 counts as 1 */
  rate?: number
  /** -1 to 1: lower and higher than the voice */
  pitch?: number
  /** ms between sentences */
  pause?: number
  /** where in the recording each sentence is */
  lines?: Caption[]
  /** and each word, as well as it is known */
  words?: Word[]
}

/** Start says when a move begins. */
export interface Start {
  /** at, begins, ends, scene-end, cue, heard, silent */
  when: string
  /** the move, cue, sound or mark it hangs on */
  of?: string
  /** ms, added; for at the time itself; before scene-end it counts back */
  offset?: number
}

/** Step is what is added from a scene to the next. */
export interface Step {
  /** page px */
  x?: number
  /** page px */
  y?: number
  /** degrees */
  turn?: number
  /** factor, 0.01..100; 0 is 1 */
  size?: number
  /** -1..1 */
  opacity?: number
  /** degrees of the colour's hue in OKLab */
  hue?: number
  /** of its lightness there, -1..1 */
  light?: number
}

/** Stop is a colour of a gradient. */
export interface Stop {
  /** 0..1, not below the one before */
  at: number
  colour: string
  /** a colour role of the scene, before Colour */
  role?: string
  /** -5..5: steps darker or lighter than the role */
  tone?: number
}

/** Strand is how a thread goes through one morph. */
export interface Strand {
  /** that it leads into */
  scene: string
  /** names of both scenes */
  from: string
  to: string
  /** it is the one back to the first scene */
  closing: boolean
  /** which way it turns, as it is set; empty: as it comes */
  turn: '' | 'short' | 'clockwise' | 'anticlockwise' | 'numbered'
  /** whole turns more */
  turns: number
  /** degrees, clockwise */
  by: number
  /** of its own; empty: as the transition */
  easing: string
  /** share of the transition that it waits */
  delay: number
  /** share of its way that its arc is high; above 0 to the right */
  arc: number
  /** only one of the scenes has it: in, it comes in; out, it goes out */
  alone: string
  /** and by which side of the page; empty: it fades */
  wing: string
  /** words become other words */
  words: boolean
  /** and do so letter by letter */
  letters: boolean
  /** it goes from one place to another */
  moves: boolean
  /**
   * its outline becomes another: outlines; by numbers of one shape, or by the same steps: numbers; empty: it does not
   */
  outline: string
  /** how its points go, where that is said: straight, turned, bent */
  way: string
  /** how many pairs of points and parts of it were given */
  given: number
}

/** Strand is how one thread goes through a morph. */
export interface StrandTurn {
  /**
   * which way it turns: numbered, short, clockwise, anticlockwise; empty: numbered, and back to the first scene as the
   * morphs before
   */
  turn?: 'short' | 'clockwise' | 'anticlockwise' | 'numbered'
  /** whole turns more, 0..MaxTurns */
  turns?: number
  /** CSS easing of its own; empty: that of the transition */
  easing?: string
  /** share of the transition that it waits, 0..MaxDelay */
  delay?: number
  /**
   * of a layer that only one of the scenes has: the side it comes in from, or goes out to, one of Wings; empty: it
   * fades
   */
  wing?: string
  /** of words that become other words: letter by letter, not by dissolving */
  letters?: boolean
  /** it goes by an arc of a circle, as high as this share of its way, -1..1; above 0 to the right as it looks ahead */
  arc?: number
  /** how its outline becomes that of the next scene, where a person said so */
  outline?: Reshape
}

/** Stroke is a line along the outline of a shape, path or text. */
export interface Stroke {
  fill: Fill
  /** px */
  width: number
  /** "", inside, outside */
  side?: 'inside' | 'outside'
  /** "": butt, round, square */
  cap?: string
  /** "": miter, round, bevel */
  join?: string
  /** miter length in widths; 0: 4 */
  miterLimit?: number
  /** dashes and gaps in turn, px */
  dash?: number[]
  /** px into the pattern */
  dashOffset?: number
  /** of open lines: "", triangle, open, dot, bar */
  startHead?: string
  endHead?: string
  /** shares of the line's length, 0..1, between which it is drawn */
  trim?: [number, number]
}

/** Subtitles are captions that were read from a file, in its order. */
export interface Subtitles {
  lines: Caption[]
  /** that end before they begin, or as they do, and were left out */
  backwards: number
  /** that were longer than a caption can be, and were cut */
  cut: number
}

/** Table makes variants of a project: each row is one, whose cells fill what its columns name. */
export interface Table {
  /** names for tables, of texts and pictures, or of colour roles */
  columns: string[]
  /** each as long as there are columns */
  rows: string[][]
}

/** Target is a move that another may hang on. */
export interface Target {
  move: string
  /** with its layer */
  name: string
  /** why it cannot hang there, in words; empty: it can */
  why: string
}

/** Text is the words of a layer and how they are set. */
export interface Text {
  runs: Run[]
  /** left, centre, right, justified */
  align: '' | 'left' | 'centre' | 'right' | 'justified'
  /** break lines at the width of the place */
  wrap?: boolean
  /** in sizes; 0: the family's own */
  lineHeight?: number
  /** px */
  letterSpacing?: number
  /** of a text that wraps: fixed, fit; empty: its box is as high as its lines */
  room?: 'fixed' | 'fit'
  /** of its lines in a box of fixed height: middle, bottom; empty: from the top */
  stand?: 'middle' | 'bottom'
  /** letters one below another */
  stacked?: boolean
  /** set on a circle about the layer's origin */
  ring?: TextRing
  plate?: Plate
}

/** TextRing is a circle that a text is set on. */
export interface TextRing {
  /** px */
  radius: number
  /** degrees clockwise from the right, where the text begins, has its middle or ends, as it is aligned */
  start: number
  /** 0..1 of the circle that the text fills by spacing its letters; 0: as they come */
  share?: number
  /** letters stand within the circle */
  inside?: boolean
  /** they run the other way round, their feet outwards, so that they stand upright below */
  flip?: boolean
}

/**
 * Through says by which layer another is masked: it is seen as far as that covers, or is light, wherever that moves. A
 * layer that is not in the scene, or hidden, masks nothing; one that is not there yet, or no more, covers nothing.
 */
export interface Through {
  thread: string
  /** as far as it is light, not only as far as it covers */
  light?: boolean
  /** as far as it does not */
  outside?: boolean
}

/** Tone is a colour by itself. */
export interface Tone {
  /** #rrggbb */
  colour: string
  /** a colour role of the scene, before Colour */
  role?: string
  /** -5..5: steps darker or lighter than the role */
  tone?: number
}

/**
 * Toned gives what a layer shows the hue of one tone, or runs from one tone where it is dark to another where it is
 * light.
 */
export interface Toned {
  /** 0..1 */
  amount: number
  /** one, or two with the dark one first */
  tones: Tone[]
}

/** Transition is the way into a scene. */
export interface Transition {
  /** cut, crossfade, morph, or an effect of pages */
  kind: string
  /** ms; 0 for a cut */
  duration?: number
  /** CSS easing; empty: ease-in-out */
  easing?: string
  /** of its effect */
  params?: Record<string, unknown>
  /** a morph that goes on the run of the morph before, in its easing */
  goesOn?: boolean
  /**
   * of the first morph of a run: what goes on lies on a smooth curve through the run's scenes, at the pace of the run
   */
  curve?: boolean
  /** of a morph: how single threads go through it, by thread */
  threads?: Record<string, StrandTurn>
}

/** Turn is one of the moves that go one after another. */
export interface Turn {
  move: string
  /** its layer */
  words: string
  /** ms */
  takes: number
}

/** Under is a layer that shows at a point. */
export interface Under {
  /** its thread, after those of its groups from the outermost on */
  chain: string[]
  name: string
  locked: boolean
}

/** Use is what files are made for. */
export interface Use {
  name: string
  words: string
}

/**
 * VolumePoint is how loud a sound is at a time, beside its gain. Between two it goes evenly in dB; before the first and
 * after the last it stays.
 */
export interface VolumePoint {
  /** ms since the sound began */
  at: number
  /** dB, MinGain to MaxGain */
  gain: number
}

/**
 * Wheel is what a wheel of equal parts seems to do at the film's rate, where that is not what it does (docs/motion.md,
 * section 10).
 */
export interface Wheel {
  words: string
  /** ms of a turn at which it is seen to turn as it does, the fastest first */
  cycles: number[]
}

/** Word is where in its recording a voice says a word. */
export interface Word {
  /** ms */
  at: number
  text: string
}

/** Writing is what a text shows while its words are edited on the page, in page px. */
export interface WritingView {
  /** the line of the caret, from its top to its foot */
  caret: [[number, number], [number, number]]
  /** outlines of the letters that are selected */
  marked: [[number, number], [number, number], [number, number], [number, number]][]
  /** the corners of its box */
  frame: [[number, number], [number, number], [number, number], [number, number]]
}

/** A change that a person would name, by its op: core/edit says what each does. */
export type Command =
  | { op: 'batch'; film?: string; commands?: Command[] }
  | { op: 'cue.add'; film?: string; scene?: string; id?: string; name?: string; at?: number | null; wait?: number }
  | { op: 'cue.delete'; film?: string; scene?: string; id?: string }
  | { op: 'cue.set'; film?: string; scene?: string; id?: string; patch?: Fields }
  | { op: 'film.add'; film?: string; id?: string; name?: string; width?: number; height?: number; scene?: string }
  | { op: 'film.delete'; film?: string; ids?: string[] }
  | { op: 'film.set'; film?: string; patch?: Fields }
  | { op: 'layer.add'; film?: string; scene?: string; parent?: string; index?: number | null; layers?: Layer[] }
  | { op: 'layer.apart'; film?: string; ids?: string[]; seed?: string }
  | {
      op: 'layer.copies'
      film?: string
      ids?: string[]
      seed?: string
      about?: [number, number]
      /** moved by x and y, turned by degrees */
      at?: [number, number, number][]
      /** turned about the point, but each as upright as it was */
      keep?: boolean
      /** of the group */
      id?: string
      thread?: string
      name?: string
      /** for each layer: its own and those of its copies; absent: all are called alike */
      names?: string[][]
      tint?: number
      x?: number
      y?: number
    }
  | { op: 'layer.delete'; film?: string; ids?: string[] }
  | { op: 'layer.duplicate'; film?: string; ids?: string[]; seed?: string; dx?: number; dy?: number }
  | {
      op: 'layer.group'
      film?: string
      ids?: string[]
      id?: string
      thread?: string
      name?: string
      tint?: number
      /** where the group's axes begin, in page px */
      x?: number
      y?: number
      /** what the front-most is to the others: inside, outside; empty: a layer like them */
      mask?: string
    }
  | { op: 'layer.order'; film?: string; ids?: string[]; parent?: string; index?: number }
  | { op: 'layer.outline'; film?: string; ids?: string[] }
  | {
      op: 'layer.paste'
      film?: string
      scene?: string
      layers?: Layer[]
      seed?: string
      dx?: number
      dy?: number
      /** of the moves where they were copied, ms on that scene's clock */
      begins?: Record<string, number>
      /** threads of their own, also where theirs are free */
      new?: boolean
    }
  | {
      op: 'layer.scale'
      film?: string
      id?: string
      /** where its place is afterwards */
      x?: number
      y?: number
      /** factors along the layer's own axes; of groups and texts only kx counts */
      kx?: number
      ky?: number
      /**
       * Grows says what grows along, of Growth. Absent, as in commands stored before it was there: the letters, and
       * within groups strokes and effects.
       */
      grows?: string[] | null
    }
  | { op: 'layer.set'; film?: string; set?: { id?: string; patch?: Fields }[] }
  | { op: 'layer.ungroup'; film?: string; ids?: string[]; down?: boolean; about?: Record<string, [number, number]> }
  | { op: 'layers.combine'; film?: string; ids?: string[]; how?: string; become?: Fields; children?: Layer[] }
  | { op: 'media.add'; film?: string; hash?: string; media?: Media | null }
  | { op: 'media.credit'; film?: string; hash?: string; source?: string; licence?: string }
  | { op: 'morph.split'; film?: string; scene?: string; at?: number; id?: string; seed?: string; name?: string }
  | { op: 'move.add'; film?: string; layer?: string; move?: DocumentMove | null }
  | { op: 'move.delete'; film?: string; ids?: string[] }
  | { op: 'move.set'; film?: string; set?: { id?: string; patch?: Fields }[] }
  | { op: 'patch'; film?: string; changes?: Change[] }
  | { op: 'picture.cut'; film?: string; ids?: string[]; cut?: Cutout | null; media?: Media | null }
  | {
      op: 'picture.split'
      film?: string
      id?: string
      seed?: string
      /** hash of the picture behind */
      ground?: string
      /** of it */
      media?: Media | null
      /** of what is in front, and of the ground */
      names?: [string, string]
    }
  | { op: 'project.rename'; film?: string; name?: string }
  | { op: 'project.set'; film?: string; patch?: Fields }
  | { op: 'run.make'; film?: string; scene?: string; id?: string; when?: string; moves?: string[]; gaps?: number[] }
  | { op: 'run.order'; film?: string; scene?: string; id?: string; moves?: string[] }
  | { op: 'scene.add'; film?: string; id?: string; index?: number; name?: string; aside?: boolean }
  | { op: 'scene.continue'; film?: string; from?: string; id?: string; seed?: string; name?: string }
  | {
      op: 'scene.copy'
      film?: string
      from?: string
      id?: string
      seed?: string
      name?: string
      /** in the film */
      index?: number
      /** aside, to be used again */
      template?: boolean
    }
  | { op: 'scene.cut'; film?: string; scene?: string; at?: number; id?: string; seed?: string; name?: string }
  | { op: 'scene.delete'; film?: string; ids?: string[] }
  | { op: 'scene.duplicate'; film?: string; from?: string; id?: string; seed?: string; name?: string }
  | { op: 'scene.fold'; film?: string; ids?: string[]; seed?: string }
  | { op: 'scene.order'; film?: string; ids?: string[]; index?: number }
  | {
      op: 'scene.paste'
      film?: string
      scenes?: DocumentScene[]
      /** that they get */
      ids?: string[]
      seed?: string
      index?: number
      /** as things of their own: their threads are none of the film's */
      new?: boolean
    }
  | { op: 'scene.set'; film?: string; ids?: string[]; patch?: Fields }
  | { op: 'scene.unfold'; film?: string; scene?: string; seed?: string; names?: string[] }
  | { op: 'shift.keep'; film?: string; id?: string; thread?: string; scenes?: string[]; step?: Step }
  | { op: 'sound.add'; film?: string; scene?: string; sounds?: Sound[] }
  | { op: 'sound.delete'; film?: string; ids?: string[] }
  | { op: 'sound.set'; film?: string; id?: string; scene?: string | null; patch?: Fields }
  | { op: 'table.cell'; film?: string; row?: number; column?: number; text?: string }
  | { op: 'table.set'; film?: string; table?: Table | null }
  | { op: 'text.style'; film?: string; ids?: string[]; patch?: Fields; from?: number; to?: number }
  | { op: 'text.words'; film?: string; id?: string; text?: string }
  | { op: 'thread.cut'; film?: string; scene?: string; ids?: string[]; seed?: string; alone?: boolean }
  | { op: 'thread.join'; film?: string; scene?: string; pairs?: Join[] }

/**
 * What can be asked for, by name, with what it is told; all of it may be left away. core/intent says what comes of
 * each.
 */
export interface Intents {
  'add.drawing': { layer?: Layer | null; media?: Record<string, Media>; at?: [number, number] | null }
  'add.marker': { style?: string }
  'add.picture': { hash?: string; media?: Media | null; at?: [number, number] | null }
  'add.shape': {
    kind?: string
    from?: [number, number] | null
    to?: [number, number] | null
    equal?: boolean
    centre?: boolean
  }
  'add.text': { at?: [number, number] | null; text?: string; behind?: string }
  'adjust.tone': { threads?: string[]; index?: number; tone?: Tone }
  'adjust.tones': { threads?: string[]; count?: number }
  'align': { threads?: string[]; edge?: string; to?: string }
  'apart': { threads?: string[] }
  'bands.add': { }
  'bars': { moves?: string[]; part?: string; by?: number }
  'bars.nudge': { moves?: string[]; part?: string; frames?: number; by?: number }
  'bars.takes': { moves?: string[]; ms?: number }
  'break': { threads?: string[] }
  'bring.back': { threads?: string[]; scene?: number }
  'caption.add': { text?: string }
  'caption.delete': { scene?: string; index?: number }
  'caption.move': { scene?: string; index?: number; part?: string; by?: number }
  'caption.read': { lines?: Caption[] }
  'caption.say': { scene?: string; index?: number; text?: string }
  'carry.all': { threads?: string[]; next?: boolean }
  'change.drop': { move?: string; fields?: string[] }
  'combine': { threads?: string[]; how?: string }
  'copies': {
    threads?: string[]
    along?: string
    n?: number
    rows?: number
    gapX?: number
    gapY?: number
    radius?: number
    sweep?: number
    upright?: boolean
  }
  'crop.fill': { threads?: string[] }
  'crop.fit': { threads?: string[] }
  'crop.pan': { threads?: string[]; dx?: number; dy?: number }
  'crop.ratio': { threads?: string[]; across?: number; down?: number }
  'crop.same': { threads?: string[] }
  'crop.sides': {
    threads?: string[]
    left?: number | null
    top?: number | null
    right?: number | null
    bottom?: number | null
  }
  'crop.trim': { threads?: string[] }
  'crop.turn': { threads?: string[]; turn?: number }
  'crop.zoom': { threads?: string[]; zoom?: number; by?: number }
  'cue.add': { at?: number | null }
  'cutout.set': { threads?: string[]; cut?: Cutout | null; media?: Media | null }
  'cutout.split': { thread?: string; hash?: string; media?: Media | null }
  'delete': { threads?: string[]; everywhere?: boolean }
  'depth': { threads?: string[]; depth?: number; stays?: boolean | null }
  'depth.spread': { threads?: string[] }
  'distribute': { threads?: string[]; down?: boolean; centres?: boolean; gap?: number | null }
  'draw.freehand': { points?: [number, number][]; tolerance?: number; reach?: number }
  'duplicate': { threads?: string[] }
  'edit.later': { changes?: Change[]; all?: boolean }
  'fill.kind': { threads?: string[]; part?: string; kind?: string }
  'fill.picture': { threads?: string[]; kind?: string; hash?: string; media?: Media | null }
  'film.closing': { patch?: Fields }
  'film.fit': { }
  'flip': { threads?: string[]; down?: boolean }
  'font.add': { hash?: string; media?: Media | null }
  'glow.set': { threads?: string[]; patch?: Fields }
  'gradient.add': { threads?: string[]; part?: string; at?: number }
  'gradient.colour': {
    threads?: string[]
    part?: string
    index?: number
    colour?: string
    role?: string
    tone?: number
  }
  'gradient.move': { threads?: string[]; part?: string; index?: number; at?: number }
  'gradient.remove': { threads?: string[]; part?: string; index?: number }
  'gradient.swap': { threads?: string[]; part?: string }
  'ground.cover': { threads?: string[] }
  'ground.make': { threads?: string[] }
  'group': { threads?: string[] }
  'guide': { index?: number | null; axis?: string; at?: number | null }
  'guides.of': { threads?: string[] }
  'hitch': { from?: string; fromPart?: string; to?: string; toPart?: string }
  'lock.all': { on?: boolean }
  'look.forget': { id?: string }
  'look.paste': { threads?: string[]; look?: Look | null; saved?: string }
  'look.save': { thread?: string; name?: string }
  'mark.add': { id?: string }
  'mark.all': { id?: string; of?: string }
  'mark.delete': { id?: string; mark?: string }
  'mark.set': { id?: string; mark?: string; name?: string; by?: number }
  'mask': { threads?: string[]; how?: string }
  'mask.shape': { threads?: string[]; kind?: string }
  'merge': { threads?: string[]; hash?: string; media?: Media | null; box?: [number, number, number, number] }
  'move.add': {
    threads?: string[]
    kind?: string
    effect?: string
    variant?: string
    after?: boolean
    at?: number | null
  }
  'move.delete': { move?: string }
  'move.effect': { move?: string; effect?: string; variant?: string }
  'move.end': { move?: string; when?: string; of?: string; stretches?: boolean }
  'move.last': { move?: string }
  'move.set': { move?: string; patch?: Fields }
  'move.start': { move?: string; when?: string; of?: string }
  'move.unit': { move?: string; unit?: string }
  'moves.bringIn': { }
  'moves.change': { moves?: string[]; field?: string; how?: string; by?: number }
  'moves.clear': { threads?: string[] }
  'moves.delete': { moves?: string[] }
  'moves.draw': { threads?: string[]; total?: number; equal?: boolean; ground?: boolean; pointer?: string }
  'moves.inTurn': { threads?: string[]; in?: string; out?: string }
  'moves.mirror': { moves?: string[] }
  'moves.only': { threads?: string[]; from?: number; to?: number }
  'moves.paste': { sets?: DocumentMove[][]; begins?: Record<string, number>; threads?: string[]; step?: number }
  'moves.set': { moves?: string[]; patch?: Fields }
  'moves.tapped': { taps?: { move?: string; at?: number }[] }
  'moves.turn': { moves?: string[] }
  'moves.turnOver': { threads?: string[]; level?: boolean }
  'nudge': { threads?: string[]; dx?: number; dy?: number }
  'order': { threads?: string[]; to?: string }
  'order.before': { threads?: string[]; target?: string; where?: string }
  'order.reverse': { threads?: string[] }
  'outline': { threads?: string[] }
  'outline.forget': { scene?: string; thread?: string }
  'outline.keep': { scene?: string; thread?: string }
  'outline.loose': { scene?: string; thread?: string; mark?: number }
  'outline.nudge': { scene?: string; thread?: string; mark?: number; later?: boolean; by?: number }
  'outline.pair': { scene?: string; thread?: string; from?: [number, number] | null; to?: [number, number] | null }
  'outline.parts': { scene?: string; thread?: string; from?: number; to?: number }
  'outline.point': { scene?: string; thread?: string; mark?: number; later?: boolean; x?: number; y?: number }
  'outline.stroke': { threads?: string[] }
  'outline.turn': { scene?: string; thread?: string; part?: number }
  'outline.way': { threads?: string[]; scene?: string; way?: string }
  'palette.set': { colour?: string; gone?: boolean }
  'parts.scatter': { threads?: string[]; amount?: number; seed?: number }
  'parts.spread': { threads?: string[]; by?: number }
  'paste': {
    layers?: Layer[]
    begins?: Record<string, number>
    still?: boolean
    place?: boolean
    new?: boolean
    from?: string
    media?: Record<string, Media>
  }
  'path.acted': { threads?: string[]; points?: [number, number, number][]; counted?: boolean; speed?: number }
  'path.along': { move?: string; thread?: string }
  'path.bend': {
    move?: string
    /** straight, level, upright, arc, wave, ellipse, free */
    shape?: string
    height?: number | null
    count?: number | null
    width?: number | null
    start?: number | null
    back?: boolean | null
  }
  'path.draw': { threads?: string[]; from?: [number, number]; to?: [number, number] }
  'path.knot.add': { move?: string; x?: number; y?: number }
  'path.knot.remove': { move?: string; index?: number }
  'path.reach': { move?: string; x?: number; y?: number }
  'picture.replace': { from?: string; hash?: string; media?: Media | null; threads?: string[] }
  'pivot': { threads?: string[]; x?: number | null; y?: number | null; reset?: boolean }
  'place': {
    threads?: string[]
    x?: number | null
    y?: number | null
    w?: number | null
    h?: number | null
    turn?: number | null
    ref?: [number, number] | null
    keep?: boolean
  }
  'point.add': { id?: string; at?: number; gain?: number }
  'point.delete': { id?: string; index?: number }
  'point.move': { id?: string; index?: number; by?: number; louder?: number }
  'points.begin': { threads?: string[] }
  'points.close': { thread?: string; ids?: string[] }
  'points.corner': { thread?: string; ids?: string[] }
  'points.cut': { thread?: string; ids?: string[] }
  'points.insert': { thread?: string; x?: number; y?: number }
  'points.join': { thread?: string; ids?: string[] }
  'points.move': { thread?: string; ids?: string[]; dx?: number; dy?: number }
  'points.place': { thread?: string; ids?: string[]; line?: string; degree?: number; scale?: number }
  'points.remove': { thread?: string; ids?: string[] }
  'points.reverse': { thread?: string; ids?: string[] }
  'points.simplify': { thread?: string; tolerance?: number }
  'points.smooth': { thread?: string; ids?: string[] }
  'recolour.nearest': { threads?: string[]; roles?: boolean }
  'recolour.one': { threads?: string[]; from?: Tone; to?: Tone }
  'recolour.shift': { threads?: string[]; hue?: number; light?: number; chroma?: number }
  'roles.apply': { roles?: Record<string, string>; scenes?: string[] }
  'roles.begin': { }
  'roles.propose': { rgba?: string; scenes?: string[] }
  'roles.save': { name?: string }
  'roles.set': { name?: string; colour?: string | null; scenes?: string[] }
  'run.border': { move?: string; by?: number }
  'same': { threads?: string[]; what?: string }
  'scene.add': { before?: boolean }
  'scene.bars': { ids?: string[]; beats?: number }
  'scene.continue': { }
  'scene.duplicate': { new?: boolean }
  'scene.fold': { ids?: string[] }
  'scene.split': { }
  'scene.stay': { ids?: string[]; stay?: number }
  'scene.transition': { ids?: string[]; patch?: Fields }
  'scene.unfold': { }
  'scenes.asOne': { ids?: string[]; curve?: boolean }
  'scenes.paste': { scenes?: DocumentScene[]; from?: string; media?: Record<string, Media> }
  'scroll.rounds': { moves?: string[]; rounds?: number; film?: boolean }
  'set': { threads?: string[]; patch?: Fields }
  'set.aside': { threads?: string[] }
  'set.everywhere': { thread?: string; patch?: Fields }
  'shadow.set': { threads?: string[]; patch?: Fields }
  'shape.bend': { threads?: string[]; less?: boolean }
  'shape.set': { threads?: string[]; patch?: Fields }
  'shift.by': {
    threads?: string[]
    dx?: number
    dy?: number
    turn?: number
    size?: number
    opacity?: number
    hue?: number
    light?: number
  }
  'sound.add': { hash?: string; media?: Media | null; use?: string; move?: string }
  'sound.bind': { id?: string; to?: string; move?: string }
  'sound.captions': { shown?: boolean; patch?: Fields }
  'sound.delete': { ids?: string[] }
  'sound.fade': { id?: string; part?: string; by?: number }
  'sound.mix': { patch?: Fields }
  'sound.move': { ids?: string[]; by?: number }
  'sound.percent': { ids?: string[]; percent?: number }
  'sound.replace': { id?: string; hash?: string; media?: Media | null }
  'sound.set': { ids?: string[]; patch?: Fields }
  'sound.speak': { hash?: string; media?: Media | null; spoken?: Spoken | null; id?: string }
  'sound.trim': { id?: string; part?: string; by?: number }
  'spread.apart': { threads?: string[]; percent?: number; gather?: boolean }
  'stage.return': { document?: unknown }
  'strand.set': {
    threads?: string[]
    scene?: string
    turn?: string | null
    turns?: number | null
    easing?: string | null
    delay?: number | null
    arc?: number | null
    wing?: string | null
    letters?: boolean | null
  }
  'stroke.dash': { threads?: string[]; line?: number | null; gap?: number | null }
  'stroke.set': { threads?: string[]; patch?: Fields }
  'table.name': { threads?: string[]; name?: string }
  'template.keep': { }
  'template.use': { id?: string }
  'text.align': { threads?: string[]; align?: string }
  'text.band': { thread?: string; angle?: number }
  'text.family': { threads?: string[]; family?: string; from?: number; to?: number }
  'text.grow': { threads?: string[]; by?: number }
  'text.plate': { threads?: string[]; on?: boolean | null; behind?: string; patch?: Fields }
  'text.ring': { threads?: string[]; on?: boolean }
  'text.room': { threads?: string[]; room?: string }
  'text.split': { threads?: string[]; unit?: string }
  'text.style': { threads?: string[]; patch?: Fields; from?: number; to?: number }
  'text.toggle': { threads?: string[]; what?: string; from?: number; to?: number }
  'text.words': { thread?: string; text?: string }
  'thread.cut': { threads?: string[] }
  'thread.join': { scene?: string; pairs?: Join[] }
  'thread.same': { threads?: string[] }
  'tie': { move?: string; thread?: string }
  'time': {
    tool?: string
    moves?: string[]
    by?: string
    step?: number | null
    ms?: number
  }
  'turn.by': { threads?: string[]; degrees?: number }
  'ungroup': { threads?: string[]; drop?: boolean }
  'untie': { move?: string }
  'view.add': { }
  'view.stops': { threads?: string[]; count?: number }
  'view.whole': { threads?: string[] }
  'view.zoom': { threads?: string[]; zoom?: number }
  'window': { threads?: string[]; all?: boolean }
}
