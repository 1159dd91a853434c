package effect

import (
	"capstan/core/geom"
	"capstan/core/paint"
)

// Embers is burnt away as paper smoulders, or comes back from it: a glowing edge goes across in a course of its own, and sparks rise from it.
const Embers = "embers"

var _ = add(Effect{
	Name: Embers, Words: "Embers", Rank: 82, Lasts: 1600,
	Finds: "burn fire smoulder paper ash sparks glow flame scorch",
	Params: []Param{
		num("grain", "Holes", "How far holes lie apart", "px", 90, 4, 4000).first(func(s Setting) any {
			return max(12, min(160, float64(int(min(s.Box.W(), s.Box.H())/3))))
		}),
		colour("glow", "Glows", "Colour of the glowing edge", "#ffb43c"),
		colour("char", "Chars", "Colour that it chars to", "#7a2414"),
		num("sparks", "Sparks", "How many sparks rise", "", 40, 0, 200).whole(),
	},
	Comes: &Comes{
		Says: [2]string{"comes out of embers", "goes by embers"}, Still: true, Seeded: true,
		Rule: func(Of) func(Moment) Shown {
			return func(at Moment) Shown { return Shown{Opacity: 1, Share: clamp(at.P)} }
		},
		Front: func(of Of) *Front {
			seed, grain := float64(uint32(of.Seed)), max(1, of.Params.Number("grain"))
			return &Front{
				at:   func(_ geom.Box, share float64) Field { return smoulder(seed, grain, share*(1+rim), 0) },
				Glow: &Glow{Edge: parsed(of.Params.Word("glow")), Char: parsed(of.Params.Word("char")), Sparks: int(of.Params.Number("sparks")), Seed: uint32(of.Seed), Grain: grain},
			}
		},
	},
})

// rim is how wide the glowing edge is, in steps of the noise from 0 to 1: it has gone when all is uncovered.
const rim = 0.16

// frays is how soft the edge is, likewise.
const frays = 0.02

// smoulder is where the noise lies below front, or above it.
func smoulder(seed, grain, front, inverted float64) Field {
	return field(Noise, seed, grain, 1, front/(1+frays), frays, inverted)
}

// parsed is a colour that was checked.
func parsed(s string) paint.Colour {
	c, err := paint.Parse(s)
	if err != nil {
		return paint.Black
	}
	return c
}

// Glow is the edge of a front that smoulders.
type Glow struct {
	Edge, Char paint.Colour
	Sparks     int
	Seed       uint32
	Grain      float64 // px
}

// Rims are the bands along the edge at a share of a front's way, from the wider one to the one within: what lies in both fields of one.
func (f *Front) Rims(share float64, hides bool) (bands [2][2]Field) {
	g := f.Glow
	seed, e := float64(g.Seed), share*(1+rim)
	for i, wide := range [2]float64{rim, rim / 3} {
		if hides {
			bands[i] = [2]Field{smoulder(seed, g.Grain, e+wide*min(1, 8*share), 0), smoulder(seed, g.Grain, e, 1)}
		} else {
			bands[i] = [2]Field{smoulder(seed, g.Grain, e, 0), smoulder(seed, g.Grain, e-wide, 1)}
		}
	}
	return
}

// Passes returns the share of its way at which a front that smoulders comes to where the noise is u.
func (g *Glow) Passes(u float64) float64 { return u / (1 + rim) }
