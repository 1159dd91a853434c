package effect

import "math"

// Rock turns to and fro by a sine.
const Rock = "rock"

var _ = add(Effect{
	Name: Rock, Words: "Rock", Rank: 120,
	Finds: "swing sway tilt wobble pendulum wave wag",
	Params: []Param{
		num("angle", "Strength", "Angle to either side", "°", 4, -360, 360).digits(1, 1).mirrored(negated),
		ahead(),
	},
	Goes: toEither(swing("rocks", true, "angle", func(of Of) func(float64) Going {
		a := of.Params.Number("angle")
		return func(sine float64) Going { return Going{Turn: a * sine} }
	})),
	Offers: []Offer{{Kind: Loop, Words: "Rock", Name: "Rock", Duration: 2400}},
})

// toEither says to which side a rock goes first.
func toEither(g *Goes) *Goes {
	g.First = func(p Params) string {
		if p.Number("angle") < 0 {
			return "↺ anticlockwise"
		}
		return "↻ clockwise"
	}
	return g
}

// ahead is a share of a cycle that a swing has gone when it begins.
func ahead() Param {
	return share("phase", "Ahead by", "Share of a cycle that it is ahead by", 0, 0, 100)
}

// swing is a loop by a sine of an amplitude.
func swing(says string, turns bool, amplitude string, rule func(of Of) func(sine float64) Going) *Goes {
	return &Goes{
		Says: says, Manner: Swings, ByUnit: true, Turns: turns, Told: "to and fro in ",
		Ahead: func(p Params) float64 { return p.Number("phase") },
		Rule: func(of Of) func(float64) Going {
			at := rule(of)
			return func(x float64) Going { return at(math.Sin(2 * math.Pi * x)) }
		},
		Bar: func(p Params, x float64) float64 {
			return 0.55 + 0.4*math.Copysign(1, p.Number(amplitude))*math.Sin(2*math.Pi*(x+p.Number("phase")))
		},
	}
}
