package morph

import (
	"math"

	"capstan/core/geom"
)

// Course is a smooth line through points in their order: a centripetal Catmull-Rom spline, which neither loops nor turns back between two of them
// (C. Yuksel, S. Schaefer, J. Keyser, Parameterization and applications of Catmull-Rom curves, 2011). Where the last point is the first, it closes
// smoothly; at open ends it begins straight at the next one but for the bend there. Points that repeat count once.
func Course(points []geom.Point) *geom.Path {
	list := make([]geom.Point, 0, len(points))
	for _, p := range points {
		if n := len(list); n == 0 || list[n-1].Sub(p).Len() > 1e-9 {
			list = append(list, p)
		}
	}
	path := &geom.Path{}
	if len(list) == 0 {
		return path
	}
	path.Move(list[0])
	n := len(list)
	closed := n > 3 && list[0].Sub(list[n-1]).Len() < 1e-6
	around := func(i int) geom.Point {
		switch {
		case i < 0 && closed:
			return list[n-1+i]
		case i >= n && closed:
			return list[i-n+1]
		case i < 0: // a point ahead of the first, as far as the next one lies behind it
			return list[0].Mul(2).Sub(list[1])
		case i >= n:
			return list[n-1].Mul(2).Sub(list[n-2])
		}
		return list[i]
	}
	for i := range n - 1 {
		a, b, c, d := around(i-1), around(i), around(i+1), around(i+2)
		// Knots lie apart by the square root of the distance; the tangents of the Bezier segment follow from Barry and Goldman's pyramid.
		ab, bc, cd := math.Sqrt(b.Sub(a).Len()), math.Sqrt(c.Sub(b).Len()), math.Sqrt(d.Sub(c).Len())
		from := tangent(a, b, c, ab, bc).Mul(bc / 3)
		to := tangent(b, c, d, bc, cd).Mul(bc / 3)
		path.Cubic(b.Add(from), c.Sub(to), c)
	}
	return path
}

// tangent is the derivative of the parabola through three points at the middle one, whose knots lie so far apart.
func tangent(a, b, c geom.Point, ab, bc float64) geom.Point {
	return b.Sub(a).Mul(1 / ab).Sub(c.Sub(a).Mul(1 / (ab + bc))).Add(c.Sub(b).Mul(1 / bc))
}
