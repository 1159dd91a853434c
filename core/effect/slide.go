package effect

// Slide comes along a direction from off the page, or from a distance with a fade. By unit that is one line.
const Slide = "slide"

var _ = add(Effect{
	Name: Slide, Words: "Slide", Rank: 20,
	Finds: "fly move push enter drive shove swoosh swipe glide rise arrive leave",
	Params: []Param{
		travel(270), // up: it rises into the page
		func() Param {
			q := choice("distance", "From", "How far it slides", Option{Words: "off the page"}, Option{Value: 200.0, Words: "a distance, with a fade"})
			q.Out, q.NoUnit, q.Free, q.Unit, q.Most = "To", true, "Distance", "px", 1e6
			return q
		}(),
	},
	Comes: &Comes{
		Says:   [2]string{"slides in", "slides out"},
		ByUnit: true, OffPage: offPage,
		Rule: func(of Of) func(Moment) Shown {
			v := unit(of.Params.Number("direction"))
			way := of.Params.Number("distance")
			if of.Unit != "" {
				way = of.Line
			}
			return func(at Moment) Shown {
				d := way
				if way == 0 {
					d = at.Distance
				}
				d *= 1 - at.P
				if !at.Through {
					d = -d
				}
				s := Shown{Opacity: 1, Offset: v.Mul(d), Away: at.X <= 0}
				if way > 0 {
					s.Opacity = clamp(at.P)
				}
				return s
			}
		},
	},
})

func offPage(of Of) (float64, bool) {
	return of.Params.Number("direction"), of.Params.Number("distance") == 0 && of.Unit == ""
}
