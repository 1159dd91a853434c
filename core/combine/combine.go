// Package combine unites, cuts and overlaps areas bounded by Bezier curves, and keeps the curves: what comes out is made of
// stretches of what went in, never of chords.
//
// Areas may cross themselves, touch, share edges, hold cusps and loops. The way: every curve is cut where it turns back along an
// axis; pieces are cut where they meet, and pieces that run along each other become one edge (edges.go, meet.go); for every edge
// the winding numbers of each area on its two sides are counted along a ray (sides.go); edges with the result on one side only are
// strung together into closed lines (trace.go), where neighbouring stretches of one curve become one again.
//
// Points closer together than a tolerance are one point. The tolerance is 2/1000 px, the distance by which two copies of a point
// stored to 1/1000 px may lie apart, or less for drawings below 200 px: a hundred-thousandth of their extent.
package combine

import (
	"errors"
	"math"

	"capstan/core/geom"
)

// Area is what a path encloses. Open lines of the path count as closed by a straight stretch.
type Area struct {
	Path    *geom.Path
	EvenOdd bool // where lines of the path overlap: by the even-odd rule instead of nonzero
}

// How says what is kept of areas, given from the rearmost to the one in front.
type How int

// Ways to combine areas.
const (
	Unite       How = iota // inside any
	CutAway                // inside the rearmost and none of the others
	KeepOverlap            // inside all
	DropOverlap            // inside an odd number
)

// keeps reports whether a place counts that lies inside the areas that inside says.
func (h How) keeps(inside []bool) bool {
	n := 0
	for _, in := range inside {
		if in {
			n++
		}
	}
	switch h {
	case Unite:
		return n > 0
	case CutAway:
		return n == 1 && inside[0]
	case KeepOverlap:
		return n == len(inside)
	}
	return n%2 == 1
}

// ErrUnclear says that areas could not be told apart: numbers that are none or infinite, or lines so many and so close together
// that their order is lost in rounding.
var ErrUnclear = errors.New("combine: the lines cannot be told apart")

// Areas returns what is kept of areas, as closed lines that do not cross: outlines and, running the other way, holes. The path is
// empty where nothing is kept. The same areas give the same path, to the last bit.
func Areas(how How, areas ...Area) (*geom.Path, error) {
	var out *geom.Path
	err := arranged(areas, func(a *arrangement) error {
		lines, err := a.trace(how.keeps)
		if err == nil {
			out = a.path(lines)
		}
		return err
	})
	return out, err
}

// Region is a connected part of the plane that lies inside the same areas everywhere.
type Region struct {
	Path *geom.Path
	In   []int // the areas it lies in, from the rearmost; never empty
}

// Regions returns every region that areas divide each other into, ordered by the areas they lie in and then as they were found.
func Regions(areas ...Area) ([]Region, error) {
	var out []Region
	err := arranged(areas, func(a *arrangement) error {
		out = nil
		for _, set := range a.sets() {
			lines, err := a.trace(func(inside []bool) bool { return equal(inside, set) })
			if err != nil {
				return err
			}
			var in []int
			for i, b := range set {
				if b {
					in = append(in, i)
				}
			}
			for _, part := range a.connected(lines) {
				if p := a.path(part); len(p.Verbs) > 0 {
					out = append(out, Region{p, in})
				}
			}
		}
		return nil
	})
	return out, err
}

func equal(a, b []bool) bool {
	for i := range a {
		if a[i] != b[i] {
			return false
		}
	}
	return true
}

// arranged lays areas over each other and hands the result on, with a greater tolerance when it does not hold together.
func arranged(areas []Area, use func(*arrangement) error) error {
	b := geom.EmptyBox()
	for _, a := range areas {
		for _, q := range a.Path.Points {
			if !(math.Abs(q.X) < 1e12 && math.Abs(q.Y) < 1e12) {
				return ErrUnclear
			}
			b = b.Include(q)
		}
	}
	if b.Empty() {
		return use(&arrangement{eps: 1, count: len(areas)})
	}
	extent := max(b.W(), b.H())
	reach := max(math.Abs(b.Min.X), math.Abs(b.Min.Y), math.Abs(b.Max.X), math.Abs(b.Max.Y))
	eps := max(min(2e-3, extent*1e-5), reach*1e-11)
	err := ErrUnclear
	for range 4 {
		var a *arrangement
		if a, err = arrange(areas, eps); err != nil {
			return err
		}
		if err = use(a); err == nil {
			return nil
		}
		eps *= 5
	}
	return err
}

// ErrTooMuch says that lines cross so often that combining them would take all day.
var ErrTooMuch = errors.New("combine: too many crossings")

// arrangement is areas laid over each other: edges that meet at vertices only.
type arrangement struct {
	eps     float64
	count   int // of areas
	evenOdd []bool
	sources []source
	spots   spots
	edges   []edge
	store   []stretch
	left    [][]int // winding numbers of each area on the left of each edge; shared along chains
}

// source is a stretch of an area's path.
type source struct {
	geom.Segment
	area int
}
