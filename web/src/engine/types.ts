// What the engine and the server answer with. The Go structs of the same names say what each field means.

export interface Moment { rest: boolean; scene: number; time: number }

export interface Stop { at: number; colour: string; role?: string; tone?: number }

export interface Fill {
  kind: 'none' | 'colour' | 'linear' | 'radial' | 'picture' | 'texture'; colour?: string; role?: string; tone?: number; media?: string; size?: number
  gradient?: { from: XY; to: XY; focus?: XY; stops: Stop[] }
}

export interface Stroke {
  fill: Fill; width: number; side?: 'inside' | 'outside'; cap?: string; join?: string; miterLimit?: number; dash?: number[]; dashOffset?: number; startHead?: string; endHead?: string; trim?: XY
}

export interface Shadow { x: number; y: number; blur?: number; colour: string; role?: string; tone?: number }

export interface Glow { blur: number; colour: string; role?: string; tone?: number }

export type TransitionKind = 'cut' | 'crossfade' | 'morph' | 'wipe' | 'push'

/** A cue; passed is when, in ms of the film. */
export interface Flag { id: string; name: string; at: number; wait?: number; passed: number }

export interface Heading {
  id: string; name: string; start: number; into: number; stay: number; autoStay: boolean
  transition: TransitionKind; easing: string; direction: number; softness: number; goesOn: boolean; mayGoOn: boolean; run: number
  background: Fill; roles: { name: string; colour: string; uses: number }[]; layers: number; cues: Flag[]; endsAtCue: string; guides: { axis: 'upright' | 'level'; at: number }[]
  aside: boolean
}

export interface Film {
  project: string; name: string; width: number; height: number; rate: { num: number; den: number }
  length: number; frames: number; loop: boolean
  closing: { kind: TransitionKind; duration?: number; easing?: string; direction?: number; softness?: number; goesOn?: boolean; begin: number } | null
  scenes: Heading[]
  shown: number
  fonts: OwnFont[]
  palette: string[]; looks: SavedLook[]; roleSets: { id: string; name: string; roles: Record<string, string> }[]
}

export interface SavedLook { id: string; name: string; look: Partial<Layer> }

export interface Span { scene: number; begin: number; end: number; strand: boolean; layer: string; by?: number }

/** How a thread goes through one morph. */
export interface Strand { scene: string; from: string; to: string; closing: boolean; turn: '' | 'numbered' | 'short' | 'clockwise' | 'anticlockwise'; turns: number; by: number }

export interface Bar {
  move: string; layer: string; scene: number; kind: string; name: string; words: string; lane: number
  begin: number; end: number; cut: number; whole: boolean; cycle: number; phase: number
  of: string; when: string; endOf: string; endWhen: string; cue: string; run: string; early: boolean
  profile: string
}

/** A move that another may hang on; why says why not. */
export interface Target { move: string; name: string; why: string }

/** Where dragged bars come to lie, and on what. */
export interface Snap { by: number; at: number; words: string; part: '' | 'begin' | 'end'; when: string; of: string }

export interface Ghost { time: number; corners: [XY, XY, XY, XY] }

/** What a layer is to those it lies with in a group. */
export type Mask = 'inside' | 'outside'

export interface Row {
  thread: string; layer: string; name: string; kind: string; tint: number; depth: number; group: boolean; parent: string
  here: boolean; locked: boolean; hidden: boolean; mask: Mask | ''; spans: Span[]; bars: Bar[]
}

export interface Run { text: string; family: string; weight: number; italic?: boolean; size: number; colour?: string; case?: 'upper' | 'lower' | 'title'; raise?: 'super' | 'sub' }

/** What is laid behind the words of a text. */
export interface Plate { colour: string; role?: string; tone?: number; padding?: number; corner?: number; whole?: boolean }

/** A circle that a text is set on. */
export interface TextRing { radius: number; start: number; share?: number; inside?: boolean; flip?: boolean }

export interface Layer {
  id: string; thread: string; name: string; kind: string
  place: { x: number; y: number; w?: number; h?: number; turn?: number; pivot?: XY }
  opacity: number; fill: Fill; picture?: { media: string }; stroke?: Stroke; blend?: string; blur?: number; feather?: number; shadow?: Shadow; glow?: Glow; marker?: { style: 'dots' | 'bars' | 'count' }; corner?: number; shape?: Shape; tint?: number; locked?: boolean; hidden?: boolean; mask?: Mask
  text?: { runs: Run[]; align: 'left' | 'centre' | 'right' | 'justified'; wrap?: boolean; room?: 'fixed' | 'fit'; stand?: 'middle' | 'bottom'; lineHeight?: number; letterSpacing?: number; stacked?: boolean; ring?: TextRing; plate?: Plate }
}

