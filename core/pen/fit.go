package pen

import (
	"math"

	"capstan/core/geom"
)

// Fit returns an open contour through points drawn by hand, with as few points as keep within tolerance of all of them, by
// Schneider's method (Graphics Gems, 1990): a cubic is fitted by least squares with the directions at its ends kept, the places of
// the points on it are improved by Newton's method, and where it still lies too far off it is divided at the worst point. Points
// where the line bends sharply become corners.
func Fit(points []geom.Point, tolerance float64) Contour {
	var pts []geom.Point
	for _, q := range points {
		if n := len(pts); n == 0 || q.Sub(pts[n-1]).Len() > 1e-6 {
			pts = append(pts, q)
		}
	}
	if len(pts) == 0 {
		return Contour{}
	}
	c := Contour{Nodes: []Node{Corner(pts[0])}}
	from := 0
	for i := 1; i < len(pts); i++ {
		if i == len(pts)-1 || sharp(pts, i, tolerance) {
			f := fitter{tolerance: math.Max(tolerance, 1e-6), c: &c}
			part := pts[from : i+1]
			f.fit(part, tangent(part, false), tangent(part, true))
			from = i
		}
	}
	return c
}

// sharp reports whether a line of points bends by more than 60 degrees at i, looked at over a few tolerances to either side.
func sharp(pts []geom.Point, i int, tolerance float64) bool {
	reach := 4*tolerance + 2
	look := func(by int) (geom.Point, bool) {
		for k := i + by; k >= 0 && k < len(pts); k += by {
			if pts[k].Sub(pts[i]).Len() >= reach {
				return pts[k].Sub(pts[i]), true
			}
		}
		return geom.Point{}, false
	}
	u, before := look(-1)
	v, after := look(1)
	if !before || !after {
		return false
	}
	if u.X*v.X+u.Y*v.Y <= -0.5*u.Len()*v.Len() {
		return false
	}
	// Of the points around a bend only the sharpest counts: the one that lies farthest from the chord.
	chord := v.Sub(u)
	l := chord.Len()
	own := math.Abs(u.X*v.Y-u.Y*v.X) / math.Max(l, 1e-9)
	for k := max(1, i-3); k < min(len(pts)-1, i+4); k++ {
		a, b := pts[i].Add(u).Sub(pts[k]), pts[i].Add(v).Sub(pts[k])
		if d := math.Abs(a.X*b.Y-a.Y*b.X) / math.Max(l, 1e-9); d > own+1e-9 || d == own && k < i {
			return false
		}
	}
	return true
}

// tangent is the direction in which a line of points begins, or seen from its end, ends.
func tangent(pts []geom.Point, end bool) geom.Point {
	n := len(pts)
	if end {
		return direction(pts[n-1], pts[max(0, n-3)], pts[max(0, n-2)], pts[0])
	}
	return direction(pts[0], pts[min(n-1, 2)], pts[min(n-1, 1)], pts[n-1])
}

type fitter struct {
	tolerance float64
	c         *Contour
}

// curve adds a cubic to the contour.
func (f *fitter) curve(p [4]geom.Point) {
	f.c.Nodes[len(f.c.Nodes)-1].Out = p[1]
	f.c.Nodes = append(f.c.Nodes, Node{p[3], p[2], p[3]})
}

func (f *fitter) fit(pts []geom.Point, t1, t2 geom.Point) {
	n := len(pts)
	if n == 2 {
		d := pts[1].Sub(pts[0]).Len() / 3
		f.curve([4]geom.Point{pts[0], pts[0].Add(t1.Mul(d)), pts[1].Add(t2.Mul(d)), pts[1]})
		return
	}
	u := chordLengths(pts)
	var bez [4]geom.Point
	worst, at := 0.0, 0
	for range 6 {
		bez = leastSquares(pts, u, t1, t2)
		worst, at = farthest(pts, u, bez)
		if worst <= f.tolerance {
			f.curve(bez)
			return
		}
		if worst > 6*f.tolerance {
			break // far from fitting: improving places will not help
		}
		for i := range u {
			u[i] = newton(bez, pts[i], u[i])
		}
	}
	// Divided at the worst point, the line going smoothly through it.
	v := pts[at-1].Sub(pts[at+1])
	if v.Len() < 1e-9 {
		v = pts[at-1].Sub(pts[at])
	}
	v = v.Mul(1 / math.Max(v.Len(), 1e-9))
	f.fit(pts[:at+1], t1, v)
	f.fit(pts[at:], v.Mul(-1), t2)
}

