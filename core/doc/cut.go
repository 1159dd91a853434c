package doc

import (
	"slices"
	"strings"
)

// Cutout lifts what is kept of a picture off its ground. What it was made by stands beside the mask that came out of it, which is what counts: it is never worked
// out again but when something of it is changed.
type Cutout struct {
	Of        string      `json:"of"`                 // hash of the picture that it was made for: on another it is kept, and nothing is cut
	Mask      string      `json:"mask"`               // hash of the mask, a grey picture of the same size: how much of each pixel stays
	Ground    string      `json:"ground,omitzero"`    // sides of the picture that are ground, where a foreground was proposed: some of l, t, r, b
	Strokes   []CutStroke `json:"strokes,omitzero"`   // in their order
	Keys      []CutKey    `json:"keys,omitzero"`      // colours that are clear
	Tolerance float64     `json:"tolerance,omitzero"` // of keys: what is so near to one of them in OKLab is clear, 0..1
	Softness  float64     `json:"softness,omitzero"`  // of keys: over so much more it becomes opaque, 0..1
	Joined    bool        `json:"joined,omitzero"`    // of keys: only what is joined to where they were picked
	Soften    float64     `json:"soften,omitzero"`    // px of the picture over which its edge fades, 0..100
	Spread    float64     `json:"spread,omitzero"`    // px of the picture by which its edge goes outwards, below 0: inwards; -50..50
	Inverted  bool        `json:"inverted,omitzero"`  // what is kept is dropped, and the other way round
}

// CutStroke says of a part of a picture that it is kept or dropped.
type CutStroke struct {
	How    string       `json:"how"`            // one of CutHows
	Form   string       `json:"form,omitzero"`  // empty: a line; area: within a line that is closed; box: between two corners
	Points [][2]float64 `json:"points"`         // px of the picture
	Width  float64      `json:"width,omitzero"` // of a line, px of the picture
	Soft   float64      `json:"soft,omitzero"`  // of a line by hand: share of half its width over which it fades, 0..1
}

// CutKey is a colour that is clear.
type CutKey struct {
	Colour string     `json:"colour"` // #rrggbb
	At     [2]float64 `json:"at"`     // where it was picked, px of the picture
}

// What strokes say. The border between what is kept and dropped is looked for between them; by hand is meant to the pixel.
const (
	CutKeep   = "keep"
	CutDrop   = "drop"
	CutWithin = "within" // what lies outside of it is dropped
	CutPaint  = "paint"  // by hand: kept
	CutRub    = "rub"    // by hand: dropped
)

// CutHows are all of them.
var CutHows = []string{CutKeep, CutDrop, CutWithin, CutPaint, CutRub}

// Bounds of a cut-out.
const (
	MaxCutStrokes = 400
	MaxCutPoints  = 20_000 // of all its strokes
	MaxCutKeys    = 12
	MaxCutWidth   = 4000 // px of the picture
	MaxSoften     = 100  // px of the picture
	MaxSpread     = 50   // px of the picture
)

// Looked reports whether a foreground is looked for, by what its sides are or by strokes.
func (c *Cutout) Looked() bool {
	return c.Ground != "" || slices.ContainsFunc(c.Strokes, func(s CutStroke) bool { return s.How == CutKeep || s.How == CutDrop || s.How == CutWithin })
}

// Blank reports whether nothing is said of what is kept.
func (c *Cutout) Blank() bool {
	return c.Ground == "" && len(c.Strokes) == 0 && len(c.Keys) == 0 && !c.Inverted
}

func (c *Cutout) clone() *Cutout {
	if c == nil {
		return nil
	}
	out := *c
	out.Keys = slices.Clone(c.Keys)
	out.Strokes = slices.Clone(c.Strokes)
	for i := range out.Strokes {
		out.Strokes[i].Points = slices.Clone(out.Strokes[i].Points)
	}
	return &out
}

// Equal reports whether two were made alike.
func (c *Cutout) Equal(o *Cutout) bool {
	if c == nil || o == nil {
		return c == o
	}
	a, b := *c, *o
	a.Strokes, a.Keys, b.Strokes, b.Keys = nil, nil, nil, nil
	return a.Of == b.Of && a.Mask == b.Mask && a.Ground == b.Ground && a.Tolerance == b.Tolerance && a.Softness == b.Softness && a.Joined == b.Joined &&
		a.Soften == b.Soften && a.Spread == b.Spread && a.Inverted == b.Inverted && slices.Equal(c.Keys, o.Keys) &&
		slices.EqualFunc(c.Strokes, o.Strokes, CutStroke.Equal)
}

// Equal reports whether two strokes say the same.
func (s CutStroke) Equal(t CutStroke) bool {
	return s.How == t.How && s.Form == t.Form && s.Width == t.Width && s.Soft == t.Soft && slices.Equal(s.Points, t.Points)
}

// cut looks a cut-out over; its mask must be known, and be as large as its picture.
func (c *checker) cut(at string, v *Cutout) {
	c.known(at+".mask", v.Mask)
	if a, b := c.media[v.Of], c.media[v.Mask]; c.err == nil && a != nil && b != nil && (a.Width != b.Width || a.Height != b.Height) {
		c.fail(at+".mask", "is not as large as its picture")
	}
	c.cutout(at, v)
}

// Check returns what of a cut-out cannot be, but for its mask, which may still have to be made.
func (c *Cutout) Check() error {
	k := &checker{}
	if k.cutout("cut", c); k.err != nil {
		return k.err
	}
	return nil
}

func (c *checker) cutout(at string, v *Cutout) {
	if !isHash(v.Of) {
		c.fail(at+".of", "is no SHA-256 hash")
	}
	if rest := "ltrb"; strings.ContainsFunc(v.Ground, func(r rune) bool {
		_, after, found := strings.Cut(rest, string(r))
		rest = after
		return !found
	}) {
		c.fail(at+".ground", "must be sides out of l, t, r, b in this order")
	}
	c.number(at+".tolerance", v.Tolerance, 0, 1)
	c.number(at+".softness", v.Softness, 0, 1)
	c.number(at+".soften", v.Soften, 0, MaxSoften)
	c.number(at+".spread", v.Spread, -MaxSpread, MaxSpread)
	c.most(at+".keys", len(v.Keys), MaxCutKeys)
	for _, k := range v.Keys {
		c.colour(at+".keys", k.Colour)
		for _, p := range k.At {
			c.number(at+".keys", p, -MaxSide, 2*MaxSide)
		}
	}
	c.most(at+".strokes", len(v.Strokes), MaxCutStrokes)
	all := 0
	for _, s := range v.Strokes {
		if !slices.Contains(CutHows, s.How) || s.Form != "" && s.Form != "area" && s.Form != "box" {
			c.fail(at+".strokes", "say nothing that is known")
		}
		if all += len(s.Points); len(s.Points) == 0 || s.Form == "box" && len(s.Points) != 2 {
			c.fail(at+".strokes", "lack points")
		}
		c.number(at+".strokes", s.Width, 0, MaxCutWidth)
		c.number(at+".strokes", s.Soft, 0, 1)
		for _, p := range s.Points {
			c.number(at+".strokes", p[0], -MaxSide, 2*MaxSide)
			c.number(at+".strokes", p[1], -MaxSide, 2*MaxSide)
		}
	}
	c.most(at+".strokes", all, MaxCutPoints)
}
