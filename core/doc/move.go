package doc

import "capstan/core/effect"

// Move kinds.
const (
	Entrance   = effect.Entrance
	Exit       = effect.Exit
	Loop       = effect.Loop
	MotionPath = "path"
	Change     = "change"
)

// Along is the only effect of a motion path; those of other kinds are in the catalogue (package effect).
const Along = "along"

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
	End       *Anchor     `json:"end,omitzero"`   // live end; the begin is solved for
	Begun     int64       `json:"begun,omitzero"` // ms that it has gone on for at that time, 0 to MaxTime: it began in a scene that was cut in two
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

	Path   *PathParams   `json:"path,omitzero"`   // of a motion path
	Change *ChangeParams `json:"change,omitzero"` // of a change
	Params effect.Params `json:"params,omitzero"` // of the effect
	Extra  Extra         `json:",embed"`
}

// Start kinds.
const (
	AtTime         = "at"
	WhenBegins     = "begins"
	WhenEnds       = "ends"
	BeforeSceneEnd = "scene-end"
	AtCue          = "cue"
	WhenHeard      = "heard"  // a sound of the scene begins, or comes to a mark
	WhenSilent     = "silent" // a sound of the scene ends
)

// Start says when a move begins.
type Start struct {
	When   string `json:"when"`            // at, begins, ends, scene-end, cue, heard, silent
	Of     string `json:"of,omitzero"`     // the move, cue, sound or mark it hangs on
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
	Axis      string  `json:"axis,omitzero"`  // level or upright: a straight line that edits keep so
	Along     string  `json:"along,omitzero"` // the thread whose outline it follows, while that is there; d, from the middle of the layer at rest, is what it was when it was chosen
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

// Does returns the effect of an entrance, exit or loop; nil for a motion path, and for an effect that this version does not know: it is kept,
// and does nothing.
func (m *Move) Does() *effect.Effect { return effect.As(m.Kind, m.Effect) }

// Full returns the effect's parameters, with those that the move does not say.
func (m *Move) Full() effect.Params {
	if e := m.Does(); e != nil {
		return e.Complete(m.Params)
	}
	return m.Params
}

// Timeless reports whether a move takes no time: it is there, or gone, at once.
func (m *Move) Timeless() bool {
	e := m.Does()
	return e != nil && m.Kind != Loop && e.Comes.Sudden && m.Unit == ""
}

// Goes returns what a loop does; nil for other moves.
func (m *Move) Goes() *effect.Goes {
	if e := m.Does(); e != nil && m.Kind == Loop {
		return e.Goes
	}
	return nil
}

// Comes returns what an entrance or exit does; nil for other moves.
func (m *Move) Comes() *effect.Comes {
	if e := m.Does(); e != nil && m.Kind != Loop {
		return e.Comes
	}
	return nil
}

// Clocked reports whether how long a cycle is follows from the parameters of a loop; it has no duration, or that is how long it runs.
func (m *Move) Clocked() bool {
	g := m.Goes()
	return g != nil && (g.Cycle != nil || g.Pace != nil || g.Round != nil)
}

// Runs reports whether the duration of a loop is how long it runs, not a cycle.
func (m *Move) Runs() bool {
	g := m.Goes()
	return g != nil && (g.Pace != nil || g.Round != nil || g.Line != nil)
}

// Eased reports whether the easing of a move has a say.
func (m *Move) Eased() bool {
	if m.Timeless() {
		return false
	}
	if c := m.Comes(); c != nil {
		return !c.Even
	}
	g := m.Goes()
	return g == nil || !g.Even
}

// ByUnits reports whether a move can go unit by unit.
func (m *Move) ByUnits() bool {
	c, g := m.Comes(), m.Goes()
	return m.Change != nil || c != nil && c.ByUnit || g != nil && g.ByUnit
}

// Drifts reports whether a move takes its layer along a line once.
func (m *Move) Drifts() bool {
	g := m.Goes()
	return m.Kind == MotionPath || g != nil && g.Line != nil
}

// NamesMove reports whether a parameter of a move names another one.
func (m *Move) NamesMove() bool {
	e := m.Does()
	return e != nil && len(m.Params) > 0 && e.NamesMove()
}

// Spins reports whether a loop turns its layer evenly, a turn a cycle.
func (m *Move) Spins() bool {
	g := m.Goes()
	return g != nil && g.Manner == effect.Rounds && g.Turns && g.Round == nil
}

// Rename gives the other moves that parameters of a move name the names that to says. The parameters are the move's own.
func (m *Move) Rename(to func(id string) string) {
	if !m.NamesMove() {
		return
	}
	for _, q := range m.Does().Params {
		if id := m.Params.Word(q.Name); q.Control == effect.Move && id != "" {
			m.Params[q.Name] = to(id)
		}
	}
}
