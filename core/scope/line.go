package scope

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Line is a motion path with what is needed to place it on the page.
type Line struct {
	Path  *geom.Path
	Rest  geom.Point  // where on the line the rest pose lies
	base  geom.Point  // middle of the layer's box at rest, in its parent's axes
	Outer geom.Matrix // from there to the page
}

// Line returns a motion path of a layer of a scene as it lies on the page; false where it is damaged.
func (s *Scope) Line(scene int, l *doc.Layer, mv *doc.Move) (Line, bool) {
	p, err := geom.ParseData(mv.Path.D)
	if err != nil || len(p.Points) < 2 {
		return Line{}, false
	}
	box, _ := s.Shown.Box(scene, l.ID)
	n := Line{Path: p, base: s.Shown.RestMatrix(scene, l.ID).Apply(box.Centre())}
	n.Outer = s.Shown.Ancestry(scene, l.ID)
	if _, outer, ok := s.Player.Axes(l.ID); ok {
		n.Outer = outer
	}
	n.Rest, _ = geom.NewMeasure(p).At(mv.Path.RestShare())
	if along := s.Shown.AlongLine(scene, l.ID, mv); along != nil {
		n.Path, n.Rest = along, n.base // it lies where that layer does
	} else if mv.Path.Along != "" {
		n.Rest = geom.Point{} // as it lay there
	}
	return n, true
}

// Page returns the map from the line's own points to the page.
func (n Line) Page() geom.Matrix { return n.Outer.Mul(geom.Translate(n.base.Sub(n.Rest))) }
