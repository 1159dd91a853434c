package morph

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"capstan/core/geom"
)

// What corresponds costs as little as the cheapest of all ways, tried one by one, for up to 12 points.
func TestWaysAreTheCheapestOfAll(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 3))
	for range 60 {
		list := func() []knot {
			out := make([]knot, 4+r.IntN(9))
			for i := range out {
				out[i] = knot{share: float64(i) / float64(len(out)-1), at: geom.Point{X: r.Float64(), Y: r.Float64()}, turn: float64(r.IntN(3)) * 0.5}
			}
			return out
		}
		a, b := list(), list()
		const uneven = 0.02
		corners := func(l []knot, i, j int) (sum float64) {
			for _, k := range l[i+1 : j] {
				sum += math.Abs(k.turn)
			}
			return
		}
		var least func(i, j int) float64
		least = func(i, j int) float64 {
			if i == 0 && j == 0 {
				return unmatched * math.Abs(a[0].turn-b[0].turn)
			}
			best := math.Inf(1)
			for k := range 3 {
				for l := range 3 {
					p, q := i-k-1, j-l-1
					if k == l && k > 0 || p < 0 || q < 0 {
						continue
					}
					d, da, db := a[i].at.Sub(b[j].at), a[i].share-a[p].share, b[j].share-b[q].share
					c := (da+db)/2*(d.X*d.X+d.Y*d.Y) + uneven*(da-db)*(da-db)/(da+db) + unmatched*(corners(a, p, i)+corners(b, q, j)+math.Abs(a[i].turn-b[j].turn))
					if math.Abs(a[i].share-b[j].share) <= lagging {
						best = min(best, c+least(p, q))
					}
				}
			}
			return best
		}
		want := least(len(a)-1, len(b)-1)
		if _, got := walk(a, b, 0, uneven); math.Abs(got-want) > 1e-9 && !(math.IsInf(got, 1) && math.IsInf(want, 1)) {
			t.Fatalf("%d and %d points: %v, of all ways %v", len(a), len(b), got, want)
		}
	}
}

// Corners of polygons with as many go where the sum of their squared distances is least, and parts to parts, both against all ways tried.
func TestCornersAndPartsGoWhereTheSumIsLeast(t *testing.T) {
	r := rand.New(rand.NewPCG(28, 4))
	for range 100 {
		n := 3 + r.IntN(10)
		some := func() *ring {
			p := &geom.Path{}
			for i := range n {
				s, c := math.Sincos(2*math.Pi*float64(i)/float64(n) + r.Float64()*3/float64(n))
				if q := (geom.Point{X: c, Y: s}).Mul(50 + 50*r.Float64()); i == 0 {
					p.Move(q)
				} else {
					p.Line(q)
				}
			}
			p.Close()
			return &ringsOf(p)[0]
		}
		a, b := some(), some()
		sum := func(to func(i int) geom.Point) (sum float64) {
			for i, s := range a.segs {
				d := s.P0.Sub(a.centre).Sub(to(i).Sub(b.centre))
				sum += d.X*d.X + d.Y*d.Y
			}
			return
		}
		want := math.Inf(1)
		for k := range n {
			want = min(want, sum(func(i int) geom.Point { return b.segs[(i+k)%n].P0 }))
		}
		v := cornerByCorner(a, b, 0)
		if got := sum(func(i int) geom.Point { return b.along(v.to(a.begins(i))) }); math.Abs(got-want) > 1e-6*want {
			t.Fatalf("%d corners: %v, the least is %v", n, got, want)
		}
	}
	for range 200 {
		n, m := 1+r.IntN(6), 1+r.IntN(6)
		cost := make([]float64, n*m)
		for i := range cost {
			cost[i] = float64(r.IntN(50))
		}
		of := func(i, j int) float64 { return cost[i*m+j] }
		var least func(i int, taken []bool, left int) float64
		least = func(i int, taken []bool, left int) float64 {
			if left == 0 {
				return 0
			}
			best := math.Inf(1)
			if n-i > left {
				best = least(i+1, taken, left)
			}
			for j := range m {
				if i < n && !taken[j] {
					next := slices.Clone(taken)
					next[j] = true
					best = min(best, of(i, j)+least(i+1, next, left-1))
				}
			}
			return best
		}
		got := 0.0
		for i, j := range assign(n, m, of) {
			if j >= 0 {
				got += of(i, j)
			}
		}
		if want := least(0, make([]bool, m), min(n, m)); got != want {
			t.Fatalf("%d and %d parts cost %v, the least is %v", n, m, got, want)
		}
	}
}
