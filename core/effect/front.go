package effect

import (
	"math"

	"capstan/core/geom"
)

// Shape is the form of what is uncovered. Each has numbers of its own, which painters know (see display.VeilTerms).
type Shape int

// The shapes.
const (
	Half    Shape = iota // a half-plane: dx dy edge softness inverted
	Doors                // two about a middle: dx dy middle edge softness inverted
	Box                  // cx cy rx ry unit edge softness inverted
	Diamond              // likewise
	Ellipse              // likewise
	Sector               // cx cy start sweep inverted
	Noise                // seed grain smooth front softness inverted
)

// Field is what a front has uncovered of a box: the numbers of a shape, in their order.
type Field struct {
	Shape Shape
	N     [8]float64
	Count int
}

func field(s Shape, n ...float64) Field {
	f := Field{Shape: s, Count: len(n)}
	copy(f.N[:], n)
	return f
}

// Whole is a field that shows everything.
var Whole = field(Half, 0, 0, 1, 1, 0)

// Front uncovers something: at a share of its way across a box, 0 nothing and 1 all of it.
type Front struct {
	at func(box geom.Box, share float64) Field
	// Glow is what burns along its edge; nil: nothing does.
	Glow *Glow
	// reversed fronts come from where others end.
	reversed bool
}

// At returns what is uncovered at a share; hides says that this is what is covered instead.
func (f *Front) At(box geom.Box, share float64, hides bool) Field {
	if share >= 1 && !hides || share <= 0 && hides {
		return Whole
	}
	if f.reversed {
		share, hides = 1-share, !hides
	}
	out := f.at(box, share)
	if hides {
		out.N[out.Count-1] = 1
	}
	return out
}

// across returns from where to where a box lies along a direction.
func across(box geom.Box, v geom.Point) (from, to float64) {
	from, to = math.Inf(1), math.Inf(-1)
	for _, c := range box.Corners() {
		u := c.X*v.X + c.Y*v.Y
		from, to = min(from, u), max(to, u)
	}
	return
}

func unit(degrees float64) geom.Point { return geom.Rotate(degrees).ApplyVector(geom.Point{X: 1}) }

func clamp(v float64) float64 { return min(1, max(0, v)) }
