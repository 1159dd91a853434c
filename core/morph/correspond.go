package morph

import (
	"math"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// comparison is how two outlines are compared: each in its frame, the later turned by radians.
type comparison struct {
	fa, fb frame
	turn   float64
	pause  func() // is called now and then: planning may take long
}

// back is the same of the later outline against the earlier.
func (c comparison) back() comparison { return comparison{c.fb, c.fa, -c.turn, c.pause} }

// joinRings plans how one subpath becomes another: rings go round as they do, or, of outlines drawn the other way round, against it; both begin where they are nearest, and what corresponds is found by follow.
// What is given of them is as it is said.
func (c comparison) joinRings(a, b *ring, flip bool, given *doc.PartPair) passage {
	back := false
	switch {
	case given != nil:
		back = given.Back
	case a.closed && b.closed:
		back = flip
	case !a.closed && !b.closed: // a line goes as it is, or the other way, whichever is nearer
		back = c.apart(a, b.reversed(), 0) < c.apart(a, b, 0)
	}
	if back {
		b = b.reversed()
	}
	var known anchors
	if given != nil {
		known = knownOf(given, a, b)
	}
	p := c.follow(a, b, known)
	p.back, p.given = back, given != nil
	return p
}

// knownOf are the points that are given of two subpaths, b as it goes round: those that follow each other alike; of lines with their ends.
func knownOf(given *doc.PartPair, a, b *ring) (out anchors) {
	list := slices.Clone(given.Points)
	sort.Slice(list, func(i, j int) bool { return list[i][0] < list[j][0] })
	for _, q := range list {
		v := [2]float64{wrap(q[0]), wrap(q[1])}
		if given.Back {
			v[1] = wrap(1 - q[1])
		}
		if n := len(out); n > 0 {
			if v[1] < out[n-1][1] && b.closed {
				v[1]++
			}
			if v[0] <= out[n-1][0] || v[1] <= out[n-1][1] || v[1] >= out[0][1]+1 {
				continue // it would cross one before it
			}
		}
		out = append(out, v)
	}
	switch {
	case len(out) == 0:
	case !a.closed && !b.closed:
		out = slices.DeleteFunc(out, func(v [2]float64) bool { return v[0] <= 0 || v[1] <= 0 || v[0] >= 1 || v[1] >= 1 })
		out = append(anchors{{0, 0}}, out...)
	case !a.closed || !b.closed: // what is open begins where it does: the point that says where the ring is opened counts
		if a.closed {
			out = anchors{{wrap(out[0][0] - out[0][1]), 0}}
		} else {
			out = anchors{{0, wrap(out[0][1] - out[0][0])}}
		}
	}
	return out
}

// pass cuts two subpaths, of which shares correspond, into as many segments: joints of either are joints of both.
func pass(a, b *ring, pairs anchors) passage {
	cuts := []float64{0}
	add := func(u float64) {
		if u > 1e-7 && u < 1-1e-7 {
			cuts = append(cuts, u)
		}
	}
	start := pairs[0][0]
	for _, v := range pairs {
		add(v[0] - start)
	}
	for _, e := range a.ends {
		add(wrap(e - start))
	}
	for _, e := range b.ends {
		add(wrap(pairs.back(e) - start))
	}
	cuts = append(cuts, 1)
	slices.Sort(cuts)
	cuts = slices.CompactFunc(cuts, func(x, y float64) bool { return math.Abs(y-x) < 1e-7 })
	cuts[len(cuts)-1] = 1
	p := passage{closed: a.closed && b.closed, pairs: pairs}
	for k := range len(cuts) - 1 {
		u0, u1 := cuts[k]+start, cuts[k+1]+start
		s, t := a.between(u0, u1), b.between(pairs.to(u0), pairs.to(u1))
		if k == 0 {
			p.a, p.b = append(p.a, s.P0), append(p.b, t.P0)
		}
		p.a, p.b = append(p.a, s.P1, s.P2, s.P3), append(p.b, t.P1, t.P2, t.P3)
	}
	return p
}

// wrap brings a share into 0..1.
func wrap(u float64) float64 { return u - math.Floor(u) }

// between is the stretch of a subpath between two shares that lie in one segment; shares go on beyond 1.
func (r *ring) between(u0, u1 float64) geom.Segment {
	n := math.Floor(u0 + 1e-9)
	u0, u1 = max(u0-n, 0), min(u1-n, 1)
	i, _ := r.find((u0 + u1) / 2)
	from, to := 0.0, r.ends[i]
	if i > 0 {
		from = r.ends[i-1]
	}
	t := func(u float64) float64 {
		switch {
		case u <= from+1e-7:
			return 0
		case u >= to-1e-7:
			return 1
		}
		j, v := r.find(u)
		switch {
		case j < i:
			return 0
		case j > i:
			return 1
		}
		return v
	}
	return part(r.segs[i], t(u0), t(u1))
}

// apart is how far two subpaths lie apart at equal shares of their lengths, the second begun so many samples later and turned by radians: the sum of
// squares, each as large as 1 about its own middle.
func (c comparison) apart(a, b *ring, shift int) (sum float64) {
	sin, cos := math.Sincos(c.turn)
	for k, p := range a.samples {
		q := b.samples[(k+shift)%sampled].Sub(b.centre).Mul(1 / c.fb.size)
		d := p.Sub(a.centre).Mul(1 / c.fa.size).Sub(geom.Point{X: q.X*cos - q.Y*sin, Y: q.X*sin + q.Y*cos})
		sum += d.X*d.X + d.Y*d.Y
	}
	return sum
}

// turned is by how many radians b has to be turned to lie as near as it can to a, begun so many samples later, and which share of the squared distances
// that leaves.
func turned(a, b *ring, shift int) (left, turn float64) {
	dot, cross, aa, bb := 0.0, 0.0, 0.0, 0.0
	for k, p := range a.samples {
		p, q := p.Sub(a.centre), b.samples[(k+shift)%sampled].Sub(b.centre)
		dot, cross = dot+p.X*q.X+p.Y*q.Y, cross+p.X*q.Y-p.Y*q.X
		aa, bb = aa+p.X*p.X+p.Y*p.Y, bb+q.X*q.X+q.Y*q.Y
	}
	if aa*bb == 0 {
		return 1, 0
	}
	return 1 - (dot*dot+cross*cross)/(aa*bb), math.Atan2(cross, dot)
}

// to is the share of b's length that corresponds to one of a's, which may lie beyond 1.
func (v anchors) to(u float64) float64 { return v.mapped(u, 0, 1) }

// back is the share of a's length that corresponds to one of b's.
func (v anchors) back(u float64) float64 { return v.mapped(u, 1, 0) }

func (v anchors) mapped(u float64, from, to int) float64 {
	n := len(v)
	base := v[0][from]
	turns := math.Floor(u - base)
	w := u - turns // base <= w < base + 1
	for i := range n {
		x0, y0 := v[i][from], v[i][to]
		x1, y1 := v[0][from]+1, v[0][to]+1
		if i+1 < n {
			x1, y1 = v[i+1][from], v[i+1][to]
		}
		if w < x1 || i == n-1 {
			if x1-x0 < 1e-12 {
				return y0 + turns
			}
			return y0 + (y1-y0)*(w-x0)/(x1-x0) + turns
		}
	}
	return u
}
