// Package doc is the document: one project with its film, scenes, layers and moves, as it is stored,
// sent and edited. docs/format.md describes the same format in words.
//
// Times are whole milliseconds; film rates are fractions; places are page pixels with y down; angles
// are degrees, clockwise, never reduced modulo 360; opacities are 0..1. Documents are values that
// are shared: code that changes one clones what it touches (see Clone) and leaves the rest alone.
package doc

import (
	"strings"

	"github.com/go-json-experiment/json/jsontext"
)

// Version is the format version this package writes.
const Version = 1

// Extra holds fields this version does not know, kept as they came and written back.
type Extra map[string]jsontext.Value

// Project is one document: a film, its insets, and what they use.
type Project struct {
	Version  int               `json:"version"`
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Film     Film              `json:"film"`
	Insets   []*Inset          `json:"insets,omitzero"` // films inside the film
	Sounds   []*Sound          `json:"sounds,omitzero"`
	RoleSets []*RoleSet        `json:"roleSets,omitzero"`
	Palette  []string          `json:"palette,omitzero"` // colours that were put aside, at most 64
	Looks    []*SavedLook      `json:"looks,omitzero"`   // looks that were put aside, at most 64
	Media    map[string]*Media `json:"media,omitzero"`   // by SHA-256 of the original file, hex
	Extra    Extra             `json:",unknown"`
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
	Loop     bool        `json:"loop,omitzero"`
	Closing  *Transition `json:"closing,omitzero"`  // from the last scene back to the first
	EndPause int64       `json:"endPause,omitzero"` // ms the last frame of a GIF rests
	Scenes   []*Scene    `json:"scenes"`            // in their order; those set aside follow
}

// Shown returns the scenes that are in the film: all but those set aside.
func (f *Film) Shown() []*Scene {
	for i, s := range f.Scenes {
		if s.Aside {
			return f.Scenes[:i]
		}
	}
	return f.Scenes
}

// After returns the scenes of the film that follow scene i; none follow one that is set aside.
func (f *Film) After(i int) []*Scene {
	shown := f.Shown()
	return shown[min(i+1, len(shown)):]
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
	Stay       int64             `json:"stay"`              // ms
	AutoStay   bool              `json:"autoStay,omitzero"` // stay follows the moves and words
	Transition Transition        `json:"transition"`        // into this scene; duration 0 in the first
	Background Fill              `json:"background"`
	Roles      map[string]string `json:"roles,omitzero"` // colour roles: name to #rrggbb
	Cues       []Cue             `json:"cues,omitzero"`
	EndsAtCue  string            `json:"endsAtCue,omitzero"` // the scene stays until this cue is passed
	Runs       []MoveRun         `json:"runs,omitzero"`
	Guides     []Guide           `json:"guides,omitzero"`
	Aside      bool              `json:"aside,omitzero"` // it is not in the film; layers lie there until they are wanted
	Layers     []*Layer          `json:"layers"`
	Extra      Extra             `json:",unknown"`
}

// Transition kinds. A wipe over the page is a transition, over a layer an entrance or exit.
const (
	Cut       = "cut"
	Crossfade = "crossfade"
	Morph     = "morph"
	Wipe      = "wipe"
	Push      = "push"
)

// Transition is the way into a scene.
type Transition struct {
	Kind      string  `json:"kind"`               // cut, crossfade, morph, wipe, push
	Duration  int64   `json:"duration,omitzero"`  // ms; 0 for a cut
	Easing    string  `json:"easing,omitzero"`    // CSS easing; empty: ease-in-out
	Direction float64 `json:"direction,omitzero"` // of travel of a wipe or push, degrees clockwise, 0 to the right
	Softness  float64 `json:"softness,omitzero"`  // px of a wipe's edge
	GoesOn    bool    `json:"goesOn,omitzero"`    // a morph that goes on the run of the morph before, in its easing
}

// MoveRun is an ordered list of moves of a scene: each but the first hangs on the one before it, and its offset is
// the gap. Dragging one past another changes the order; the gaps stay where they are.
type MoveRun struct {
	ID    string   `json:"id"`
	When  string   `json:"when"` // ends: one after another; begins: a cascade
	Moves []string `json:"moves"`
}

// Cue is a named moment of a scene where a presenter may be waited for.
type Cue struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	At   int64  `json:"at"`            // ms on the scene's clock
	Wait int64  `json:"wait,omitzero"` // ms
}

