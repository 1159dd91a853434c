package shape

import (
	"math"

	"capstan/core/geom"
)

// foldShade is how much darker the back of a ribbon is.
const foldShade = 0.28

// ribbon lays a band along a line and folds it at every bend. Folding a band of direction d along a crease gives a band of
// direction e, the mirror image of d, so the crease runs along d + e: it is where both stretches of band end. The longest
// stretch shows its front, and every second from there.
func (s Spec) ribbon() []Part {
	var line []geom.Point
	for _, b := range s.Shape.Bends {
		q := geom.Point{X: (b[0] - 0.5) * s.W, Y: (b[1] - 0.5) * s.H}
		if n := len(line); n == 0 || q.Sub(line[n-1]).Len() > 1e-6 {
			line = append(line, q)
		}
	}
	half := s.Shape.Thickness * s.H / 2
	if len(line) < 2 || half <= 0 {
		return []Part{{Path: &geom.Path{}}}
	}
	dir := func(i int) geom.Point {
		v := line[i+1].Sub(line[i])
		return v.Mul(1 / v.Len())
	}
	front, back := &geom.Path{}, &geom.Path{}
	last, longest := len(line)-2, 0
	for i := range last + 1 {
		if line[i+1].Sub(line[i]).Len() > line[longest+1].Sub(line[longest]).Len() {
			longest = i
		}
	}
	for i := 0; i <= last; i++ {
		d := dir(i)
		n := geom.Point{X: -d.Y, Y: d.X}.Mul(half)
		a, b := line[i].Add(n), line[i].Sub(n)
		c, e := line[i+1].Sub(n), line[i+1].Add(n)
		if i > 0 {
			a, b = cut(line[i], n, d, dir(i-1))
		}
		if i < last {
			e, c = cut(line[i+1], n, d, dir(i+1))
		}
		to := front
		if (i+longest)%2 == 1 {
			to = back
		}
		to.Move(a)
		to.Line(b)
		to.Line(c)
		to.Line(e)
		to.Close()
	}
	if len(back.Points) == 0 {
		return []Part{{Path: front}}
	}
	return []Part{{Path: back, Shade: foldShade}, {Path: front}}
}

// cut returns where the edges of a band of direction d through q, n to its sides, meet the crease towards the direction e of
// the next or the last stretch.
func cut(q, n, d, e geom.Point) (geom.Point, geom.Point) {
	c := d.Add(e)
	if c.Len() < 0.2 { // folded back onto itself: straight across
		return q.Add(n), q.Sub(n)
	}
	// q + n + t d lies on q + u c, so its part across c is nothing.
	t := -(n.X*c.Y - n.Y*c.X) / (d.X*c.Y - d.Y*c.X)
	if math.IsInf(t, 0) || math.IsNaN(t) { // straight on: no crease at all
		t = 0
	}
	far := 4 * n.Len()
	t = max(-far, min(far, t))
	return q.Add(n).Add(d.Mul(t)), q.Sub(n).Sub(d.Mul(t))
}
