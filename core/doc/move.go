package doc

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

// Move is one thing a layer does in time.
type Move struct {
	ID        string      `json:"id"`
	Kind      string      `json:"kind"`
	Effect    string      `json:"effect"`
	Start     Start       `json:"start"`
	End       *Anchor     `json:"end,omitzero"` // live end; the begin is solved for
	Duration  int64       `json:"duration,omitzero"`
	Lasts     string      `json:"lasts,omitzero"`  // "", scene or thread; loops go on through transitions
	Keeps     string      `json:"keeps,omitzero"`  // of a path that lasts the scene: "" its distance, or speed
	Easing    string      `json:"easing,omitzero"` // CSS easing; empty: the effect's own
	Repeat    float64     `json:"repeat,omitzero"` // passes; 0 counts as 1
	Until     string      `json:"until,omitzero"`  // repeats until this move begins
	Alternate bool        `json:"alternate,omitzero"`
	Continues string      `json:"continues,omitzero"` // the loop of the scene before that this one goes on
	Unit      string      `json:"unit,omitzero"`      // "", line, word, letter, part
	Order     string      `json:"order,omitzero"`     // of the units: "", backwards, middle, shuffled, outwards, columns, rows, point
	Overlap   float64     `json:"overlap,omitzero"`   // of neighbouring units, 0..1
	Seed      int64       `json:"seed,omitzero"`      // of the shuffled order
	From      *[2]float64 `json:"from,omitzero"`      // of an order by distance: the point, in shares of the layer's box; nil: its upper left corner
	Back      bool        `json:"back,omitzero"`      // an exit: back the way it came, instead of on through

	Path   *PathParams   `json:"path,omitzero"`
	Spin   *SpinParams   `json:"spin,omitzero"`
	Wipe   *WipeParams   `json:"wipe,omitzero"`
	Slide  *SlideParams  `json:"slide,omitzero"`
	Rock   *RockParams   `json:"rock,omitzero"`
	Scroll *ScrollParams `json:"scroll,omitzero"`
	Extra  Extra         `json:",embed"`
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
	Angle float64 `json:"angle"`          // degrees to either side, -360..360; below 0 it begins to the other side, anticlockwise
	Phase float64 `json:"phase,omitzero"` // share of a cycle it has gone when it begins, 0..1
}

// ScrollParams say how a layer repeats itself along one of its own axes. The move's duration, where it does not last the
// whole scene, is how long it runs.
type ScrollParams struct {
	Direction float64 `json:"direction,omitzero"` // 0, 90, 180 or 270 degrees clockwise, 0 to the right
	Speed     float64 `json:"speed"`              // px/s
	Gap       float64 `json:"gap,omitzero"`       // px between two copies; below 0 they overlap, by 15/16 of a copy at most
}
