package effect

// Waver is now more, now less opaque, at random, and comes round after a cycle.
const Waver = "waver"

var _ = add(Effect{
	Name: Waver, Words: "Waver", Rank: 160,
	Finds: "flicker glimmer candle shimmer flame dim",
	Params: []Param{
		share("by", "Strength", "How much of its opacity goes", 0.25, 0, 100),
		num("rate", "Changes", "Changes a second", "/s", 5, 1, 60),
	},
	Goes: &Goes{Says: "wavers", Manner: Swings, ByUnit: true, Seeded: true, Even: true, Told: "comes round in ", Bar: wandering, Rule: func(of Of) func(float64) Going {
		a, n := of.Params.Number("by"), changes(of.Pass, of.Params.Number("rate"))
		w := wander(of.Seed, 0, n)
		return func(t float64) Going {
			v := w(t)
			return Going{Dim: a * v * v} // never more opaque than it is
		}
	}},
	Offers: []Offer{{Kind: Loop, Words: "Waver", Name: "Waver", Duration: 1200}},
})
