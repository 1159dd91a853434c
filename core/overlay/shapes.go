package overlay

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/shape"
)

// ShapeSign is a kind of shape with its name and its outline in a small box, for buttons.
type ShapeSign struct {
	Kind   string `json:"kind"`
	Name   string `json:"name"`
	D      string `json:"d"`      // SVG path data about the middle, 18 by 14
	Closed bool   `json:"closed"` // it has an inside
}

// ShapeSigns returns all kinds of shapes in the order in which they are offered.
func ShapeSigns() []ShapeSign {
	list := make([]ShapeSign, 0, len(doc.Shapes))
	for _, kind := range doc.Shapes {
		l := &doc.Layer{Kind: kind, Place: doc.Place{W: 16, H: 12}, Corner: 1}
		if doc.KindNamed(kind).Keeps || kind == doc.Ring || kind == doc.Sector || kind == doc.Cross {
			l.Place.W, l.Place.H = 14, 14
		}
		d := ""
		for _, p := range shape.Of(l).Parts() {
			d += p.Path.Data()
		}
		list = append(list, ShapeSign{kind, doc.KindNamed(kind).Words, d, doc.KindNamed(kind).Grounds})
	}
	return list
}

// Ring is a handle of a shape's number as it lies on the page.
type Ring struct {
	ID    string     `json:"id"`
	Name  string     `json:"name"`
	Value string     `json:"value"`
	At    [2]float64 `json:"at"`
}

// ringsOf returns the handles of a layer's shape on the page.
func (s *Overlays) ringsOf(l *doc.Layer) []Ring {
	own, _, ok := s.Player.Axes(l.ID)
	if !ok || !l.IsShape() {
		return []Ring{}
	}
	list := []Ring{}
	for _, h := range shape.Of(l).Handles() {
		list = append(list, Ring{h.ID, h.Name, h.Value, geom.Pair(own.Apply(h.At))})
	}
	return list
}
