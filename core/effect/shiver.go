package effect

import "capstan/core/geom"

// Shiver moves and turns a little at random, and comes round after a cycle. At full strength it goes by 2 % of the layer's shorter side and 4
// degrees to either side.
const Shiver = "shiver"

var _ = add(Effect{
	Name: Shiver, Words: "Shiver", Rank: 150,
	Finds: "shake jitter tremble vibrate nervous quake rattle wiggle earthquake",
	Params: []Param{
		share("by", "Strength", "Strength", 0.15, 0, 1000),
		num("rate", "Changes", "Changes a second", "/s", 10, 1, 60),
	},
	Goes: &Goes{Says: "shivers", Manner: Swings, ByUnit: true, Seeded: true, Even: true, Told: "comes round in ", Bar: wandering, Rule: func(of Of) func(float64) Going {
		a, n := of.Params.Number("by"), changes(of.Pass, of.Params.Number("rate"))
		side := 0.02 * min(of.Box.W(), of.Box.H())
		x, y, turn := wander(of.Seed, 0, n), wander(of.Seed, 1, n), wander(of.Seed, 2, n)
		return func(t float64) Going {
			return Going{Sway: geom.Point{X: a * side * x(t), Y: a * side * y(t)}, Turn: 4 * a * turn(t)}
		}
	}},
	Offers: []Offer{{Kind: Loop, Words: "Shiver", Name: "Shiver", Duration: 2000}},
})
