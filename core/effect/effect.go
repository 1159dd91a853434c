// Package effect is what a move can do: one file an effect. Each says what it is called, what it can be, its parameters as data, and its rule
// as one function of progress. Everything else asks the catalogue: documents, motion, painting, bars, sentences, the fields of the inspector.
// docs/motion.md, section 4, is the definition of each.
//
// A new effect is a new file here, with a call of add; nothing else names it.
package effect

import "capstan/core/geom"

// What an effect can be: the kind of a move, or a transition of pages.
const (
	Entrance   = "entrance"
	Exit       = "exit"
	Loop       = "loop"
	Transition = "transition"
)

// Effect is one thing that a move can do.
type Effect struct {
	Name   string // in the document
	Words  string // for people: "Barn doors"
	Finds  string // everyday words that it is looked for by, a space between
	Rank   int    // where it is offered among others, from 1
	Params []Param
	Offers []Offer // ways it is offered in; for a kind without one it is offered once, with its defaults

	Comes *Comes // as an entrance or exit; nil: it is none
	Goes  *Goes  // as a loop
	Pages *Pages // as a transition

	// Check returns what is wrong with parameters that are each right by themselves, in words; "" or nil: nothing.
	Check func(p Params) string

	Easing string // the easing of an entrance, exit or transition that says none; empty: that of its kind
	Lasts  int64  // ms of a new entrance, exit or transition; 0: that of its kind
}

// Kinds returns what an effect can be.
func (e *Effect) Kinds() (kinds []string) {
	if e.Comes != nil {
		kinds = append(kinds, Entrance, Exit)
	}
	if e.Goes != nil {
		kinds = append(kinds, Loop)
	}
	if e.Pages != nil {
		kinds = append(kinds, Transition)
	}
	return
}

// Offer is a way an effect is offered in: by other words, with parameters, a length and an easing of its own.
type Offer struct {
	Kind     string
	Variant  string // its name among those of one effect and kind; empty: the plain one
	Words    string // under a heading that says what the kind does: "From above"
	Name     string // by itself: "Scale in from above"
	Params   Params
	Duration int64  // ms; 0: that of the effect
	Easing   string // empty: that of the effect
	Repeat   float64
	Unit     string // it goes by this unit, of texts alone
}

// Of is what a rule is made for: one move of one layer. Lengths are px in the layer's own axes.
type Of struct {
	Params Params // every one is there
	Kind   string
	Box    geom.Box // of the layer, or of each of its units
	Line   float64  // how high a line is: the way of what goes by unit
	Unit   string   // empty: the layer as one
	Parts  int      // children of a group
	Pass   int64    // ms of one cycle of a loop
	Seed   int64
}

// Comes is an entrance, which an exit is backwards.
type Comes struct {
	Says   [2]string // in sentences, of an entrance and of an exit: "fades in"
	ByUnit bool
	Still  bool // moves nothing: what it is done to stays where it is
	Seeded bool // goes by chance, from the move's seed
	Apart  bool // does the same to a group as to each of its layers by itself
	Sudden bool // takes no time but by unit, and has no easing
	Even   bool // easing has no say
	Morphs bool // as a whole it is how a layer comes and goes in a morph
	// Rule returns what shows at a moment.
	Rule func(of Of) func(at Moment) Shown
	// Over returns the parameters with which one side of something goes, and the next comes: about a level axis, or an upright one; nil: it has
	// no sides.
	Over func(level bool) Params
	// Lasts is how long a new one takes, ms; nil: as the effect or its kind says.
	Lasts func(s Setting) int64
	// Pen is what it is drawn with; nil: it is not drawn.
	Pen func(p Params) Pen
	// Bar is the height of an entrance's bar at a linear share of its time, 0..1; nil: as the easing.
	Bar func(p Params, x float64) float64
	// Front is what uncovers it; nil: nothing does. Shown.Share is how far that has come.
	Front func(of Of) *Front
	// Ties tells which of its edges other layers drive; nil: none can be.
	Ties func(p Params) Ties
	// TieTo returns the parameters that tie an edge to a layer, by its thread, that travels so far on the page; nil: as Ties.
	TieTo func(p Params, thread string, travel geom.Point) Params
	// OffPage tells in which direction, degrees clockwise from the right, it goes until it is off the page; ok is false where it goes a way of
	// its own. Moment.Distance is how far that is.
	OffPage func(of Of) (direction float64, ok bool)
}

// Moment is how far an entrance has come, or an exit has still to go.
type Moment struct {
	P        float64 // eased: 0 gone, 1 at rest; it may leave that
	X        float64 // the same before easing
	Distance float64 // px to be off the page
	Through  bool    // an exit that goes on through
}

// Shown is what an entrance or exit makes of a layer.
type Shown struct {
	Opacity float64    // 0..1
	Share   float64    // of the front's way, 0..1
	Offset  geom.Point // px in the parent's axes
	Growth  float64    // it is 1 + this times as large, about its pivot
	Blur    float64    // px, deviation of a Gaussian
	Tilt    Tilt       // out of the page
	Drawn   Drawn      // how far its lines are drawn
	Away    bool       // nothing of it can be seen, since it is elsewhere
}

