package oracles

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// A line that is drawn to a share p is p times as long as Chromium's getTotalLength(), within 0.5 %, and ends where its getPointAtLength() does, within
// half a px (SVG 2, section 9.6): shapes of all kinds, and random paths of lines and cubics, open and closed.
func TestDrawnLengthsAreThoseOfChromium(t *testing.T) {
	type asked struct {
		D string  `json:"d"`
		P float64 `json:"p"`
	}
	var list []asked
	rng := rand.New(rand.NewPCG(23, 6))
	add := func(p *geom.Path) {
		for range 4 {
			list = append(list, asked{p.Data(), 0.02 + 0.96*rng.Float64()})
		}
	}
	for _, kind := range doc.Shapes {
		like := shape.Default(kind)
		l := &doc.Layer{Kind: kind, Place: doc.Place{W: 220, H: 140}, Corner: 9, Shape: &like}
		for _, part := range shape.Of(l).Parts() {
			add(part.Path)
		}
	}
	for range 120 {
		p := &geom.Path{}
		at := func() geom.Point { return geom.Point{X: rng.Float64() * 400, Y: rng.Float64() * 300} }
		for range 1 + rng.IntN(3) {
			p.Move(at())
			for range 1 + rng.IntN(5) {
				if rng.IntN(2) == 0 {
					p.Line(at())
				} else {
					p.Cubic(at(), at(), at())
				}
			}
			if rng.IntN(2) == 0 {
				p.Close()
			}
		}
		add(p)
	}
	theirs := ask[[3]float64](t, `async ({ d, p }) => {
		const path = document.createElementNS('http://www.w3.org/2000/svg', 'path')
		path.setAttribute('d', d)
		const l = path.getTotalLength()
		const q = path.getPointAtLength(l * p)
		return [l, q.x, q.y]
	}`, list)
	for i, a := range list {
		whole, err := geom.ParseData(a.D)
		if err != nil {
			t.Fatal(err)
		}
		drawn := whole.Part(0, a.P)
		length := geom.NewMeasure(drawn).Length()
		if want := theirs[i][0] * a.P; math.Abs(length-want) > 0.005*want {
			t.Errorf("%s to %.3f is %.2f px long, in Chromium %.2f", a.D, a.P, length, want)
		}
		end, said := drawn.Points[len(drawn.Points)-1], geom.Point{X: theirs[i][1], Y: theirs[i][2]}
		// Where two subpaths meet a rounding decides which of them it is on.
		if d := end.Sub(said).Len(); d > 0.5 {
			t.Errorf("%s to %.3f ends at %v, in Chromium at %v", a.D, a.P, end, said)
		}
	}
}
