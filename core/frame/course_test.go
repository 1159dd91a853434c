package frame_test

import (
	"fmt"
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/library"
)

// compiled is a sound project as a film.
func compiled(t *testing.T, p *doc.Project) *frame.Film {
	t.Helper()
	if err := p.Validate(); err != nil {
		t.Fatal(err)
	}
	fonts, err := library.Book()
	if err != nil {
		t.Fatal(err)
	}
	f, err := frame.Compile(p, frame.Assets{Fonts: fonts}, nil)
	if err != nil {
		t.Fatal(err)
	}
	return f
}

// flight is a film of scenes without a stay in which a tile lies at each of the places, its morphs one run.
func flight(t *testing.T, into []int64, easing string, curve bool, places ...geom.Point) *frame.Film {
	t.Helper()
	p := doc.NewProject("p", "p", 1000, 1000, "s0")
	p.Film.Scenes = nil
	for i, at := range places {
		s := doc.NewScene(fmt.Sprintf("s%d", i), "s")
		s.Stay = 0
		if i > 0 {
			s.Transition = doc.Transition{Kind: doc.Morph, Duration: into[i-1], GoesOn: i > 1, Curve: curve && i == 1, Easing: easing}
		}
		s.Layers = []*doc.Layer{{ID: fmt.Sprintf("l%d", i), Thread: "a", Name: "Tile", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#d8573a"},
			Place: doc.Place{X: at.X, Y: at.Y, W: 20, H: 20}}}
		p.Film.Scenes = append(p.Film.Scenes, s)
	}
	return compiled(t, p)
}

// Positions through a run lie on a smooth curve: at even speed within 1 % (finite differences), through every place, without a corner
// (docs/motion.md, section 6).
func TestARunGoesAlongACurveAtEvenSpeed(t *testing.T) {
	places := []geom.Point{{X: 100, Y: 800}, {X: 300, Y: 250}, {X: 520, Y: 420}, {X: 640, Y: 120}, {X: 900, Y: 600}}
	f := flight(t, []int64{700, 400, 900, 1000}, "linear", true, places...)
	where := func(at motion.Instant) geom.Point {
		p := f.Player()
		p.Stand(at)
		for i := range places {
			if c, _, ok := p.Quad(fmt.Sprintf("l%d", i)); ok {
				return c[0].Add(c[2]).Mul(0.5)
			}
		}
		t.Fatalf("nothing is drawn at %v", at)
		return geom.Point{}
	}
	near := make([]float64, len(places))
	for i := range near {
		near[i] = math.Inf(1)
	}
	var way []float64
	total, was := 0.0, where(motion.Millis(0))
	heading := geom.Point{}
	for ms := int64(0); ms <= 3000; ms++ {
		p := where(motion.Millis(ms))
		for i, q := range places {
			near[i] = min(near[i], p.Sub(q).Len())
		}
		if step := p.Sub(was); ms > 0 {
			way = append(way, step.Len())
			total += step.Len()
			if ms > 1 {
				if turn := math.Acos(min(1, (step.X*heading.X+step.Y*heading.Y)/step.Len()/heading.Len())) * 180 / math.Pi; turn > 3 {
					t.Errorf("at %d ms it turns by %.1f° within a millisecond", ms, turn)
				}
			}
			heading = step
		}
		was = p
	}
	for i, d := range near {
		if d > 0.5 {
			t.Errorf("it passes place %d %.2f px away", i, d)
		}
	}
	for ms, d := range way {
		if mean := total / 3000; math.Abs(d-mean) > 0.01*mean {
			t.Errorf("at %d ms it goes %.4f px a ms, on the whole %.4f", ms, d, mean)
			break
		}
	}
	if got := where(motion.Millis(3000)); got.Sub(places[4]).Len() > 1e-9 {
		t.Errorf("it ends at %v", got)
	}
	// Two scenes make no curve, and without one each morph goes straight.
	straight := flight(t, []int64{1000, 1000}, "linear", false, places[:3]...)
	p := straight.Player()
	p.Stand(motion.Millis(500))
	if c, _, _ := p.Quad("l0"); c[0].Add(c[2]).Mul(0.5).Sub(geom.Point{X: 200, Y: 525}).Len() > 1e-9 {
		t.Errorf("it goes straight to %v", c[0].Add(c[2]).Mul(0.5))
	}
}
