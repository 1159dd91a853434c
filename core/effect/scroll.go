package effect

import "math"

// Scroll repeats a layer along one of its own axes, with a gap, and moves all of it by one period a cycle.
const Scroll = "scroll"

var _ = add(Effect{
	Name: Scroll, Words: "Scroll", Rank: 180,
	Finds: "ticker marquee band tape run endless repeat tile conveyor",
	Params: []Param{
		func() Param {
			q := travel(180)
			q.Four = true
			return q
		}(),
		num("speed", "Speed", "Speed in px a second", "", 120, 1, 100000).first(func(s Setting) any {
			if s.Box.W() > s.PageW/2 {
				return 40.0 // what is wide lies far off
			}
			return nil
		}),
		num("gap", "Gap", "Gap between two copies; below 0 they overlap", "px", 0, -1e6, 1e6),
	},
	Goes: &Goes{
		Says:   "scrolls",
		Manner: Rounds, Even: true,
		Pace: func(of Of) int64 {
			if speed := of.Params.Number("speed"); speed > 0 {
				return max(1, int64(math.Round(period(of)/speed*1000)))
			}
			return 0
		},
		Band: func(apart float64) Params { return Params{"direction": 180.0, "speed": 120.0, "gap": apart} },
		Rounded: func(of Of, rounds, ms float64) (Params, bool) {
			speed := math.Round(period(of)*rounds/max(ms, 1)*1000*1e4) / 1e4
			return Params{"speed": speed}, rounds > 0 && speed >= 1 && speed <= 100000
		},
		Rule: func(of Of) func(float64) Going {
			axis, p := unit(of.Params.Number("direction")), period(of)
			g := Going{Repeats: 1}
			if axis.X != 0 {
				g.Period.X = p
			} else {
				g.Period.Y = p
			}
			return func(x float64) Going {
				g := g
				g.Scroll = axis.Mul(p * (x - math.Floor(x)))
				return g
			}
		},
	},
})

// leastPeriod is how many copies of a scroll lie over each other at most: an overlap leaves each this share of its side.
const leastPeriod = 16

// period is after how many px a scroll repeats.
func period(of Of) float64 {
	side := of.Box.W()
	if d := of.Params.Number("direction"); d == 90 || d == 270 {
		side = of.Box.H()
	}
	return max(side+of.Params.Number("gap"), side/leastPeriod, 1)
}
