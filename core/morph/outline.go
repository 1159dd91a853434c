package morph

import (
	"math"
	"slices"

	"capstan/core/geom"
)

// Outlines is an outline on its way to another one, of any number of parts: at 0 it is the one, at 1 the other, exactly. Each subpath goes to the
// nearest of the other side that is most like it; between two, what corresponds are equal shares of the way between corners that were found to be the
// same. Parts that only one side has grow from a point of the other, or shrink to it. What is much the same outline turned and scaled is turned and
// scaled on its way, so that it stays as large as it is; other outlines go straight.
type Outlines struct {
	a, b  *geom.Path // as they are
	parts []passage
	turn  float64 // radians that all of it turns by
	grow  float64 // times as large
	ca    geom.Point
	cb    geom.Point
}

// passage is one subpath as cubic segments on both sides, as many points on either.
type passage struct {
	a, b   []geom.Point // P0, and of each segment P1 P2 P3
	closed bool
}

// NewOutlines plans how an outline becomes another.
func NewOutlines(a, b *geom.Path) *Outlines {
	o := &Outlines{a: a, b: b, grow: 1}
	from, to := ringsOf(a), ringsOf(b)
	fa, fb := frameOf(from, a), frameOf(to, b)
	pairs, onlyA, onlyB := pairRings(from, to, fa, fb)
	for _, q := range pairs {
		o.parts = append(o.parts, joinRings(&from[q[0]], &to[q[1]], fa, fb))
	}
	for _, i := range onlyA {
		at := born(&from[i], to, fa, fb)
		p := passage{a: from[i].points(), closed: from[i].closed}
		for range p.a {
			p.b = append(p.b, at)
		}
		o.parts = append(o.parts, p)
	}
	for _, j := range onlyB {
		at := born(&to[j], from, fb, fa)
		p := passage{b: to[j].points(), closed: to[j].closed}
		for range p.b {
			p.a = append(p.a, at)
		}
		o.parts = append(o.parts, p)
	}
	o.rigid(len(pairs))
	return o
}

// rigid finds the turn and growth that brings one side nearest to the other (Procrustes; of the paired parts' ends of segments), and takes them where
// what is left is little against how far the points go.
func (o *Outlines) rigid(pairs int) {
	var a, b []geom.Point
	for _, p := range o.parts[:pairs] {
		for i := 0; i < len(p.a); i += 3 {
			a, b = append(a, p.a[i]), append(b, p.b[i])
		}
	}
	if len(a) < 3 {
		return
	}
	mean := func(list []geom.Point) (c geom.Point) {
		for _, q := range list {
			c = c.Add(q)
		}
		return c.Mul(1 / float64(len(list)))
	}
	o.ca, o.cb = mean(a), mean(b)
	dot, cross, aa, bb, apart := 0.0, 0.0, 0.0, 0.0, 0.0
	for i := range a {
		p, q := a[i].Sub(o.ca), b[i].Sub(o.cb)
		dot, cross = dot+p.X*q.X+p.Y*q.Y, cross+p.X*q.Y-p.Y*q.X
		aa, bb = aa+p.X*p.X+p.Y*p.Y, bb+q.X*q.X+q.Y*q.Y
		d := q.Sub(p)
		apart += d.X*d.X + d.Y*d.Y
	}
	if aa <= 0 || bb <= 0 {
		return
	}
	// The least sum of squares that a turn leaves when both are as large (Umeyama 1991, in the plane).
	left := aa*bb - (dot*dot + cross*cross)
	turn := math.Atan2(cross, dot)
	if left > alikeEnough*aa*bb || math.Abs(turn) < 1e-3 || apart == 0 {
		return
	}
	o.turn, o.grow = turn, math.Sqrt(bb/aa)
}

// alikeEnough is which share of the squared distances may be left when one outline is turned onto another that counts as the same.
const alikeEnough = 0.05

