package geom

import "math"

// Projection is a map of the plane by a 3 x 3 matrix, by rows: (x, y) goes to (x'/w, y'/w) with (x', y', w) = P (x, y, 1). What has no w above 0
// lies behind the eye.
type Projection [9]float64

// Flat returns a matrix as a projection: w is 1 everywhere.
func Flat(m Matrix) Projection { return Projection{m.A, m.C, m.E, m.B, m.D, m.F, 0, 0, 1} }

// Hinged is a turn out of the plane by deg degrees, seen from depth px in front of it: about the axis through pivot to which toward, a unit
// vector, is upright; what lies that way comes towards the viewer. The vanishing point is the pivot. It is perspective(depth) rotate3d() of CSS
// Transforms 2, sections 7 and 12, for what lies in the plane: with u how far a point is along toward and a the angle, u goes to u cos a / w and
// what is along the axis to 1 / w of that, with w = 1 - u sin a / depth.
func Hinged(pivot, toward Point, deg, depth float64) Projection {
	s, c := math.Sincos(deg * math.Pi / 180)
	if math.Mod(deg, 180) != 0 && math.Mod(deg, 90) == 0 {
		c = 0
	}
	n := toward
	turn := Projection{
		1 + (c-1)*n.X*n.X, (c - 1) * n.X * n.Y, 0,
		(c - 1) * n.X * n.Y, 1 + (c-1)*n.Y*n.Y, 0,
		-n.X * s / depth, -n.Y * s / depth, 1,
	}
	return Flat(Translate(pivot)).Mul(turn).Mul(Flat(Translate(pivot.Mul(-1))))
}

// Mul returns the map that applies q first, then p.
func (p Projection) Mul(q Projection) (out Projection) {
	for i := range 3 {
		for j := range 3 {
			out[3*i+j] = p[3*i]*q[j] + p[3*i+1]*q[3+j] + p[3*i+2]*q[6+j]
		}
	}
	return
}

// Apply maps a point; w is how far it lies in front of the eye, and nothing of it is seen where that is 0 or less.
func (p *Projection) Apply(q Point) (at Point, w float64) {
	w = p[6]*q.X + p[7]*q.Y + p[8]
	return Point{(p[0]*q.X + p[1]*q.Y + p[2]) / w, (p[3]*q.X + p[4]*q.Y + p[5]) / w}, w
}

// Inverse returns the map back, up to a factor; ok is false where what is seen has no area.
func (p *Projection) Inverse() (inv Projection, ok bool) {
	a := p
	inv = Projection{
		a[4]*a[8] - a[5]*a[7], a[2]*a[7] - a[1]*a[8], a[1]*a[5] - a[2]*a[4],
		a[5]*a[6] - a[3]*a[8], a[0]*a[8] - a[2]*a[6], a[2]*a[3] - a[0]*a[5],
		a[3]*a[7] - a[4]*a[6], a[1]*a[6] - a[0]*a[7], a[0]*a[4] - a[1]*a[3],
	}
	det := a[0]*inv[0] + a[1]*inv[3] + a[2]*inv[6]
	return inv, math.Abs(det) > 1e-12
}

// Stretch returns by how much lengths along x and along y grow at a point.
func (p *Projection) Stretch(q Point) (x, y float64) {
	at, w := p.Apply(q)
	along := func(k int) float64 {
		return math.Hypot((p[k]-at.X*p[6+k])/w, (p[3+k]-at.Y*p[6+k])/w)
	}
	return along(0), along(1)
}

// maxHalvings bounds into how many pieces a curve is cut, 2 to this.
const maxHalvings = 6

// Project appends q seen through p to out, within tolerance px. Lines stay lines. A cubic becomes a rational one, which a path does not hold: it is
// cut until the cubic with the same ends and the same speeds there (Hermite's) goes through the true middle within tolerance, its error falling
// with the fourth power of its length. All of q must lie in front of the eye.
func (out *Path) Project(q *Path, p *Projection, tolerance float64) {
	i, pen, start := 0, Point{}, Point{}
	for _, v := range q.Verbs {
		switch v {
		case MoveTo:
			pen = q.Points[i]
			start = pen
			out.Move(p.at(pen))
		case LineTo:
			pen = q.Points[i]
			out.Line(p.at(pen))
		case CubicTo:
			s := Segment{P0: pen, P1: q.Points[i], P2: q.Points[i+1], P3: q.Points[i+2]}
			out.bend(&s, p, tolerance, 0, 1, 0)
			pen = s.P3
		case Close:
			out.Close()
			pen = start
		}
		i += PointsOf[v]
	}
}

func (p *Projection) at(q Point) Point {
	q, _ = p.Apply(q)
	return q
}

// speed is how fast the picture of s goes at t.
func (p *Projection) speed(s *Segment, t float64) Point {
	v, d := s.At(t), s.Derivative(t)
	seen, w := p.Apply(v)
	dw := p[6]*d.X + p[7]*d.Y
	return Point{(p[0]*d.X + p[1]*d.Y - seen.X*dw) / w, (p[3]*d.X + p[4]*d.Y - seen.Y*dw) / w}
}

// bend adds s from a to b as it is seen.
func (out *Path) bend(s *Segment, p *Projection, tolerance, a, b float64, depth int) {
	from, to := p.at(s.At(a)), p.at(s.At(b))
	c := from.Add(p.speed(s, a).Mul((b - a) / 3))
	d := to.Sub(p.speed(s, b).Mul((b - a) / 3))
	middle := Segment{P0: from, P1: c, P2: d, P3: to}.At(0.5)
	if m := (a + b) / 2; depth < maxHalvings && middle.Sub(p.at(s.At(m))).Len() > tolerance {
		out.bend(s, p, tolerance, a, m, depth+1)
		out.bend(s, p, tolerance, m, b, depth+1)
		return
	}
	out.Cubic(c, d, to)
}
