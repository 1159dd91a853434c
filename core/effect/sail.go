package effect

import (
	"math"

	"capstan/core/geom"
)

// Sail drifts slowly along a line, from half of it before its place to half behind.
const Sail = "sail"

var _ = add(Effect{
	Name: Sail, Words: "Sail", Rank: 145,
	Finds: "drift cross slow pan clouds move boat",
	Params: []Param{
		travel(0),
		num("by", "Goes by", "How far it goes in all", "px", 50, 0, 100000).first(func(s Setting) any { return math.Round(s.PageW * 0.04) }),
	},
	Goes: &Goes{Says: "sails", Manner: Drifts, Line: func(of Of) (from, to geom.Point) {
		v := unit(of.Params.Number("direction")).Mul(of.Params.Number("by") / 2)
		return v.Mul(-1), v
	}},
})
