package combine

import (
	"fmt"
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/geom"
)

func read(t testing.TB, d string) *geom.Path {
	t.Helper()
	p, err := geom.ParseData(d)
	if err != nil {
		t.Fatalf("%s: %v", d, err)
	}
	return p
}

const (
	square  = "M0 0L100 0L100 100L0 100Z"
	disc    = "M100 50C100 77.614 77.614 100 50 100C22.386 100 0 77.614 0 50C0 22.386 22.386 0 50 0C77.614 0 100 22.386 100 50Z"
	star    = "M50 0L79 90L2 35L98 35L21 90Z"                     // crosses itself five times
	eight   = "M0 0C0 60 100 40 100 100L0 100C0 40 100 60 100 0Z" // crosses itself once
	leaf    = "M0 50C30 0 70 0 100 50C70 100 30 100 0 50Z"        // two cusps
	cusp    = "M0 0C120 100 -20 100 100 0Z"                       // a cubic with a cusp
	looped  = "M0 0C200 120 -100 120 100 0Z"                      // a cubic that crosses itself
	rounded = "M20 0L80 0C91 0 100 9 100 20L100 80C100 91 91 100 80 100L20 100C9 100 0 91 0 80L0 20C0 9 9 0 20 0Z"
)

func at(d string, x, y float64) string  { return mapped(d, geom.Translate(geom.Point{X: x, Y: y})) }
func by(d string, k float64) string     { return mapped(d, geom.Scale(k, k)) }
func turned(d string, a float64) string { return mapped(d, geom.Rotate(a)) }
func back(d string) string              { return mapped(d, geom.Scale(-1, 1)) }

// mapped writes path data with all digits, unlike geom.Path.Data.
func mapped(d string, m geom.Matrix) string {
	p, err := geom.ParseData(d)
	if err != nil {
		panic(err)
	}
	var s strings.Builder
	i := 0
	for _, v := range p.Verbs {
		s.WriteByte("MLCZ"[v])
		for _, q := range p.Points[i : i+geom.PointsOf[v]] {
			q = m.Apply(q)
			fmt.Fprintf(&s, " %.17g %.17g", q.X, q.Y)
		}
		i += geom.PointsOf[v]
	}
	return s.String()
}

// degenerate cases with the areas of unite and keep overlap where they are known; -1 where they are not.
var degenerate = []struct {
	name   string
	a, b   string
	either float64
	both   float64
}{
	{"the same square", square, square, 10000, 10000},
	{"the same square run the other way", square, at(back(square), 100, 0), 10000, 10000},
	{"the same square begun elsewhere", square, "M100 100L0 100L0 0L100 0Z", 10000, 10000},
	{"the same square with points on its sides", square, "M0 0L30 0L60 0L100 0L100 50L100 100L0 100L0 1Z", 10000, 10000},
	{"the same disc", disc, disc, -1, -1},
	{"the same disc cut into other arcs", disc, turned45(disc), -1, -1},
	{"the same star", star, star, -1, -1},
	{"squares side by side", square, at(square, 100, 0), 20000, 0},
	{"squares side by side, one lower", square, at(square, 100, 40), 20000, 0},
	{"squares at one corner", square, at(square, 100, 100), 20000, 0},
	{"a smaller square in the corner", square, by(square, 0.5), 10000, 2500},
	{"a smaller square on a side", square, at(by(square, 0.5), 25, 0), 10000, 2500},
	{"a smaller square outside on a side", square, at(by(square, 0.5), 25, -50), 12500, 0},
	{"a square in the middle", square, at(by(square, 0.5), 25, 25), 10000, 2500},
	{"a square far away", square, at(square, 500, 0), 20000, 0},
	{"squares half over each other", square, at(square, 50, 0), 15000, 5000},
	{"a cross of two bars", "M0 40L100 40L100 60L0 60Z", "M40 0L60 0L60 100L40 100Z", 3600, 400},
	{"a diamond with its corners on the sides", square, "M50 0L100 50L50 100L0 50Z", 10000, 5000},
	{"a square turned by 45 degrees about one middle", square, at(turned(at(square, -50, -50), 45), 50, 50), -1, -1},
	{"a disc in its square, touching four sides", square, disc, 10000, -1},
	{"discs touching from outside", disc, at(disc, 100, 0), -1, 0},
	{"discs touching from inside", disc, at(by(disc, 0.5), 50, 25), -1, -1},
	{"discs that nearly touch", disc, at(disc, 100.0001, 0), -1, 0},
	{"discs that just overlap", disc, at(disc, 99.999, 0), -1, -1},
	{"discs a hair apart", disc, at(disc, 0.0005, 0), -1, -1},
	{"discs a pixel apart", disc, at(disc, 1, 0), -1, -1},
	{"rings in one another", disc + at(by(disc, 0.5), 25, 25), at(by(disc, 0.75), 12.5, 12.5), -1, -1},
	{"a rounded square in a square", square, rounded, 10000, -1},
	{"a rounded square beside one", rounded, at(rounded, 100, 0), -1, 0},
	{"a star over a square", star, square, -1, -1},
	{"an eight over a square", eight, square, -1, -1},
	{"an eight over itself, mirrored", eight, at(back(eight), 100, 0), -1, -1},
	{"a cusp over a square", cusp, at(square, 0, 30), -1, -1},
	{"a cusp touched by a line's end", cusp, "M50 75L20 120L80 120Z", -1, 0},
	{"a loop over a square", looped, at(square, 0, 30), -1, -1},
	{"a loop over itself, higher", looped, at(looped, 0, -5), -1, -1},
	{"leaves tip to tip", leaf, at(leaf, 100, 0), -1, 0},
	{"leaves along each other", leaf, at(leaf, 50, 0), -1, -1},
	{"a triangle through a corner", square, "M0 0L200 100L100 200Z", -1, -1},
	{"a triangle along a diagonal", square, "M0 0L100 100L0 200Z", -1, -1},
	{"a curve along a straight side", square, "M0 0C30 0 70 0 100 0L50 -40Z", 12000, 0},
	{"a curve that is a straight line there and back", square, "M0 50C200 50 -100 50 100 50L50 80Z", -1, -1},
	{"a line without area", square, "M-50 50L150 50", 10000, 0},
	{"a line there and back with an area at its end", square, "M50 50L150 50L200 0L200 100L150 50Z", 12500, 0},
	{"a point", square, "M50 50Z", 10000, 0},
	{"points that coincide", "M0 0L0 0L100 0L100 0C100 0 100 0 100 0L100 100L0 100L0 100Z", square, 10000, 10000},
	{"nothing", square, "", 10000, 0},
	{"an open line", "M0 0L100 0L100 100L0 100", square, 10000, 10000},
	{"twice round", square + square, at(square, 50, 0), 15000, 5000},
	{"there and back", square + at(back(square), 100, 0), square, 10000, 0},
	{"a hole as large as its square", square, "M0 0L100 0L100 100L0 100ZM0 0L0 100L100 100L100 0Z", 10000, 0},
	{"a thin sliver across", square, "M-50 50L150 50.01L150 50.02Z", -1, -1},
	{"a comb over a comb", comb(0), comb(3), -1, -1},
	{"a comb along a comb's side", comb(0), at(comb(0), 0, 60), -1, 0},
	{"a parabola that touches a line", square, "M0 -50C33.333 16.667 66.667 16.667 100 -50Z", -1, 0},
	{"crossings at a very small angle", "M0 0L1000 0L1000 50L0 50Z", "M0 0.1L1000 -0.1L1000 -50L0 -50Z", -1, -1},
	{"nine crossings of two cubics", "M0 0C150 100 -50 100 100 0L100 120L0 120Z", "M0 0C100 150 100 -50 0 100L-20 100L-20 0Z", -1, -1},
	{"very small", by(star, 1e-3), by(at(disc, 30, 30), 1e-3), -1, -1},
	{"very large", by(star, 5e4), by(at(disc, 30, 30), 5e4), -1, -1},
	{"far from the origin", at(star, 5e6, -5e6), at(disc, 5e6+30, -5e6+30), -1, -1},
	{"large with a tiny bite", by(square, 1e4), at(by(disc, 0.1), -5, 1e5), -1, -1},
}

