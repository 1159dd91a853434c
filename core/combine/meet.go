package combine

import (
	"math"

	"capstan/core/geom"
)

// maxCuts bounds how many places may be found where edges meet, counted once for each of the two. Outlines of ten thousand points
// cross some thousand times; only a scribble over all of the page comes here, and would need gigabytes.
const maxCuts = 200000

// meet cuts edges where they cross or touch each other between their ends.
func (a *arrangement) meet() error {
	boxes := make([]geom.Box, len(a.edges))
	for i := range boxes {
		boxes[i] = a.edges[i].box().Grow(a.eps / 2)
	}
	g := gridOf(boxes)
	f := finder{eps: a.eps}
	for cell := range g.nx * g.ny {
		list := g.in(cell)
		for n, i := range list {
			b := &boxes[i]
			for _, j := range list[:n] {
				c := &boxes[j]
				if apart(b.Min.X, b.Max.X, c.Min.X, c.Max.X, 0) || apart(b.Min.Y, b.Max.Y, c.Min.Y, c.Max.Y, 0) {
					continue
				}
				common := b.Intersect(*c)
				// Pairs that share several cells are looked at in the first.
				if g.row(common.Min.Y)*g.nx+g.column(common.Min.X) == cell {
					a.crossings(&f, int(i), int(j), common.Grow(-a.eps/2))
				}
			}
			if f.cuts > maxCuts {
				return ErrTooMuch
			}
		}
	}
	return nil
}

func (a *arrangement) crossings(f *finder, i, j int, common geom.Box) {
	e, o := &a.edges[i], &a.edges[j]
	for _, v := range [2]int{e.from, e.to} {
		if v != o.from && v != o.to {
			continue
		}
		// They follow each other. Where only a corner or a side of their boxes is common, one turns away from the other there.
		if w, h := common.W(), common.H(); w <= a.eps && h <= a.eps || min(w, h) <= a.eps/1000 {
			return
		}
	}
	f.found, f.left = f.found[:0], maxSteps
	f.meet(piece{e.p, 0, 1, e.line}, piece{o.p, 0, 1, o.line})
	f.cuts += 2 * len(f.found)
	for _, c := range f.found {
		v := a.spots.index(c.at)
		if v != e.from && v != e.to {
			e.cuts = append(e.cuts, cut{c.t, v})
		}
		if v != o.from && v != o.to {
			o.cuts = append(o.cuts, cut{c.u, v})
		}
	}
}

// finder looks for the places where two curves meet by halving the longer one as long as they may meet more than once. Where the
// directions of both differ all along, they meet once at most, and Newton's method finds the place.
type finder struct {
	eps   float64
	left  int // steps until it gives up
	cuts  int // found for all edges
	found []crossing
}

// maxSteps bounds the work on one pair of edges. Two monotone cubics with nine crossings take some 300.
const maxSteps = 20000

type crossing struct {
	t, u float64
	at   geom.Point
}

type piece struct {
	p      [4]geom.Point
	t0, t1 float64
	line   bool
}

func (p *piece) halves() (a, b piece) {
	m := (p.t0 + p.t1) / 2
	if p.line {
		mid := p.p[0].Lerp(p.p[3], 0.5)
		return piece{fitted(p.p, p.p[0], mid, true), p.t0, m, true}, piece{fitted(p.p, mid, p.p[3], true), m, p.t1, true}
	}
	q, r, s := p.p[0].Lerp(p.p[1], 0.5), p.p[1].Lerp(p.p[2], 0.5), p.p[2].Lerp(p.p[3], 0.5)
	u, v := q.Lerp(r, 0.5), r.Lerp(s, 0.5)
	m0 := u.Lerp(v, 0.5)
	return piece{[4]geom.Point{p.p[0], q, u, m0}, p.t0, m, false}, piece{[4]geom.Point{m0, v, s, p.p[3]}, m, p.t1, false}
}

// cross returns the component of v across d.
func cross(d, v geom.Point) float64 { return d.X*v.Y - d.Y*v.X }

// strip returns how far the points of b lie across the chord of a, and a's own, both times the chord's length.
func strip(a, b *piece) (own, other [2]float64) {
	d := a.p[3].Sub(a.p[0])
	if !a.line {
		c1, c2 := cross(d, a.p[1].Sub(a.p[0])), cross(d, a.p[2].Sub(a.p[0]))
		own = [2]float64{min(0, c1, c2), max(0, c1, c2)}
	}
	o := cross(d, b.p[0].Sub(a.p[0]))
	other = [2]float64{o, o}
	for k := 1; k < 4; k++ {
		if b.line && k < 3 {
			continue
		}
		o = cross(d, b.p[k].Sub(a.p[0]))
		other[0], other[1] = min(other[0], o), max(other[1], o)
	}
	return
}

func apart(a, b float64, c, d float64, margin float64) bool { return b < c-margin || d < a-margin }

