package shape

import (
	"math"

	"capstan/core/geom"
)

// bubble is a rounded box with a tail that leaves the side nearest to its tip.
func (s Spec) bubble() *geom.Path {
	v := &s.Shape
	w, h := s.W/2, s.H/2
	r := min(s.Corner, w, h)
	tip := geom.Point{X: (v.Tip[0] - 0.5) * s.W, Y: (v.Tip[1] - 0.5) * s.H}
	box := corners(geom.BoxAt(geom.Point{}, s.W, s.H))
	if w == 0 || h == 0 || math.Abs(tip.X) <= w && math.Abs(tip.Y) <= h {
		return fillet(box, []float64{r}) // the tip lies inside
	}
	base := min(v.Base*min(s.W, s.H), s.W-2*r, s.H-2*r) / 2
	var list []geom.Point
	var radii []float64
	for i, q := range box { // corners from the upper left clockwise, each with the side that follows it
		list, radii = append(list, q), append(radii, r)
		next := box[(i+1)%4]
		d := next.Sub(q)
		l := d.Len()
		d = d.Mul(1 / l)
		if side(tip, w, h) != i || base <= 0 {
			continue
		}
		at := tip.Sub(q)
		along := max(r+base, min(l-r-base, at.X*d.X+at.Y*d.Y))
		list = append(list, q.Add(d.Mul(along-base)), tip, q.Add(d.Mul(along+base)))
		radii = append(radii, 0, 0, 0)
	}
	return fillet(list, radii)
}

// side is the side of a box of half sizes w and h towards which q lies: 0 above, then clockwise.
func side(q geom.Point, w, h float64) int {
	x, y := q.X/w, q.Y/h
	switch {
	case math.Abs(y) >= math.Abs(x) && y < 0:
		return 0
	case math.Abs(y) >= math.Abs(x):
		return 2
	case x > 0:
		return 1
	}
	return 3
}
