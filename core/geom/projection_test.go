package geom_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/geom"
)

// A hinge by hand: a board 200 px wide on its left edge, half way open, seen from 400 px. Its far edge stands 200 sin 60 px towards the viewer, and
// 200 cos 60 px to the right of the hinge; both grow by 400 / (400 - 173.205).
func TestHingedByHand(t *testing.T) {
	p := geom.Hinged(geom.Point{X: 10, Y: 50}, geom.Point{X: 1}, 60, 400)
	k := 400 / (400 - 200*math.Sin(math.Pi/3))
	for _, c := range []struct{ at, want geom.Point }{
		{geom.Point{X: 10, Y: 0}, geom.Point{X: 10, Y: 0}},
		{geom.Point{X: 210, Y: 0}, geom.Point{X: 10 + 100*k, Y: 50 - 50*k}},
		{geom.Point{X: 210, Y: 100}, geom.Point{X: 10 + 100*k, Y: 50 + 50*k}},
	} {
		got, w := p.Apply(c.at)
		if got.Sub(c.want).Len() > 1e-9 || w <= 0 {
			t.Errorf("%v is seen at %v, w %v; want %v", c.at, got, w, c.want)
		}
		inv, ok := p.Inverse()
		if back, _ := inv.Apply(got); !ok || back.Sub(c.at).Len() > 1e-9 {
			t.Errorf("%v is seen at %v, which is seen at %v", c.at, got, back)
		}
	}
	edgeOn := geom.Hinged(geom.Point{}, geom.Point{Y: 1}, 90, 400)
	if _, ok := edgeOn.Inverse(); ok {
		t.Error("what is seen edge on has an area")
	}
}

// Whatever the curve and the turn: every point of a curve that was projected lies within the tolerance of the true one, at the same share of each of
// its pieces or near it. The control without the fourth-order handles (chords alone) fails.
func TestProjectedCurvesLieWhereTheirPointsDo(t *testing.T) {
	rng := rand.New(rand.NewPCG(4, 4))
	for range 300 {
		at := func() geom.Point { return geom.Point{X: rng.Float64() * 400, Y: rng.Float64() * 300} }
		path := &geom.Path{}
		path.Move(at())
		path.Cubic(at(), at(), at())
		path.Line(at())
		path.Close()
		p := geom.Hinged(geom.Point{X: 200 * rng.Float64()}, geom.Rotate(rng.Float64()*360).ApplyVector(geom.Point{X: 1}), rng.Float64()*170-85, 900)
		out := &geom.Path{}
		out.Project(path, &p, 0.02)
		var dense []geom.Point
		out.Each(func(s geom.Segment) {
			for i := range 65 {
				dense = append(dense, s.At(float64(i)/64))
			}
		})
		near := func(q geom.Point) float64 {
			best := math.Inf(1)
			for i := 1; i < len(dense); i++ { // to the chord
				a, v := dense[i-1], dense[i].Sub(dense[i-1])
				k := 0.0
				if l := v.X*v.X + v.Y*v.Y; l > 0 {
					k = min(1, max(0, ((q.X-a.X)*v.X+(q.Y-a.Y)*v.Y)/l))
				}
				best = min(best, q.Sub(a.Add(v.Mul(k))).Len())
			}
			return best
		}
		path.Each(func(s geom.Segment) {
			for i := range 33 {
				if q, _ := p.Apply(s.At(float64(i) / 32)); near(q) > 0.05 {
					t.Fatalf("%v of the curve is %v px off where it is seen", float64(i)/32, near(q))
				}
			}
		})
	}
}
