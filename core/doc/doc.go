// Package doc is the document: one project with its film, scenes, layers and moves, as it is stored,
// sent and edited. docs/format.md describes the same format in words.
//
// Times are whole milliseconds; film rates are fractions; places are page pixels with y down; angles
// are degrees, clockwise, never reduced modulo 360; opacities are 0..1. Documents are values that
// are shared: code that changes one clones what it touches (see Clone) and leaves the rest alone.
package doc

import "encoding/json"

// Version is the format version this package writes.
const Version = 1

// Extra holds fields this version does not know, kept as they came and written back.
type Extra map[string]json.RawMessage

// Project is one document: a film, its insets, and what they use.
type Project struct {
	Version  int               `json:"version"`
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Film     Film              `json:"film"`
	Aside    []*Scene          `json:"aside,omitempty"`  // scenes set aside from the film
	Insets   []*Inset          `json:"insets,omitempty"` // films inside the film
	Sounds   []*Sound          `json:"sounds,omitempty"`
	RoleSets []*RoleSet        `json:"roleSets,omitempty"`
	Media    map[string]*Media `json:"media,omitempty"` // by SHA-256 of the original file, hex
	Extra    Extra             `json:"-"`
}

// Rate is a number of frames a second as an exact fraction.
type Rate struct {
	Num int64 `json:"num"`
	Den int64 `json:"den"`
}

// Film is a list of scenes on pages of one size.
type Film struct {
	Width    int         `json:"width"`  // page px, 16..8192
	Height   int         `json:"height"` // page px, 16..8192
	Rate     Rate        `json:"rate"`
	Loop     bool        `json:"loop,omitempty"`
	Closing  *Transition `json:"closing,omitempty"`  // from the last scene back to the first
	EndPause int64       `json:"endPause,omitempty"` // ms the last frame of a GIF rests
	Scenes   []*Scene    `json:"scenes"`
}

// Inset is a film inside the film, shown by layers of kind inset.
type Inset struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Film Film   `json:"film"`
}

// Scene is one page of a film with what lies on it, back to front.
type Scene struct {
	ID         string            `json:"id"`
	Name       string            `json:"name"`
	Stay       int64             `json:"stay"`               // ms
	AutoStay   bool              `json:"autoStay,omitempty"` // stay follows the moves and words
	Transition Transition        `json:"transition"`         // into this scene; duration 0 in the first
	Background Fill              `json:"background"`
	Roles      map[string]string `json:"roles,omitempty"` // colour roles: name to #rrggbb
	Cues       []Cue             `json:"cues,omitempty"`
	EndsAtCue  string            `json:"endsAtCue,omitempty"`
	Guides     []Guide           `json:"guides,omitempty"`
	Layers     []*Layer          `json:"layers"`
	Extra      Extra             `json:"-"`
}

// Transition kinds.
const (
	Cut       = "cut"
	Crossfade = "crossfade"
	Morph     = "morph"
)

// Transition is the way into a scene.
type Transition struct {
	Kind     string `json:"kind"`               // cut, crossfade, morph
	Duration int64  `json:"duration,omitempty"` // ms; 0 for a cut
	Easing   string `json:"easing,omitempty"`   // CSS easing; empty: ease-in-out
}

// Cue is a named moment of a scene where a presenter may be waited for.
type Cue struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	At   int64  `json:"at"`             // ms on the scene's clock
	Wait int64  `json:"wait,omitempty"` // ms
}

// Guide is a line that layers snap to; it is never exported.
type Guide struct {
	Axis string  `json:"axis"` // upright or level
	At   float64 `json:"at"`   // page px
}

// RoleSet is a saved set of colour roles.
type RoleSet struct {
	ID    string            `json:"id"`
	Name  string            `json:"name"`
	Roles map[string]string `json:"roles"`
}

// Sound is a stretch of audio on the film's or a scene's clock.
type Sound struct {
	ID     string  `json:"id"`
	Name   string  `json:"name"`
	Media  string  `json:"media"`
	Scene  string  `json:"scene,omitempty"` // empty: bound to the film's clock
	At     int64   `json:"at"`              // ms
	From   int64   `json:"from,omitempty"`  // ms into the recording
	Length int64   `json:"length,omitempty"`
	Gain   float64 `json:"gain,omitempty"` // dB
}

// Media says what an imported file is; its bytes live beside the document.
type Media struct {
	Name   string `json:"name"`             // as the person called it
	Type   string `json:"type"`             // media type of the original, such as image/png
	Bytes  int64  `json:"bytes"`            // size of the original
	Width  int    `json:"width,omitempty"`  // px, upright
	Height int    `json:"height,omitempty"` // px, upright
	Opaque bool   `json:"opaque,omitempty"` // no pixel lets the ground through
}

// Layer kinds.
const (
	Group     = "group"
	Rectangle = "rectangle"
	Ellipse   = "ellipse"
	PathKind  = "path"
	TextKind  = "text"
	Picture   = "picture"
	InsetKind = "inset"
)

// Layer is one thing on a page. Its identity across scenes is its thread.
type Layer struct {
	ID       string      `json:"id"`
	Thread   string      `json:"thread"`
	Name     string      `json:"name"`
	Kind     string      `json:"kind"`
	Place    Place       `json:"place"`
	Opacity  float64     `json:"opacity"`
	Fill     Fill        `json:"fill"`
	Corner   float64     `json:"corner,omitempty"` // px, rectangles and pictures
	Path     string      `json:"path,omitempty"`   // SVG path data in the layer's own axes
	Text     *Text       `json:"text,omitempty"`
	Picture  *PictureUse `json:"picture,omitempty"`
	Inset    *InsetUse   `json:"inset,omitempty"`
	Tint     int         `json:"tint,omitempty"` // 0..7, the row's colour in the timeline
	Locked   bool        `json:"locked,omitempty"`
	Hidden   bool        `json:"hidden,omitempty"`
	Moves    []*Move     `json:"moves,omitempty"`
	Children []*Layer    `json:"children,omitempty"`
	Extra    Extra       `json:"-"`
}

