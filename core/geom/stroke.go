package geom

import (
	"math"
	"slices"
)

// Caps and joins of strokes, as in SVG 2, section 13.5.
const (
	ButtCap   = "butt"
	RoundCap  = "round"
	SquareCap = "square"
	MiterJoin = "miter"
	RoundJoin = "round"
	BevelJoin = "bevel"
)

// Pen says how a path is stroked. The zero values of Cap and Join are butt and miter.
type Pen struct {
	Width      float64
	Cap        string
	Join       string
	MiterLimit float64   // ratio of miter length to width beyond which a miter becomes a bevel; 0: 4, as in SVG
	Dash       []float64 // lengths of dashes and gaps in turn; an odd number counts twice over
	DashOffset float64   // where in the pattern the path begins
	StartHead  string    // of Heads; closed lines have none
	EndHead    string
	Trim       *[2]float64 // shares of the path's whole length, 0..1, between which it is drawn; nil: all of it
}

// strokeTolerance is how far, in local px, a stroke's outline may lie off the true one: unseen up to some eight times
// enlargement.
const strokeTolerance = 0.02

// maxDashes bounds the pieces a path is cut into; a finer pattern is drawn whole.
const maxDashes = 20000

// Stroke returns the outline of p drawn with a pen, to be filled by the nonzero rule. Each side of the line is offset by
// itself; where the offset of the inner side would run backwards it goes through the line's own corner, so that no
// hole opens. Curves are flattened by distance and by turn.
func (p *Path) Stroke(pen Pen) *Path {
	return new(Stroker).Stroke(p, pen)
}

// Stroker strokes one path after another in the same memory. The zero Stroker is ready.
type Stroker struct {
	stroker
	path, part Path
	lines      []polyline
}

// Stroke is Path.Stroke. What it returns is good until the next call.
func (k *Stroker) Stroke(p *Path, pen Pen) *Path {
	k.path.Reset()
	s := &k.stroker
	s.out, s.pen, s.r = &k.path, pen, pen.Width/2
	if !(s.r > 0) {
		return s.out
	}
	if s.pen.MiterLimit == 0 {
		s.pen.MiterLimit = 4
	}
	if pen.Trim != nil {
		p = p.Part(pen.Trim[0], pen.Trim[1])
	}
	k.lines = p.flatten(k.lines[:0], s.r)
	for _, line := range k.lines {
		switch {
		case !line.drawn: // a bare move draws nothing; what was drawn or closed but goes nowhere has caps
		case len(pen.Dash) == 0:
			s.stroke(s.headed(line))
		default:
			for _, piece := range s.dashed(s.headed(line)) {
				s.stroke(piece)
			}
		}
	}
	return s.out
}

// Part is Stroke of the part of a path, whose lengths are m, between two shares of its length.
func (k *Stroker) Part(p *Path, m *Measure, from, to float64, pen Pen) *Path {
	if from <= 0 && to >= 1 {
		return k.Stroke(p, pen)
	}
	k.part.Reset()
	p.partInto(&k.part, m, from, to)
	return k.Stroke(&k.part, pen)
}

// polyline is a subpath cut into chords; smooth[i] tells that point i lies within a curve and is no corner.
type polyline struct {
	at     []Point
	smooth []bool
	closed bool
	drawn  bool // more than a bare move
}

func (l *polyline) add(q Point, smooth bool) {
	if n := len(l.at); n > 0 && l.at[n-1].Sub(q).Len() < 1e-9 {
		l.smooth[n-1] = l.smooth[n-1] && smooth
		return
	}
	l.at, l.smooth = append(l.at, q), append(l.smooth, smooth)
}

