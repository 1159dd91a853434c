package combine

import (
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"capstan/core/geom"
)

func areas(t testing.TB, list ...string) (out []Area) {
	for _, d := range list {
		out = append(out, Area{Path: read(t, d)})
	}
	return
}

func combined(t testing.TB, how How, list ...Area) *geom.Path {
	t.Helper()
	p, err := Areas(how, list...)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func TestCurvesAreKept(t *testing.T) {
	// A disc over a square that it crosses twice: what comes out is one arc of it for each of its curves that is left.
	p := combined(t, CutAway, areas(t, square, at(disc, 50, 0))...)
	lines, curves := 0, 0
	for _, v := range p.Verbs {
		switch v {
		case geom.LineTo:
			lines++
		case geom.CubicTo:
			curves++
		}
	}
	// From (50, 50) along its left half, where the square's top and bottom sides touch it at (100, 0) and (100, 100).
	if curves != 2 || lines > 3 {
		t.Errorf("%d curves and %d lines: %s", curves, lines, p.Data())
	}
	circle := geom.Point{X: 100, Y: 50}
	p.Each(func(s geom.Segment) {
		if !s.Line {
			for _, u := range [5]float64{0, 0.2, 0.5, 0.7, 1} {
				if d := s.At(u).Sub(circle).Len(); math.Abs(d-50) > 0.03 {
					t.Errorf("%v lies %v from the middle of the disc, not 50", s.At(u), d)
				}
			}
		}
	})
}

func TestWhatIsNotTouchedComesOutAsItWent(t *testing.T) {
	for _, d := range []string{square, disc, rounded, leaf} {
		in := read(t, d)
		out := combined(t, Unite, Area{Path: in})
		if len(in.Verbs) != len(out.Verbs) {
			t.Errorf("%s became %s", d, out.Data())
		}
		points := map[geom.Point]bool{}
		for _, q := range in.Points {
			points[q] = true
		}
		for _, q := range out.Points {
			if !points[q] {
				t.Errorf("%s: %v is no point of it", d, q)
			}
		}
	}
}

func TestSegmentsAreAtMostTwiceThoseThatWentInAndTheCrossings(t *testing.T) {
	for seed := range uint64(40) {
		r := rand.New(rand.NewPCG(seed, 3))
		a, b := randomArea(r, true), randomArea(r, true)
		in, crossings := 0, 0
		var all []geom.Segment
		for _, p := range []*geom.Path{a.Path, b.Path} {
			p.Each(func(s geom.Segment) { in++; all = append(all, s) })
		}
		// Counted on chords, not by the way under test.
		var sides [][][2]geom.Point
		for _, s := range all {
			q := &geom.Path{}
			q.Move(s.P0)
			q.Cubic(s.P1, s.P2, s.P3)
			sides = append(sides, chords(q, 100)[:100])
		}
		for i := range sides {
			for j := range i {
				for _, v := range sides[i] {
					for _, w := range sides[j] {
						crossings += crossed(v, w)
					}
				}
			}
			for k, v := range sides[i] {
				for _, w := range sides[i][:max(0, k-1)] {
					crossings += crossed(v, w)
				}
			}
		}
		for _, how := range []How{Unite, CutAway, KeepOverlap, DropOverlap} {
			n := 0
			combined(t, how, a, b).Each(func(geom.Segment) { n++ })
			if n > 2*in+2*crossings {
				t.Errorf("seed %d, how %d: %d segments from %d with %d crossings", seed, how, n, in, crossings)
			}
		}
	}
}

func crossed(v, w [2]geom.Point) int {
	d, e := v[1].Sub(v[0]), w[1].Sub(w[0])
	if max(v[0].X, v[1].X) < min(w[0].X, w[1].X) || max(w[0].X, w[1].X) < min(v[0].X, v[1].X) {
		return 0
	}
	if cross(d, w[0].Sub(v[0]))*cross(d, w[1].Sub(v[0])) < 0 && cross(e, v[0].Sub(w[0]))*cross(e, v[1].Sub(w[0])) < 0 {
		return 1
	}
	return 0
}

func TestAreasAddUp(t *testing.T) {
	for seed := range uint64(200) {
		r := rand.New(rand.NewPCG(seed, 11))
		a, b := randomArea(r, seed%3 == 0), randomArea(r, seed%3 == 0)
		u, k := combined(t, Unite, a, b), combined(t, KeepOverlap, a, b)
		own := areaOf(combined(t, Unite, a)) + areaOf(combined(t, Unite, b))
		if got := areaOf(u) + areaOf(k); math.Abs(got-own) > own*1e-6+1 {
			t.Errorf("seed %d: unite and keep overlap come to %v, the areas to %v", seed, got, own)
		}
		// The other way round the same place is covered; again, nothing changes.
		if other := areaOf(combined(t, Unite, b, a)); math.Abs(other-areaOf(u)) > 1 {
			t.Errorf("seed %d: unite is %v one way round and %v the other", seed, areaOf(u), other)
		}
		if again := combined(t, Unite, Area{Path: u}); math.Abs(areaOf(again)-areaOf(u)) > 0.1 {
			t.Errorf("seed %d: united again, %v became %v", seed, areaOf(u), areaOf(again))
		}
		if again := combined(t, Unite, Area{Path: u}, Area{Path: k}); math.Abs(areaOf(again)-areaOf(u)) > 1 {
			t.Errorf("seed %d: united with a part of itself, %v became %v", seed, areaOf(u), areaOf(again))
		}
		if none := combined(t, CutAway, Area{Path: k}, a); areaOf(none) > 1 {
			t.Errorf("seed %d: %v of the overlap lies outside of one of the areas", seed, areaOf(none))
		}
	}
}

func TestPartsThatWereCutApartFitTogetherAgain(t *testing.T) {
	// Stored to 1/1000 px, as documents store paths, the parts no longer meet exactly.
	for seed := range uint64(60) {
		r := rand.New(rand.NewPCG(seed, 5))
		a, b := randomArea(r, false), randomArea(r, false)
		whole := combined(t, Unite, a)
		in, out := combined(t, KeepOverlap, a, b), combined(t, CutAway, a, b)
		back := combined(t, Unite, Area{Path: read(t, in.Data())}, Area{Path: read(t, out.Data())})
		if got, want := areaOf(back), areaOf(whole); math.Abs(got-want) > want*1e-4 {
			t.Errorf("seed %d: the parts come to %v, the whole was %v", seed, got, want)
		}
		if got, want := count(back), count(whole); got > want+2 {
			t.Errorf("seed %d: %d lines where there were %d", seed, got, want)
		}
	}
}

func count(p *geom.Path) (lines int) {
	for _, v := range p.Verbs {
		if v == geom.MoveTo {
			lines++
		}
	}
	return
}

func TestEvenOddAndNonzeroDifferWhereALineRunsTwice(t *testing.T) {
	a := Area{Path: read(t, star)}
	nonzero := areaOf(combined(t, Unite, a))
	a.EvenOdd = true
	odd := areaOf(combined(t, Unite, a))
	// The middle of a pentagram is a pentagon, counted twice round.
	q := Area{Path: read(t, star)}
	middle := nonzero - odd
	if !(middle > 0.25*nonzero && middle < 0.4*nonzero) {
		t.Errorf("nonzero %v, even-odd %v", nonzero, odd)
	}
	if got := areaOf(combined(t, CutAway, q, a)); math.Abs(got-middle) > 0.1 {
		t.Errorf("the middle is %v, not %v", got, middle)
	}
}

func TestRegionsAreAllPartsOnce(t *testing.T) {
	list := areas(t, square, at(square, 50, 50), at(disc, 75, 0))
	regions, err := Regions(list...)
	if err != nil {
		t.Fatal(err)
	}
	sum := 0.0
	seen := map[string]int{}
	for _, g := range regions {
		sum += areaOf(g.Path)
		seen[fmt.Sprint(g.In)]++
	}
	if want := areaOf(combined(t, Unite, list...)); math.Abs(sum-want) > 0.1 {
		t.Errorf("the regions come to %v, the whole is %v", sum, want)
	}
	for _, want := range []string{"[0]", "[1]", "[2]", "[0 1]", "[1 2]", "[0 2]", "[0 1 2]"} {
		if seen[want] == 0 {
			t.Errorf("no region inside %s: %v", want, seen)
		}
	}
}

func TestRegionsKeepTheirHolesAndPartsThatLieInThem(t *testing.T) {
	// A frame, a square in its hole, a disc far away, all one path: three regions, the first with a hole.
	d := at(by(square, 3), 0, 0) + at(by(back(square), 2), 250, 50) + at(square, 100, 100) + at(disc, 500, 0)
	regions, err := Regions(areas(t, d)...)
	if err != nil {
		t.Fatal(err)
	}
	if len(regions) != 3 {
		t.Fatalf("%d regions", len(regions))
	}
	holes := map[int]int{}
	for _, g := range regions {
		holes[count(g.Path)-1]++
	}
	if holes[0] != 2 || holes[1] != 1 {
		t.Errorf("holes: %v", holes)
	}
}

func TestManyAreasAtOnce(t *testing.T) {
	var list []Area
	for i := range 60 {
		list = append(list, Area{Path: read(t, at(disc, float64(i)*30, float64(i%7)*20))})
	}
	checkSampled(t, "sixty discs", rand.New(rand.NewPCG(1, 2)), 500, list...)
}

func TestSameInSameOut(t *testing.T) {
	r := rand.New(rand.NewPCG(4, 4))
	a, b := randomArea(r, true), randomArea(r, true)
	first := combined(t, DropOverlap, a, b)
	for range 20 {
		again := combined(t, DropOverlap, a, b)
		for i, q := range again.Points {
			if q != first.Points[i] {
				t.Fatalf("point %d is %v and was %v", i, q, first.Points[i])
			}
		}
	}
}

func TestPathsOfTenThousandPoints(t *testing.T) {
	if testing.Short() {
		t.Skip("takes a second")
	}
	var s strings.Builder
	r := rand.New(rand.NewPCG(9, 9))
	s.WriteString("M0 0")
	for range 3300 {
		fmt.Fprintf(&s, "C%f %f %f %f %f %f", r.Float64()*900, r.Float64()*900, r.Float64()*900, r.Float64()*900, r.Float64()*900, r.Float64()*900)
	}
	began := time.Now()
	// Ten million crossings: it may take long or refuse, but neither hang nor panic.
	a := Area{Path: wavy(t, 3300, 6, 0)}
	if _, err := Areas(KeepOverlap, a, Area{Path: wavy(t, 3300, 6, 0.4)}); err != nil {
		t.Error(err)
	}
	t.Log("two rings of 3,300 curves:", time.Since(began))
	_, err := Areas(KeepOverlap, Area{Path: read(t, s.String())}, a)
	if !errors.Is(err, ErrTooMuch) {
		t.Errorf("a scribble of 3,300 curves over all of the page: %v", err)
	}
	if d := time.Since(began); d > 20*time.Second {
		t.Errorf("took %v", d)
	}
}

func TestNumbersThatAreNone(t *testing.T) {
	for _, q := range []geom.Point{{X: math.NaN()}, {Y: math.Inf(1)}, {X: 1e300}} {
		p := geom.Ellipse(geom.Box{Max: geom.Point{X: 10, Y: 10}})
		p.Points[3] = q
		if _, err := Areas(Unite, Area{Path: p}); !errors.Is(err, ErrUnclear) {
			t.Errorf("%v: %v", q, err)
		}
	}
}

func FuzzCombine(f *testing.F) {
	for _, c := range degenerate {
		f.Add(c.a, c.b, false)
	}
	f.Fuzz(func(t *testing.T, a, b string, odd bool) {
		p, err := geom.ParseData(a)
		if err != nil || len(p.Points) > 200 {
			return
		}
		q, err := geom.ParseData(b)
		if err != nil || len(q.Points) > 200 {
			return
		}
		v, w := Area{p, odd}, Area{Path: q}
		sum := func(how How, list ...Area) float64 {
			out, err := Areas(how, list...)
			if err != nil {
				t.Skip(err)
			}
			return areaOf(out)
		}
		u, k := sum(Unite, v, w), sum(KeepOverlap, v, w)
		own, other := sum(Unite, v), sum(Unite, w)
		box := p.Bounds().Union(q.Bounds())
		size := max(box.W(), box.H(), 0)
		reach := max(size, math.Abs(box.Min.X), math.Abs(box.Min.Y))
		tol := float64(len(p.Points)+len(q.Points)+10) * size * (max(size*1e-4, 2e-3) + reach*1e-8)
		if math.Abs(u+k-own-other) > tol {
			t.Errorf("unite %v and keep overlap %v, the areas %v and %v", u, k, own, other)
		}
	})
}
