package combine

import (
	"math"
	"sort"

	"capstan/core/geom"
)

// edge runs from one vertex to another and rises or falls along each axis all the way, so that its ends give its box.
type edge struct {
	from, to int
	p        [4]geom.Point
	line     bool
	along    []stretch // the curves it lies on; more than one where areas share it
	cuts     []cut
}

// stretch is the part of a source from parameter a to b, which runs backwards where b lies before a.
type stretch struct {
	source int
	a, b   float64
	back   bool // also for one so short that a is b
}

// cut divides an edge at its parameter t, where it meets a vertex.
type cut struct {
	t  float64
	at int
}

func (e *edge) segment() geom.Segment {
	return geom.Segment{P0: e.p[0], P1: e.p[1], P2: e.p[2], P3: e.p[3], Line: e.line}
}

func (e *edge) box() geom.Box {
	a, b := e.p[0], e.p[3]
	return geom.Box{Min: geom.Point{X: min(a.X, b.X), Y: min(a.Y, b.Y)}, Max: geom.Point{X: max(a.X, b.X), Y: max(a.Y, b.Y)}}
}

// arrange lays areas over each other.
func arrange(areas []Area, eps float64) (*arrangement, error) {
	n := 0
	for _, area := range areas {
		n += 3 * len(area.Path.Verbs)
	}
	a := &arrangement{eps: eps, count: len(areas), spots: newSpots(eps, n), edges: make([]edge, 0, n)}
	for i, area := range areas {
		a.evenOdd = append(a.evenOdd, area.EvenOdd)
		a.read(area.Path, i)
	}
	a.touch(0)
	a.split()
	a.merge()
	known := len(a.spots.at)
	if err := a.meet(); err != nil {
		return nil, err
	}
	a.touch(known)
	a.split()
	a.merge()
	a.drop()
	return a, nil
}

// read takes in a path, its open lines closed, and cuts its curves where they turn back along an axis.
func (a *arrangement) read(p *geom.Path, area int) {
	p.EachClosed(func(s geom.Segment) {
		if s.P0 == s.P3 && (s.Line || s.P1 == s.P0 && s.P2 == s.P0) {
			return
		}
		a.sources = append(a.sources, source{s, area})
		a.pieces(len(a.sources) - 1)
	})
}

func (a *arrangement) pieces(i int) {
	s := &a.sources[i]
	var room [6]float64
	at := append(room[:0], 0)
	if !s.Line {
		at = append(turns(s.P0.X, s.P1.X, s.P2.X, s.P3.X, at), 1)
		at = turns(s.P0.Y, s.P1.Y, s.P2.Y, s.P3.Y, at)
		sort.Float64s(at)
	} else {
		at = append(at, 1)
	}
	from := a.spots.index(s.P0)
	for k := 1; k < len(at); k++ {
		if at[k]-at[k-1] < 1e-9 && at[k] != 1 {
			at[k] = at[k-1]
			continue
		}
		to := a.spots.index(s.At(at[k]))
		if from != to {
			along := a.stretches(1)
			along[0] = stretch{i, at[k-1], at[k], false}
			a.add(along, from, to)
		}
		from = to
	}
}

// turns appends the parameters inside 0..1 at which one coordinate of a cubic stops rising or falling. Its derivative is
// (d0, d1, d2) in Bernstein form; the roots are found without cancellation.
func turns(p0, p1, p2, p3 float64, to []float64) []float64 {
	d0, d1, d2 := p1-p0, p2-p1, p3-p2
	qa, qb, qc := d0-2*d1+d2, d1-d0, d0 // qa t² + 2 qb t + qc
	disc := qb*qb - qa*qc
	if !(disc > 0) {
		return to
	}
	q := -(qb + math.Copysign(math.Sqrt(disc), qb))
	for _, t := range [2]float64{q / qa, qc / q} {
		if t > 1e-9 && t < 1-1e-9 {
			to = append(to, t)
		}
	}
	return to
}

// add makes an edge of the first of its stretches, moved at its ends to its vertices.
func (a *arrangement) add(along []stretch, from, to int) {
	s := a.sources[along[0].source]
	e := edge{from: from, to: to, line: s.Line, along: along}
	e.p = fitted(part(s.Segment, along[0].a, along[0].b), a.spots.at[from], a.spots.at[to], s.Line)
	a.edges = append(a.edges, e)
}

