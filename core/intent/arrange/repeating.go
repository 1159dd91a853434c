package arrange

import (
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
)

// nextOffset returns where duplicates of layers go, page px from what they are copied from: as far as these went, where they are the last
// duplicates themselves; else a little to the right and down.
func nextOffset(s *intent.Desk, m scope.Moment, list []*doc.Layer) geom.Point {
	d := math.Round(float64(s.Doc.Film.Width) / 60)
	first := geom.Point{X: d, Y: d}
	if len(list) != len(s.Duplicates.IDs) {
		return first
	}
	sc, i := s.Scene(m), s.SceneIndex(m)
	on := func(l *doc.Layer) geom.Point {
		return s.Shown.Ancestry(i, l.ID).Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
	}
	var by *geom.Point
	for _, id := range s.Duplicates.IDs {
		was, _ := sc.Layer(id)
		k := slices.IndexFunc(list, func(l *doc.Layer) bool { return l.Thread == edit.CopyThread(s.Duplicates.Seed, id) })
		if was == nil || k < 0 {
			return first
		}
		v := on(list[k]).Sub(on(was))
		if by != nil && v.Sub(*by).Len() > 0.02 { // they were moved each by itself
			return first
		}
		by = &v
	}
	if by == nil || *by == (geom.Point{}) {
		return first
	}
	return *by
}
