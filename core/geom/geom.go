// Package geom holds the plane geometry that everything in Capstan is placed with: points, boxes,
// affine matrices, Bezier paths, their outlines and their arc lengths.
//
// Units are page pixels with y pointing down; angles are degrees, clockwise, and never reduced
// modulo 360 by this package.
package geom

import "math"

// Point is a place or a vector in page pixels.
type Point struct{ X, Y float64 }

// Add returns p + q.
func (p Point) Add(q Point) Point { return Point{p.X + q.X, p.Y + q.Y} }

// Sub returns p - q.
func (p Point) Sub(q Point) Point { return Point{p.X - q.X, p.Y - q.Y} }

// Mul returns p scaled by k.
func (p Point) Mul(k float64) Point { return Point{p.X * k, p.Y * k} }

// Lerp returns the point at share t of the way from p to q; t outside 0..1 extrapolates.
func (p Point) Lerp(q Point, t float64) Point {
	return Point{p.X + (q.X-p.X)*t, p.Y + (q.Y-p.Y)*t}
}

// Len returns the length of p as a vector.
func (p Point) Len() float64 { return math.Hypot(p.X, p.Y) }

// Box is an axis-aligned rectangle. The zero Box is empty; a box with Max below Min is empty too.
type Box struct{ Min, Max Point }

// BoxAt returns the box of the given size about a centre.
func BoxAt(centre Point, w, h float64) Box {
	return Box{Point{centre.X - w/2, centre.Y - h/2}, Point{centre.X + w/2, centre.Y + h/2}}
}

// EmptyBox is the neutral element of Union.
func EmptyBox() Box {
	inf := math.Inf(1)
	return Box{Point{inf, inf}, Point{-inf, -inf}}
}

// Empty reports whether b holds no area.
func (b Box) Empty() bool { return !(b.Max.X > b.Min.X && b.Max.Y > b.Min.Y) }

// W returns the width of b.
func (b Box) W() float64 { return b.Max.X - b.Min.X }

// H returns the height of b.
func (b Box) H() float64 { return b.Max.Y - b.Min.Y }

// Centre returns the middle of b.
func (b Box) Centre() Point { return Point{(b.Min.X + b.Max.X) / 2, (b.Min.Y + b.Max.Y) / 2} }

// Corners returns the four corners, clockwise from the upper left.
func (b Box) Corners() [4]Point {
	return [4]Point{b.Min, {b.Max.X, b.Min.Y}, b.Max, {b.Min.X, b.Max.Y}}
}

// Include returns the smallest box that holds b and p.
func (b Box) Include(p Point) Box {
	return Box{
		Point{math.Min(b.Min.X, p.X), math.Min(b.Min.Y, p.Y)},
		Point{math.Max(b.Max.X, p.X), math.Max(b.Max.Y, p.Y)},
	}
}

// Union returns the smallest box that holds both; empty boxes made by EmptyBox are neutral.
func (b Box) Union(c Box) Box {
	return Box{
		Point{math.Min(b.Min.X, c.Min.X), math.Min(b.Min.Y, c.Min.Y)},
		Point{math.Max(b.Max.X, c.Max.X), math.Max(b.Max.Y, c.Max.Y)},
	}
}

// Intersect returns the common part, which may be empty.
func (b Box) Intersect(c Box) Box {
	return Box{
		Point{math.Max(b.Min.X, c.Min.X), math.Max(b.Min.Y, c.Min.Y)},
		Point{math.Min(b.Max.X, c.Max.X), math.Min(b.Max.Y, c.Max.Y)},
	}
}

// Contains reports whether p lies in b, edges included.
func (b Box) Contains(p Point) bool {
	return p.X >= b.Min.X && p.X <= b.Max.X && p.Y >= b.Min.Y && p.Y <= b.Max.Y
}