// stretches returns room for n of them. Most edges have one: they are taken from a common store.
func (a *arrangement) stretches(n int) []stretch {
	if len(a.store) < n {
		a.store = make([]stretch, max(n, 256))
	}
	s := a.store[:n:n]
	a.store = a.store[n:]
	return s
}

// fitted moves the ends of a curve, and their handles with them.
func fitted(p [4]geom.Point, from, to geom.Point, line bool) [4]geom.Point {
	if line {
		return [4]geom.Point{from, from.Lerp(to, 1.0/3), from.Lerp(to, 2.0/3), to}
	}
	return [4]geom.Point{from, p[1].Add(from.Sub(p[0])), p[2].Add(to.Sub(p[3])), to}
}

// part returns the control points of a curve between two of its parameters, by its blossom.
func part(s geom.Segment, a, b float64) [4]geom.Point {
	if a == 0 && b == 1 {
		return [4]geom.Point{s.P0, s.P1, s.P2, s.P3}
	}
	at := func(t, u, v float64) geom.Point {
		p, q, r := s.P0.Lerp(s.P1, t), s.P1.Lerp(s.P2, t), s.P2.Lerp(s.P3, t)
		return p.Lerp(q, u).Lerp(q.Lerp(r, u), v)
	}
	return [4]geom.Point{at(a, a, a), at(a, a, b), at(a, b, b), at(b, b, b)}
}

// solve returns where an edge has a coordinate, x or y, that it runs through.
func (e *edge) solve(v float64, y bool) float64 {
	c := func(q geom.Point) float64 {
		if y {
			return q.Y
		}
		return q.X
	}
	p0, p1, p2, p3 := c(e.p[0]), c(e.p[1]), c(e.p[2]), c(e.p[3])
	if p0 == p3 {
		return 0.5
	}
	t := min(max((v-p0)/(p3-p0), 0), 1)
	if e.line {
		return t
	}
	lo, hi := 0.0, 1.0
	for range 60 {
		u := 1 - t
		f := u*u*u*p0 + 3*u*u*t*p1 + 3*u*t*t*p2 + t*t*t*p3 - v
		if f == 0 {
			break
		}
		if (f > 0) == (p3 > p0) {
			hi = t
		} else {
			lo = t
		}
		d := 3 * (u*u*(p1-p0) + 2*u*t*(p2-p1) + t*t*(p3-p2))
		next := t - f/d
		if !(next > lo && next < hi) {
			next = (lo + hi) / 2
		}
		if math.Abs(next-t) < 1e-15 {
			break
		}
		t = next
	}
	return t
}

// near returns where an edge comes within a distance of a point, and false where it does not. Rising or falling all the way, it
// passes a point it is near to at the same height or above or below it.
func (e *edge) near(q geom.Point, within float64) (float64, bool) {
	d := e.p[3].Sub(e.p[0])
	l := d.Len()
	off := func(p geom.Point) float64 { v := p.Sub(e.p[0]); return (d.X*v.Y - d.Y*v.X) / l }
	if o := off(q); e.line {
		if math.Abs(o) > within {
			return 0, false
		}
	} else {
		o1, o2 := off(e.p[1]), off(e.p[2])
		if o > max(0, o1, o2)+within || o < min(0, o1, o2)-within {
			return 0, false
		}
	}
	s := e.segment()
	best, far := 0.0, math.Inf(1)
	for _, y := range [2]bool{math.Abs(d.Y) >= math.Abs(d.X), math.Abs(d.Y) < math.Abs(d.X)} {
		v := q.X
		if y {
			v = q.Y
		}
		t := e.solve(v, y)
		for range 2 {
			t = nearer(s, q, t, 0, 1)
		}
		if dist := s.At(t).Sub(q).Len(); dist < far {
			best, far = t, dist
		}
		if far <= within {
			return best, true
		}
	}
	return best, false
}

// nearer takes a step towards where a curve is nearest to q.
func nearer(s geom.Segment, q geom.Point, t, lo, hi float64) float64 {
	d := s.Derivative(t)
	n := d.X*d.X + d.Y*d.Y
	if n == 0 {
		return t
	}
	v := q.Sub(s.At(t))
	return min(max(t+(v.X*d.X+v.Y*d.Y)/n, min(lo, hi)), max(lo, hi))
}

