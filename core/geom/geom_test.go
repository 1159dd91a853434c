package geom

import (
	"math"
	"math/rand/v2"
	"testing"
)

func near(a, b Point, by float64) bool { return a.Sub(b).Len() <= by }

func TestQuarterTurnsAreExact(t *testing.T) {
	p := Point{3, 7}
	for deg, want := range map[float64]Point{0: {3, 7}, 90: {-7, 3}, 180: {-3, -7}, 270: {7, -3}, -90: {7, -3}, 720: {3, 7}, 450: {-7, 3}} {
		if got := Rotate(deg).Apply(p); got != want {
			t.Errorf("%v turned by %v degrees is %v, want exactly %v", p, deg, got, want)
		}
	}
}

func TestInverseUndoesAMap(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for i := 0; i < 1000; i++ {
		m := Translate(Point{r.NormFloat64() * 100, r.NormFloat64() * 100}).Mul(Rotate(r.Float64() * 720)).Mul(Scale(r.Float64()*5+0.01, -r.Float64()*5-0.01))
		inv, ok := m.Inverse()
		p := Point{r.NormFloat64() * 1000, r.NormFloat64() * 1000}
		if !ok || !near(inv.Apply(m.Apply(p)), p, 1e-6) {
			t.Fatalf("the inverse of %v brings %v to %v", m, p, inv.Apply(m.Apply(p)))
		}
	}
	if _, ok := Scale(0, 1).Inverse(); ok {
		t.Error("a flattened plane has no inverse")
	}
}

func TestAnEllipseIsRound(t *testing.T) {
	m := NewMeasure(Ellipse(BoxAt(Point{}, 200, 200)))
	// One cubic a quarter: radius error at most 2.73e-4 (Goldapp, 1991).
	if got := m.Length(); math.Abs(got-2*math.Pi*100) > 0.2 {
		t.Errorf("a circle of radius 100 is %v px around, want %v", got, 2*math.Pi*100)
	}
	for s := 0.0; s < 1; s += 0.01 {
		p, _ := m.At(s)
		if d := math.Abs(p.Len() - 100); d > 0.0273 {
			t.Errorf("at %v of its length the circle lies %v px off", s, d)
		}
	}
}

func TestMovingAlongAPathIsEven(t *testing.T) {
	p, err := ParseData("M0 0C300 0 -200 80 100 100L400 100")
	if err != nil {
		t.Fatal(err)
	}
	m := NewMeasure(p)
	const n = 500
	// Chords are at most as long as their arcs, and nearly so where the path is smooth.
	last, _ := m.At(0)
	step := m.Length() / n
	for i := 1; i <= n; i++ {
		q, _ := m.At(float64(i) / n)
		if d := q.Sub(last).Len(); d > step*1.0001 {
			t.Fatalf("step %d is %v px long, the arc only %v", i, d, step)
		}
		last = q
	}
	if !near(last, Point{400, 100}, 1e-6) {
		t.Errorf("the end is at %v", last)
	}
}

func TestAPathWithoutLengthStandsStill(t *testing.T) {
	for _, d := range []string{"M5 6L5 6", "M5 6C5 6 5 6 5 6", "M5 6"} {
		p, err := ParseData(d)
		if err != nil {
			t.Fatal(err)
		}
		m := NewMeasure(p)
		for _, s := range []float64{-1, 0, 0.5, 1, 2} {
			q, angle := m.At(s)
			if len(m.segs) > 0 && (q != Point{5, 6} || angle != 0) {
				t.Errorf("%q at %v: %v, %v degrees", d, s, q, angle)
			}
		}
	}
}

func TestOvershootGoesOnAlongTheTangent(t *testing.T) {
	p, _ := ParseData("M0 0L100 0")
	m := NewMeasure(p)
	if q, _ := m.At(1.2); !near(q, Point{120, 0}, 1e-9) {
		t.Errorf("20 %% past the end lies at %v", q)
	}
	if q, _ := m.At(-0.1); !near(q, Point{-10, 0}, 1e-9) {
		t.Errorf("10 %% before the begin lies at %v", q)
	}
}

