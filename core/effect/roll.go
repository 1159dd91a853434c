package effect

import "math"

// Roll turns as far as its layer travels: d(angle) = d(distance) / r.
const Roll = "roll"

var _ = add(Effect{
	Name: Roll, Words: "Roll", Rank: 115,
	Finds: "wheel tyre ball along drive rolling",
	Params: []Param{
		num("radius", "Radius", "Radius of the wheel; 0: half the layer's shorter side", "px", 0, 0, 100000),
		{Name: "scroll", Control: Move, Words: "On", Label: "What it rolls on", Times: 1},
	},
	Goes: &Goes{
		Says:   "rolls",
		Manner: Rounds, Turns: true, Even: true, Bar: evenly,
		Round: func(of Of) float64 {
			r := of.Params.Number("radius")
			if r <= 0 {
				r = min(of.Box.W(), of.Box.H()) / 2
			}
			return 2 * math.Pi * r
		},
		Rule: func(of Of) func(float64) Going {
			return func(x float64) Going { return Going{Turn: 360 * x} }
		},
	},
})