// touch cuts edges at vertices that lie on them, of those from first on.
func (a *arrangement) touch(first int) {
	at := a.spots.at[first:]
	boxes := make([]geom.Box, len(at))
	for i, q := range at {
		boxes[i] = geom.Box{Min: q, Max: q}
	}
	g := gridOf(boxes)
	for i := range a.edges {
		e := &a.edges[i]
		b := e.box().Grow(a.eps)
		g.each(b, func(cell int) {
			for _, k := range g.in(cell) {
				v := first + int(k)
				if q := at[k]; v == e.from || v == e.to || q.X < b.Min.X || q.X > b.Max.X || q.Y < b.Min.Y || q.Y > b.Max.Y {
					continue
				}
				if t, ok := e.near(at[k], a.eps); ok {
					e.cuts = append(e.cuts, cut{t, v})
				}
			}
		})
	}
}

// byPlace sorts cuts along their edge.
type byPlace []cut

func (c byPlace) Len() int      { return len(c) }
func (c byPlace) Swap(i, j int) { c[i], c[j] = c[j], c[i] }
func (c byPlace) Less(i, j int) bool {
	return c[i].t < c[j].t || c[i].t == c[j].t && c[i].at < c[j].at
}

// split divides edges at their cuts.
func (a *arrangement) split() {
	old, n := a.edges, 0
	for i := range old {
		n += len(old[i].cuts)
	}
	if n == 0 {
		return
	}
	a.edges = make([]edge, 0, len(old)+n)
	for i := range old {
		e := &old[i]
		if len(e.cuts) == 0 {
			a.edges = append(a.edges, *e)
			continue
		}
		sort.Sort(byPlace(e.cuts))
		from, begin := e.from, make([]float64, len(e.along))
		for k, s := range e.along {
			begin[k] = s.a
		}
		for _, c := range append(e.cuts, cut{1, e.to}) {
			if c.at == from {
				continue
			}
			along := a.stretches(len(e.along))
			for k, s := range e.along {
				end := s.b
				if c.t < 1 || c.at != e.to {
					end = s.a + (s.b-s.a)*c.t
					if src := a.sources[s.source].Segment; k > 0 {
						for range 3 {
							end = nearer(src, a.spots.at[c.at], end, s.a, s.b)
						}
					}
				}
				along[k] = stretch{s.source, begin[k], end, s.back}
				begin[k] = end
			}
			a.add(along, from, c.at)
			from = c.at
		}
	}
}

// merge makes edges that run along each other one.
func (a *arrangement) merge() {
	type ends struct{ a, b int }
	first := make(map[ends]int, len(a.edges))
	next := make([]int, len(a.edges)) // others between the same vertices, as index + 1
	kept := a.edges[:0]
edges:
	for _, e := range a.edges {
		k := ends{min(e.from, e.to), max(e.from, e.to)}
		for i := first[k]; i > 0; i = next[i-1] {
			o := &kept[i-1]
			if !a.same(o, &e) {
				continue
			}
			for _, s := range e.along {
				if o.from != e.from {
					s.a, s.b, s.back = s.b, s.a, !s.back
				}
				o.along = append(o.along, s)
			}
			continue edges
		}
		kept = append(kept, e)
		next[len(kept)-1] = first[k]
		first[k] = len(kept)
	}
	a.edges = kept
}

// same reports whether two edges between the same vertices run along each other.
func (a *arrangement) same(e, o *edge) bool {
	if e.line && o.line {
		return true
	}
	if e.line {
		e, o = o, e
	}
	s := e.segment()
	for _, t := range [3]float64{0.25, 0.5, 0.75} {
		if _, ok := o.near(s.At(t), 2*a.eps); !ok {
			return false
		}
	}
	return true
}

// drop leaves out edges that areas run along there and back.
func (a *arrangement) drop() {
	kept := a.edges[:0]
edges:
	for _, e := range a.edges {
		for _, s := range e.along {
			if a.turnsOf(&e, a.sources[s.source].area) != 0 {
				kept = append(kept, e)
				continue edges
			}
		}
	}
	a.edges = kept
}

// turnsOf says how often an area runs along an edge, minus how often it runs back.
func (a *arrangement) turnsOf(e *edge, area int) int {
	n := 0
	for _, s := range e.along {
		if a.sources[s.source].area != area {
			continue
		}
		if s.back {
			n--
		} else {
			n++
		}
	}
	return n
}
