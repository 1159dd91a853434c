package cutout

import (
	"image"
	"math"
)

// A border found in a small copy is found again in the picture itself, in a band along it: what lies outside of the band stays as it was found (Lombaert, Sun,
// Grady and Xu, A Multilevel Banded Graph Cuts Method, 2005).

// reach is how far the band goes to either side of the border, in pixels of the small copy; farReach where what is thinner than its pixels is looked for, too.
const (
	reach    = 2
	farReach = 4
)

// doubt is by how much a pixel has to be more like the other side to be looked at anew wherever it lies.
const doubt = 2

// sharpened parts a picture along the border that sides of a copy have, which is scale times as small. known is what was said of its own pixels; what it says
// of others is not read. Beside the band, with fine set, all pixels are looked at that are more like the other side. The result says of each pixel whether it is kept.
func (m *model) sharpened(img *image.RGBA, sides []Side, small image.Point, scale int, known []Side, fine bool) []bool {
	w, h := img.Rect.Dx(), img.Rect.Dy()
	kept := make([]bool, w*h)
	of := func(x, y int) int { return min(y/scale, small.Y-1)*small.X + min(x/scale, small.X-1) }
	for y := range h {
		for x := range w {
			s := sides[of(x, y)]
			kept[y*w+x] = s == Keep || s == MaybeKeep
		}
	}
	by := reach
	if fine {
		by = farReach
	}
	near := banded(sides, small, by)
	node := make([]int32, w*h) // its number plus one
	var inside []int32
	for y := range h {
		for x := range w {
			i := y*w + x
			switch {
			case known != nil && known[i] >= Drop:
				kept[i] = known[i] == Keep
			case near[of(x, y)] || fine && m.doubted(at(img, i, w), kept[i]):
				inside = append(inside, int32(i))
				node[i] = int32(len(inside))
			}
		}
	}
	if len(inside) == 0 {
		return kept
	}
	g := newGraph(len(inside), 4*len(inside))
	link := func(n int, i, k int, far float64) {
		v := m.link(apart(at(img, i, w), at(img, k, w)), far)
		switch {
		case v <= 0:
		case node[k] > 0:
			if k > i { // each once
				g.edge(n, int(node[k]-1), v, v)
			}
		case kept[k]:
			g.terminal(n, v, 0)
		default:
			g.terminal(n, 0, v)
		}
	}
	for n, at32 := range inside {
		i := int(at32)
		x, y := i%w, i/w
		c := at(img, i, w)
		g.terminal(n, whole(m.dropped.cost(c)), whole(m.kept.cost(c)))
		for dy := -1; dy <= 1; dy++ {
			for dx := -1; dx <= 1; dx++ {
				if (dx != 0 || dy != 0) && x+dx >= 0 && y+dy >= 0 && x+dx < w && y+dy < h {
					link(n, i, i+dy*w+dx, math.Hypot(float64(dx), float64(dy)))
				}
			}
		}
	}
	g.cut()
	for n, i := range inside {
		kept[i] = g.kept(n)
	}
	return kept
}

// doubted reports whether a colour is much more like the other side.
func (m *model) doubted(c [3]float64, kept bool) bool {
	by := m.kept.cost(c) - m.dropped.cost(c)
	if !kept {
		by = -by
	}
	return by > doubt
}

// at is the colour of a pixel by its number.
func at(img *image.RGBA, i, w int) [3]float64 {
	p := img.Pix[i/w*img.Stride+4*(i%w):]
	return [3]float64{float64(p[0]), float64(p[1]), float64(p[2])}
}

// banded marks what is near to a border between what is kept and what is dropped.
func banded(sides []Side, size image.Point, reach int) []bool {
	near := make([]bool, len(sides))
	is := func(i int) bool { return sides[i] == Keep || sides[i] == MaybeKeep }
	mark := func(x, y int) {
		for v := max(0, y-reach+1); v < min(size.Y, y+reach); v++ {
			for u := max(0, x-reach+1); u < min(size.X, x+reach); u++ {
				near[v*size.X+u] = true
			}
		}
	}
	for y := range size.Y {
		for x := range size.X {
			i := y*size.X + x
			if x+1 < size.X && is(i) != is(i+1) {
				mark(x, y)
				mark(x+1, y)
			}
			if y+1 < size.Y && is(i) != is(i+size.X) {
				mark(x, y)
				mark(x, y+1)
			}
		}
	}
	return near
}
