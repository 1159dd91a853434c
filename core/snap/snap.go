// Package snap finds what a box comes to lie on while it is dragged over a page: edges and middles of the page and of what lies on it,
// guides, a grid, gaps equal to others, sizes equal to others. All in page px, y down.
package snap

import (
	"fmt"
	"math"
	"sort"

	"capstan/core/geom"
)

// Axes.
const (
	Across = 0
	Down   = 1
)

// Mark is what something snapped to: in words, and as lines of the page (x0, y0, x1, y1) that show it.
type Mark struct {
	Words string
	Lines [][4]float64
}

// Field is all that a box may snap to. The zero Field holds nothing.
type Field struct {
	lines  [2][]line
	boxes  []target // in the order of their upper left corners, across
	sorted bool
	grid   float64
}

type target struct {
	box  geom.Box
	name string
}

// line is a place along an axis. Of two that are equally near the one of the lesser rank counts.
type line struct {
	at     float64
	rank   int
	lo, hi float64 // how far it is drawn along the other axis
	words  string
}

var edges = [2][3]string{{"left edge", "middle", "right edge"}, {"upper edge", "middle", "lower edge"}}

// Page adds the edges and the middle of the page.
func (f *Field) Page(w, h float64) {
	f.add(geom.Box{Max: geom.Point{X: w, Y: h}}, "the page", 1)
}

// Box adds the edges and the middle of something that lies there, which may have equal gaps and sizes.
func (f *Field) Box(b geom.Box, name string) {
	f.add(b, name, 2)
	f.boxes = append(f.boxes, target{b, name})
}

// Point adds a place by itself, both ways: a pivot, or a point of a drawn path.
func (f *Field) Point(p geom.Point, name string) {
	f.lines[Across] = append(f.lines[Across], line{p.X, 4, p.Y, p.Y, name})
	f.lines[Down] = append(f.lines[Down], line{p.Y, 4, p.X, p.X, name})
	f.sorted = false
}

// Guide adds a line along an axis: what is there all across or all down the page.
func (f *Field) Guide(axis int, at float64, name string, lo, hi float64) {
	f.lines[axis] = append(f.lines[axis], line{at, 0, lo, hi, name})
	f.sorted = false
}

// Grid adds lines at every step from the page's upper left corner.
func (f *Field) Grid(step float64) { f.grid = step }

func (f *Field) add(b geom.Box, name string, rank int) {
	for axis := range 2 {
		lo, hi := span(b, axis)
		from, to := span(b, 1-axis)
		for i, at := range [3]float64{lo, (lo + hi) / 2, hi} {
			f.lines[axis] = append(f.lines[axis], line{at, rank, from, to, edges[axis][i] + " of " + name})
		}
	}
	f.sorted = false
}

func span(b geom.Box, axis int) (lo, hi float64) {
	if axis == Across {
		return b.Min.X, b.Max.X
	}
	return b.Min.Y, b.Max.Y
}

func (f *Field) sort() {
	if f.sorted {
		return
	}
	for axis := range 2 {
		list := f.lines[axis]
		sort.SliceStable(list, func(i, k int) bool {
			return list[i].at < list[k].at || list[i].at == list[k].at && list[i].rank < list[k].rank
		})
	}
	f.sorted = true
}

// best keeps the nearest of what is tried.
type best struct {
	by    float64
	rank  int
	found bool
	mark  Mark
}

func (b *best) try(by float64, rank int, reach float64, mark func() Mark) {
	if math.Abs(by) > reach || b.found && (math.Abs(by) > math.Abs(b.by)+1e-9 || math.Abs(by) > math.Abs(b.by)-1e-9 && rank >= b.rank) {
		return
	}
	*b = best{by, rank, true, mark()}
}

// Place returns how far a point goes on to lie on something within reach, axis by axis, and on what.
func (f *Field) Place(p geom.Point, reach float64) (by geom.Point, marks []Mark) {
	f.sort()
	for axis := range 2 {
		var n best
		if f.nearPoint(axis, p, reach, &n); n.found {
			by = by.Add(along(axis, n.by))
			marks = append(marks, n.mark)
		}
	}
	return by, marks
}

// Move returns how far a box goes on to lie on something within reach, axis by axis, and on what. Besides its edges and its middle the points
// in own count: its pivot.
func (f *Field) Move(b geom.Box, reach float64, own ...geom.Point) (by geom.Point, marks []Mark) {
	f.sort()
	for axis := range 2 {
		var n best
		lo, hi := span(b, axis)
		from, to := span(b, 1-axis)
		for _, at := range [3]float64{(lo + hi) / 2, lo, hi} {
			f.near(axis, at, reach, &n, from, to)
		}
		for _, p := range own {
			f.nearPoint(axis, p, reach, &n)
		}
		f.gaps(axis, b, reach, &n)
		if !n.found {
			continue
		}
		v := along(axis, n.by)
		by = by.Add(v)
		b = geom.Box{Min: b.Min.Add(v), Max: b.Max.Add(v)}
		marks = append(marks, n.mark)
	}
	return by, marks
}

