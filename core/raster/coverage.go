// Package raster paints display lists into premultiplied 8-bit RGBA, the way the page's canvas does:
// sRGB-encoded source-over, antialiased by exact area coverage.
package raster

import (
	"math"
	"math/bits"

	"capstan/core/geom"
)

// coverage finds how much of each pixel an outline covers. Signed areas are accumulated per cell in integers
// (1/256 px), so edges that meet cancel exactly and inner runs are constant; only touched cells are read and
// cleared. The method is that of FreeType's smooth rasteriser (LibArt's before it), with a dense buffer and a bitset
// for the cells in place of sorted lists.
type coverage struct {
	w, h    int
	cover   []int32
	area    []int32
	touched []uint64
	words   int // of touched, per row
	top     int // rows with anything in them: top <= y < bottom
	bottom  int
}

const (
	unit  = 256 // subpixels a pixel
	whole = 2 * unit * unit
)

// resize gives the buffer another size. It is clear between outlines, so its memory may be cut up anew.
func (c *coverage) resize(w, h int) {
	if c.w == w && c.h == h {
		return
	}
	c.w, c.h = w, h
	c.words = (w + 1 + 63) / 64
	if n := (w + 1) * h; cap(c.cover) < n || cap(c.touched) < c.words*h {
		c.cover, c.area = make([]int32, n), make([]int32, n)
		c.touched = make([]uint64, c.words*h)
	} else {
		c.cover, c.area, c.touched = c.cover[:n], c.area[:n], c.touched[:c.words*h]
	}
	c.top, c.bottom = h, 0
}

// tolerance is how far, in device px, a chord may lie off its curve.
const tolerance = 0.01

// add accumulates the outline p mapped by m; open subpaths are closed.
func (c *coverage) add(p *geom.Path, m geom.Matrix) {
	var cur, start geom.Point
	i := 0
	for _, v := range p.Verbs {
		switch v {
		case geom.MoveTo:
			if cur != start {
				c.edge(cur, start)
			}
			cur = m.Apply(p.Points[i])
			start = cur
		case geom.LineTo:
			q := m.Apply(p.Points[i])
			c.edge(cur, q)
			cur = q
		case geom.CubicTo:
			a, b, q := m.Apply(p.Points[i]), m.Apply(p.Points[i+1]), m.Apply(p.Points[i+2])
			c.cubic(cur, a, b, q)
			cur = q
		case geom.Close:
			if cur != start {
				c.edge(cur, start)
			}
			cur = start
		}
		i += geom.PointsOf[v]
	}
	if cur != start {
		c.edge(cur, start)
	}
}

func (c *coverage) cubic(p0, p1, p2, p3 geom.Point) {
	d := math.Max(
		math.Hypot(p0.X-2*p1.X+p2.X, p0.Y-2*p1.Y+p2.Y),
		math.Hypot(p1.X-2*p2.X+p3.X, p1.Y-2*p2.Y+p3.Y),
	)
	// The chord error of a cubic cut into n equal steps is at most 0.75 d / n².
	n := int(math.Ceil(math.Sqrt(0.75 * d / tolerance)))
	n = max(1, min(n, 500))
	s := geom.Segment{P0: p0, P1: p1, P2: p2, P3: p3}
	prev := p0
	for i := 1; i < n; i++ {
		q := s.At(float64(i) / float64(n))
		c.edge(prev, q)
		prev = q
	}
	c.edge(prev, p3)
}

// edge clips the segment a-b to the buffer and adds it. What lies left of the buffer still covers: it is moved onto the left
// side. What lies right of it covers nothing in sight.
func (c *coverage) edge(a, b geom.Point) {
	h, w := float64(c.h), float64(c.w)
	if !(math.Abs(a.X) < 1e9 && math.Abs(a.Y) < 1e9 && math.Abs(b.X) < 1e9 && math.Abs(b.Y) < 1e9) {
		return // also NaN: nothing that could be seen
	}
	if a.Y == b.Y || (a.Y <= 0 && b.Y <= 0) || (a.Y >= h && b.Y >= h) {
		return
	}
	atY := func(y float64) geom.Point {
		return geom.Point{X: a.X + (b.X-a.X)*(y-a.Y)/(b.Y-a.Y), Y: y}
	}
	from, to := a, b
	if from.Y < 0 {
		from = atY(0)
	} else if from.Y > h {
		from = atY(h)
	}
	if to.Y < 0 {
		to = atY(0)
	} else if to.Y > h {
		to = atY(h)
	}
	if from.X >= w && to.X >= w {
		return
	}
	// Cut at the left and right side, so that the parts outside become upright.
	ts := [4]float64{0, 1, 1, 1}
	n := 1
	if d := to.X - from.X; d != 0 {
		t1, t2 := -from.X/d, (w-from.X)/d
		if t1 > t2 {
			t1, t2 = t2, t1
		}
		for _, t := range [2]float64{t1, t2} {
			if t > 0 && t < 1 {
				ts[n] = t
				n++
			}
		}
	}
	ts[n] = 1
	px, py := c.fix(from.X, w), fixed(from.Y)
	for i := 1; i <= n; i++ {
		q := from.Lerp(to, ts[i])
		if i == n {
			q = to
		}
		qx, qy := c.fix(q.X, w), fixed(q.Y)
		c.line(px, py, qx, qy)
		px, py = qx, qy
	}
}

