package effect

// Spin turns once a cycle.
const Spin = "spin"

var _ = add(Effect{
	Name: Spin, Words: "Spin", Rank: 110,
	Finds:  "rotate turn twirl wheel round circle whirl propeller",
	Params: []Param{sense()},
	Goes: &Goes{Says: "spins", Manner: Rounds, Turns: true, Cycles: "One turn", Times: "Turns", Told: "a turn in ", Rule: func(of Of) func(float64) Going {
		turn := 360.0
		if of.Params.Is("anticlockwise") {
			turn = -360
		}
		return func(x float64) Going { return Going{Turn: turn * x} }
	}},
	Offers: []Offer{{Kind: Loop, Words: "Spin", Name: "Spin", Duration: 4000}},
})
