package geom

import "math"

// Leaving returns the least d >= 0 at which a quadrilateral moved by d v shares no area with a box. Two convex figures are
// apart when they are on the normal of some edge (the separating axis theorem), so it is the least over these axes.
func Leaving(q [4]Point, v Point, page Box) float64 {
	best := math.Inf(1)
	axes := []Point{{X: 1}, {Y: 1}}
	for i := range q {
		e := q[(i+1)%4].Sub(q[i])
		axes = append(axes, Point{X: -e.Y, Y: e.X})
	}
	for _, n := range axes {
		if n.Len() < 1e-9 {
			continue // an edge without length
		}
		qa, qb := Span(q, n)
		pa, pb := Span(page.Corners(), n)
		if qa >= pb || qb <= pa {
			return 0
		}
		switch k := v.X*n.X + v.Y*n.Y; {
		case k > 1e-12:
			best = min(best, (pb-qa)/k)
		case k < -1e-12:
			best = min(best, (pa-qb)/k)
		}
	}
	return best
}

// Quad returns the corners of a box, from its upper left clockwise, where m puts them.
func Quad(b Box, m Matrix) (quad [4]Point) {
	for i, p := range b.Corners() {
		quad[i] = m.Apply(p)
	}
	return
}

// Span returns from where to where points lie along a direction.
func Span(list [4]Point, v Point) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, p := range list {
		d := p.X*v.X + p.Y*v.Y
		lo, hi = min(lo, d), max(hi, d)
	}
	return
}

// Beyond is by how many px the corners of a box lie outside a convex quadrilateral at most, measured across the nearest of its sides; 0: it holds all
// of the box.
func Beyond(q [4]Point, b Box) (worst float64) {
	sense := 1.0
	if u, v := q[1].Sub(q[0]), q[3].Sub(q[0]); u.X*v.Y-u.Y*v.X < 0 { // flipped: it goes round the other way
		sense = -1
	}
	for _, p := range b.Corners() {
		for k := range q {
			e := q[(k+1)%4].Sub(q[k])
			if l := e.Len(); l > 1e-9 {
				d := p.Sub(q[k])
				worst = max(worst, sense*(e.Y*d.X-e.X*d.Y)/l)
			}
		}
	}
	return worst
}
