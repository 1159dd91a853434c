package effect

import "capstan/core/geom"

// Clock is uncovered by a hand that goes round: a sector of 360 p degrees, 0 upwards (SMIL's clockWipe).
const Clock = "clock"

var _ = add(Effect{
	Name: Clock, Words: "Clock", Rank: 60, Easing: "ease-in-out", Lasts: 700,
	Finds: "radial pie sweep timer dial fan hand",
	Params: []Param{
		num("start", "Starts at", "Where the hand starts; 0 is up", "°", 0, -360, 360),
		sense(),
	},
	Comes: uncoveredBy("a hand that goes round", clock),
	Pages: &Pages{Front: clock, Sign: [2]string{"M-8 0a8 8 0 1 0 16 0a8 8 0 1 0 -16 0", "M0 -8V0H8"}},
})

// sense is which way something goes round.
func sense() Param {
	return choice("anticlockwise", "Sense", "Sense", Option{Words: "↻ clockwise"}, Option{Value: true, Words: "↺ anticlockwise"}).
		mirrored(func(v any) any {
			if v == true {
				return nil
			}
			return true
		})
}

func clock(p Params) *Front {
	start, turn := p.Number("start"), 360.0
	if p.Is("anticlockwise") {
		turn = -360
	}
	return &Front{at: func(box geom.Box, share float64) Field {
		c := box.Centre()
		return field(Sector, c.X, c.Y, start, share*turn, 0)
	}}
}
