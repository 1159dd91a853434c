// Package pen reads drawn paths as points with handles and edits them: adding a point without changing the curve, taking one out
// with a refit, corners and smooth points, joining, splitting; and it fits curves to strokes drawn by hand. All lengths are in the
// px of the path's own axes.
package pen

import (
	"math"

	"capstan/core/geom"
)

// Node is a point that a line goes through. A handle at the point itself is none: the line leaves or arrives straight.
type Node struct{ At, In, Out geom.Point }

// Corner is a node without handles.
func Corner(q geom.Point) Node { return Node{q, q, q} }

// Smooth reports whether the line goes through without a bend: its handles lie on one line, one to either side.
func (n Node) Smooth() bool {
	u, v := n.In.Sub(n.At), n.Out.Sub(n.At)
	l := u.Len() * v.Len()
	return l > 0 && u.X*v.X+u.Y*v.Y < -0.999*l
}

// Moved returns the point with its handles, moved by a vector.
func (n Node) Moved(by geom.Point) Node { return Node{n.At.Add(by), n.In.Add(by), n.Out.Add(by)} }

// Contour is one line of a path.
type Contour struct {
	Nodes  []Node
	Closed bool
}

// Contours reads a path. A subpath that returns to its first point before it is closed has that point once.
func Contours(p *geom.Path) []Contour {
	var list []Contour
	var c *Contour
	end := func(closed bool) {
		if c == nil || len(c.Nodes) == 0 {
			return
		}
		n := len(c.Nodes)
		if closed && n > 1 && c.Nodes[n-1].At.Sub(c.Nodes[0].At).Len() < 1e-9 {
			c.Nodes[0].In = c.Nodes[n-1].In
			c.Nodes = c.Nodes[:n-1]
		}
		c.Closed = closed
		list = append(list, *c)
		c = nil
	}
	var start geom.Point
	i := 0
	for _, v := range p.Verbs {
		q := p.Points[i : i+geom.PointsOf[v]]
		i += geom.PointsOf[v]
		if v != geom.MoveTo && c == nil { // goes on after a close
			c = &Contour{Nodes: []Node{Corner(start)}}
		}
		switch v {
		case geom.MoveTo:
			end(false)
			start = q[0]
			c = &Contour{Nodes: []Node{Corner(q[0])}}
		case geom.LineTo:
			c.Nodes = append(c.Nodes, Corner(q[0]))
		case geom.CubicTo:
			c.Nodes[len(c.Nodes)-1].Out = q[0]
			c.Nodes = append(c.Nodes, Node{q[2], q[1], q[2]})
		case geom.Close:
			end(true)
		}
	}
	end(false)
	return list
}

// Path writes contours as a path; straight stretches are lines.
func Path(list []Contour) *geom.Path {
	n := 0
	for i := range list {
		n += len(list[i].Nodes) + 2
	}
	p := &geom.Path{Verbs: make([]geom.Verb, 0, n), Points: make([]geom.Point, 0, 3*n)} // a long one is written anew with every move of a pointer
	for _, c := range list {
		if len(c.Nodes) == 0 {
			continue
		}
		p.Move(c.Nodes[0].At)
		for i := 1; i < len(c.Nodes); i++ {
			step(p, c.Nodes[i-1], c.Nodes[i])
		}
		if c.Closed {
			last := c.Nodes[len(c.Nodes)-1]
			if !straight(last, c.Nodes[0]) {
				step(p, last, c.Nodes[0])
			}
			p.Close()
		}
	}
	return p
}

func straight(a, b Node) bool { return a.Out == a.At && b.In == b.At }

func step(p *geom.Path, a, b Node) {
	if straight(a, b) {
		p.Line(b.At)
		return
	}
	p.Cubic(a.Out, b.In, b.At)
}

// Segments is how many stretches a contour has.
func (c *Contour) Segments() int {
	if c.Closed {
		return len(c.Nodes)
	}
	return max(0, len(c.Nodes)-1)
}

// segment returns the ends of stretch i.
func (c *Contour) segment(i int) (a, b *Node) { return &c.Nodes[i], &c.Nodes[(i+1)%len(c.Nodes)] }

// at returns a point of stretch i at t in 0..1.
func (c *Contour) at(i int, t float64) geom.Point {
	a, b := c.segment(i)
	return geom.Segment{P0: a.At, P1: a.Out, P2: b.In, P3: b.At}.At(t)
}

// Nearest returns the stretch and the place on it, in 0..1, that lies nearest to q, and how far away it is.
func (c *Contour) Nearest(q geom.Point) (segment int, t, distance float64) {
	distance = math.Inf(1)
	const steps = 32
	for i := range c.Segments() {
		for k := 0; k <= steps; k++ {
			u := float64(k) / steps
			if d := c.at(i, u).Sub(q).Len(); d < distance {
				segment, t, distance = i, u, d
			}
		}
	}
	// Halving around the best sample.
	for w := 1.0 / steps; w > 1e-6 && c.Segments() > 0; w /= 2 {
		for _, u := range [2]float64{t - w, t + w} {
			if u < 0 || u > 1 {
				continue
			}
			if d := c.at(segment, u).Sub(q).Len(); d < distance {
				t, distance = u, d
			}
		}
	}
	return
}