func fixed(v float64) int { return int(math.Floor(v*unit + 0.5)) }

func (c *coverage) fix(x, w float64) int { return fixed(min(max(x, 0), w)) }

// line adds a segment that lies inside the buffer, in subpixels, row by row.
func (c *coverage) line(x0, y0, x1, y1 int) {
	if y0 == y1 {
		return
	}
	dx, dy := x1-x0, y1-y0
	y, x := y0, x0
	for y != y1 {
		row := y / unit
		var next int
		if dy > 0 {
			next = min((row+1)*unit, y1)
		} else {
			if y%unit == 0 {
				row--
			}
			next = max(row*unit, y1)
		}
		nx := x1
		if next != y1 {
			nx = x0 + floorDiv(dx*(next-y0), dy)
		}
		c.inRow(row, x, y-row*unit, nx, next-row*unit)
		x, y = nx, next
	}
}

func floorDiv(a, b int) int {
	q := a / b
	if a%b != 0 && (a < 0) != (b < 0) {
		q--
	}
	return q
}

// inRow adds a segment within one row of pixels; fy are subpixels below the row's top.
func (c *coverage) inRow(row, x0, fy0, x1, fy1 int) {
	if row < 0 || row >= c.h || fy0 == fy1 {
		return
	}
	c.top, c.bottom = min(c.top, row), max(c.bottom, row+1)
	dx, dy := x1-x0, fy1-fy0
	x, y := x0, fy0
	for {
		col := x / unit
		end := x1
		if dx > 0 && x1 > (col+1)*unit {
			end = (col + 1) * unit
		} else if dx < 0 {
			if x%unit == 0 && col > 0 {
				col--
			}
			end = max(x1, col*unit)
		}
		ny := fy1
		if end != x1 {
			ny = fy0 + floorDiv(dy*(end-x0), dx)
		}
		if d := ny - y; d != 0 {
			i := row*(c.w+1) + col
			c.cover[i] += int32(d)
			c.area[i] += int32(d * (x + end - 2*col*unit))
			c.touched[row*c.words+col/64] |= 1 << (col % 64)
		}
		x, y = end, ny
		if x == x1 {
			return
		}
	}
}

// sweep calls span for every run of equal coverage 1..255 of the nonzero winding, in rows from the top, and
// empties the buffer.
func (c *coverage) sweep(span func(y, x0, x1 int, a uint32)) {
	for y := c.top; y < c.bottom; y++ {
		row := y * (c.w + 1)
		acc, last := int32(0), 0
		for k := 0; k < c.words; k++ {
			word := c.touched[y*c.words+k]
			c.touched[y*c.words+k] = 0
			for ; word != 0; word &= word - 1 {
				x := k*64 + bits.TrailingZeros64(word)
				if a := alpha(acc * 2 * unit); a > 0 && x > last {
					span(y, last, min(x, c.w), a)
				}
				i := row + x
				acc += c.cover[i]
				if a := alpha(acc*2*unit - c.area[i]); a > 0 && x < c.w {
					span(y, x, x+1, a)
				}
				c.cover[i], c.area[i] = 0, 0
				last = x + 1
			}
		}
		if a := alpha(acc * 2 * unit); a > 0 && last < c.w {
			span(y, last, c.w, a)
		}
	}
	c.top, c.bottom = c.h, 0
}

// alpha turns twice the signed area of a pixel into 0..255, rounded.
func alpha(v int32) uint32 {
	if v < 0 {
		v = -v
	}
	if v >= whole {
		return 255
	}
	return (uint32(v)*255 + whole/2) / whole
}
