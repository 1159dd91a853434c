package pictures

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var maskingAsked = intent.Table{
	// Pictures are seen within a shape over all of them: each goes into a group of its own with one as its mask, which is a layer like any other.
	"mask.shape": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Kind    string   `json:"kind"`
	}) (edit.Command, error) {
		sc, i := s.Scene(m), s.SceneIndex(m)
		if !slices.Contains(doc.Shapes, c.Kind) || !doc.KindNamed(c.Kind).Grounds {
			return nil, words.New("mask.shape")
		}
		var list []edit.Command
		for _, l := range scope.Outermost(sc, s.Layers(m, c.Threads)) {
			if l.Picture == nil || l.Mask != "" {
				continue
			}
			_, parent := sc.Layer(l.ID)
			beside, in := sc.Layers, ""
			if parent != nil {
				beside, in = parent.Children, parent.ID
			}
			place := l.Place
			place.Pivot = nil
			mask := &doc.Layer{
				ID: s.NewID(), Thread: s.NewID(), Name: scope.NameFor(sc, "Mask"), Kind: c.Kind, Opacity: 1, Place: place,
				Fill: doc.Fill{Kind: doc.Solid, Colour: "#0c2523"}, Tint: l.Tint,
			}
			index := slices.Index(beside, l) + 1
			box, _ := s.Shown.Box(i, l.ID)
			middle := s.Shown.Ancestry(i, l.ID).Mul(s.Shown.RestMatrix(i, l.ID)).Apply(box.Centre())
			list = append(list, &edit.AddLayers{Scene: sc.ID, Parent: in, Index: &index, Layers: []*doc.Layer{mask}}, &edit.GroupLayers{
				IDs: []string{l.ID, mask.ID}, ID: s.NewID(), Thread: s.NewID(), Name: l.Name, Tint: l.Tint, X: middle.X, Y: middle.Y, Mask: doc.Inside,
			})
		}
		if len(list) == 0 {
			return nil, words.New("picture.unselected")
		}
		return edit.All(list...), nil
	}),
}