// Goes is a loop.
type Goes struct {
	Says   string // in sentences: "spins"
	ByUnit bool
	Manner Manner
	Even   bool   // easing has no say
	Seeded bool   // goes by chance, from the move's seed
	Parted bool   // is of groups alone: it shows their children
	Keeps  bool   // of what blinks: it keeps what it is at its begin and end beyond them
	Turns  bool   // does nothing but turn about the pivot
	Cycles string // for people, of a cycle: "One turn"; empty: "One cycle"
	Times  string // of how many: "Turns"; empty: "Times"
	Told   string // in sentences, before how long a cycle is: "a turn in "; empty: ""
	// Ahead is the share of a cycle it has gone when it begins; nil: none.
	Ahead func(p Params) float64
	// Cycle is how long one cycle is, in ms, where the parameters say it; the move has no duration then. nil: the move's duration.
	Cycle func(of Of) int64
	// Cycled returns the parameters with which a cycle is so long, ms, all in proportion; ok is false where none do. It stands beside Cycle.
	Cycled func(of Of, ms int64) (p Params, ok bool)
	// Pace is likewise, where the layer's size has a say. The move's duration is then how long it runs.
	Pace func(of Of) int64
	// Rule returns what it adds at a share of its cycle, 0..1, or, of what goes round, after so many rounds.
	Rule func(of Of) func(x float64) Going
	// Line is the way of what drifts, relative to where it is at rest: from its begin to its end.
	Line func(of Of) (from, to geom.Point)
	// Round is how many px of travel one round is, of what rolls.
	Round func(of Of) float64
	// Copies is how many copies are there at once, of what strews; nil: none are.
	Copies func(p Params) float64
	// Rounded returns the parameters with which it comes round so often in a time, ms, of what has a pace; ok is false where none do.
	Rounded func(of Of, rounds, ms float64) (p Params, ok bool)
	// Band returns the parameters with which it repeats a layer to the left, with so many px between copies; nil: it does not.
	Band func(apart float64) Params
	// First says in words to which side it goes first, of what may go to either; nil: that goes without saying.
	First func(p Params) string
	// Bar is the height of its bar at a share of a cycle, eased, 0..1; nil: as the easing.
	Bar func(p Params, x float64) float64
}

// Manner is how a loop goes on, which decides what becomes of it at its ends and in transitions.
type Manner int

// The manners.
const (
	Swings Manner = iota // about rest: it is faded in and out where it does not last the scene
	Rounds               // ever on: it keeps its last value, and looks the same after a round
	Blinks               // is one thing or another, at once
	Drifts               // once along a line
	Strews               // copies of the layer, each with a life of its own
)

// Going is what loops make of a layer, or of a unit, at a time. The zero Going changes nothing.
type Going struct {
	Turn    float64    // degrees about the pivot
	Sway    geom.Point // px in the parent's axes
	Growth  float64    // it is 1 + this times as large, about its pivot
	Dim     float64    // its opacity is 1 - this times as much
	Scroll  geom.Point // px in the layer's own axes, within a period
	Period  geom.Point // px after which a scroll repeats; 0: it does not
	Repeats float64    // opacity of the repetitions, 0..1
	Only    int        // the child of a group that alone is shown, from 1 on; 0: all are
	Flocks  [2]Flight  // copies that are shown in its place
}

// Plus adds o as much as k says to g.
func (g Going) Plus(o *Going, k float64) Going {
	g.Turn += k * o.Turn
	g.Sway = g.Sway.Add(o.Sway.Mul(k))
	g.Growth = (1+g.Growth)*(1+k*o.Growth) - 1
	g.Dim = 1 - (1-g.Dim)*(1-k*o.Dim)
	g.Scroll = g.Scroll.Add(o.Scroll.Mul(k))
	g.Repeats = min(1, max(0, g.Repeats+k*o.Repeats))
	g.Period.X, g.Period.Y = max(g.Period.X, o.Period.X), max(g.Period.Y, o.Period.Y)
	if o.Only > 0 {
		g.Only = o.Only
	}
	for _, f := range o.Flocks {
		if f.Of != nil {
			f.Share *= k
			g = g.with(f)
		}
	}
	return g
}

func (g Going) with(f Flight) Going {
	for i := range g.Flocks {
		if g.Flocks[i].Of == nil {
			g.Flocks[i] = f
			break
		}
	}
	return g
}

// Mixed is a share 1-p of a and p of b: what two loops that are not one come to in a transition.
func Mixed(a, b *Going, p float64) Going {
	n := func(x, y float64) float64 { return x + (y-x)*p }
	out := Going{}.Plus(a, 1-p).Plus(b, p) // what cannot be between
	out.Growth, out.Dim = n(a.Growth, b.Growth), n(a.Dim, b.Dim)
	out.Only = a.Only
	if p >= 0.5 || a.Only == 0 {
		out.Only = b.Only
	}
	if p < 0.5 && a.Only == 0 {
		out.Only = 0
	}
	return out
}

// Pages is a transition from one page to the next.
type Pages struct {
	// Sign is its drawing on the timeline, as SVG paths within 10 px about a middle: of the page that goes, and of the one that comes.
	Sign  [2]string
	Turns bool                               // the sign is turned in the direction of travel
	Front func(p Params) *Front              // uncovers the next; nil: another way
	Push  func(p Params) (direction float64) // both move one way
}
