package pen

import "capstan/core/geom"

// Refit returns contours with few curves instead of many short straight stretches, each within tolerance of the points it had.
// Corners of more than some 35 degrees stay corners, stretches much longer than their neighbours stay straight, and curves stay as
// they are.
func Refit(list []Contour, tolerance float64) []Contour {
	out := make([]Contour, 0, len(list))
	for _, c := range list {
		n := len(c.Nodes)
		if !c.Closed || n < 8 {
			out = append(out, c)
			continue
		}
		out = append(out, refitted(c, tolerance))
	}
	return out
}

func refitted(c Contour, tolerance float64) Contour {
	n := len(c.Nodes)
	at := func(i int) geom.Point { return c.Nodes[(i+n)%n].At }
	node := func(i int) *Node { return &c.Nodes[(i+n)%n] }
	curved := func(i int) bool { return !straight(*node(i), *node(i + 1)) } // the stretch from i on
	corner := func(i int) bool {
		if curved(i-1) || curved(i) {
			return true
		}
		u, v := at(i).Sub(at(i-1)), at(i+1).Sub(at(i))
		l := u.Len() * v.Len()
		// Where a long straight stretch meets short ones, the line passes from straight to round.
		long := 8*min(u.Len(), v.Len()) < max(u.Len(), v.Len()) && max(u.Len(), v.Len()) > 100*tolerance
		return long || l == 0 || u.X*v.X+u.Y*v.Y < 0.82*l
	}
	begin := 0
	for begin < n && !corner(begin) {
		begin++
	}
	if begin == n {
		begin = 0 // round all the way
	}
	out := Contour{Nodes: []Node{Corner(at(begin))}, Closed: true}
	pts := []geom.Point{at(begin)}
	for i := begin + 1; i <= begin+n; i++ {
		pts = append(pts, at(i))
		if i < begin+n && !corner(i) {
			continue
		}
		switch {
		case len(pts) == 2 && curved(i-1):
			out.Nodes[len(out.Nodes)-1].Out = node(i - 1).Out
			out.Nodes = append(out.Nodes, Node{pts[1], node(i).In, pts[1]})
		case len(pts) == 2:
			out.Nodes = append(out.Nodes, Corner(pts[1]))
		default:
			f := fitter{tolerance: tolerance, c: &out}
			t1, t2 := tangent(pts, false), tangent(pts, true)
			if !corner(begin) { // one smooth ring: it goes on through its first point
				t1 = direction(at(begin-1), at(begin+1))
				t2 = t1.Mul(-1)
			}
			f.fit(pts, t1, t2)
		}
		pts = []geom.Point{at(i)}
	}
	last := len(out.Nodes) - 1
	out.Nodes[0].In = out.Nodes[last].In
	out.Nodes = out.Nodes[:last]
	return out
}
