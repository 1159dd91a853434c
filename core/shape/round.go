package shape

import (
	"math"

	"capstan/core/geom"
)

// rounded returns a closed outline through points whose corners are rounded by one radius.
func rounded(list []geom.Point, radius float64) *geom.Path { return fillet(list, []float64{radius}) }

// fillet returns a closed outline through points whose corners are rounded by circular arcs that touch both sides; the last radius
// holds for the corners that follow. An arc reaches at most half way along the shorter side.
func fillet(list []geom.Point, radii []float64) *geom.Path {
	p := &geom.Path{}
	n := len(list)
	for i, q := range list {
		a, b := list[(i+n-1)%n].Sub(q), list[(i+1)%n].Sub(q)
		r := radii[min(i, len(radii)-1)]
		la, lb := a.Len(), b.Len()
		if !(r > 0) || la == 0 || lb == 0 {
			to(p, q)
			continue
		}
		a, b = a.Mul(1/la), b.Mul(1/lb)
		// With an angle of 2f between the sides, an arc of radius r touches them at r/tan f from the corner.
		half := math.Acos(max(-1, min(1, a.X*b.X+a.Y*b.Y))) / 2
		tan := math.Tan(half)
		if half < 1e-6 || half > math.Pi/2-1e-6 {
			to(p, q)
			continue
		}
		d := min(r/tan, la/2, lb/2)
		r = d * tan
		turn := math.Pi - 2*half // that the arc makes
		from, end := q.Add(a.Mul(d)), q.Add(b.Mul(d))
		to(p, from)
		if turn <= math.Pi/2+1e-9 {
			k := 4.0 / 3 * math.Tan(turn/4) * r
			p.Cubic(from.Sub(a.Mul(k)), end.Sub(b.Mul(k)), end)
			continue
		}
		// A sharp corner turns by more than a quarter: two arcs that meet on the line that halves it.
		middle := a.Add(b)
		middle = middle.Mul(1 / middle.Len())
		top := q.Add(middle.Mul(d/math.Cos(half) - r))
		across := geom.Point{X: end.X - from.X, Y: end.Y - from.Y}
		across = across.Mul(1 / across.Len())
		k := 4.0 / 3 * math.Tan(turn/8) * r
		p.Cubic(from.Sub(a.Mul(k)), top.Sub(across.Mul(k)), top)
		p.Cubic(top.Add(across.Mul(k)), end.Sub(b.Mul(k)), end)
	}
	p.Close()
	return p
}

// to begins an outline at q or draws a line there.
func to(p *geom.Path, q geom.Point) {
	if len(p.Points) == 0 {
		p.Move(q)
		return
	}
	p.Line(q)
}

// arc adds a stretch of an ellipse about c to p, in pieces of at most a quarter; the first point is moved or drawn to.
func arc(p *geom.Path, c geom.Point, rx, ry, start, sweep float64) {
	n := max(1, int(math.Ceil(math.Abs(sweep)/90-1e-9)))
	step := sweep / float64(n) * math.Pi / 180
	k := 4.0 / 3 * math.Tan(step/4)
	a := start * math.Pi / 180
	at := func(a, out float64) geom.Point { // out is along the tangent, in radii
		sin, cos := math.Sincos(a)
		return geom.Point{X: c.X + rx*(cos-out*sin), Y: c.Y + ry*(sin+out*cos)}
	}
	to(p, at(a, 0))
	for range n {
		p.Cubic(at(a, k), at(a+step, -k), at(a+step, 0))
		a += step
	}
}
