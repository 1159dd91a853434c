package geom

import "slices"

// Heads of open strokes. The empty head is none.
const (
	TriangleHead = "triangle"
	OpenHead     = "open"
	DotHead      = "dot"
	BarHead      = "bar"
)

// Heads are all heads a stroke may have.
var Heads = []string{"", TriangleHead, OpenHead, DotHead, BarHead}

// Sizes of heads, in widths of the stroke: how far a head reaches back along the line and to either side, and how much of the line
// it takes the place of.
var headSizes = map[string]struct{ back, aside, instead float64 }{
	TriangleHead: {3.4, 1.7, 2.8},
	OpenHead:     {2.8, 2, 0.8},
	DotHead:      {0, 1.6, 0},
	BarHead:      {0, 2, 0},
}

// headed adds the heads of an open line to the outline and returns what is left of the line to be stroked.
func (s *stroker) headed(l polyline) polyline {
	if l.closed || len(l.at) < 2 || s.pen.StartHead == "" && s.pen.EndHead == "" {
		return l
	}
	if s.pen.EndHead != "" {
		l = s.head(l, s.pen.EndHead)
	}
	if s.pen.StartHead != "" {
		l = s.head(l.reversed(), s.pen.StartHead).reversed()
	}
	return l
}

// head draws a head at the end of a line and cuts off what it takes the place of.
func (s *stroker) head(l polyline, kind string) polyline {
	size := headSizes[kind]
	w := s.pen.Width
	tip := l.at[len(l.at)-1]
	from := l.cutAt(max(size.back, 1) * w)
	d := tip.Sub(from.at[len(from.at)-1])
	if n := d.Len(); n > 0 {
		d = d.Mul(1 / n)
	} else {
		return l
	}
	n := Point{-d.Y, d.X}
	at := func(back, aside float64) Point { return tip.Sub(d.Mul(back * w)).Add(n.Mul(aside * w)) }
	switch kind {
	case TriangleHead:
		s.polygon([]Point{tip, at(size.back, size.aside), at(size.back, -size.aside)})
	case OpenHead:
		inner := stroker{out: s.out, r: s.r, pen: Pen{Width: w, Cap: s.pen.Cap, Join: s.pen.Join, MiterLimit: 8}}
		inner.stroke(polyline{at: []Point{at(size.back, size.aside), tip, at(size.back, -size.aside)}, smooth: make([]bool, 3)})
	case DotHead:
		r := size.aside * w
		dot := Ellipse(BoxAt(tip, 2*r, 2*r))
		turned := &Path{} // the other way round, as strokes run
		turned.Append(dot, Scale(1, -1).Mul(Translate(tip.Mul(-1))))
		s.out.Append(turned, Translate(tip))
	case BarHead:
		s.polygon([]Point{at(-0.5, size.aside), at(0.5, size.aside), at(0.5, -size.aside), at(-0.5, -size.aside)})
	}
	if size.instead > 0 {
		return l.cutAt(size.instead * w)
	}
	return l
}

// polygon adds an outline that runs as those of strokes do, so that both together are one area by the nonzero rule.
func (s *stroker) polygon(list []Point) {
	area := 0.0
	for i, p := range list {
		q := list[(i+1)%len(list)]
		area += p.X*q.Y - q.X*p.Y
	}
	if area > 0 {
		slices.Reverse(list)
	}
	for i, p := range list {
		first := i == 0
		s.point(p, &first)
	}
	s.out.Close()
}

// cutAt returns the line without its last stretch of the given length; at least a short piece of its beginning stays.
func (l polyline) cutAt(length float64) polyline {
	out := polyline{at: slices.Clone(l.at), smooth: slices.Clone(l.smooth), drawn: l.drawn}
	for len(out.at) >= 2 {
		a, b := out.at[len(out.at)-2], out.at[len(out.at)-1]
		d := b.Sub(a).Len()
		if d > length {
			out.at[len(out.at)-1] = a.Lerp(b, 1-length/d)
			return out
		}
		if len(out.at) == 2 {
			out.at[1] = a.Lerp(b, 0.01)
			return out
		}
		length -= d
		out.at, out.smooth = out.at[:len(out.at)-1], out.smooth[:len(out.smooth)-1]
	}
	return out
}