// flatten cuts a path into polylines fine enough for offsets by r, in the memory of out.
func (p *Path) flatten(out []polyline, r float64) []polyline {
	var cur *polyline
	var start Point
	i := 0
	pen := Point{}
	begin := func(at Point) {
		if len(out) < cap(out) {
			out = out[:len(out)+1]
		} else {
			out = append(out, polyline{})
		}
		cur = &out[len(out)-1]
		*cur = polyline{at: cur.at[:0], smooth: cur.smooth[:0]}
		cur.add(at, false)
	}
	for _, v := range p.Verbs {
		switch v {
		case MoveTo:
			start, cur = p.Points[i], nil
			pen = start
			begin(start)
		case LineTo:
			if cur == nil {
				begin(pen)
			}
			cur.add(p.Points[i], false)
			cur.drawn = true
			pen = p.Points[i]
		case CubicTo:
			if cur == nil {
				begin(pen)
			}
			s := Segment{P0: pen, P1: p.Points[i], P2: p.Points[i+1], P3: p.Points[i+2]}
			cur.curve(s, r)
			cur.drawn = true
			pen = s.P3
		case Close:
			if cur == nil {
				begin(pen)
			}
			cur.add(start, false)
			cur.closed, cur.drawn = true, true
			if n := len(cur.at); n > 1 && cur.at[n-1].Sub(cur.at[0]).Len() < 1e-9 {
				cur.at, cur.smooth = cur.at[:n-1], cur.smooth[:n-1]
			}
			pen, cur = start, nil
		}
		i += PointsOf[v]
	}
	return out
}

// curve adds the chords of a cubic: few enough turns that the outer offset stays within tolerance too.
func (l *polyline) curve(s Segment, r float64) {
	d := math.Max(s.P0.Sub(s.P1.Mul(2)).Add(s.P2).Len(), s.P1.Sub(s.P2.Mul(2)).Add(s.P3).Len())
	n := int(math.Ceil(math.Sqrt(0.75 * d / strokeTolerance)))
	n = max(1, min(n, 200))
	most := 2 * math.Acos(1-math.Min(1, strokeTolerance/math.Max(r, strokeTolerance)))
	v := s.direction(0)
	for i := 0; i < n; i++ {
		t0, t1 := float64(i)/float64(n), float64(i+1)/float64(n)
		next := s.direction(t1)
		l.split(&s, t0, t1, v, next, most, 0)
		v = next
	}
}

// split adds the chords of s from t0 to t1, where its directions are v0 and v1, none of which turns by more than most.
func (l *polyline) split(s *Segment, t0, t1 float64, v0, v1 Point, most float64, depth int) {
	turn := 0.0
	if v0.Len() > 1e-12 && v1.Len() > 1e-12 {
		turn = math.Abs(math.Atan2(v0.X*v1.Y-v0.Y*v1.X, v0.X*v1.X+v0.Y*v1.Y))
	}
	if turn > most && depth < 10 {
		t := (t0 + t1) / 2
		v := s.direction(t)
		l.split(s, t0, t, v0, v, most, depth+1)
		l.split(s, t, t1, v, v1, most, depth+1)
		return
	}
	if t1 == 1 {
		l.add(s.P3, false)
	} else {
		l.add(s.At(t1), true)
	}
}

// direction is the derivative at t, or at the ends what it tends to where control points coincide.
func (s Segment) direction(t float64) Point {
	v := s.Derivative(t)
	if v.Len() > 1e-9 {
		return v
	}
	if t < 0.5 {
		return s.At(t + 1e-4).Sub(s.At(t))
	}
	return s.At(t).Sub(s.At(t - 1e-4))
}

