package effect

import "capstan/core/geom"

// Focus comes out of a blur: its deviation is r (1-p), its opacity p.
const Focus = "focus"

var _ = add(Effect{
	Name: Focus, Words: "Focus", Rank: 70,
	Finds:  "blur sharp lens sharpen unblur foggy mist camera",
	Params: []Param{num("blur", "Blur", "Blur that it comes from", "px", 24, 0, 500)},
	Comes: &Comes{Says: [2]string{"comes into focus", "goes out of focus"}, ByUnit: true, Still: true, Rule: func(of Of) func(Moment) Shown {
		r := of.Params.Number("blur")
		return func(at Moment) Shown {
			p := clamp(at.P)
			return Shown{Opacity: p, Blur: r * (1 - p), Offset: geom.Point{}}
		}
	}},
})
