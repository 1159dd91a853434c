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
	// A cell is what one pixel of the copy stands for; the last ones of rows and columns take what is left over, too.
	cell := func(n int) image.Rectangle {
		x, y := n%small.X, n/small.X
		r := image.Rect(x*scale, y*scale, (x+1)*scale, (y+1)*scale)
		if x == small.X-1 {
			r.Max.X = w
		}
		if y == small.Y-1 {
			r.Max.Y = h
		}
		return r
	}
	of := func(i int) int { return min(i/w/scale, small.Y-1)*small.X + min(i%w/scale, small.X-1) }
	for n, s := range sides {
		if s == Keep || s == MaybeKeep {
			r := cell(n)
			for y := r.Min.Y; y < r.Max.Y; y++ {
				row := kept[y*w+r.Min.X : y*w+r.Max.X]
				for i := range row {
					row[i] = true
				}
			}
		}
	}
	for i, s := range known {
		if s >= Drop {
			kept[i] = s == Keep
		}
	}
	by := reach
	if fine {
		by = farReach
	}
	near := banded(sides, small, by)
	first := make([]int32, len(sides)) // number of the first node of a cell; -1: it has none
	var inside []int32
	for n := range sides {
		r := cell(n)
		if first[n] = -1; !near[n] && !(fine && m.doubts(img, r, kept)) {
			continue
		}
		first[n] = int32(len(inside))
		for y := r.Min.Y; y < r.Max.Y; y++ {
			for x := r.Min.X; x < r.Max.X; x++ {
				inside = append(inside, int32(y*w+x))
			}
		}
	}
	if len(inside) == 0 {
		return kept
	}
	node := func(i int) int {
		n := of(i)
		if first[n] < 0 {
			return -1
		}
		r := cell(n)
		return int(first[n]) + (i/w-r.Min.Y)*r.Dx() + i%w - r.Min.X
	}
	g := newGraph(len(inside), 4*len(inside))
	for n, at32 := range inside {
		i := int(at32)
		x, y := i%w, i/w
		c := at(img, i, w)
		switch {
		case known != nil && known[i] == Keep:
			g.terminal(n, certain, 0)
		case known != nil && known[i] == Drop:
			g.terminal(n, 0, certain)
		default:
			g.terminal(n, whole(m.dropped.cost(c)), whole(m.kept.cost(c)))
		}
		for dy := -1; dy <= 1; dy++ {
			for dx := -1; dx <= 1; dx++ {
				if dx == 0 && dy == 0 || x+dx < 0 || y+dy < 0 || x+dx >= w || y+dy >= h {
					continue
				}
				k := i + dy*w + dx
				o := node(k)
				if o >= 0 && k < i {
					continue // each once
				}
				far := 1.0
				if dx != 0 && dy != 0 {
					far = math.Sqrt2
				}
				v := m.link(apart(c, at(img, k, w)), far)
				switch {
				case v <= 0:
				case o >= 0:
					g.edge(n, o, v, v)
				case kept[k]:
					g.terminal(n, v, 0)
				default:
					g.terminal(n, 0, v)
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

// doubts reports whether any pixel of a part is more like the other side.
func (m *model) doubts(img *image.RGBA, r image.Rectangle, kept []bool) bool {
	w := img.Rect.Dx()
	for y := r.Min.Y; y < r.Max.Y; y++ {
		for x := r.Min.X; x < r.Max.X; x++ {
			if i := y*w + x; m.doubted(at(img, i, w), kept[i]) {
				return true
			}
		}
	}
	return false
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
