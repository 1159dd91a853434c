package scope

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/words"
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

// Bares says of a layer of scene i that covers the page at rest how much of it shows beside the layer on its way, and when: "12 px of the page show at
// 2.40 s"; empty: it covers the page all along, or is no ground.
func (s *Scope) Bares(i int, l *doc.Layer) string {
	if l.Mask != "" || l.Hidden || !s.Shown.Covers(i, l.ID) {
		return ""
	}
	return s.Shows(i, l)
}

// Shows is Bares of a layer that has covered the page at rest, whether it still does or not.
func (s *Scope) Shows(i int, l *doc.Layer) string {
	px, at := s.Shown.Bares(i, l.ID)
	if px <= 0 {
		return ""
	}
	return fmt.Sprintf("%.3g px of the page show at %s", max(math.Round(px), 1), words.Seconds(at))
}

// Groundable reports whether a layer may fill the page: a picture or a shape that lies in no group.
func Groundable(l, parent *doc.Layer) bool {
	return parent == nil && l.Is().Grounds
}
