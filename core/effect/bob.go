package effect

// Bob goes to and fro along a direction by a sine.
const Bob = "bob"

var _ = add(Effect{
	Name: Bob, Words: "Bob", Rank: 140,
	Finds: "float up down hover bounce buoy levitate",
	Params: []Param{
		travel(270),
		num("by", "Strength", "How far it goes to either side", "px", 12, -10000, 10000),
		ahead(),
	},
	Goes: swing("bobs", false, "by", func(of Of) func(float64) Going {
		v := unit(of.Params.Number("direction")).Mul(of.Params.Number("by"))
		return func(sine float64) Going { return Going{Sway: v.Mul(sine)} }
	}),
	Offers: []Offer{{Kind: Loop, Words: "Bob", Name: "Bob", Duration: 2400}},
})
