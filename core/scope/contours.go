package scope

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/pen"
)

// ContoursOf returns the lines of a drawn path: those of the draft, where its points are being dragged.
func (s *Scope) ContoursOf(l *doc.Layer) ([]pen.Contour, error) {
	if s.Pulled.Path != "" && l.Path == s.Pulled.Path {
		return s.Pulled.Lines, nil
	}
	return ContoursOf(l)
}

// ContoursOf returns the lines of a drawn path with their points, in its own axes, as the document has it.
func ContoursOf(l *doc.Layer) ([]pen.Contour, error) {
	p, err := geom.ParseData(l.Path)
	if err != nil {
		return nil, err
	}
	return pen.Contours(p), nil
}

// PointsOnPage returns the points of a drawn path as it was last placed.
func (s *Scope) PointsOnPage(l *doc.Layer) (list []geom.Point) {
	own, _, ok := s.Player.Axes(l.ID)
	contours, err := ContoursOf(l)
	if !ok || err != nil {
		return nil
	}
	for _, c := range contours {
		for _, n := range c.Nodes {
			list = append(list, own.Apply(n.At))
		}
	}
	return list
}