func turned45(d string) string { // cuts every curve of a path in half
	p, _ := geom.ParseData(d)
	q := &geom.Path{}
	p.Each(func(s geom.Segment) {
		if s.First {
			q.Move(s.P0)
		}
		for _, h := range [2][4]geom.Point{part(s, 0, 0.4), part(s, 0.4, 1)} {
			q.Cubic(h[1], h[2], h[3])
		}
	})
	q.Close()
	return mapped(q.Data(), geom.Identity)
}

func comb(x float64) string {
	var s strings.Builder
	fmt.Fprintf(&s, "M%v 0", x)
	for i := range 30 {
		l := x + float64(i)*6
		fmt.Fprintf(&s, "L%v 50L%v 50L%v 0L%v 0", l, l+3, l+3, l+6)
	}
	fmt.Fprintf(&s, "L%v 60L%v 60Z", x+180, x)
	return s.String()
}

func TestDegenerateCases(t *testing.T) {
	if len(degenerate) < 40 {
		t.Fatal("fewer than forty")
	}
	for i, c := range degenerate {
		t.Run(strings.ReplaceAll(c.name, " ", "_"), func(t *testing.T) {
			a, b := Area{Path: read(t, c.a)}, Area{Path: read(t, c.b)}
			size := a.Path.Bounds().Union(b.Path.Bounds())
			scale := max(size.W(), size.H())
			tol := 1e-4 * scale * scale / 10
			of := func(how How, areas ...Area) float64 {
				p, err := Areas(how, areas...)
				if err != nil {
					t.Fatalf("how %d: %v", how, err)
				}
				return areaOf(&geom.Path{Verbs: p.Verbs, Points: shifted(p.Points, size.Min)})
			}
			either, both := of(Unite, a, b), of(KeepOverlap, a, b)
			own, other := of(Unite, a), of(Unite, b)
			near := func(what string, got, want float64) {
				if math.Abs(got-want) > tol {
					t.Errorf("%s: area %v, want %v", what, got, want)
				}
			}
			near("unite and keep overlap together", either+both, own+other)
			near("cut away", of(CutAway, a, b), own-both)
			near("cut away, the other way round", of(CutAway, b, a), other-both)
			near("drop overlap", of(DropOverlap, a, b), either-both)
			near("unite the other way round", of(Unite, b, a), either)
			if c.either >= 0 {
				near("unite", either, c.either)
			}
			if c.both >= 0 {
				near("keep overlap", both, c.both)
			}
			checkSampled(t, c.name, rand.New(rand.NewPCG(uint64(i), 1)), 200, a, b)
		})
	}
}

func shifted(list []geom.Point, by geom.Point) []geom.Point {
	out := make([]geom.Point, len(list))
	for i, q := range list {
		out[i] = q.Sub(by)
	}
	return out
}