// fitOne returns the handles of the one cubic that comes nearest to points, leaving and arriving in given directions.
func fitOne(pts []geom.Point, t1, t2 geom.Point) (out, in geom.Point) {
	u := chordLengths(pts)
	var bez [4]geom.Point
	for range 8 {
		bez = leastSquares(pts, u, t1, t2)
		for i := range u {
			u[i] = newton(bez, pts[i], u[i])
		}
	}
	return bez[1], bez[2]
}

func chordLengths(pts []geom.Point) []float64 {
	u := make([]float64, len(pts))
	for i := 1; i < len(pts); i++ {
		u[i] = u[i-1] + pts[i].Sub(pts[i-1]).Len()
	}
	if all := u[len(u)-1]; all > 0 {
		for i := range u {
			u[i] /= all
		}
	}
	return u
}

// leastSquares finds the lengths of both handles.
func leastSquares(pts []geom.Point, u []float64, t1, t2 geom.Point) [4]geom.Point {
	first, last := pts[0], pts[len(pts)-1]
	dot := func(a, b geom.Point) float64 { return a.X*b.X + a.Y*b.Y }
	var c00, c01, c11, x0, x1 float64
	for i, q := range pts {
		t := u[i]
		s := 1 - t
		b0, b1, b2, b3 := s*s*s, 3*t*s*s, 3*t*t*s, t*t*t
		a1, a2 := t1.Mul(b1), t2.Mul(b2)
		c00 += dot(a1, a1)
		c01 += dot(a1, a2)
		c11 += dot(a2, a2)
		rest := q.Sub(first.Mul(b0 + b1)).Sub(last.Mul(b2 + b3))
		x0 += dot(a1, rest)
		x1 += dot(a2, rest)
	}
	det := c00*c11 - c01*c01
	length := last.Sub(first).Len()
	l1, l2 := length/3, length/3
	if math.Abs(det) > 1e-12 {
		l1, l2 = (x0*c11-x1*c01)/det, (c00*x1-c01*x0)/det
	}
	// Handles that would run backwards or to nothing: a third of the chord, as Schneider does.
	if least := 1e-6 * length; !(l1 > least) || !(l2 > least) || l1 > 10*length+1e3 || l2 > 10*length+1e3 {
		l1, l2 = length/3, length/3
	}
	return [4]geom.Point{first, first.Add(t1.Mul(l1)), last.Add(t2.Mul(l2)), last}
}

func bezier(b [4]geom.Point, t float64) geom.Point {
	return geom.Segment{P0: b[0], P1: b[1], P2: b[2], P3: b[3]}.At(t)
}

func farthest(pts []geom.Point, u []float64, b [4]geom.Point) (worst float64, at int) {
	at = len(pts) / 2
	for i := 1; i < len(pts)-1; i++ {
		if d := bezier(b, u[i]).Sub(pts[i]).Len(); d > worst {
			worst, at = d, i
		}
	}
	return
}

// newton moves the place of a point on a curve nearer to the foot of its perpendicular.
func newton(b [4]geom.Point, q geom.Point, t float64) float64 {
	s := 1 - t
	d := bezier(b, t).Sub(q)
	p01, p12, p23 := b[1].Sub(b[0]).Mul(3), b[2].Sub(b[1]).Mul(3), b[3].Sub(b[2]).Mul(3)
	v := p01.Mul(s * s).Add(p12.Mul(2 * s * t)).Add(p23.Mul(t * t))
	w := p12.Sub(p01).Mul(2 * s).Add(p23.Sub(p12).Mul(2 * t))
	num := d.X*v.X + d.Y*v.Y
	den := v.X*v.X + v.Y*v.Y + d.X*w.X + d.Y*w.Y
	if math.Abs(den) < 1e-12 {
		return t
	}
	return math.Max(0, math.Min(1, t-num/den))
}

