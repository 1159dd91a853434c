package pen_test

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"capstan/core/geom"
	"capstan/core/pen"
)

func drawn(r *rand.Rand, n int, closed bool) pen.Contour {
	q := func() geom.Point { return geom.Point{X: r.Float64() * 400, Y: r.Float64() * 300} }
	c := pen.Contour{Closed: closed}
	for range n {
		v := pen.Node{At: q(), In: q(), Out: q()}
		if r.IntN(3) == 0 {
			v = pen.Corner(v.At)
		}
		c.Nodes = append(c.Nodes, v)
	}
	if !closed {
		c.Nodes[0].In, c.Nodes[n-1].Out = c.Nodes[0].At, c.Nodes[n-1].At
	}
	return c
}

func line(list ...pen.Contour) (out []geom.Point) {
	pen.Path(list).Each(func(s geom.Segment) {
		for k := range 20 {
			out = append(out, s.At(float64(k)/20))
		}
		out = append(out, s.At(1))
	})
	return
}

func off(q geom.Point, list []geom.Point) float64 {
	best := math.Inf(1)
	for _, p := range list {
		best = math.Min(best, p.Sub(q).Len())
	}
	return best
}

func TestPathsAreReadAndWrittenAlike(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for i := range 200 {
		c := drawn(r, 2+r.IntN(8), i%2 == 0)
		again := pen.Contours(pen.Path([]pen.Contour{c}))
		if len(again) != 1 || pen.Path(again).Data() != pen.Path([]pen.Contour{c}).Data() || again[0].Closed != c.Closed || len(again[0].Nodes) != len(c.Nodes) {
			t.Fatalf("%v became %v", c, again)
		}
	}
	p, _ := geom.ParseData("M0 0L10 0L10 10ZL5 5M1 1C2 2 3 3 1 1Z")
	if list := pen.Contours(p); len(list) != 3 || !list[0].Closed || list[1].Closed || len(list[1].Nodes) != 2 || len(list[2].Nodes) != 1 {
		t.Errorf("read as %+v", list)
	}
}

// A new point leaves the curve where it was, to 1e-9.
func TestInsertingLeavesTheCurve(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 4))
	for i := range 300 {
		c := drawn(r, 2+r.IntN(6), i%2 == 0)
		seg, at := r.IntN(c.Segments()), r.Float64()
		a, b := c.Nodes[seg], c.Nodes[(seg+1)%len(c.Nodes)]
		whole := geom.Segment{P0: a.At, P1: a.Out, P2: b.In, P3: b.At}
		k := c.Insert(seg, at)
		n := c.Nodes[k]
		after := c.Nodes[(k+1)%len(c.Nodes)]
		first := geom.Segment{P0: c.Nodes[k-1].At, P1: c.Nodes[k-1].Out, P2: n.In, P3: n.At}
		second := geom.Segment{P0: n.At, P1: n.Out, P2: after.In, P3: after.At}
		straight := a.Out == a.At && b.In == b.At
		for j := range 21 {
			u := float64(j) / 20
			x, y := whole.At(u*at), whole.At(at+u*(1-at))
			if straight { // as a line it runs evenly
				x, y = a.At.Lerp(b.At, u*at), a.At.Lerp(b.At, at+u*(1-at))
				first.Line, second.Line = true, true
			}
			if d := math.Max(first.At(u).Sub(x).Len(), second.At(u).Sub(y).Len()); d > 1e-9 {
				t.Fatalf("the curve moved by %g", d)
			}
		}
	}
}

// Taking out a point that was put in gives the curve back; taking out another keeps the directions at both ends.
func TestRemovingRefits(t *testing.T) {
	r := rand.New(rand.NewPCG(5, 6))
	for range 60 {
		// A gentle curve, of which a point in its middle says nothing new.
		c := pen.Contour{Nodes: []pen.Node{{At: geom.Point{}, Out: geom.Point{X: 60 + r.Float64()*40, Y: -r.Float64() * 80}}, {At: geom.Point{X: 300}, In: geom.Point{X: 200 + r.Float64()*40, Y: -r.Float64() * 80}}}}
		c.Nodes[0].In, c.Nodes[1].Out = c.Nodes[0].At, c.Nodes[1].At
		was := line(c)
		c.Remove(c.Insert(0, 0.2+0.6*r.Float64()))
		now := line(c)
		for _, q := range was {
			if d := off(q, now); d > 9 { // samples lie 15 px apart
				t.Fatalf("the refit lies %v px off", d)
			}
		}
	}
	c := drawn(r, 2, false)
	if c.Remove(0) {
		t.Error("a line of two points lost one")
	}
}

func TestNearestIsNearest(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 8))
	for i := range 100 {
		c := drawn(r, 2+r.IntN(5), i%2 == 0)
		q := geom.Point{X: r.Float64() * 400, Y: r.Float64() * 300}
		_, _, d := c.Nearest(q)
		if best := off(q, line(c)); d > best+1e-6 {
			t.Fatalf("%v px away, a sample is %v", d, best)
		}
	}
}

