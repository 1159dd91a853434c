package overlay

import (
	"capstan/core/geom"
	"capstan/core/scope"
)

// Knot is a point of a free path that can be dragged: one the line goes through, or a handle of one.
type Knot struct {
	At     [2]float64 `json:"at"`     // page px
	Index  int        `json:"index"`  // among the path's points
	Handle bool       `json:"handle"` // bends the line towards it
	Of     [2]float64 `json:"of"`     // of handles: the point it belongs to
}

// knots returns the points of a path of several steps on the page; paths of one step are bent at their middle instead.
func knots(n scope.Line) []Knot {
	out := []Knot{}
	steps := 0
	for _, v := range n.Path.Verbs {
		if v == geom.LineTo || v == geom.CubicTo {
			steps++
		}
	}
	if steps < 2 {
		return out
	}
	m := n.Page()
	i := 0
	for _, v := range n.Path.Verbs {
		p := n.Path.Points[i : i+geom.PointsOf[v]]
		switch v {
		case geom.CubicTo:
			from := n.Path.Points[i-1]
			out = append(out,
				Knot{geom.Pair(m.Apply(p[0])), i, true, geom.Pair(m.Apply(from))}, Knot{geom.Pair(m.Apply(p[1])), i + 1, true, geom.Pair(m.Apply(p[2]))},
				Knot{geom.Pair(m.Apply(p[2])), i + 2, false, geom.Pair(m.Apply(p[2]))})
		case geom.LineTo, geom.MoveTo:
			out = append(out, Knot{geom.Pair(m.Apply(p[0])), i, false, geom.Pair(m.Apply(p[0]))})
		}
		i += geom.PointsOf[v]
	}
	return out
}