// Axes of guides.
const (
	Upright = "upright"
	Level   = "level"
)

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
	Scene  string  `json:"scene,omitzero"` // empty: bound to the film's clock
	At     int64   `json:"at"`             // ms
	From   int64   `json:"from,omitzero"`  // ms into the recording
	Length int64   `json:"length,omitzero"`
	Gain   float64 `json:"gain,omitzero"` // dB
}

// Media says what an imported file is; its bytes live beside the document.
type Media struct {
	Name   string `json:"name"`            // as the person called it
	Type   string `json:"type"`            // media type of the original, such as image/png
	Bytes  int64  `json:"bytes"`           // size of the original
	Width  int    `json:"width,omitzero"`  // px, upright
	Height int    `json:"height,omitzero"` // px, upright
	Opaque bool   `json:"opaque,omitzero"` // no pixel lets the ground through

	// Of fonts, whose type is font/ttf or font/otf.
	Family string `json:"family,omitzero"`
	Weight int    `json:"weight,omitzero"` // 1..1000
	Italic bool   `json:"italic,omitzero"`
	Stays  bool   `json:"stays,omitzero"` // it may not be handed on in a bundle
}

// IsFont reports whether the file is a font.
func (m *Media) IsFont() bool { return strings.HasPrefix(m.Type, "font/") }

// Layer kinds.
const (
	Group      = "group"
	Rectangle  = "rectangle"
	Ellipse    = "ellipse"
	PathKind   = "path"
	TextKind   = "text"
	Picture    = "picture"
	InsetKind  = "inset"
	MarkerKind = "marker"
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
	Stroke   *Stroke     `json:"stroke,omitzero"`  // shapes, paths and texts
	Blend    string      `json:"blend,omitzero"`   // with what lies under it; empty: normal
	Blur     float64     `json:"blur,omitzero"`    // px, deviation of a Gaussian
	Feather  float64     `json:"feather,omitzero"` // px over which its border fades, inwards
	Shadow   *Shadow     `json:"shadow,omitzero"`
	Glow     *Glow       `json:"glow,omitzero"`
	Corner   float64     `json:"corner,omitzero"` // px, pictures and shapes with corners
	Mask     string      `json:"mask,omitzero"`   // of a layer in a group: it is not painted, and the others show inside or outside of it
	Shape    *Shape      `json:"shape,omitzero"`  // of shapes: what is not by default
	Path     string      `json:"path,omitzero"`   // SVG path data in the layer's own axes
	Text     *Text       `json:"text,omitzero"`
	Picture  *PictureUse `json:"picture,omitzero"`
	Marker   *Marker     `json:"marker,omitzero"`
	Made     *Made       `json:"made,omitzero"` // of a path or picture that was made of other layers
	Inset    *InsetUse   `json:"inset,omitzero"`
	Tint     int         `json:"tint,omitzero"` // 0..7, the row's colour in the timeline
	Locked   bool        `json:"locked,omitzero"`
	Hidden   bool        `json:"hidden,omitzero"`
	Moves    []*Move     `json:"moves,omitzero"`
	Children []*Layer    `json:"children,omitzero"`
	Extra    Extra       `json:",unknown"`
}

// Place says where a layer rests, in its parent's axes. The origin (X, Y) is the centre of shapes
// and pictures. Text hangs from its origin: the origin is the middle of its upper edge, or the
// upper corner it is aligned to. A group's origin is where its children's coordinates begin.
type Place struct {
	X     float64     `json:"x"`
	Y     float64     `json:"y"`
	W     float64     `json:"w,omitzero"`
	H     float64     `json:"h,omitzero"`
	Turn  float64     `json:"turn,omitzero"`
	FlipX bool        `json:"flipX,omitzero"`
	FlipY bool        `json:"flipY,omitzero"`
	Pivot *[2]float64 `json:"pivot,omitzero"` // in the layer's own axes; default: middle of its box
}

// Fill kinds.
const (
	NoFill      = "none"
	Solid       = "colour"
	Linear      = "linear"
	Radial      = "radial"
	PictureFill = "picture" // a picture that covers the box
	Texture     = "texture" // a picture that is laid side by side without a seam
)

// Fill is what a shape is filled with.
type Fill struct {
	Kind     string    `json:"kind"`              // none, colour, linear, radial, picture, texture
	Colour   string    `json:"colour,omitzero"`   // #rrggbb or #rrggbbaa
	Role     string    `json:"role,omitzero"`     // a colour role of the scene, before Colour
	Tone     int       `json:"tone,omitzero"`     // -5..5: steps darker or lighter than the role
	Gradient *Gradient `json:"gradient,omitzero"` // of linear and radial fills
	Media    string    `json:"media,omitzero"`    // of pictures and textures
	Size     float64   `json:"size,omitzero"`     // of a texture: width of a tile in px; 0: as many as the picture has
}