export interface Move {
  id: string; kind: 'entrance' | 'exit' | 'loop' | 'path'; effect: string
  start: { when: string; of?: string; offset?: number }
  end?: { when: string; of?: string; stretches?: boolean }
  duration?: number; lasts?: string; keeps?: string; easing?: string; repeat?: number; until?: string; alternate?: boolean; continues?: string
  unit?: string; order?: string; overlap?: number; seed?: number; from?: XY; back?: boolean
  path?: { d: string; rest?: string; share?: number; turnAlong?: boolean }
  spin?: { anticlockwise?: boolean }
  wipe?: { direction?: number; softness?: number }
  slide?: { direction?: number; distance?: number }
  rock?: { angle: number; phase?: number }
  scroll?: { direction?: number; speed: number; gap?: number }
  name: string; words: string; begin: number; finish: number; film: number; cut: number; early: boolean; easingUsed: string; speed: number
  reach?: [number, number]; rounds?: [number, number]; profile: number[]; units: string[]; before: string
}

export interface Selected {
  layer: Layer; count: number; moves: Move[]; box: [number, number, number, number]; refs: XY[]
  now: [number, number, number] | null; pivot: XY; in: string; later: number; strands: Strand[]; colours: string[]; bares: boolean; kept: string[]; made: string; missing: string; fit: { scale: number; over: number } | null; contrast: { ratio: number; words: string; fix: string } | null; closed: boolean; unites: boolean; grounds: boolean
}

export type XY = [number, number]

export interface OverlayBox { thread: string; kind: string; corners: [XY, XY, XY, XY]; pivot: XY; own: boolean; turn: number; locked: boolean }

export interface OverlayPath {
  move: string; d: string; from: XY; to: XY; mid: XY; angle: number; begin: number; end: number; dots: XY[]; ghost: [XY, XY, XY, XY]
  knots: { at: XY; index: number; handle: boolean; of: XY }[]
}

/** A gradient as it lies on the page. */
export interface GradientLine { radial: boolean; from: XY; to: XY; focus: XY; rim: XY[]; stops: { at: XY; colour: string }[] }

/** A handle of a shape's number. */
export interface Ring { id: string; name: string; value: string; at: XY }

/** A kind of shape with its name and outline. */
export interface ShapeSign { kind: string; name: string; d: string }

export interface Shape {
  corners?: [number, number, number, number]; hole?: number; start?: number; sweep?: number; open?: boolean; count?: number; depth?: number
  thickness?: number; head?: number; heads?: 'start' | 'both'; tip?: XY; base?: number; bends?: XY[]
}

/** A point of a drawn path, or a handle of one. */
export interface Dot { id: string; at: XY; handle: boolean; of: XY; smooth: boolean }

/** What the pen has drawn so far. */
export interface PenView { d: string; next: string; knots: Dot[]; closes: boolean; done: boolean; words: string }

/** What a press among the words selects. */
export type WritingUnit = 'letter' | 'word' | 'line'

/** A caret and what is marked of a text, in page px. */
export interface WritingView { caret: [XY, XY]; marked: [XY, XY, XY, XY][]; frame: [XY, XY, XY, XY] }

/** What is known of combining layers before it is done. */
export interface Combining { drops: string; outlines: string; heavy: boolean }

export interface Overlay { boxes: OverlayBox[]; around?: OverlayBox; paths: OverlayPath[]; gradient?: GradientLine; rings: Ring[] }

/** A display list: codes and numbers as documented at the Op constants of core/frame. */
export interface List { width: number; height: number; codes: Uint32Array; numbers: Float64Array; box?: [number, number, number, number] }

export interface Family { name: string; kind: string; weights: number[]; italics?: number[]; sample?: string }

/** A font file of the project's own; one that stays may not be handed on. */
export interface OwnFont { hash: string; family: string; weight: number; italic: boolean; stays: boolean }

export interface FontFile { family: string; weight: number; italic?: boolean; file: string }

export interface ProjectRow {
  id: string; name: string; width: number; height: number; length: number; revision: number; createdAt: string; updatedAt: string; binnedAt?: string
}

export interface Export {
  id: string; project: string; name: string; format: 'mp4' | 'gif' | 'png'; at: number; width: number; height: number; rateNum: number; rateDen: number
  once: boolean; endPause: number; state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled'; frames: number; framesDone: number; bytes: number
  message: string; createdAt: string; endedAt: string
}