func along(axis int, v float64) geom.Point {
	if axis == Across {
		return geom.Point{X: v}
	}
	return geom.Point{Y: v}
}

// Edge returns how far one edge of a box that is resized goes on. at is where the edge is along the axis, fixed where the one opposite
// stays, and from..to what the box covers of the other axis.
func (f *Field) Edge(axis int, at, fixed, from, to, reach float64) (by float64, mark Mark, ok bool) {
	f.sort()
	var n best
	f.near(axis, at, reach, &n, from, to)
	size := math.Abs(at - fixed)
	sign := 1.0
	if at < fixed {
		sign = -1
	}
	for _, t := range f.boxes {
		lo, hi := span(t.box, axis)
		if hi-lo < 1 {
			continue
		}
		n.try(sign*(hi-lo-size), 3, reach, func() Mark {
			a, b := span(t.box, 1-axis)
			word := "as wide as "
			if axis == Down {
				word = "as high as "
			}
			mid := (from + to) / 2
			return Mark{word + t.name, [][4]float64{drawn(1-axis, (a+b)/2, lo, hi), drawn(1-axis, mid, math.Min(fixed, fixed+sign*(hi-lo)), math.Max(fixed, fixed+sign*(hi-lo)))}}
		})
	}
	return n.by, n.mark, n.found
}

// drawn is a line at a place of an axis, from lo to hi of the other.
func drawn(axis int, at, lo, hi float64) [4]float64 {
	if axis == Across {
		return [4]float64{at, lo, at, hi}
	}
	return [4]float64{lo, at, hi, at}
}

// near tries the lines next to a place on both sides, and the grid.
func (f *Field) near(axis int, at, reach float64, n *best, from, to float64) {
	list := f.lines[axis]
	i := sort.Search(len(list), func(i int) bool { return list[i].at >= at-reach })
	for ; i < len(list) && list[i].at <= at+reach; i++ {
		l := list[i]
		n.try(l.at-at, l.rank, reach, func() Mark {
			return Mark{l.words, [][4]float64{drawn(axis, l.at, math.Min(l.lo, from), math.Max(l.hi, to))}}
		})
	}
	if f.grid > 0 {
		step := math.Round(at/f.grid) * f.grid
		n.try(step-at, 5, reach, func() Mark { return Mark{"the grid", [][4]float64{drawn(axis, step, from, to)}} })
	}
}

func (f *Field) nearPoint(axis int, p geom.Point, reach float64, n *best) {
	if axis == Across {
		f.near(axis, p.X, reach, n, p.Y, p.Y)
	} else {
		f.near(axis, p.Y, reach, n, p.X, p.X)
	}
}

// gaps tries places at which the box is as far from its neighbours as they are from each other, or from both as far.
func (f *Field) gaps(axis int, b geom.Box, reach float64, n *best) {
	from, to := span(b, 1-axis)
	var row []target // that the box could meet on its way along the axis
	for _, t := range f.boxes {
		if lo, hi := span(t.box, 1-axis); hi > from && lo < to {
			row = append(row, t)
		}
	}
	if len(row) < 2 {
		return
	}
	sort.SliceStable(row, func(i, k int) bool {
		a, _ := span(row[i].box, axis)
		b, _ := span(row[k].box, axis)
		return a < b
	})
	lo, hi := span(b, axis)
	wide := hi - lo
	mid := (from + to) / 2
	between := func(gap float64, spans ...[2]float64) func() Mark {
		return func() Mark {
			m := Mark{Words: fmt.Sprintf("gaps of %.4g px", math.Round(gap*100)/100)}
			for _, s := range spans {
				m.Lines = append(m.Lines, drawn(1-axis, mid, s[0], s[1]))
			}
			return m
		}
	}
	for i := range row[:len(row)-1] {
		_, a := span(row[i].box, axis)
		c, d := span(row[i+1].box, axis)
		first, _ := span(row[i].box, axis)
		gap := c - a
		if gap <= 0 {
			continue
		}
		if gap >= wide {
			at := a + (gap-wide)/2
			n.try(at-lo, 3, reach, between((gap-wide)/2, [2]float64{a, at}, [2]float64{at + wide, c}))
		}
		n.try(d+gap-lo, 4, reach, between(gap, [2]float64{a, c}, [2]float64{d, d + gap}))
		n.try(first-gap-wide-lo, 4, reach, between(gap, [2]float64{first - gap, first}, [2]float64{a, c}))
	}
}