// Graded reports whether the fill is a gradient.
func (f *Fill) Graded() bool { return f.Kind == Linear || f.Kind == Radial }

// Gradient runs through colours. Its points are shares of the layer's box, 0 at the left or top, 1 at the right or bottom; they
// may lie outside. Distances are those on the layer: a radial gradient is round, whatever its box.
type Gradient struct {
	From  [2]float64  `json:"from"`           // where it begins; the middle of a radial one
	To    [2]float64  `json:"to"`             // where it ends; on the rim of a radial one
	Focus *[2]float64 `json:"focus,omitzero"` // of a radial one: where its first colour is; default: its middle
	Stops []Stop      `json:"stops"`          // 2 to 32
}

// Stop is a colour of a gradient.
type Stop struct {
	At     float64 `json:"at"` // 0..1, not below the one before
	Colour string  `json:"colour"`
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Sides of a stroke, whose empty side is the middle, and of a mask.
const (
	Inside  = "inside"
	Outside = "outside"
)

// Stroke is a line along the outline of a shape, path or text.
type Stroke struct {
	Fill       Fill      `json:"fill"`
	Width      float64   `json:"width"`               // px
	Side       string    `json:"side,omitzero"`       // "", inside, outside
	Cap        string    `json:"cap,omitzero"`        // "": butt, round, square
	Join       string    `json:"join,omitzero"`       // "": miter, round, bevel
	MiterLimit float64   `json:"miterLimit,omitzero"` // miter length in widths; 0: 4
	Dash       []float64 `json:"dash,omitzero"`       // dashes and gaps in turn, px
	DashOffset float64   `json:"dashOffset,omitzero"` // px into the pattern
	StartHead  string    `json:"startHead,omitzero"`  // of open lines: "", triangle, open, dot, bar
	EndHead    string    `json:"endHead,omitzero"`

	Trim *[2]float64 `json:"trim,omitzero"` // shares of the line's length, 0..1, between which it is drawn
}

// Shadow is cast by a layer. It falls the same way on the page however the layer is turned.
type Shadow struct {
	X      float64 `json:"x"`             // px to the right
	Y      float64 `json:"y"`             // px down
	Blur   float64 `json:"blur,omitzero"` // px, deviation of a Gaussian
	Colour string  `json:"colour"`        // #rrggbb or #rrggbbaa
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Glow is light around a layer.
type Glow struct {
	Blur   float64 `json:"blur"`          // px, deviation of a Gaussian
	Colour string  `json:"colour"`        // #rrggbb or #rrggbbaa
	Role   string  `json:"role,omitzero"` // a colour role of the scene, before Colour
	Tone   int     `json:"tone,omitzero"` // -5..5: steps darker or lighter than the role
}

// Look is how a layer is painted, whatever it shows.
type Look struct {
	Fill    Fill    `json:"fill"`
	Stroke  *Stroke `json:"stroke,omitzero"`
	Opacity float64 `json:"opacity"`
	Blend   string  `json:"blend,omitzero"`
	Blur    float64 `json:"blur,omitzero"`
	Feather float64 `json:"feather,omitzero"`
	Shadow  *Shadow `json:"shadow,omitzero"`
	Glow    *Glow   `json:"glow,omitzero"`
	Corner  float64 `json:"corner,omitzero"`
}

// SavedLook is a look that was put aside under a name.
type SavedLook struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Look Look   `json:"look"`
}

// Styles of markers.
const (
	Dots  = "dots"
	Bars  = "bars"
	Count = "count" // "2 of 4"
)

// Marker says which scene this is among those its thread lives in.
type Marker struct {
	Style string `json:"style"` // dots, bars, count
}

// Text alignments. Justified lines that are broken fill the width; the last of a paragraph is as if aligned left.
const (
	Left      = "left"
	Centre    = "centre"
	Right     = "right"
	Justified = "justified"
)

// Cases that a run may be set in besides its own. Title: every word begins large.
const (
	UpperCase = "upper"
	LowerCase = "lower"
	TitleCase = "title"
)

// Raised and lowered runs are smaller, as in superscripts and subscripts.
const (
	Super = "super"
	Sub   = "sub"
)

// Text is the words of a layer and how they are set.
type Text struct {
	Runs          []Run     `json:"runs"`
	Align         string    `json:"align"`                  // left, centre, right, justified
	Wrap          bool      `json:"wrap,omitzero"`          // break lines at the width of the place
	LineHeight    float64   `json:"lineHeight,omitzero"`    // in sizes; 0: the family's own
	LetterSpacing float64   `json:"letterSpacing,omitzero"` // px
	Room          string    `json:"room,omitzero"`          // of a text that wraps: fixed, fit; empty: its box is as high as its lines
	Stand         string    `json:"stand,omitzero"`         // of its lines in a box of fixed height: middle, bottom; empty: from the top
	Stacked       bool      `json:"stacked,omitzero"`       // letters one below another
	Ring          *TextRing `json:"ring,omitzero"`          // set on a circle about the layer's origin
	Plate         *Plate    `json:"plate,omitzero"`
}

// Wraps reports whether lines break at the width of the place: letters that are stacked, or stand on a ring, do not.
func (t *Text) Wraps() bool { return t.Wrap && t.Ring == nil && !t.Stacked }

// Rooms of a text whose box has a height of its own: that of its place. In a fit room sizes and the space between letters are scaled
// so that the lines fill it.
const (
	FixedRoom = "fixed"
	FitRoom   = "fit"
)

// Places of lines in a box of fixed height.
const (
	Middle = "middle"
	Bottom = "bottom"
)

// Plate is laid behind the words of a text.
type Plate struct {
	Colour  string  `json:"colour"` // #rrggbb or #rrggbbaa
	Role    string  `json:"role,omitzero"`
	Tone    int     `json:"tone,omitzero"`
	Padding float64 `json:"padding,omitzero"` // px on all sides
	Corner  float64 `json:"corner,omitzero"`  // px
	Whole   bool    `json:"whole,omitzero"`   // one plate; else one for each line
}

// TextRing is a circle that a text is set on.
type TextRing struct {
	Radius float64 `json:"radius"`          // px
	Start  float64 `json:"start"`           // degrees clockwise from the right, where the text begins, has its middle or ends, as it is aligned
	Share  float64 `json:"share,omitzero"`  // 0..1 of the circle that the text fills by spacing its letters; 0: as they come
	Inside bool    `json:"inside,omitzero"` // letters stand within the circle
	Flip   bool    `json:"flip,omitzero"`   // they run the other way round, their feet outwards, so that they stand upright below
}

// Run is a stretch of text in one setting. Line ends are \n.
type Run struct {
	Text   string  `json:"text"`
	Family string  `json:"family"`
	Weight int     `json:"weight"` // 100..900
	Italic bool    `json:"italic,omitzero"`
	Size   float64 `json:"size"`            // px
	Colour string  `json:"colour,omitzero"` // empty: the layer's fill
	Case   string  `json:"case,omitzero"`   // upper, lower, title; empty: as it is written
	Raise  string  `json:"raise,omitzero"`  // super, sub
}

// PictureUse shows an imported picture, or the part of it given by Crop.
type PictureUse struct {
	Media string      `json:"media"`
	Crop  *[4]float64 `json:"crop,omitzero"` // left, top, right, bottom in shares 0..1
}

// InsetUse plays an inset.
type InsetUse struct {
	Inset string  `json:"inset"`
	Start int64   `json:"start,omitzero"` // ms on the scene's clock
	Speed float64 `json:"speed,omitzero"` // 0 counts as 1
	Mode  string  `json:"mode,omitzero"`  // loop, there-and-back, stop
}

// Move kinds.
const (
	Entrance   = "entrance"
	Exit       = "exit"
	Loop       = "loop"
	MotionPath = "path"
	Change     = "change"
)

// Effects of this version, with Wipe.
const (
	AtOnce = "at-once"
	Fade   = "fade"
	Slide  = "slide"
	Spin   = "spin"
	Rock   = "rock"
	Scroll = "scroll"
	Along  = "along" // the only effect of a motion path
)

// What a move lasts as long as, instead of its own duration.
const (
	WholeScene  = "scene"
	WholeThread = "thread" // from the first scene of the thread's run of scenes to its last
)

// Units of an entrance, exit or sine loop. The empty unit is the whole layer.
const (
	ByLine   = "line"
	ByWord   = "word"
	ByLetter = "letter"
	ByPart   = "part" // children of a group
)

// Orders of units. The empty order is forwards.
const (
	Backwards  = "backwards"
	FromMiddle = "middle"
	Shuffled   = "shuffled"
)

// Move is one thing a layer does in time.
type Move struct {
	ID        string  `json:"id"`
	Kind      string  `json:"kind"`
	Effect    string  `json:"effect"`
	Start     Start   `json:"start"`
	End       *Anchor `json:"end,omitzero"` // live end; the begin is solved for
	Duration  int64   `json:"duration,omitzero"`
	Lasts     string  `json:"lasts,omitzero"`  // "", scene or thread; loops go on through transitions
	Keeps     string  `json:"keeps,omitzero"`  // of a path that lasts the scene: "" its distance, or speed
	Easing    string  `json:"easing,omitzero"` // CSS easing; empty: the effect's own
	Repeat    float64 `json:"repeat,omitzero"` // passes; 0 counts as 1
	Until     string  `json:"until,omitzero"`  // repeats until this move begins
	Alternate bool    `json:"alternate,omitzero"`
	Continues string  `json:"continues,omitzero"` // the loop of the scene before that this one goes on
	Unit      string  `json:"unit,omitzero"`      // "", line, word, letter, part
	Order     string  `json:"order,omitzero"`     // of the units: "", backwards, middle, shuffled
	Overlap   float64 `json:"overlap,omitzero"`   // of neighbouring units, 0..1
	Seed      int64   `json:"seed,omitzero"`      // of the shuffled order
	Back      bool    `json:"back,omitzero"`      // an exit: back the way it came, instead of on through

	Path   *PathParams   `json:"path,omitzero"`
	Spin   *SpinParams   `json:"spin,omitzero"`
	Wipe   *WipeParams   `json:"wipe,omitzero"`
	Slide  *SlideParams  `json:"slide,omitzero"`
	Rock   *RockParams   `json:"rock,omitzero"`
	Scroll *ScrollParams `json:"scroll,omitzero"`
	Extra  Extra         `json:",unknown"`
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
	When   string `json:"when"`            // at, begins, ends, scene-end, cue
	Of     string `json:"of,omitzero"`     // the move or cue it hangs on
	Offset int64  `json:"offset,omitzero"` // ms, added; for at the time itself; before scene-end it counts back
}

// Anchor says what a live end hangs on.
type Anchor struct {
	When      string `json:"when"` // begins, ends, scene-end
	Of        string `json:"of,omitzero"`
	Stretches bool   `json:"stretches,omitzero"` // the start stays, and the duration is solved for
}

// Rest rules of a motion path.
const (
	Departs = "departs"
	Arrives = "arrives"
	Passes  = "passes"
)

// PathParams is the line of a motion path, in page px relative to the rest pose.
type PathParams struct {
	D         string  `json:"d"`             // SVG path data
	Rest      string  `json:"rest,omitzero"` // departs (default), arrives, passes
	Share     float64 `json:"share,omitzero"`
	TurnAlong bool    `json:"turnAlong,omitzero"`
}

// RestShare returns where on the line the rest pose lies, as a share of its length.
func (p *PathParams) RestShare() float64 {
	switch p.Rest {
	case Arrives:
		return 1
	case Passes:
		return p.Share
	}
	return 0
}

// SpinParams is the sense of a spin; its duration is one whole turn.
type SpinParams struct {
	Anticlockwise bool `json:"anticlockwise,omitzero"`
}

// WipeParams are the direction and the edge of a wipe.
type WipeParams struct {
	Direction float64 `json:"direction,omitzero"` // of travel in the layer's axes, degrees clockwise, 0 to the right
	Softness  float64 `json:"softness,omitzero"`  // px
}

// SlideParams say how far a slide travels.
type SlideParams struct {
	Direction float64 `json:"direction,omitzero"` // of travel in the parent's axes, degrees clockwise, 0 to the right
	Distance  float64 `json:"distance,omitzero"`  // px, with a fade; 0: just off the page, without one
}

// RockParams are the strength of a rock; its duration is one cycle.
type RockParams struct {
	Angle float64 `json:"angle"` // degrees to either side
}

// ScrollParams say how a layer repeats itself along one of its own axes. The move's duration, where it does not last the
// whole scene, is how long it runs.
type ScrollParams struct {
	Direction float64 `json:"direction,omitzero"` // 0, 90, 180 or 270 degrees clockwise, 0 to the right
	Speed     float64 `json:"speed"`              // px/s
	Gap       float64 `json:"gap,omitzero"`       // px between two copies
}
