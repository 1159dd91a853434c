package effect

// Swell grows and shrinks by a sine: 1 + a.
const Swell = "swell"

var _ = add(Effect{
	Name: Swell, Words: "Swell", Rank: 130,
	Finds: "pulse breathe heartbeat grow throb beat zoom pump",
	Params: []Param{
		share("by", "Strength", "How much larger and smaller it gets", 0.04, -100, 100).mirrored(negated),
		ahead(),
	},
	Goes: swing("swells", false, "by", func(of Of) func(float64) Going {
		a := of.Params.Number("by")
		return func(sine float64) Going { return Going{Growth: a * sine} }
	}),
	Offers: []Offer{{Kind: Loop, Words: "Swell", Name: "Swell", Duration: 1800}},
})
