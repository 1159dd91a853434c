package effect

import (
	"fmt"
	"math"

	"capstan/core/geom"
)

// Flocks are copies of a layer that rise, fall or burst, each with a life of its own, in its place.
const Flocks = "flock"

// MaxFlock is how many copies there are at once, at most.
const MaxFlock = 1000

var _ = add(Effect{
	Name: Flocks, Words: "Flock", Rank: 190,
	Finds: "birds snow confetti rain leaves fall swarm many copies particles petals",
	Params: []Param{
		choice("way", "They", "Which way they go", Option{Value: "rise", Words: "rise"}, Option{Value: "fall", Words: "fall"}, Option{Value: "burst", Words: "burst"}),
		choice("from", "From", "From where they come", Option{Value: "line", Words: "a line"}, Option{Value: "point", Words: "a point"}, Option{Value: "ring", Words: "a ring"}),
		num("rate", "Rate", "How many come a second", "/s", 6, 0.1, 500).digits(1, 1),
		num("spread", "Spread", "How long the line is, or how wide the ring", "px", 600, 0, 20000).first(func(s Setting) any { return math.Round(s.PageW * 0.6) }),
		seconds("life", "Life", "How long each lives", 2500),
		num("distance", "Distance", "How far each goes", "px", 400, 0, 20000).first(func(s Setting) any { return math.Round(s.PageH * 0.6) }),
		share("size", "Sizes", "How much smaller some are", 0.5, 0, 100),
		num("turn", "Turn", "How far each turns in its life, at most", "°", 180, -36000, 36000),
	},
	Check: func(p Params) string {
		if n := alive(p); n > MaxFlock {
			return fmt.Sprintf("rate and life make %.0f copies at once; there can be %d", n, MaxFlock)
		}
		return ""
	},
	Goes: &Goes{
		Says:   "flies as a flock",
		Manner: Strews, Seeded: true, Even: true, Told: "comes round in ", Bar: evenly,
		Copies: alive,
		Rule: func(of Of) func(float64) Going {
			f := newFlock(of)
			return func(x float64) Going {
				return Going{Flocks: [2]Flight{{Of: f, X: x, Share: 1}}}
			}
		},
	},
	Offers: []Offer{{Kind: Loop, Words: "Flock", Name: "Flock", Duration: 4000}},
})

// alive is how many copies there are at once.
func alive(p Params) float64 { return p.Number("rate") * p.Number("life") / 1000 }

// Flock is the copies of a layer by their numbers: what becomes of each follows from its place in the row and the seed, so that a moment is
// known without those before it, and all comes round after a cycle.
type Flock struct {
	n                            int     // that come in a cycle
	cycle, life                  float64 // ms
	way, from                    string
	spread, distance, size, turn float64
	seed                         int64
	middle                       geom.Point
}

func newFlock(of Of) *Flock {
	p := of.Params
	return &Flock{
		n: int(max(1, math.Round(p.Number("rate")*float64(of.Pass)/1000))), cycle: float64(max(1, of.Pass)), life: max(1, p.Number("life")),
		way: p.Word("way"), from: p.Word("from"), spread: p.Number("spread"), distance: p.Number("distance"), size: p.Number("size"),
		turn: p.Number("turn"), seed: of.Seed, middle: of.Box.Centre(),
	}
}

// Flight is a flock at a time.
type Flight struct {
	Of     *Flock
	X      float64 // share of the cycle
	Share  float64 // how much of it shows
	Since  float64 // ms since its begin; no copy is older
	Length float64 // ms that it flies: every copy has lived by then; 0: as long as the scene
}

// Copies is how many copies may be there at a time, at most.
func (f *Flight) Copies() int {
	return int(math.Ceil(f.Of.life/f.Of.cycle*float64(f.Of.n))) + 1
}

// Copy returns where copy i is: a map in the layer's own axes, and how opaque; ok is false where it is not there.
func (f *Flight) Copy(i int) (m geom.Matrix, alpha float64, ok bool) {
	k := f.Of
	at := f.X * float64(k.n)
	row := int(math.Floor(at)) - i
	who := row % k.n
	if who < 0 {
		who += k.n
	}
	chance := func(j int) float64 { return splitmix(k.seed+int64(who)*104729, j) }
	age := (at - float64(row) - chance(0)) / float64(k.n) * k.cycle
	if age < 0 || age >= k.life || age > f.Since || f.Length > 0 && f.Since-age > f.Length-k.life {
		return m, 0, false
	}
	a := age / k.life
	heading := 270 + 30*(chance(1)-0.5)
	start := geom.Point{X: k.spread * (chance(2) - 0.5)}
	round := unit(360 * chance(2))
	switch {
	case k.way == "burst":
		heading = 360 * chance(2)
	case k.way == "fall":
		heading -= 180
	}
	switch k.from {
	case "point":
		start = geom.Point{}
	case "ring":
		start = round.Mul(k.spread / 2)
	}
	size := 1 - k.size*chance(3)
	turn := k.turn * (2*chance(4) - 1) * a
	to := start.Add(unit(heading).Mul(k.distance * a))
	m = geom.Translate(to).Mul(geom.Rotate(turn).Mul(geom.Scale(size, size)).About(k.middle))
	return m, clamp(a*10) * clamp((1-a)*4) * f.Share, true
}
