package points

import (
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

var freehandAsked = intent.Table{
	// A line drawn by hand, as few points as keep within tolerance px of it; closed where it ends near its begin.
	"draw.freehand": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Points    [][2]float64 `json:"points"`
		Tolerance float64      `json:"tolerance"`
		Reach     float64      `json:"reach"` // px within which the end counts as at the begin
	}) (edit.Command, error) {
		pts := make([]geom.Point, 0, len(c.Points))
		for _, p := range c.Points {
			pts = append(pts, geom.Point{X: p[0], Y: p[1]})
		}
		if len(pts) < 2 {
			return nil, nil
		}
		if len(pts) > geom.MaxPoints {
			return nil, words.New("drawing.long", geom.MaxPoints)
		}
		n := len(pts)
		closed := n > 8 && pts[0].Sub(pts[n-1]).Len() <= c.Reach
		if closed {
			pts[n-1] = pts[0]
		}
		line := pen.Fit(pts, min(max(c.Tolerance, 0.1), 200))
		if k := len(line.Nodes); closed && k > 2 {
			line.Nodes[0].In = line.Nodes[k-1].In
			line.Nodes, line.Closed = line.Nodes[:k-1], true
		}
		return s.Drawn(m, []pen.Contour{line}, ""), nil
	}),
}