func (f *finder) meet(a, b piece) {
	if f.left--; f.left < 0 {
		return
	}
	m := f.eps / 4
	if apart(min(a.p[0].X, a.p[3].X), max(a.p[0].X, a.p[3].X), min(b.p[0].X, b.p[3].X), max(b.p[0].X, b.p[3].X), m) ||
		apart(min(a.p[0].Y, a.p[3].Y), max(a.p[0].Y, a.p[3].Y), min(b.p[0].Y, b.p[3].Y), max(b.p[0].Y, b.p[3].Y), m) {
		return
	}
	la, lb := a.p[3].Sub(a.p[0]).Len(), b.p[3].Sub(b.p[0]).Len()
	ownA, ofB := strip(&a, &b)
	if apart(ownA[0], ownA[1], ofB[0], ofB[1], m*la) {
		return
	}
	ownB, ofA := strip(&b, &a)
	if apart(ownB[0], ownB[1], ofA[0], ofA[1], m*lb) {
		return
	}
	if la <= f.eps && lb <= f.eps {
		f.add((a.t0+a.t1)/2, (b.t0+b.t1)/2, a.p[0].Lerp(a.p[3], 0.5))
		return
	}
	if f.once(&a, &b) {
		if done := f.newton(&a, &b); done {
			return
		}
	} else if la > 4*f.eps && lb > 4*f.eps {
		// Side by side within eps: they are one over the length they have in common, which begins and ends at an end of either.
		w := f.eps / 2
		if max(-ownA[0], ownA[1]) < w*la && max(-ofB[0], ofB[1]) < w*la {
			f.alike(&a, &b, la, lb)
			return
		}
	}
	if la > lb {
		x, y := a.halves()
		f.meet(x, b)
		f.meet(y, b)
	} else {
		x, y := b.halves()
		f.meet(a, x)
		f.meet(a, y)
	}
}

// alike cuts two pieces that run along each other where the other one begins or ends.
func (f *finder) alike(a, b *piece, la, lb float64) {
	da, db := a.p[3].Sub(a.p[0]).Mul(1/la), b.p[3].Sub(b.p[0]).Mul(1/lb)
	for k, q := range [2]geom.Point{b.p[0], b.p[3]} {
		v := q.Sub(a.p[0])
		if s := (v.X*da.X + v.Y*da.Y) / la; s >= 0 && s <= 1 {
			f.add(a.t0+(a.t1-a.t0)*s, []float64{b.t0, b.t1}[k], q)
		}
	}
	for k, q := range [2]geom.Point{a.p[0], a.p[3]} {
		v := q.Sub(b.p[0])
		if s := (v.X*db.X + v.Y*db.Y) / lb; s >= 0 && s <= 1 {
			f.add([]float64{a.t0, a.t1}[k], b.t0+(b.t1-b.t0)*s, q)
		}
	}
}

// once reports whether no direction of one piece, or its opposite, is one of the other, and both are nearly straight.
func (f *finder) once(a, b *piece) bool {
	da, wa, ok := a.cone()
	if !ok {
		return false
	}
	db, wb, ok := b.cone()
	if !ok {
		return false
	}
	// The sine of the angle between the chords against the sum of how far directions stray from them.
	return math.Abs(cross(da, db)) > 1.2*(wa+wb)+1e-12
}

// cone returns the unit direction of a piece's chord and the greatest sine by which its own directions stray from it.
func (p *piece) cone() (d geom.Point, w float64, ok bool) {
	d = p.p[3].Sub(p.p[0])
	l := d.Len()
	if l == 0 {
		return d, 0, false
	}
	d = d.Mul(1 / l)
	if p.line {
		return d, 0, true
	}
	for k := range 3 {
		v := p.p[k+1].Sub(p.p[k])
		n := v.Len()
		if n == 0 {
			continue
		}
		if v.X*d.X+v.Y*d.Y <= 0 {
			return d, 0, false
		}
		w = max(w, math.Abs(cross(d, v))/n)
	}
	return d, w, w < 0.3
}

// newton finds where two pieces with different directions meet. It reports false when it did not come to rest.
func (f *finder) newton(a, b *piece) bool {
	sa, sb := geom.Segment{P0: a.p[0], P1: a.p[1], P2: a.p[2], P3: a.p[3], Line: a.line}, geom.Segment{P0: b.p[0], P1: b.p[1], P2: b.p[2], P3: b.p[3], Line: b.line}
	da, db, v := a.p[3].Sub(a.p[0]), b.p[3].Sub(b.p[0]), b.p[0].Sub(a.p[0])
	det := cross(da, db)
	t, u := cross(v, db)/det, cross(v, da)/det
	if !a.line || !b.line {
		rest := false
		for range 12 {
			t, u = min(max(t, -0.5), 1.5), min(max(u, -0.5), 1.5)
			da, db, v = sa.Derivative(t), sb.Derivative(u), sb.At(u).Sub(sa.At(t))
			if det = cross(da, db); det == 0 {
				return false
			}
			dt, du := cross(v, db)/det, cross(v, da)/det
			t, u = t+dt, u+du
			if math.Abs(dt)+math.Abs(du) < 1e-13 {
				rest = true
				break
			}
		}
		if !rest {
			return false
		}
	}
	ra, rb := f.eps/a.p[3].Sub(a.p[0]).Len(), f.eps/b.p[3].Sub(b.p[0]).Len()
	if t < -ra || t > 1+ra || u < -rb || u > 1+rb {
		return true
	}
	t, u = min(max(t, 0), 1), min(max(u, 0), 1)
	f.add(a.t0+(a.t1-a.t0)*t, b.t0+(b.t1-b.t0)*u, sa.At(t))
	return true
}

func (f *finder) add(t, u float64, at geom.Point) {
	for _, c := range f.found {
		if c.at.Sub(at).Len() <= f.eps {
			return
		}
	}
	f.found = append(f.found, crossing{t, u, at})
}
