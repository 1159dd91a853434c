package effect

import (
	"slices"

	"capstan/core/geom"
)

// BarnDoors are two straight fronts about the middle: u is measured from it, 0..len/2, or, closing, from both edges (SMIL's barnDoorWipe).
const BarnDoors = "doors"

var _ = add(Effect{
	Name: BarnDoors, Words: "Barn doors", Rank: 40, Easing: "ease-in-out", Lasts: 700,
	Finds: "curtain open close split gate theatre stage halves",
	Params: slices.Concat([]Param{
		choice("stand", "Stand", "How the doors stand", Option{Value: "upright", Words: "upright"}, Option{Value: "level", Words: "level"}),
		opening(), softness(),
	}, tied("", "Right, lower", " that goes right or down"), tied("2", "Left, upper", " that goes left or up")),
	Comes: drivenBy(uncoveredBy("doors", doors), doorTies, tieDoor),
	Pages: &Pages{Front: doors, Sign: [2]string{"M-9 -8v16M9 -8v16", "M-3 -8v16M3 -8v16"}},
})

// opening tells from where a front comes: from the middle, or from outside.
func opening() Param {
	return choice("from", "From", "From where it is uncovered", Option{Value: "middle", Words: "the middle"}, Option{Value: "outside", Words: "outside"}).
		mirrored(other("middle", "outside"))
}

func doors(p Params) *Front {
	v, s := geom.Point{X: 1}, p.Number("softness")
	if p.Word("stand") == "level" {
		v = geom.Point{Y: 1}
	}
	return &Front{reversed: p.Word("from") == "outside", at: func(box geom.Box, share float64) Field {
		from, to := across(box, v)
		return field(Doors, v.X, v.Y, (from+to)/2, share*((to-from)/2+s), s, 0)
	}}
}