// dashed cuts a polyline by the pen's pattern. Round a closed line the last dash goes over into the first where the
// pattern is on at both (SVG 2, section 13.5.6), so that the corner where the line begins has its join.
func (s *stroker) dashed(l polyline) []polyline {
	pattern, total := s.pen.Dash, 0.0
	for _, d := range pattern {
		if !(d >= 0) {
			return []polyline{l}
		}
		total += d
	}
	if len(pattern)%2 == 1 {
		pattern = append(append([]float64{}, pattern...), pattern...)
		total *= 2
	}
	at, smooth := l.at, l.smooth
	if l.closed {
		at, smooth = append(append([]Point{}, at...), at[0]), append(append([]bool{}, smooth...), false)
	}
	length := 0.0
	for i := 1; i < len(at); i++ {
		length += at[i].Sub(at[i-1]).Len()
	}
	if !(total > 0) || length == 0 || length/total*float64(len(pattern)) > maxDashes {
		return []polyline{l}
	}
	k, left := 0, math.Mod(s.pen.DashOffset, total)
	if left < 0 {
		left += total
	}
	for left > pattern[k] || left == pattern[k] && left > 0 {
		left -= pattern[k]
		k = (k + 1) % len(pattern)
	}
	left = pattern[k] - left
	var out []polyline
	var cur polyline
	on := k%2 == 0
	began := on
	if on {
		cur.add(at[0], false)
	}
	for i := 1; i < len(at); i++ {
		a, b := at[i-1], at[i]
		whole := b.Sub(a).Len()
		pos := 0.0
		for whole-pos > left {
			pos += left
			q := a.Lerp(b, pos/whole)
			cur.add(q, false)
			if on {
				out = append(out, cur)
				cur = polyline{}
			}
			on = !on
			k = (k + 1) % len(pattern)
			left = pattern[k]
		}
		left -= whole - pos
		if on {
			cur.add(b, smooth[i] && i < len(at)-1)
		}
	}
	switch {
	case !on || len(cur.at) == 0:
	case l.closed && began && len(out) == 0:
		return []polyline{l} // one dash longer than the ring
	case l.closed && began:
		first := out[0]
		for i, q := range first.at {
			cur.add(q, i > 0 && first.smooth[i])
		}
		out[0] = cur
	default:
		out = append(out, cur)
	}
	return out
}

// stroker writes outlines of polylines.
type stroker struct {
	out  *Path
	pen  Pen
	r    float64
	back polyline // the line of now, backwards
}

func normal(a, b Point) Point {
	d := b.Sub(a)
	n := d.Len()
	return Point{-d.Y / n, d.X / n}
}

func (s *stroker) stroke(l polyline) {
	n := len(l.at)
	if n == 1 {
		s.dot(l.at[0])
		return
	}
	if n == 2 && l.closed {
		// There and back along one line: its ends are corners of half a turn, which only round joins show.
		l.closed = false
		defer func(cap string) { s.pen.Cap = cap }(s.pen.Cap)
		s.pen.Cap = ButtCap
		if s.pen.Join == RoundJoin {
			s.pen.Cap = RoundCap
		}
	}
	if l.closed {
		s.along(l, true)
		s.out.Close()
		s.along(s.reversed(l), true)
		s.out.Close()
		return
	}
	s.along(l, true)
	s.cap(l.at[n-1], normal(l.at[n-2], l.at[n-1]))
	s.along(s.reversed(l), false)
	s.cap(l.at[0], normal(l.at[1], l.at[0]))
	s.out.Close()
}

// reversed is a line backwards, good until the next call.
func (s *stroker) reversed(l polyline) polyline {
	b := &s.back
	b.at, b.smooth, b.closed = append(b.at[:0], l.at...), append(b.smooth[:0], l.smooth...), l.closed
	slices.Reverse(b.at)
	slices.Reverse(b.smooth)
	return *b
}

func (l polyline) reversed() polyline {
	l.at, l.smooth = slices.Clone(l.at), slices.Clone(l.smooth)
	slices.Reverse(l.at)
	slices.Reverse(l.smooth)
	return l
}

func (s *stroker) point(q Point, first *bool) {
	if *first {
		s.out.Move(q)
		*first = false
		return
	}
	s.out.Line(q)
}

// along writes the offset of l on the side its normal points to; first: as a new contour.
func (s *stroker) along(l polyline, first bool) {
	n := len(l.at)
	if !l.closed {
		s.point(l.at[0].Add(normal(l.at[0], l.at[1]).Mul(s.r)), &first)
		for i := 1; i < n-1; i++ {
			s.corner(l.at[i-1], l.at[i], l.at[i+1], l.smooth[i], &first)
		}
		s.point(l.at[n-1].Add(normal(l.at[n-2], l.at[n-1]).Mul(s.r)), &first)
		return
	}
	for i := range l.at {
		s.corner(l.at[(i+n-1)%n], l.at[i], l.at[(i+1)%n], l.smooth[i], &first)
	}
}

