package doc

import "slices"

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

// Orders of units. The empty order is forwards.
const (
	Backwards  = "backwards"
	FromMiddle = "middle"
	Shuffled   = "shuffled"
	Outwards   = "outwards" // by where they lie, from the middle of all of them
	ByColumn   = "columns"  // from the left; a column goes as one
	ByRow      = "rows"     // from the top
	FromPoint  = "point"    // by their distance from Move.From
)

var textKind = &Kind{
	Name: TextKind, Words: "Text", Filled: true, Stroked: true, Keeps: true, Scaled: true, Joins: true, Units: []string{ByLine, ByWord, ByLetter},
	check: func(c *checker, at string, l *Layer) bool {
		if l.Text == nil {
			c.fail(at+".text", "is missing")
			return false
		}
		c.text(at+".text", l.Text)
		return true
	},
	held: holds(func(l *Layer) **Text { return &l.Text }, func(v *Text) { v.Runs, v.Ring, v.Plate = slices.Clone(v.Runs), copied(v.Ring), copied(v.Plate) }, sameText),
}

// Roomy reports whether a layer is a text whose box has a height of its own.
func (l *Layer) Roomy() bool { return l.Text != nil && l.Text.Room != "" && l.Text.Wraps() }

func (c *checker) text(at string, t *Text) {
	c.oneOf(at+".align", t.Align, Left, Centre, Right, Justified)
	if len(t.Runs) == 0 {
		c.fail(at+".runs", "is empty; a text has at least one run")
	}
	if len([]rune(t.String())) > MaxText {
		c.fail(at+".runs", "hold more than %d characters", MaxText)
	}
	c.number(at+".lineHeight", t.LineHeight, 0, 10)
	c.number(at+".letterSpacing", t.LetterSpacing, -1000, 1000)
	c.oneOf(at+".room", t.Room, "", FixedRoom, FitRoom)
	c.oneOf(at+".stand", t.Stand, "", Middle, Bottom)
	if t.Room != "" && !t.Wrap {
		c.fail(at+".room", "is for texts that wrap")
	}
	if r := t.Ring; r != nil {
		c.number(at+".ring.radius", r.Radius, 1, MaxPlace)
		c.number(at+".ring.start", r.Start, -MaxPlace, MaxPlace)
		c.number(at+".ring.share", r.Share, 0, 1)
	}
	if v := t.Plate; v != nil {
		c.colour(at+".plate.colour", v.Colour)
		c.number(at+".plate.tone", float64(v.Tone), -MaxTone, MaxTone)
		c.number(at+".plate.padding", v.Padding, 0, MaxPlace)
		c.number(at+".plate.corner", v.Corner, 0, MaxPlace)
	}
	for i, r := range t.Runs {
		at := c.at("%s.runs[%d]", at, i)
		if r.Family == "" {
			c.fail(at+".family", "is missing")
		}
		c.number(at+".weight", float64(r.Weight), 1, 1000)
		c.number(at+".size", r.Size, 1, 4000)
		c.oneOf(at+".case", r.Case, "", UpperCase, LowerCase, TitleCase)
		c.oneOf(at+".raise", r.Raise, "", Super, Sub)
		if r.Colour != "" {
			c.colour(at+".colour", r.Colour)
		}
	}
}