// Simplify returns contours with as few points as keep within tolerance of them, corners kept.
func Simplify(list []Contour, tolerance float64) []Contour {
	out := make([]Contour, 0, len(list))
	for _, c := range list {
		if c.Segments() < 2 {
			out = append(out, c)
			continue
		}
		out = append(out, simplified(c, tolerance))
	}
	return out
}

// simplified takes points out one by one, the one that changes the line least first, as long as the line stays within tolerance of
// what it was. What taking one out changes is measured between its neighbours alone, and again only when one of these goes, so that
// a line of a thousand points is simplified at once.
func simplified(c Contour, tolerance float64) Contour {
	n := len(c.Nodes)
	t := thinning{c: c, tolerance: tolerance, before: make([]int, n), after: make([]int, n), cost: make([]float64, n)}
	for i := range n {
		t.before[i], t.after[i] = (i+n-1)%n, (i+1)%n
	}
	t.c.Nodes = append([]Node{}, c.Nodes...)
	t.was = make([][]geom.Point, n)
	for i := range c.Segments() {
		t.was[i] = c.stretch(i, 12)
	}
	for i := range n {
		t.weigh(i)
	}
	least := 2
	if c.Closed {
		least = 3
	}
	gone := make([]bool, n)
	for left := n; left > least; left-- {
		best := -1
		for i := range n {
			if !gone[i] && t.cost[i] <= tolerance && (best < 0 || t.cost[i] < t.cost[best]) {
				best = i
			}
		}
		if best < 0 {
			break
		}
		a, b := t.before[best], t.after[best]
		two := t.without(best)
		t.c.Nodes[a].Out, t.c.Nodes[b].In = two.Nodes[0].Out, two.Nodes[1].In
		t.was[a] = append(t.was[a], t.was[best]...)
		t.after[a], t.before[b], gone[best] = b, a, true
		t.weigh(a)
		t.weigh(b)
	}
	kept := Contour{Closed: c.Closed}
	for i, v := range t.c.Nodes {
		if !gone[i] {
			kept.Nodes = append(kept.Nodes, v)
		}
	}
	return kept
}

// thinning is a contour some of whose points are taken out.
type thinning struct {
	c             Contour
	tolerance     float64
	before, after []int          // the points that are left, as a ring
	was           [][]geom.Point // points of the line as it was, from each to the next
	cost          []float64      // how far the line goes from that when a point is taken out; infinite: too far, or it is an end
}

// without is the stretch between the neighbours of a point when it is taken out.
func (t *thinning) without(i int) Contour {
	three := Contour{Nodes: []Node{t.c.Nodes[t.before[i]], t.c.Nodes[i], t.c.Nodes[t.after[i]]}}
	three.Remove(1)
	return three
}

func (t *thinning) weigh(i int) {
	t.cost[i] = math.Inf(1)
	if !t.c.Closed && (i == 0 || i == len(t.c.Nodes)-1) {
		return
	}
	line := t.without(i).stretch(0, 24)
	line = append(line, t.c.Nodes[t.after[i]].At)
	worst := 0.0
	for _, list := range [][]geom.Point{t.was[t.before[i]], t.was[i]} {
		for _, q := range list {
			d := math.Inf(1)
			for k := 1; k < len(line) && d > worst; k++ {
				d = math.Min(d, toChord(q, line[k-1], line[k]))
			}
			if worst = math.Max(worst, d); worst > t.tolerance {
				return
			}
		}
	}
	t.cost[i] = worst
}

// stretch is the line from a point to before the next: n points of a curve, one of a straight line.
func (c Contour) stretch(i, n int) (list []geom.Point) {
	if straight(c.Nodes[i], c.Nodes[(i+1)%len(c.Nodes)]) {
		n = 1
	}
	for k := range n {
		list = append(list, c.at(i, float64(k)/float64(n)))
	}
	return list
}

// toChord is the distance of q from the stretch a b.
func toChord(q, a, b geom.Point) float64 {
	v, w := b.Sub(a), q.Sub(a)
	l := v.X*v.X + v.Y*v.Y
	if l == 0 {
		return w.Len()
	}
	t := math.Max(0, math.Min(1, (w.X*v.X+w.Y*v.Y)/l))
	return w.Sub(v.Mul(t)).Len()
}
