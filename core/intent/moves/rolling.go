package moves

import (
	"math"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/scope"
)

// fitFor returns the layers that a new move goes to, of those it is asked for: of a group that is no wheel itself what rolls goes to its wheels.
func fitFor(s *intent.Desk, m scope.Moment, kind, name string, layers []*doc.Layer) []*doc.Layer {
	e := effect.As(kind, name)
	if e == nil || kind != doc.Loop || e.Goes.Round == nil {
		return layers
	}
	var out []*doc.Layer
	for _, l := range layers {
		if wheels := wheelsIn(s, m, l); l.Kind == doc.Group && !round(s, m, l) && len(wheels) > 0 {
			out = append(out, wheels...)
		} else {
			out = append(out, l)
		}
	}
	return out
}

// wheelsIn returns the layers in a group that are round.
func wheelsIn(s *intent.Desk, m scope.Moment, g *doc.Layer) (out []*doc.Layer) {
	for _, l := range g.Children {
		switch {
		case l.Mask != "":
		case round(s, m, l):
			out = append(out, l)
		case l.Kind == doc.Group:
			out = append(out, wheelsIn(s, m, l)...)
		}
	}
	return
}

// round reports whether a layer may be a wheel: a shape that lies about its middle, or a group, about as wide as high.
func round(s *intent.Desk, m scope.Moment, l *doc.Layer) bool {
	switch l.Kind {
	case doc.Ellipse, doc.Ring, doc.Sector, doc.Polygon, doc.Star, doc.Group, doc.Picture:
	default:
		return false
	}
	box, _ := s.Film.Box(s.SceneIndex(m), l.ID)
	side := max(box.W(), box.H())
	return side > 0 && math.Abs(box.W()-box.H()) <= 0.15*side
}
