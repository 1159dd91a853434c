package combine

import (
	"math"
	"math/rand/v2"
	"testing"

	"capstan/core/geom"
)

// areaOf is the area of closed lines that do not cross, by Green's theorem with Gauss-Legendre quadrature (4 points, exact for
// cubics; Abramowitz and Stegun, table 25.4): not by the formula under test.
func areaOf(p *geom.Path) float64 {
	sum := 0.0
	p.EachClosed(func(s geom.Segment) {
		for _, g := range [4][2]float64{
			{0.8611363115940526, 0.3478548451374538}, {0.3399810435848563, 0.6521451548625461},
			{-0.3399810435848563, 0.6521451548625461}, {-0.8611363115940526, 0.3478548451374538},
		} {
			t := (1 + g[0]) / 2
			q, d := s.At(t), s.Derivative(t)
			sum += g[1] / 4 * (q.X*d.Y - q.Y*d.X)
		}
	})
	return sum
}

// chords flattens a path, its open lines closed.
func chords(p *geom.Path, n int) (out [][2]geom.Point) {
	p.EachClosed(func(s geom.Segment) {
		k := n
		if s.Line {
			k = 1
		}
		last := s.P0
		for i := 1; i <= k; i++ {
			q := s.At(float64(i) / float64(k))
			out = append(out, [2]geom.Point{last, q})
			last = q
		}
	})
	return
}

// field counts winding numbers by brute force over chords.
type field struct {
	lines   [][2]geom.Point
	evenOdd bool
}

func fieldOf(a Area) field { return field{chords(a.Path, 100), a.EvenOdd} }

func (f field) contains(q geom.Point) bool {
	w := 0
	for _, l := range f.lines {
		a, b := l[0], l[1]
		if (a.Y <= q.Y) == (b.Y <= q.Y) {
			continue
		}
		if a.X+(q.Y-a.Y)/(b.Y-a.Y)*(b.X-a.X) > q.X {
			if b.Y > a.Y {
				w++
			} else {
				w--
			}
		}
	}
	if f.evenOdd {
		return w%2 != 0
	}
	return w != 0
}

// far reports whether q is at least d away from all chords.
func (f field) far(q geom.Point, d float64) bool {
	for _, l := range f.lines {
		v, w := l[1].Sub(l[0]), q.Sub(l[0])
		t := 0.0
		if n := v.X*v.X + v.Y*v.Y; n > 0 {
			t = min(max((v.X*w.X+v.Y*w.Y)/n, 0), 1)
		}
		if w.Sub(v.Mul(t)).Len() < d {
			return false
		}
	}
	return true
}

// checkSampled holds what comes out against what goes in at random places, and returns false after a failure.
func checkSampled(t *testing.T, name string, r *rand.Rand, n int, areas ...Area) bool {
	t.Helper()
	box := geom.EmptyBox()
	var fields []field
	for _, a := range areas {
		fields = append(fields, fieldOf(a))
		box = box.Union(a.Path.Bounds())
	}
	size := max(box.W(), box.H())
	box = box.Grow(size / 20)
	ok := true
	for _, how := range []How{Unite, CutAway, KeepOverlap, DropOverlap} {
		p, err := Areas(how, areas...)
		if err != nil {
			t.Errorf("%s: how %d: %v", name, how, err)
			return false
		}
		out, odd := fieldOf(Area{Path: p}), fieldOf(Area{p, true})
		inside := make([]bool, len(areas))
	samples:
		for range n {
			q := geom.Point{X: box.Min.X + r.Float64()*box.W(), Y: box.Min.Y + r.Float64()*box.H()}
			for i, f := range fields {
				if !f.far(q, size*2e-4) {
					continue samples
				}
				inside[i] = f.contains(q)
			}
			want := how.keeps(inside)
			if out.contains(q) != want || odd.contains(q) != want {
				t.Errorf("%s: how %d at %v: inside %v, want %v; nonzero %v, even-odd %v", name, how, q, inside, want, out.contains(q), odd.contains(q))
				ok = false
				break
			}
		}
	}
	return ok
}

// randomArea is a closed line or two of lines and curves; rough ones turn back and cross themselves.
func randomArea(r *rand.Rand, rough bool) Area {
	p := &geom.Path{}
	for range 1 + r.IntN(2) {
		n := 3 + r.IntN(6)
		centre := geom.Point{X: 200 + r.Float64()*200, Y: 200 + r.Float64()*200}
		at := func(i int, spread float64) geom.Point {
			if rough {
				return geom.Point{X: centre.X + (r.Float64()-0.5)*400, Y: centre.Y + (r.Float64()-0.5)*400}
			}
			a := (float64(i) + spread) / float64(n) * 2 * math.Pi
			l := 60 + r.Float64()*120
			return geom.Point{X: centre.X + math.Cos(a)*l, Y: centre.Y + math.Sin(a)*l}
		}
		p.Move(at(0, 0))
		for i := 1; i <= n; i++ {
			if r.IntN(3) == 0 {
				p.Line(at(i, 0))
			} else {
				p.Cubic(at(i-1, 0.33), at(i-1, 0.66), at(i, 0))
			}
		}
		p.Close()
	}
	return Area{p, r.IntN(3) == 0}
}

func TestAnyTwoAreasCombineRightAtAnyPlace(t *testing.T) {
	bad := 0
	for seed := range uint64(300) {
		r := rand.New(rand.NewPCG(seed, 7))
		a, b := randomArea(r, seed%2 == 0), randomArea(r, seed%2 == 0)
		if !checkSampled(t, "seed "+string(rune('0'+seed%10)), r, 60, a, b) {
			t.Log(seed, a.EvenOdd, a.Path.Data(), b.EvenOdd, b.Path.Data())
			if bad++; bad > 3 {
				t.FailNow()
			}
		}
	}
}
