package effect

import "capstan/core/geom"

// Speckle comes grain by grain, at random: a grain is a cell of the layer's own px, and shows once the share is beyond its number, which is
// hashed from the seed and its place alone.
const Speckle = "speckle"

var _ = add(Effect{
	Name: Speckle, Words: "Speckle", Rank: 80, Lasts: 800,
	Finds:  "grain sand dust dissolve pixels sparkle noise particles crumble glitter",
	Params: []Param{num("grain", "Grain", "Side of a grain", "px", 6, 1, 500)},
	Comes: &Comes{
		Says: [2]string{"comes in grains", "goes in grains"}, ByUnit: true, Still: true, Seeded: true,
		Rule: func(Of) func(Moment) Shown {
			return func(at Moment) Shown { return Shown{Opacity: 1, Share: clamp(at.P)} }
		},
		Front: func(of Of) *Front {
			seed, grain := float64(uint32(of.Seed)), max(1, of.Params.Number("grain"))
			return &Front{at: func(_ geom.Box, share float64) Field { return field(Noise, seed, grain, 0, share, 0, 0) }}
		},
	},
})