// At writes the outline at an eased progress, which may leave 0..1.
func (o *Outlines) At(p float64, to *geom.Path) {
	to.Reset()
	if p == 0 || p == 1 {
		whole := o.a
		if p == 1 {
			whole = o.b
		}
		to.Verbs, to.Points = append(to.Verbs, whole.Verbs...), append(to.Points, whole.Points...)
		return
	}
	between := func(a, b geom.Point) geom.Point { return a.Lerp(b, p) }
	if o.turn != 0 {
		back := math.Pow(o.grow, -1)
		sin, cos := math.Sincos(-o.turn)
		ps, pc := math.Sincos(o.turn * p)
		grown := math.Pow(o.grow, p)
		centre := o.ca.Lerp(o.cb, p)
		between = func(a, b geom.Point) geom.Point {
			a, b = a.Sub(o.ca), b.Sub(o.cb)
			b = geom.Point{X: b.X*cos - b.Y*sin, Y: b.X*sin + b.Y*cos}.Mul(back)
			m := a.Lerp(b, p).Mul(grown)
			return geom.Point{X: m.X*pc - m.Y*ps, Y: m.X*ps + m.Y*pc}.Add(centre)
		}
	}
	for _, part := range o.parts {
		to.Move(between(part.a[0], part.b[0]))
		for i := 1; i+2 < len(part.a); i += 3 {
			to.Cubic(between(part.a[i], part.b[i]), between(part.a[i+1], part.b[i+1]), between(part.a[i+2], part.b[i+2]))
		}
		if part.closed {
			to.Close()
		}
	}
}

// frame is the box that an outline lies in, by which both sides are compared: about its middle, as large as 1.
type frame struct {
	middle geom.Point
	size   float64
}

func frameOf(rings []ring, p *geom.Path) frame {
	if len(rings) == 0 {
		return frame{size: 1}
	}
	b := p.Bounds()
	return frame{b.Centre(), max(math.Hypot(b.W(), b.H()), 1e-9)}
}

// to brings a point to where it would be in another frame.
func (f frame) to(q geom.Point, other frame) geom.Point {
	return q.Sub(f.middle).Mul(other.size / f.size).Add(other.middle)
}

// pairRings pairs the subpaths of both sides, the most alike first: by where they lie and how large they are. Holes go to holes.
func pairRings(from, to []ring, fa, fb frame) (pairs [][2]int, onlyA, onlyB []int) {
	type cost struct {
		i, j int
		c    float64
	}
	var all []cost
	for i := range from {
		for j := range to {
			if from[i].hole != to[j].hole {
				continue
			}
			d := fa.to(from[i].centre, fb).Sub(to[j].centre).Mul(1 / fb.size)
			s := math.Sqrt(math.Abs(from[i].area))/fa.size - math.Sqrt(math.Abs(to[j].area))/fb.size
			all = append(all, cost{i, j, d.X*d.X + d.Y*d.Y + s*s})
		}
	}
	slices.SortStableFunc(all, func(a, b cost) int {
		switch {
		case a.c < b.c:
			return -1
		case a.c > b.c:
			return 1
		}
		return 0
	})
	a, b := make([]bool, len(from)), make([]bool, len(to))
	for _, c := range all {
		if !a[c.i] && !b[c.j] {
			a[c.i], b[c.j] = true, true
			pairs = append(pairs, [2]int{c.i, c.j})
		}
	}
	slices.SortFunc(pairs, func(p, q [2]int) int { return p[0] - q[0] })
	for i, used := range a {
		if !used {
			onlyA = append(onlyA, i)
		}
	}
	for j, used := range b {
		if !used {
			onlyB = append(onlyB, j)
		}
	}
	return
}

// born is the point from which a part grows that the other side lacks: of one that is filled the nearest of the other's outline, of a hole where it
// would lie.
func born(r *ring, others []ring, own, other frame) geom.Point {
	at := own.to(r.centre, other)
	if r.hole || len(others) == 0 {
		return at
	}
	best, nearest := math.Inf(1), at
	for i := range others {
		if others[i].hole {
			continue
		}
		for _, q := range others[i].samples {
			if d := q.Sub(at).Len(); d < best {
				best, nearest = d, q
			}
		}
	}
	return nearest
}
