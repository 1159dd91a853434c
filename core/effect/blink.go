package effect

import "math"

// Blink is shown and hidden in turn. Its cycle is both together.
const Blink = "blink"

var _ = add(Effect{
	Name: Blink, Words: "Blink", Rank: 170,
	Finds: "flash on off signal hazard neon strobe wink",
	Params: []Param{
		seconds("on", "Shown for", "How long it is shown", 700),
		seconds("off", "Hidden for", "How long it is hidden", 500),
	},
	Goes: &Goes{
		Says:   "blinks",
		Manner: Blinks, ByUnit: true, Even: true, Told: "once in ",
		Cycle: func(of Of) int64 { return int64(of.Params.Number("on") + of.Params.Number("off")) },
		Cycled: func(of Of, ms int64) (Params, bool) {
			on, off := of.Params.Number("on"), of.Params.Number("off")
			on = math.Round(on / (on + off) * float64(ms))
			off = float64(ms) - on
			return Params{"on": on, "off": off}, on >= 10 && off >= 10 && on <= 600000 && off <= 600000
		},
		Rule: func(of Of) func(float64) Going {
			on := of.Params.Number("on")
			shown := on / (on + of.Params.Number("off"))
			return func(x float64) Going {
				if x < shown {
					return Going{}
				}
				return Going{Dim: 1}
			}
		},
		Bar: func(p Params, x float64) float64 {
			if on := p.Number("on"); x < on/(on+p.Number("off")) {
				return 1
			}
			return 0
		},
	},
})

// seconds is a time, ms in the document and s on the screen.
func seconds(name, words, label string, usual float64) Param {
	q := num(name, words, label, "s", usual, 0.01, 600).digits(2, 0.1)
	q.Times = 0.001
	return q
}
