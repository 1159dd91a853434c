package doc

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