// Insert adds a point on stretch i at t in 0..1 without changing the curve (de Casteljau), and returns its index.
func (c *Contour) Insert(i int, t float64) int {
	a, b := c.segment(i)
	if straight(*a, *b) {
		n := Corner(a.At.Lerp(b.At, t))
		c.Nodes = append(c.Nodes[:i+1:i+1], append([]Node{n}, c.Nodes[i+1:]...)...)
		return i + 1
	}
	p, q, r := a.At.Lerp(a.Out, t), a.Out.Lerp(b.In, t), b.In.Lerp(b.At, t)
	u, v := p.Lerp(q, t), q.Lerp(r, t)
	a.Out, b.In = p, r
	n := Node{At: u.Lerp(v, t), In: u, Out: v}
	c.Nodes = append(c.Nodes[:i+1:i+1], append([]Node{n}, c.Nodes[i+1:]...)...)
	return i + 1
}

// Remove takes a point out. The two stretches beside it become one that keeps their directions at its ends and comes as near to
// them as one curve can. A contour of two points keeps them: false.
func (c *Contour) Remove(i int) bool {
	n := len(c.Nodes)
	if i < 0 || i >= n || n <= 2 {
		return false
	}
	inner := c.Closed || i > 0 && i < n-1
	if !inner {
		c.Nodes = append(c.Nodes[:i:i], c.Nodes[i+1:]...)
		c.Nodes[0].In, c.Nodes[n-2].Out = c.Nodes[0].At, c.Nodes[n-2].At
		return true
	}
	before, after := (i+n-1)%n, (i+1)%n
	a, b, m := c.Nodes[before], c.Nodes[after], c.Nodes[i]
	if !straight(a, m) || !straight(m, b) {
		var pts []geom.Point
		for k := 0; k <= 24; k++ {
			pts = append(pts, c.at(before, float64(k)/24))
		}
		for k := 1; k <= 24; k++ {
			pts = append(pts, c.at(i, float64(k)/24))
		}
		out, in := fitOne(pts, direction(a.At, a.Out, m.In, m.At), direction(b.At, b.In, m.Out, m.At))
		c.Nodes[before].Out, c.Nodes[after].In = out, in
	}
	c.Nodes = append(c.Nodes[:i:i], c.Nodes[i+1:]...)
	return true
}

// direction is the unit vector in which a curve leaves its first point towards the others.
func direction(from geom.Point, towards ...geom.Point) geom.Point {
	for _, q := range towards {
		if v := q.Sub(from); v.Len() > 1e-9 {
			return v.Mul(1 / v.Len())
		}
	}
	return geom.Point{X: 1}
}

// MakeSmooth gives a point handles along the line between its neighbours, a third of the way to each; one that has handles keeps
// their lengths.
func (c *Contour) MakeSmooth(i int) {
	n := len(c.Nodes)
	v := &c.Nodes[i]
	prev, next := v.At, v.At
	if c.Closed || i > 0 {
		prev = c.Nodes[(i+n-1)%n].At
	}
	if c.Closed || i < n-1 {
		next = c.Nodes[(i+1)%n].At
	}
	d := direction(prev, next)
	length := func(own, to geom.Point) float64 {
		if l := own.Sub(v.At).Len(); l > 1e-9 {
			return l
		}
		return to.Sub(v.At).Len() / 3
	}
	in, out := length(v.In, prev), length(v.Out, next)
	v.In, v.Out = v.At.Sub(d.Mul(in)), v.At.Add(d.Mul(out))
}

// Join lays the handles of a point on one line through it, half-way between where they were; a missing one mirrors the other.
func (n *Node) Join() {
	in, out := n.In.Sub(n.At), n.Out.Sub(n.At)
	li, lo := in.Len(), out.Len()
	switch {
	case li == 0 && lo == 0:
		return
	case li == 0:
		n.In = n.At.Sub(out)
		return
	case lo == 0:
		n.Out = n.At.Sub(in)
		return
	}
	d := out.Mul(1 / lo).Sub(in.Mul(1 / li))
	l := d.Len()
	if l < 1e-6 { // both point the same way: across it
		d, l = geom.Point{X: -out.Y, Y: out.X}, lo
	}
	d = d.Mul(1 / l)
	n.In, n.Out = n.At.Sub(d.Mul(li)), n.At.Add(d.Mul(lo))
}

// MakeCorner takes a point's handles away.
func (c *Contour) MakeCorner(i int) { c.Nodes[i] = Corner(c.Nodes[i].At) }

// Reverse lets a contour run the other way.
func (c *Contour) Reverse() {
	n := len(c.Nodes)
	out := make([]Node, n)
	for i, v := range c.Nodes {
		out[n-1-i] = Node{v.At, v.Out, v.In}
	}
	c.Nodes = out
}

// Cut opens a closed contour at a point, which it has twice then, or divides an open one in two there.
func Cut(c Contour, i int) []Contour {
	n := len(c.Nodes)
	if c.Closed {
		nodes := append(append([]Node{}, c.Nodes[i:]...), c.Nodes[:i+1]...)
		nodes[0].In, nodes[n].Out = nodes[0].At, nodes[n].At
		return []Contour{{Nodes: nodes}}
	}
	if i <= 0 || i >= n-1 {
		return []Contour{c}
	}
	a, b := append([]Node{}, c.Nodes[:i+1]...), append([]Node{}, c.Nodes[i:]...)
	a[i].Out, b[0].In = a[i].At, b[0].At
	return []Contour{{Nodes: a}, {Nodes: b}}
}