// Grow returns b with every side moved outwards by d.
func (b Box) Grow(d float64) Box {
	return Box{Point{b.Min.X - d, b.Min.Y - d}, Point{b.Max.X + d, b.Max.Y + d}}
}

// Matrix is an affine map in the order of SVG and Canvas:
//
//	x' = A x + C y + E
//	y' = B x + D y + F
type Matrix struct{ A, B, C, D, E, F float64 }

// Identity maps every point to itself.
var Identity = Matrix{A: 1, D: 1}

// Translate returns the map that adds p.
func Translate(p Point) Matrix { return Matrix{1, 0, 0, 1, p.X, p.Y} }

// Scale returns the map that multiplies x and y about the origin.
func Scale(x, y float64) Matrix { return Matrix{x, 0, 0, y, 0, 0} }

// Rotate returns the clockwise turn by deg degrees about the origin. Multiples of 90 degrees are
// exact, so a quarter turn leaves no residue in a display list.
func Rotate(deg float64) Matrix {
	r := math.Mod(deg, 360)
	if r < 0 {
		r += 360
	}
	switch r {
	case 0:
		return Identity
	case 90:
		return Matrix{0, 1, -1, 0, 0, 0}
	case 180:
		return Matrix{-1, 0, 0, -1, 0, 0}
	case 270:
		return Matrix{0, -1, 1, 0, 0, 0}
	}
	s, c := math.Sincos(r * math.Pi / 180)
	return Matrix{c, s, -s, c, 0, 0}
}

// About returns m carried out about p instead of the origin.
func (m Matrix) About(p Point) Matrix {
	return Translate(p).Mul(m).Mul(Translate(Point{-p.X, -p.Y}))
}

// Mul returns the map that applies n first, then m.
func (m Matrix) Mul(n Matrix) Matrix {
	return Matrix{
		m.A*n.A + m.C*n.B, m.B*n.A + m.D*n.B,
		m.A*n.C + m.C*n.D, m.B*n.C + m.D*n.D,
		m.A*n.E + m.C*n.F + m.E, m.B*n.E + m.D*n.F + m.F,
	}
}

// Apply maps a point.
func (m Matrix) Apply(p Point) Point {
	return Point{m.A*p.X + m.C*p.Y + m.E, m.B*p.X + m.D*p.Y + m.F}
}

// ApplyVector maps a direction: the translation is left out.
func (m Matrix) ApplyVector(p Point) Point {
	return Point{m.A*p.X + m.C*p.Y, m.B*p.X + m.D*p.Y}
}

// Det returns the determinant: the factor by which areas grow, negative for a mirrored map.
func (m Matrix) Det() float64 { return m.A*m.D - m.B*m.C }

// Inverse returns the map that undoes m, and false where m flattens the plane.
func (m Matrix) Inverse() (Matrix, bool) {
	d := m.Det()
	if d == 0 || math.IsNaN(d) || math.IsInf(d, 0) {
		return Identity, false
	}
	return Matrix{
		m.D / d, -m.B / d, -m.C / d, m.A / d,
		(m.C*m.F - m.D*m.E) / d, (m.B*m.E - m.A*m.F) / d,
	}, true
}

// ApplyBox returns the smallest upright box around the mapped b.
func (m Matrix) ApplyBox(b Box) Box {
	out := EmptyBox()
	for _, c := range b.Corners() {
		out = out.Include(m.Apply(c))
	}
	return out
}

// MaxScale returns the largest factor by which m stretches any length (its larger singular value).
func (m Matrix) MaxScale() float64 {
	e, f := (m.A+m.D)/2, (m.A-m.D)/2
	g, h := (m.B+m.C)/2, (m.B-m.C)/2
	return math.Hypot(e, h) + math.Hypot(f, g)
}

// AngleOf returns the turn of a map made of turns and translations, in degrees, -180..180.
func AngleOf(m Matrix) float64 { return math.Atan2(m.B, m.A) * 180 / math.Pi }
