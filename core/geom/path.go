package geom

import (
	"errors"
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Verb says what one step of a Path does, and so how many of its points it takes.
type Verb uint8

// The verbs of a Path with the number of points each takes: 1, 1, 3 and 0.
const (
	MoveTo Verb = iota
	LineTo
	CubicTo
	Close
)

// PointsOf says how many points a verb takes.
var PointsOf = [4]int{MoveTo: 1, LineTo: 1, CubicTo: 3, Close: 0}

// Path is a list of subpaths made of lines and cubic Beziers. Quadratic curves and elliptical arcs
// are stored as cubics. The zero value is the empty path.
type Path struct {
	Verbs  []Verb
	Points []Point
}

// Move begins a subpath at p.
func (p *Path) Move(q Point) { p.Verbs = append(p.Verbs, MoveTo); p.Points = append(p.Points, q) }

// Line adds a straight segment to q.
func (p *Path) Line(q Point) { p.Verbs = append(p.Verbs, LineTo); p.Points = append(p.Points, q) }

// Cubic adds a Bezier segment with control points a and b, ending at q.
func (p *Path) Cubic(a, b, q Point) {
	p.Verbs = append(p.Verbs, CubicTo)
	p.Points = append(p.Points, a, b, q)
}

// Quad adds a quadratic Bezier segment from the current point, raised to a cubic exactly.
func (p *Path) Quad(c, q Point) {
	s := p.Current()
	p.Cubic(s.Lerp(c, 2.0/3), q.Lerp(c, 2.0/3), q)
}

// Close closes the current subpath with a straight segment.
func (p *Path) Close() { p.Verbs = append(p.Verbs, Close) }

// Current returns the last point added, or the origin.
func (p *Path) Current() Point {
	if len(p.Points) == 0 {
		return Point{}
	}
	return p.Points[len(p.Points)-1]
}

// Append adds the subpaths of q, mapped by m.
func (p *Path) Append(q *Path, m Matrix) {
	p.Verbs = append(p.Verbs, q.Verbs...)
	for _, v := range q.Points {
		p.Points = append(p.Points, m.Apply(v))
	}
}

// Reset empties p and keeps its memory.
func (p *Path) Reset() { p.Verbs, p.Points = p.Verbs[:0], p.Points[:0] }

// Bounds returns the tight box of the path: control points count only where a curve reaches out to
// its extremes. The box of an empty path is EmptyBox.
func (p *Path) Bounds() Box {
	// First the points on the path: most curves of a long one lie inside their box.
	b := EmptyBox()
	include := func(q Point) {
		if q.X < b.Min.X {
			b.Min.X = q.X
		}
		if q.Y < b.Min.Y {
			b.Min.Y = q.Y
		}
		if q.X > b.Max.X {
			b.Max.X = q.X
		}
		if q.Y > b.Max.Y {
			b.Max.Y = q.Y
		}
	}
	var cur, start Point
	i := 0
	for _, v := range p.Verbs {
		switch v {
		case MoveTo:
			cur, start = p.Points[i], p.Points[i]
		case LineTo:
			include(cur)
			cur = p.Points[i]
			include(cur)
		case CubicTo:
			include(cur)
			cur = p.Points[i+2]
			include(cur)
		case Close:
			cur = start
		}
		i += PointsOf[v]
	}
	inner := b
	i = 0
	for _, v := range p.Verbs {
		switch v {
		case MoveTo:
			cur, start = p.Points[i], p.Points[i]
		case LineTo:
			cur = p.Points[i]
		case CubicTo:
			if q := p.Points[i : i+3]; !(inner.Contains(q[0]) && inner.Contains(q[1])) {
				s := Segment{P0: cur, P1: q[0], P2: q[1], P3: q[2]}
				for _, t := range s.extremes() {
					include(s.At(t))
				}
			}
			cur = p.Points[i+2]
		case Close:
			cur = start
		}
		i += PointsOf[v]
	}
	return b
}

// Segment is one line or cubic of a path, with its start point.
type Segment struct {
	P0, P1, P2, P3 Point
	Line           bool
	First          bool // begins a subpath
}

// Each calls f for every drawn segment in order; a Close that returns to the start adds its line.
func (p *Path) Each(f func(Segment)) {
	var cur, start Point
	first := true
	i := 0
	line := func(q Point) {
		f(Segment{cur, cur.Lerp(q, 1.0/3), cur.Lerp(q, 2.0/3), q, true, first})
		first = false
		cur = q
	}
	for _, v := range p.Verbs {
		switch v {
		case MoveTo:
			cur, start, first = p.Points[i], p.Points[i], true
		case LineTo:
			line(p.Points[i])
		case CubicTo:
			f(Segment{cur, p.Points[i], p.Points[i+1], p.Points[i+2], false, first})
			first = false
			cur = p.Points[i+2]
		case Close:
			if cur != start {
				line(start)
			}
			first = true
		}
		i += PointsOf[v]
	}
}

// EachClosed is Each as a fill reads a path: what a subpath lacks to its start is added as a line.
func (p *Path) EachClosed(f func(Segment)) {
	var start, last Point
	end := func() {
		if last != start {
			f(Segment{P0: last, P1: last.Lerp(start, 1.0/3), P2: last.Lerp(start, 2.0/3), P3: start, Line: true})
		}
	}
	p.Each(func(s Segment) {
		if s.First {
			end()
			start = s.P0
		}
		f(s)
		last = s.P3
	})
	end()
}

// At returns the point at parameter t in 0..1.
func (s Segment) At(t float64) Point {
	if s.Line {
		return s.P0.Lerp(s.P3, t)
	}
	u := 1 - t
	a, b, c, d := u*u*u, 3*u*u*t, 3*u*t*t, t*t*t
	return Point{
		a*s.P0.X + b*s.P1.X + c*s.P2.X + d*s.P3.X,
		a*s.P0.Y + b*s.P1.Y + c*s.P2.Y + d*s.P3.Y,
	}
}

// Derivative returns the velocity with respect to t.
func (s Segment) Derivative(t float64) Point {
	if s.Line {
		return s.P3.Sub(s.P0)
	}
	u := 1 - t
	a, b, c := 3*u*u, 6*u*t, 3*t*t
	p, q, r := s.P1.Sub(s.P0), s.P2.Sub(s.P1), s.P3.Sub(s.P2)
	return Point{a*p.X + b*q.X + c*r.X, a*p.Y + b*q.Y + c*r.Y}
}

func (s Segment) extremes() []float64 {
	var out []float64
	solve := func(a, b, c, d float64) {
		qa, qb, qc := -a+3*b-3*c+d, 2*(a-2*b+c), b-a
		add := func(t float64) {
			if t > 0 && t < 1 {
				out = append(out, t)
			}
		}
		if math.Abs(qa) < 1e-12 {
			if qb != 0 {
				add(-qc / qb)
			}
			return
		}
		if disc := qb*qb - 4*qa*qc; disc >= 0 {
			r := math.Sqrt(disc)
			add((-qb + r) / (2 * qa))
			add((-qb - r) / (2 * qa))
		}
	}
	solve(s.P0.X, s.P1.X, s.P2.X, s.P3.X)
	solve(s.P0.Y, s.P1.Y, s.P2.Y, s.P3.Y)
	return out
}

// circle is the control distance of a quarter circle of radius 1 by one cubic (error 2.7e-4).
const circle = 0.5522847498307936

// Ellipse returns the ellipse that touches the sides of b, clockwise from its right end.
func Ellipse(b Box) *Path {
	c, rx, ry := b.Centre(), b.W()/2, b.H()/2
	at := func(x, y float64) Point { return Point{c.X + x*rx, c.Y + y*ry} }
	p := &Path{}
	p.Move(at(1, 0))
	p.Cubic(at(1, circle), at(circle, 1), at(0, 1))
	p.Cubic(at(-circle, 1), at(-1, circle), at(-1, 0))
	p.Cubic(at(-1, -circle), at(-circle, -1), at(0, -1))
	p.Cubic(at(circle, -1), at(1, -circle), at(1, 0))
	p.Close()
	return p
}

// Rectangle returns b with corners rounded by radius, which is limited to half the shorter side.
func Rectangle(b Box, radius float64) *Path {
	p := &Path{}
	r := math.Min(radius, math.Min(b.W(), b.H())/2)
	if !(r > 0) {
		c := b.Corners()
		p.Move(c[0])
		p.Line(c[1])
		p.Line(c[2])
		p.Line(c[3])
		p.Close()
		return p
	}
	k := r * (1 - circle)
	l, t, rt, bt := b.Min.X, b.Min.Y, b.Max.X, b.Max.Y
	p.Move(Point{l + r, t})
	p.Line(Point{rt - r, t})
	p.Cubic(Point{rt - k, t}, Point{rt, t + k}, Point{rt, t + r})
	p.Line(Point{rt, bt - r})
	p.Cubic(Point{rt, bt - k}, Point{rt - k, bt}, Point{rt - r, bt})
	p.Line(Point{l + r, bt})
	p.Cubic(Point{l + k, bt}, Point{l, bt - k}, Point{l, bt - r})
	p.Line(Point{l, t + r})
	p.Cubic(Point{l, t + k}, Point{l + k, t}, Point{l + r, t})
	p.Close()
	return p
}

// Data writes the path in SVG 2 path grammar with absolute commands, numbers rounded to 1e-3.
func (p *Path) Data() string {
	var s strings.Builder
	num := func(q Point) {
		for _, v := range []float64{q.X, q.Y} {
			s.WriteByte(' ')
			s.WriteString(strconv.FormatFloat(math.Round(v*1000)/1000+0, 'f', -1, 64))
		}
	}
	i := 0
	for _, v := range p.Verbs {
		s.WriteByte("MLCZ"[v])
		for _, q := range p.Points[i : i+PointsOf[v]] {
			num(q)
		}
		i += PointsOf[v]
	}
	return s.String()
}

// MaxPoints is the most points a path read by ParseData may have.
const MaxPoints = 10000

// ParseData reads SVG 2 path data with the commands M L H V C Q Z, absolute or relative (the
// subset documents are stored in). It refuses anything else, and more than MaxPoints points.
func ParseData(d string) (*Path, error) {
	p := &Path{}
	var start Point
	pos := 0
	skip := func() {
		for pos < len(d) && strings.IndexByte(" \t\r\n,", d[pos]) >= 0 {
			pos++
		}
	}
	number := func() (float64, error) {
		skip()
		from := pos
		if pos < len(d) && (d[pos] == '-' || d[pos] == '+') {
			pos++
		}
		dot, exp := false, false
		for pos < len(d) {
			c := d[pos]
			switch {
			case c >= '0' && c <= '9':
			case c == '.' && !dot && !exp:
				dot = true
			case (c == 'e' || c == 'E') && !exp && pos > from:
				exp = true
				if pos+1 < len(d) && (d[pos+1] == '-' || d[pos+1] == '+') {
					pos++
				}
			default:
				goto done
			}
			pos++
		}
	done:
		v, err := strconv.ParseFloat(d[from:pos], 64)
		if err != nil || math.IsInf(v, 0) || math.Abs(v) > 1e7 {
			return 0, fmt.Errorf("path data: no usable number at character %d", from+1)
		}
		return v, nil
	}
	point := func(rel bool) (Point, error) {
		x, err := number()
		if err != nil {
			return Point{}, err
		}
		y, err := number()
		if err != nil {
			return Point{}, err
		}
		q := Point{x, y}
		if rel {
			q = q.Add(p.penOr(start))
		}
		return q, nil
	}
	cmd := byte(0)
	for {
		skip()
		if pos >= len(d) {
			return p, nil
		}
		if len(p.Points) > MaxPoints {
			return nil, fmt.Errorf("path data: more than %d points", MaxPoints)
		}
		if c := d[pos]; strings.IndexByte("MmLlHhVvCcQqZz", c) >= 0 {
			cmd = c
			pos++
		} else if cmd == 0 || cmd == 'Z' || cmd == 'z' {
			return nil, fmt.Errorf("path data: unknown command %q at character %d", string(c), pos+1)
		} else if cmd == 'M' {
			cmd = 'L'
		} else if cmd == 'm' {
			cmd = 'l'
		}
		rel := cmd >= 'a'
		if len(p.Verbs) == 0 && cmd != 'M' && cmd != 'm' {
			return nil, errors.New("path data: must begin with M")
		}
		if n := len(p.Verbs); n > 0 && p.Verbs[n-1] == Close && strings.IndexByte("MmZz", cmd) < 0 {
			p.Move(start)
		}
		var q [3]Point
		var err error
		n := map[byte]int{'m': 1, 'l': 1, 'c': 3, 'q': 2}[cmd|0x20]
		for i := 0; i < n && err == nil; i++ {
			q[i], err = point(rel)
		}
		if err != nil {
			return nil, err
		}
		switch cmd | 0x20 {
		case 'm':
			p.Move(q[0])
			start = q[0]
		case 'l':
			p.Line(q[0])
		case 'c':
			p.Cubic(q[0], q[1], q[2])
		case 'q':
			p.Quad(q[0], q[1])
		case 'h', 'v':
			v, err := number()
			if err != nil {
				return nil, err
			}
			to := p.penOr(start)
			if rel && cmd == 'h' {
				v += to.X
			} else if rel {
				v += to.Y
			}
			if cmd|0x20 == 'h' {
				to.X = v
			} else {
				to.Y = v
			}
			p.Line(to)
		case 'z':
			p.Close()
		}
	}
}

// penOr returns where the pen stands: the last point, or start right after a Close.
func (p *Path) penOr(start Point) Point {
	if n := len(p.Verbs); n > 0 && p.Verbs[n-1] == Close {
		return start
	}
	return p.Current()
}
