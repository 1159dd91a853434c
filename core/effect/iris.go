package effect

import (
	"math"

	"capstan/core/geom"
)

// Iris opens by scale about the middle: a rectangle like the box, or a diamond or ellipse around it. u is the scale at which the shape reaches a
// point, times half the shorter side (SMIL's irisWipe and ellipseWipe).
const Iris = "iris"

var _ = add(Effect{
	Name: Iris, Words: "Iris", Rank: 50, Easing: "ease-in-out", Lasts: 700,
	Finds: "circle hole spotlight round oval diamond peephole porthole",
	Params: []Param{
		choice("shape", "Shape", "Shape of the opening", Option{Value: "ellipse", Words: "ellipse"}, Option{Value: "rectangle", Words: "rectangle"},
			Option{Value: "diamond", Words: "diamond"}),
		opening(), softness(),
	},
	Comes: uncoveredBy("an iris", iris),
	Pages: &Pages{Front: iris, Sign: [2]string{"M-9 -8h18v16h-18z", "M-4 0a4 4 0 1 0 8 0a4 4 0 1 0 -8 0"}},
})

func iris(p Params) *Front {
	s, shape, around := p.Number("softness"), Ellipse, math.Sqrt2
	switch p.Word("shape") {
	case "rectangle":
		shape, around = Box, 1
	case "diamond":
		shape, around = Diamond, 2
	}
	return &Front{reversed: p.Word("from") == "outside", at: func(box geom.Box, share float64) Field {
		c := box.Centre()
		rx, ry := max(box.W()/2, 0.5), max(box.H()/2, 0.5)
		unit := min(rx, ry)
		return field(shape, c.X, c.Y, rx*around, ry*around, unit, share*(unit+s), s, 0)
	}}
}