// corner writes the offset about the point q between a and b.
func (s *stroker) corner(a, q, b Point, smooth bool, first *bool) {
	n1, n2 := normal(a, q), normal(q, b)
	cross := n1.X*n2.Y - n1.Y*n2.X
	dot := n1.X*n2.X + n1.Y*n2.Y
	if dot > 1-1e-12 {
		s.point(q.Add(n2.Mul(s.r)), first)
		return
	}
	half := math.Sqrt(math.Max(0, (1+dot)/2)) // cosine of half the turn
	mid := n1.Add(n2)
	if l := mid.Len(); l > 1e-9 {
		mid = mid.Mul(1 / l)
	} else {
		mid, half = Point{}, 0
	}
	if cross > 0 { // turning towards this side

		// Both offsets meet at the miter point when it lies within both chords; each chord has a corner at either end.
		if half > 1e-6 {
			back := s.r * math.Sqrt(1-half*half) / half
			if 2*back <= math.Min(q.Sub(a).Len(), b.Sub(q).Len()) {
				s.point(q.Add(mid.Mul(s.r/half)), first)
				return
			}
		}
		s.point(q.Add(n1.Mul(s.r)), first)
		s.point(q, first)
		s.point(q.Add(n2.Mul(s.r)), first)
		return
	}
	join := s.pen.Join
	if smooth {
		join = RoundJoin
		if s.r*(1-half) <= strokeTolerance*half {
			s.point(q.Add(mid.Mul(s.r/half)), first)
			return
		}
	}
	switch join {
	case RoundJoin:
		s.point(q.Add(n1.Mul(s.r)), first)
		s.arc(q, n1, n2)
	case BevelJoin:
		s.point(q.Add(n1.Mul(s.r)), first)
		s.point(q.Add(n2.Mul(s.r)), first)
	default:
		if half > 1e-6 && 1/half <= s.pen.MiterLimit {
			s.point(q.Add(mid.Mul(s.r/half)), first)
			return
		}
		s.point(q.Add(n1.Mul(s.r)), first)
		s.point(q.Add(n2.Mul(s.r)), first)
	}
}

// arc goes on from q + r n1 to q + r n2 on a circle about q, the short way; where both are opposite, clockwise on the page
// as seen from the line's end.
func (s *stroker) arc(q, n1, n2 Point) {
	angle := math.Atan2(n1.X*n2.Y-n1.Y*n2.X, n1.X*n2.X+n1.Y*n2.Y)
	if angle > 0 && angle > math.Pi-1e-9 {
		angle = -math.Pi
	}
	s.sweep(q, n1, angle)
}

// sweep adds a part of a circle as cubics of at most a quarter turn each.
func (s *stroker) sweep(q, n Point, angle float64) {
	steps := max(1, int(math.Ceil(math.Abs(angle)/(math.Pi/2)-1e-9)))
	step := angle / float64(steps)
	k := 4.0 / 3 * math.Tan(step/4)
	for i := 0; i < steps; i++ {
		sin, cos := math.Sincos(step)
		m := Point{n.X*cos - n.Y*sin, n.X*sin + n.Y*cos}
		a := n.Add(Point{-n.Y, n.X}.Mul(k))
		b := m.Sub(Point{-m.Y, m.X}.Mul(k))
		s.out.Cubic(q.Add(a.Mul(s.r)), q.Add(b.Mul(s.r)), q.Add(m.Mul(s.r)))
		n = m
	}
}

// cap ends a line at q, whose side written last lies along n, and leads to the other side.
func (s *stroker) cap(q, n Point) {
	ahead := Point{n.Y, -n.X} // the way the line was going
	switch s.pen.Cap {
	case RoundCap:
		s.sweep(q, n, -math.Pi)
	case SquareCap:
		s.out.Line(q.Add(n.Add(ahead).Mul(s.r)))
		s.out.Line(q.Add(ahead.Sub(n).Mul(s.r)))
	}
}

// dot is what a line without length leaves: its two caps, round the same way as all else.
func (s *stroker) dot(q Point) {
	up := Point{Y: 1}
	switch s.pen.Cap {
	case RoundCap:
		s.out.Move(q.Add(up.Mul(s.r)))
		s.sweep(q, up, -2*math.Pi)
		s.out.Close()
	case SquareCap:
		s.out.Move(q.Add(Point{-1, 1}.Mul(s.r)))
		for _, c := range [3]Point{{1, 1}, {1, -1}, {-1, -1}} {
			s.out.Line(q.Add(c.Mul(s.r)))
		}
		s.out.Close()
	}
}
