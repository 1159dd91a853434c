package doc

import "slices"

// Kinds of shapes besides rectangles and ellipses. Package shape says what each looks like.
const (
	Ring    = "ring"
	Sector  = "sector"
	Polygon = "polygon"
	Star    = "star"
	Line    = "line"
	Arrow   = "arrow"
	Bubble  = "bubble"
	Cross   = "cross"
	Heart   = "heart"
	Cloud   = "cloud"
	Wave    = "wave"
	Ribbon  = "ribbon"
)

// Shapes are all kinds of layers with an outline that follows from numbers, in the order in which they are offered.
var Shapes = func() (names []string) {
	for _, k := range shapeKinds {
		names = append(names, k.Name)
	}
	return
}()

// IsShape reports whether a layer's outline follows from its kind, its box and its Shape.
func (l *Layer) IsShape() bool { return l.Is().Shape }

var shapeHeld = holds(func(l *Layer) **Shape { return &l.Shape },
	func(v *Shape) { v.Corners, v.Tip, v.Bends = copied(v.Corners), copied(v.Tip), slices.Clone(v.Bends) }, (*Shape).Equal)

// shapeKind is a kind of shape; change says what of it differs from others.
func shapeKind(name, called string, change func(k *Kind)) *Kind {
	k := &Kind{Name: name, Words: called, Shape: true, Filled: true, Stroked: true, Cornered: true, Joins: true, Grounds: true, held: shapeHeld}
	if change != nil {
		change(k)
	}
	return k
}

func square(k *Kind) { k.Keeps = true }

var shapeKinds = []*Kind{
	shapeKind(Rectangle, "Rectangle", nil),
	shapeKind(Ellipse, "Ellipse", func(k *Kind) { k.Cornered = false }),
	shapeKind(Line, "Line", func(k *Kind) { k.Grounds = false }),
	shapeKind(Arrow, "Arrow", nil),
	shapeKind(Polygon, "Polygon", square),
	shapeKind(Star, "Star", square),
	shapeKind(Ring, "Ring", nil),
	shapeKind(Sector, "Sector", nil),
	shapeKind(Bubble, "Bubble", nil),
	shapeKind(Cross, "Cross", nil),
	shapeKind(Heart, "Heart", square),
	shapeKind(Cloud, "Cloud", nil),
	shapeKind(Wave, "Wave band", nil),
	shapeKind(Ribbon, "Ribbon", nil),
}

// Limits of shapes.
const (
	MinSides = 3   // of polygons, points of stars
	MaxSides = 100 // also humps of a cloud and waves of a wave band
	MaxBends = 20  // points of a ribbon's line
)

// Shape holds the numbers of a layer's shape. Which of them a kind has, package shape says; others are left alone.
type Shape struct {
	Corners   *[4]float64  `json:"corners,omitzero"`   // px: radii of a rectangle from the upper left clockwise, before Corner
	Hole      float64      `json:"hole,omitzero"`      // 0..1 of the radius: ring, sector
	Start     float64      `json:"start,omitzero"`     // degrees clockwise from the right: sector
	Sweep     float64      `json:"sweep,omitzero"`     // degrees, 0..360: sector
	Open      bool         `json:"open,omitzero"`      // only the line: a sector that is an arc
	Count     int          `json:"count,omitzero"`     // sides, points, humps, waves
	Depth     float64      `json:"depth,omitzero"`     // 0..1: how deep a star is cut, how high waves are
	Thickness float64      `json:"thickness,omitzero"` // 0..1 of the height: an arrow's shaft; of both sides: a cross; a ribbon's band
	Head      float64      `json:"head,omitzero"`      // length of an arrow's head, in heights
	Heads     string       `json:"heads,omitzero"`     // of an arrow: "" at its end, start, both
	Tip       *[2]float64  `json:"tip,omitzero"`       // where a bubble points, in shares of its box that may lie outside
	Base      float64      `json:"base,omitzero"`      // 0..1 of the shorter side: how wide a bubble's tail begins
	Bends     [][2]float64 `json:"bends,omitzero"`     // points of a ribbon's line, in shares of its box
}

// Heads of an arrow besides "", at its end.
const (
	AtStart = "start"
	AtBoth  = "both"
)

// Equal reports whether two shapes, either of which may be nil, are the same.
func (a *Shape) Equal(b *Shape) bool {
	if a == nil || b == nil {
		return a == b
	}
	return same(a.Corners, b.Corners) && a.Hole == b.Hole && a.Start == b.Start && a.Sweep == b.Sweep && a.Open == b.Open && a.Count == b.Count &&
		a.Depth == b.Depth && a.Thickness == b.Thickness && a.Head == b.Head && a.Heads == b.Heads && same(a.Tip, b.Tip) && a.Base == b.Base &&
		slices.Equal(a.Bends, b.Bends)
}

// shape checks the numbers of a shape for its kind.
func (c *checker) shape(at string, l *Layer) {
	v := l.Shape
	if v == nil {
		return // all by default
	}
	if !l.IsShape() {
		c.fail(at, "belongs to shapes")
		return
	}
	if v.Corners != nil {
		for _, r := range v.Corners {
			c.number(at+".corners", r, 0, MaxPlace)
		}
	}
	c.number(at+".hole", v.Hole, 0, 1)
	c.number(at+".start", v.Start, -MaxPlace, MaxPlace)
	c.number(at+".sweep", v.Sweep, 0, 360)
	if v.Count != 0 {
		least := 1
		if l.Kind == Polygon || l.Kind == Star || l.Kind == Cloud {
			least = MinSides
		}
		c.number(at+".count", float64(v.Count), float64(least), MaxSides)
	}
	c.number(at+".depth", v.Depth, 0, 1)
	c.number(at+".thickness", v.Thickness, 0, 1)
	c.number(at+".head", v.Head, 0, 100)
	c.oneOf(at+".heads", v.Heads, "", AtStart, AtBoth)
	if v.Tip != nil {
		c.number(at+".tip", v.Tip[0], -MaxShares, MaxShares)
		c.number(at+".tip", v.Tip[1], -MaxShares, MaxShares)
	}
	c.number(at+".base", v.Base, 0, 1)
	if len(v.Bends) > MaxBends || len(v.Bends) == 1 {
		c.fail(at+".bends", "are %d; a ribbon has 2 to %d", len(v.Bends), MaxBends)
	}
	for _, p := range v.Bends {
		c.number(at+".bends", p[0], -MaxShares, MaxShares)
		c.number(at+".bends", p[1], -MaxShares, MaxShares)
	}
}