func TestContainsKnowsHoles(t *testing.T) {
	// A square with a square hole drawn the other way round.
	p, err := ParseData("M0 0L100 0L100 100L0 100ZM30 30L30 70L70 70L70 30Z")
	if err != nil {
		t.Fatal(err)
	}
	for q, want := range map[Point]bool{{10, 10}: true, {50, 50}: false, {150, 50}: false, {99, 99}: true, {-1, 50}: false} {
		if p.Contains(q) != want {
			t.Errorf("%v inside: %v", q, !want)
		}
	}
}

func TestBoundsAreTight(t *testing.T) {
	// The curve reaches y = 75, its control points y = 100 (a quarter of their height is lost).
	p, _ := ParseData("M0 0C0 100 100 100 100 0")
	if b := p.Bounds(); math.Abs(b.Max.Y-75) > 1e-9 || b.Min.Y != 0 {
		t.Errorf("bounds %v", b)
	}
}

func TestPathDataReadsAndRefuses(t *testing.T) {
	for d, points := range map[string]int{"M1,2L3-4": 2, "m1 2 3 4 5 6": 3, "M0 0h10v10H0z": 4, "M0 0q5 5 10 0": 4, "M0 0ZL5 5": 3, "": 0, "M1e1 .5": 1} {
		p, err := ParseData(d)
		if err != nil || len(p.Points) != points {
			t.Errorf("%q: %v, %v", d, p, err)
		}
	}
	for _, d := range []string{"L1 2", "M1", "M1 2X", "M1 2 3", "M1e999 0", "MNaN 0", "M0 0A1 1 0 0 0 1 1"} {
		if _, err := ParseData(d); err == nil {
			t.Errorf("%q was read", d)
		}
	}
}

func FuzzParseData(f *testing.F) {
	for _, d := range []string{"M0 0L1 1", "m0 0c1 1 2 2 3 3z", "M0 0Q1 1 2 2ZL1 1", "M-.5.5"} {
		f.Add(d)
	}
	f.Fuzz(func(t *testing.T, d string) {
		p, err := ParseData(d)
		if err != nil {
			return
		}
		// What is read can be written and read again as the same path, and measured without a stumble.
		q, err := ParseData(p.Data())
		if err != nil || len(q.Points) != len(p.Points) {
			t.Fatalf("%q became %q: %v", d, p.Data(), err)
		}
		NewMeasure(p).At(0.5)
		p.Contains(Point{1, 1})
		p.Bounds()
	})
}

// The box of a path is that of its segments, whatever its verbs.
func TestBoundsAreThoseOfTheSegments(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	at := func() Point { return Point{X: r.Float64()*200 - 100, Y: r.Float64()*200 - 100} }
	for range 2000 {
		p := &Path{}
		p.Move(at())
		for range r.IntN(8) {
			switch r.IntN(5) {
			case 0:
				p.Move(at())
			case 1:
				p.Line(at())
			case 2, 3:
				p.Cubic(at(), at(), at())
			default:
				p.Close()
			}
		}
		want := EmptyBox()
		p.Each(func(s Segment) {
			for i := range 201 {
				want = want.Include(s.At(float64(i) / 200))
			}
		})
		got := p.Bounds()
		if want == EmptyBox() {
			if got != want {
				t.Fatalf("%s: %v, want none", p.Data(), got)
			}
			continue
		}
		if !got.Grow(1e-9).Contains(want.Min) || !got.Grow(1e-9).Contains(want.Max) || !want.Grow(0.05).Contains(got.Min) || !want.Grow(0.05).Contains(got.Max) {
			t.Fatalf("%s: %v, by its segments %v", p.Data(), got, want)
		}
	}
}
