package effect

// Bounce falls in along a direction and rebounds, each time a quarter as high. Easing has no say. With n rebounds and r = 1/2 it goes through
// U = 1 + 2 sum r^k fall times: it falls H (1 - u^2) for u < 1; rebound k, from u_k = 1 + 2 sum_{0<j<k} r^j on, is H r^2k 4 v (1-v) high, v being
// (u - u_k) / (2 r^k). H is how far it is off the page, or one line by unit.
const Bounce = "bounce"

var _ = add(Effect{
	Name: Bounce, Words: "Bounce", Rank: 25, Lasts: 1200,
	Finds: "ball drop fall jump rebound spring hop boing rubber elastic",
	Params: []Param{
		travel(90),
		func() Param {
			q := num("rebounds", "Rebounds", "Rebounds", "", 2, 0, 10)
			q.Whole = true
			return q
		}(),
	},
	Offers: []Offer{
		{Kind: Entrance, Words: "Bounce", Name: "Bounce in"},
		{Kind: Exit, Words: "Bounce", Name: "Bounce out", Params: Params{"direction": 270.0}},
	},
	Comes: &Comes{
		Says:   [2]string{"bounces in", "bounces out"},
		ByUnit: true, Even: true, OffPage: offPage,
		Bar: func(p Params, x float64) float64 { return 1 - Rebound(int(p.Number("rebounds")), x) },
		Rule: func(of Of) func(Moment) Shown {
			v, n := unit(of.Params.Number("direction")), int(of.Params.Number("rebounds"))
			falls := falls(n)
			return func(at Moment) Shown {
				high := at.Distance
				if of.Unit != "" {
					high = of.Line
				}
				d := high * Rebound(n, at.X)
				if !at.Through {
					d = -d
				}
				s := Shown{Opacity: 1, Offset: v.Mul(d), Away: at.X <= 0}
				if of.Unit != "" {
					s.Opacity = clamp(at.X * falls)
				}
				return s
			}
		},
	},
})

// falls is how many times the first fall a bounce lasts.
func falls(n int) float64 {
	all, r := 1.0, 1.0
	for range n {
		r /= 2
		all += 2 * r
	}
	return all
}

// Rebound is how high something is, 1 at first, at a linear share of a fall with n rebounds.
func Rebound(n int, x float64) float64 {
	u := falls(n) * clamp(x)
	if u < 1 {
		return 1 - u*u
	}
	from, r := 1.0, 1.0
	for range n {
		r /= 2
		if u < from+2*r {
			v := (u - from) / (2 * r)
			return r * r * 4 * v * (1 - v)
		}
		from += 2 * r
	}
	return 0
}
