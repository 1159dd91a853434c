package svg

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/words"
)

// sound leaves out what no document holds: what lies too far away, or has numbers that are none.
func (w *walker) sound(list []*doc.Layer) (out []*doc.Layer) {
	for _, l := range list {
		if l.Children = w.sound(l.Children); l.Kind == doc.Group && len(l.Children) == 0 {
			continue
		}
		// A mask alone shows nothing.
		if l.Kind == doc.Group && len(l.Children) == 1 && l.Children[0].Mask != "" {
			continue
		}
		if !held(l) {
			w.lost.add("what lies very far away, or is very large", nil)
			continue
		}
		out = append(out, l)
	}
	return out
}

func held(l *doc.Layer) bool {
	near := func(list ...float64) bool {
		for _, v := range list {
			if !(math.Abs(v) <= doc.MaxPlace/2) {
				return false
			}
		}
		return true
	}
	if !near(l.Place.X, l.Place.Y, l.Place.W, l.Place.H, l.Place.Turn) {
		return false
	}
	if l.Path != "" {
		p, err := geom.ParseData(l.Path)
		if err != nil || len(l.Path) > doc.MaxPath {
			return false
		}
		if b := p.Bounds(); len(p.Points) == 0 || !near(b.Min.X, b.Min.Y, b.Max.X, b.Max.Y) {
			return false
		}
	} else if l.Kind == doc.PathKind {
		return false
	}
	if v := l.Stroke; v != nil && !near(append([]float64{v.Width, v.DashOffset, v.MiterLimit}, v.Dash...)...) {
		return false
	}
	return true
}

// kept holds what a drawing became to the rules of documents.
func kept(group *doc.Layer, media map[string]*doc.Media) error {
	p := doc.NewProject("drawn-p", "Drawing", 1000, 1000, "drawn-s")
	p.Film.Scenes[0].Layers = []*doc.Layer{group}
	p.Media = media
	if err := p.Validate(); err != nil {
		return words.Because(err, "drawing.unfit")
	}
	return nil
}
