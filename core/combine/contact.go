package combine

import (
	"math"

	"capstan/core/geom"
)

// Near is how far apart, in px, edges lie at most that count as one: places and points are stored to 1/1000 px, and turned.
const Near = 0.01

// Contact says whether two outlines share an edge, and whether one may lie over the other.
type Contact struct{ Meets, Laps bool }

// ContactOf tells of two outlines with their boxes; to maps the axes of the second to those of the first.
func ContactOf(p, q *geom.Path, a, b geom.Box, to geom.Matrix) (c Contact) {
	from, _ := to.Inverse()
	apart, lies := separate(a, to.ApplyBox(b))
	if !lies {
		_, lies = separate(b, from.ApplyBox(a))
	}
	if !apart {
		moved := &geom.Path{}
		moved.Append(q, to)
		length := shared(p, moved)
		c.Meets = length > 0.5
		c.Laps = !lies && lap(p, moved, a.Intersect(moved.Bounds()), Near*max(1, length))
	}
	return c
}

// separate reports whether two boxes are apart, and whether they touch at most.
func separate(a, b geom.Box) (apart, touch bool) {
	gap := max(a.Min.X-b.Max.X, b.Min.X-a.Max.X, a.Min.Y-b.Max.Y, b.Min.Y-a.Max.Y)
	return gap > Near, gap > -Near
}

// shared returns how far the ends of the edges that two outlines share lie apart: points of either on the other.
func shared(p, q *geom.Path) float64 {
	b := geom.EmptyBox()
	on := func(p, q *geom.Path) {
		p.EachClosed(func(s geom.Segment) {
			q.EachClosed(func(t geom.Segment) {
				d := s.P0.Sub(t.P0)
				if t.Line {
					v := t.P3.Sub(t.P0)
					if l := v.X*v.X + v.Y*v.Y; l > 0 {
						d = d.Sub(v.Mul(min(max((d.X*v.X+d.Y*v.Y)/l, 0), 1)))
					}
				}
				if d.Len() <= Near {
					b = b.Include(s.P0)
				}
			})
		})
	}
	on(p, q)
	on(q, p)
	if b.Max.X < b.Min.X {
		return 0
	}
	return b.Max.Sub(b.Min).Len()
}

// lap reports whether more than an area lies in both outlines, whose boxes share a part.
func lap(p, q *geom.Path, part geom.Box, area float64) bool {
	// Most that do so are found by trying a few points.
	for x := 0.125; x < 1; x += 0.25 {
		for y := 0.125; y < 1; y += 0.25 {
			if at := (geom.Point{X: part.Min.X + x*part.W(), Y: part.Min.Y + y*part.H()}); area < part.W()*part.H()/100 && p.Contains(at) && q.Contains(at) {
				return true
			}
		}
	}
	both, err := Areas(KeepOverlap, Area{Path: p}, Area{Path: q})
	if err != nil {
		return true
	}
	sum := 0.0
	both.EachClosed(func(s geom.Segment) {
		for _, c := range [][2]geom.Point{{s.P0, s.P1}, {s.P1, s.P2}, {s.P2, s.P3}} {
			sum += (c[0].X*c[1].Y - c[1].X*c[0].Y) / 2
		}
	})
	return math.Abs(sum) > area
}