// Place says where a layer rests, in its parent's axes. The origin (X, Y) is the centre of shapes
// and pictures. Text hangs from its origin: the origin is the middle of its upper edge, or the
// upper corner it is aligned to. A group's origin is where its children's coordinates begin.
type Place struct {
	X     float64     `json:"x"`
	Y     float64     `json:"y"`
	W     float64     `json:"w,omitempty"`
	H     float64     `json:"h,omitempty"`
	Turn  float64     `json:"turn,omitempty"`
	FlipX bool        `json:"flipX,omitempty"`
	FlipY bool        `json:"flipY,omitempty"`
	Pivot *[2]float64 `json:"pivot,omitempty"` // in the layer's own axes; default: middle of its box
}

// Fill kinds.
const (
	NoFill = "none"
	Solid  = "colour"
)

// Fill is what a shape is filled with.
type Fill struct {
	Kind   string `json:"kind"`             // none or colour
	Colour string `json:"colour,omitempty"` // #rrggbb or #rrggbbaa
	Role   string `json:"role,omitempty"`   // a colour role of the scene, before Colour
}

// Text alignments.
const (
	Left   = "left"
	Centre = "centre"
	Right  = "right"
)

// Text is the words of a layer and how they are set.
type Text struct {
	Runs          []Run   `json:"runs"`
	Align         string  `json:"align"`                   // left, centre, right
	Wrap          bool    `json:"wrap,omitempty"`          // break lines at the width of the place
	LineHeight    float64 `json:"lineHeight,omitempty"`    // in sizes; 0: the family's own
	LetterSpacing float64 `json:"letterSpacing,omitempty"` // px
}

// Run is a stretch of text in one setting. Line ends are \n.
type Run struct {
	Text   string  `json:"text"`
	Family string  `json:"family"`
	Weight int     `json:"weight"` // 100..900
	Italic bool    `json:"italic,omitempty"`
	Size   float64 `json:"size"`             // px
	Colour string  `json:"colour,omitempty"` // empty: the layer's fill
}

// PictureUse shows an imported picture, or the part of it given by Crop.
type PictureUse struct {
	Media string      `json:"media"`
	Crop  *[4]float64 `json:"crop,omitempty"` // left, top, right, bottom in shares 0..1
}

// InsetUse plays an inset.
type InsetUse struct {
	Inset string  `json:"inset"`
	Start int64   `json:"start,omitempty"` // ms on the scene's clock
	Speed float64 `json:"speed,omitempty"` // 0 counts as 1
	Mode  string  `json:"mode,omitempty"`  // loop, there-and-back, stop
}

// Move kinds.
const (
	Entrance   = "entrance"
	Exit       = "exit"
	Loop       = "loop"
	MotionPath = "path"
	Change     = "change"
)

// Effects of this version.
const (
	AtOnce = "at-once"
	Fade   = "fade"
	Spin   = "spin"
	Along  = "along" // the only effect of a motion path
)

// Move is one thing a layer does in time.
type Move struct {
	ID        string      `json:"id"`
	Kind      string      `json:"kind"`
	Effect    string      `json:"effect"`
	Start     Start       `json:"start"`
	End       *Anchor     `json:"end,omitempty"` // live end; the begin is solved for
	Duration  int64       `json:"duration,omitempty"`
	Lasts     string      `json:"lasts,omitempty"`  // "" or scene: as long as the scene, also through transitions
	Easing    string      `json:"easing,omitempty"` // CSS easing; empty: the effect's own
	Repeat    float64     `json:"repeat,omitempty"` // passes; 0 counts as 1
	Until     string      `json:"until,omitempty"`  // repeats until this move begins
	Alternate bool        `json:"alternate,omitempty"`
	Continues string      `json:"continues,omitempty"` // the loop of the scene before that this one goes on
	Path      *PathParams `json:"path,omitempty"`
	Spin      *SpinParams `json:"spin,omitempty"`
	Extra     Extra       `json:"-"`
}

// Start kinds.
const (
	AtTime         = "at"
	WhenBegins     = "begins"
	WhenEnds       = "ends"
	BeforeSceneEnd = "scene-end"
	AtCue          = "cue"
)

// Start says when a move begins.
type Start struct {
	When   string `json:"when"`             // at, begins, ends, scene-end, cue
	Of     string `json:"of,omitempty"`     // the move or cue it hangs on
	Offset int64  `json:"offset,omitempty"` // ms, added; for at the time itself; before scene-end it counts back
}

// Anchor says what a live end hangs on.
type Anchor struct {
	When string `json:"when"` // begins, ends, scene-end
	Of   string `json:"of,omitempty"`
}

// Rest rules of a motion path.
const (
	Departs = "departs"
	Arrives = "arrives"
	Passes  = "passes"
)

// PathParams is the line of a motion path, in page px relative to the rest pose.
type PathParams struct {
	D         string  `json:"d"`              // SVG path data
	Rest      string  `json:"rest,omitempty"` // departs (default), arrives, passes
	Share     float64 `json:"share,omitempty"`
	TurnAlong bool    `json:"turnAlong,omitempty"`
}

// SpinParams is the sense of a spin; its duration is one whole turn.
type SpinParams struct {
	Anticlockwise bool `json:"anticlockwise,omitempty"`
}