// Strokes drawn by hand: within the tolerance of every point, with few points, corners kept.
func TestFitsKeepTheirTolerance(t *testing.T) {
	r := rand.New(rand.NewPCG(9, 10))
	for i := range 40 {
		var pts []geom.Point
		f := 1 + 2*r.Float64()
		for k := range 150 {
			x := float64(k) * 3
			pts = append(pts, geom.Point{X: x, Y: 60*math.Sin(x/60*f/2) + r.NormFloat64()*0.3})
		}
		tolerance := 1.5 + 3*r.Float64()
		c := pen.Fit(pts, tolerance)
		curve := fine(c)
		for _, q := range pts {
			if d := off(q, curve); d > tolerance+0.3 {
				t.Fatalf("%d: a point lies %.2f px off, tolerance %.2f", i, d, tolerance)
			}
		}
		if len(c.Nodes) > 30 {
			t.Errorf("%d: %d points for a line of 150 samples", i, len(c.Nodes))
		}
	}
	var corner []geom.Point
	for k := 0; k <= 50; k++ {
		corner = append(corner, geom.Point{X: float64(k) * 4})
	}
	for k := 1; k <= 50; k++ {
		corner = append(corner, geom.Point{X: 200, Y: float64(k) * 4})
	}
	c := pen.Fit(corner, 2)
	kept := false
	for _, n := range c.Nodes {
		kept = kept || n.At.Sub(geom.Point{X: 200}).Len() < 1e-9 && !n.Smooth()
	}
	if !kept || len(c.Nodes) > 5 {
		t.Errorf("a right angle became %+v", c.Nodes)
	}
	for _, few := range [][]geom.Point{nil, {{}}, {{}, {}}, {{}, {X: 1}}, {{}, {X: 1}, {X: 1}}} {
		pen.Fit(few, 1) // does not fall over
	}
}

func fine(c pen.Contour) (out []geom.Point) {
	pen.Path([]pen.Contour{c}).Each(func(s geom.Segment) {
		for k := range 200 {
			out = append(out, s.At(float64(k)/200))
		}
		out = append(out, s.At(1))
	})
	return
}

func TestSimplifyingKeepsTheLine(t *testing.T) {
	// A circle of 36 points needs 4 or so.
	var c pen.Contour
	c.Closed = true
	for k := range 36 {
		sin, cos := math.Sincos(2 * math.Pi * float64(k) / 36)
		c.Nodes = append(c.Nodes, pen.Corner(geom.Point{X: 100 * cos, Y: 100 * sin}))
	}
	for i := range c.Nodes {
		c.MakeSmooth(i)
	}
	got := pen.Simplify([]pen.Contour{c}, 1)[0]
	if len(got.Nodes) > 8 {
		t.Errorf("a circle keeps %d points", len(got.Nodes))
	}
	for _, q := range fine(got) {
		if math.Abs(q.Len()-100) > 2 {
			t.Fatalf("it lies %v from the middle", q.Len())
		}
	}
	square := pen.Contours(geom.Rectangle(geom.Box{Max: geom.Point{X: 50, Y: 50}}, 0))
	if got := pen.Simplify(square, 0.5); len(got[0].Nodes) != 4 {
		t.Errorf("a square keeps %d corners", len(got[0].Nodes))
	}
}

// A jagged line of 2,000 points, none of which can go, and a level one all of whose inner points can, are simplified at once: every
// point weighed against the whole line after each that goes took minutes for 200.
func TestLongLinesAreSimplifiedAtOnce(t *testing.T) {
	var jagged, level pen.Contour
	for k := range 2000 {
		jagged.Nodes = append(jagged.Nodes, pen.Corner(geom.Point{X: float64(k), Y: float64(k%2) * 20}))
		level.Nodes = append(level.Nodes, pen.Corner(geom.Point{X: float64(k)}))
	}
	began := time.Now()
	got := pen.Simplify([]pen.Contour{jagged, level}, 2)
	if len(got[0].Nodes) != 2000 || len(got[1].Nodes) != 2 {
		t.Errorf("%d and %d points are left", len(got[0].Nodes), len(got[1].Nodes))
	}
	if took := time.Since(began); took > 5*time.Second {
		t.Errorf("it takes %v", took)
	}
}

func TestCutsAndReversals(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 12))
	c := drawn(r, 5, true)
	same := func(a, b []geom.Point) bool {
		for _, q := range a {
			if off(q, b) > 1e-9 {
				return false
			}
		}
		return len(a) > 0
	}
	open := pen.Cut(c, 2)
	if len(open) != 1 || open[0].Closed || len(open[0].Nodes) != 6 || !same(line(open...), line(c)) {
		t.Error("cutting a ring open changes it")
	}
	two := pen.Cut(open[0], 3)
	if len(two) != 2 || !same(line(two...), line(c)) {
		t.Error("cutting a line in two changes it")
	}
	back := pen.Contour{Nodes: append([]pen.Node{}, c.Nodes...), Closed: true}
	back.Reverse()
	if !same(line(back), line(c)) || back.Nodes[0].At != c.Nodes[4].At {
		t.Error("reversing changes the line")
	}
}
