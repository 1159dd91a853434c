package scope

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Roam is how far a layer's motion paths take it from its rest pose, as a box about the origin.
func Roam(l *doc.Layer) geom.Box {
	all := geom.Box{}
	for _, m := range l.Moves {
		if m.Path == nil {
			continue
		}
		p, err := geom.ParseData(m.Path.D)
		if err != nil || len(p.Points) < 2 {
			continue
		}
		rest, _ := geom.NewMeasure(p).At(m.Path.RestShare())
		b := p.Bounds()
		// Paths follow each other or run together: their reaches add up at the worst.
		all.Min = all.Min.Add(geom.Point{X: min(0, b.Min.X-rest.X), Y: min(0, b.Min.Y-rest.Y)})
		all.Max = all.Max.Add(geom.Point{X: max(0, b.Max.X-rest.X), Y: max(0, b.Max.Y-rest.Y)})
	}
	return all
}

// Bares reports whether a layer that covers the page at rest bares an edge of it on its way.
func (s *Scope) Bares(l *doc.Layer, box geom.Box, rest geom.Matrix) bool {
	page := geom.Box{Max: geom.Point{X: float64(s.Doc.Film.Width), Y: float64(s.Doc.Film.Height)}}
	b := rest.ApplyBox(box)
	const e = 0.01
	covers := func(b geom.Box) bool {
		return b.Min.X <= page.Min.X+e && b.Min.Y <= page.Min.Y+e && b.Max.X >= page.Max.X-e && b.Max.Y >= page.Max.Y-e
	}
	if l.Place.Turn != 0 || !covers(b) {
		return false
	}
	r := Roam(l)
	return !covers(geom.Box{Min: b.Min.Add(r.Max), Max: b.Max.Add(r.Min)})
}

// Groundable reports whether a layer may fill the page: a picture or a shape that lies in no group.
func Groundable(l, parent *doc.Layer) bool {
	return parent == nil && l.Is().Grounds
}
