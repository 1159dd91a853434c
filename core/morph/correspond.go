package morph

import (
	"math"
	"slices"

	"capstan/core/geom"
)

// joinRings plans how one subpath becomes another: both go round the same way, begin where they are nearest, and have corners that are the same as
// corners; between these, equal shares of the length correspond.
func joinRings(a, b *ring, fa, fb frame) passage {
	if a.closed && b.closed && a.area*b.area < 0 {
		b = b.reversed()
	}
	if !a.closed && !b.closed {
		// A line goes as it is, or the other way, whichever is nearer.
		if apart(a, b.reversed(), 0, fa, fb) < apart(a, b, 0, fa, fb) {
			b = b.reversed()
		}
	}
	shift := 0.0
	switch {
	case b.closed:
		shift = bestShift(a, b, fa, fb)
	case a.closed: // where a line begins, the ring is opened
		shift = math.Mod(1-bestShift(b, a, fb, fa), 1)
	}
	pairs := anchorsOf(a, b, shift)
	if a.closed && !b.closed {
		pairs = anchors{{wrap(1 - shift), 1}}
	}
	// Joints of either side are joints of both.
	cuts := []float64{0}
	add := func(u float64) {
		if u > 1e-7 && u < 1-1e-7 {
			cuts = append(cuts, u)
		}
	}
	start := 0.0
	if a.closed && !b.closed {
		start = math.Mod(1-shift, 1)
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
	p := passage{closed: a.closed && b.closed}
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

// apart is how far two subpaths lie apart at equal shares of their lengths, the second begun so many samples later: the sum of squares, each as large
// as 1 about its own middle.
func apart(a, b *ring, shift int, fa, fb frame) (sum float64) {
	for k, p := range a.samples {
		q := b.samples[(k+shift)%sampled]
		d := p.Sub(a.centre).Mul(1 / fa.size).Sub(q.Sub(b.centre).Mul(1 / fb.size))
		sum += d.X*d.X + d.Y*d.Y
	}
	return sum
}

// bestShift is the share of b's length at which it begins where a does: where b, turned, is much like a, the least turned of these; else where it lies
// nearest as it is.
func bestShift(a, b *ring, fa, fb frame) float64 {
	best, least := 0, math.Inf(1)
	rigid, like := 0, math.Inf(1)
	for k := range sampled {
		if v := apart(a, b, k, fa, fb); v < least-1e-12 {
			best, least = k, v
		}
		left, turn := turned(a, b, k)
		if v := left + 0.03*(turn/math.Pi)*(turn/math.Pi); left < alikeEnough && v < like-1e-12 {
			rigid, like = k, v
		}
	}
	if !math.IsInf(like, 1) {
		best = rigid
	}
	return float64(best) / sampled
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

// anchors are shares of both lengths that correspond, rising on both sides; they come round after 1.
type anchors [][2]float64

// anchorsOf finds which corners of two subpaths are the same, b begun at a share of its length: in their order round, as many as possible that lie
// near each other and turn alike (dynamic programming over both lists).
func anchorsOf(a, b *ring, shift float64) anchors {
	ca, cb := a.corners(), b.corners()
	for i := range cb {
		cb[i].share = wrap(cb[i].share - shift)
	}
	slices.SortFunc(cb, func(x, y corner) int {
		if x.share < y.share {
			return -1
		}
		return 1
	})
	const alone = 0.06 // what a corner costs that has no partner
	if len(ca)*len(cb) > maxCorners {
		ca, cb = nil, nil // so many are no features of a shape
	}
	n, m := len(ca), len(cb)
	cost := make([][]float64, n+1)
	for i := range cost {
		cost[i] = make([]float64, m+1)
		for j := range cost[i] {
			switch {
			case i == 0 && j == 0:
				continue
			case i == 0:
				cost[i][j] = cost[i][j-1] + alone
				continue
			case j == 0:
				cost[i][j] = cost[i-1][j] + alone
				continue
			}
			cost[i][j] = min(cost[i-1][j]+alone, cost[i][j-1]+alone, cost[i-1][j-1]+unlike(ca[i-1], cb[j-1]))
		}
	}
	var out anchors
	for i, j := n, m; i > 0 && j > 0; {
		switch {
		case cost[i][j] == cost[i-1][j-1]+unlike(ca[i-1], cb[j-1]):
			out = append(out, [2]float64{ca[i-1].share, cb[j-1].share + shift})
			i, j = i-1, j-1
		case cost[i][j] == cost[i-1][j]+alone:
			i--
		default:
			j--
		}
	}
	slices.Reverse(out)
	if len(out) == 0 || !a.closed && !b.closed {
		out = append(anchors{{0, shift}}, slices.DeleteFunc(out, func(v [2]float64) bool { return v[0] < 1e-9 })...)
	}
	return out
}

// maxCorners is how many pairs of corners are looked at.
const maxCorners = 90000

// unlike is what it costs to hold two corners for the same.
func unlike(a, b corner) float64 {
	d := math.Abs(a.share - b.share)
	t := (a.turn - b.turn) / math.Pi
	return 4*d*d + 0.05*t*t
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
