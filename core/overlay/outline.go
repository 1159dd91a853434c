package overlay

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/scope"
)

// OutlineView is a drawn path with its points, on the page.
type OutlineView struct{ Contours []pen.Contour }

// Count is how many points the path has.
func (v OutlineView) Count() (n int) {
	for _, c := range v.Contours {
		n += len(c.Nodes)
	}
	return
}

// Numbers are the view as plain numbers, for paths of a thousand points: for each line of the path how many points it has and 1
// where it is closed; then for each of these x and y of the point, of the handle before and of the one after it, and 1 where the
// line goes through smoothly.
func (v OutlineView) Numbers() []float64 {
	out := make([]float64, 0, 2*len(v.Contours)+7*v.Count())
	flag := func(b bool) float64 {
		if b {
			return 1
		}
		return 0
	}
	for _, c := range v.Contours {
		out = append(out, float64(len(c.Nodes)), flag(c.Closed))
		for _, n := range c.Nodes {
			out = append(out, n.At.X, n.At.Y, n.In.X, n.In.Y, n.Out.X, n.Out.Y, flag(n.Smooth()))
		}
	}
	return out
}

// Outline returns the points of a drawn path of the moment's scene, as it stands; empty for other layers.
func (s *Overlays) Outline(m scope.Moment, thread string) OutlineView {
	list := s.Layers(m, []string{thread})
	if len(list) != 1 || list[0].Kind != doc.PathKind {
		return OutlineView{}
	}
	s.Stand(m)
	own, _, ok := s.Player.Axes(list[0].ID)
	contours, err := s.ContoursOf(list[0])
	if !ok || err != nil {
		return OutlineView{}
	}
	v := OutlineView{make([]pen.Contour, len(contours))}
	for i, c := range contours {
		v.Contours[i] = pen.Contour{Nodes: make([]pen.Node, len(c.Nodes)), Closed: c.Closed}
		for k, n := range c.Nodes {
			v.Contours[i].Nodes[k] = pen.Node{At: own.Apply(n.At), In: own.Apply(n.In), Out: own.Apply(n.Out)}
		}
	}
	return v
}

// SpotAt returns the id of the place on a drawn path that is nearest to a point of the page: 0.3.on.0.25; empty without a path.
func (s *Overlays) SpotAt(m scope.Moment, thread string, at geom.Point) string {
	list := s.Layers(m, []string{thread})
	if len(list) != 1 || list[0].Kind != doc.PathKind {
		return ""
	}
	s.Stand(m)
	own, _, ok := s.Player.Axes(list[0].ID)
	contours, err := s.ContoursOf(list[0])
	inv, fits := own.Inverse()
	if !ok || !fits || err != nil {
		return ""
	}
	id, least := "", math.Inf(1)
	for c := range contours {
		if i, t, d := contours[c].Nearest(inv.Apply(at)); d < least {
			id, least = fmt.Sprintf("%d.%d.on.%.4f", c, i, t), d
		}
	}
	return id
}
