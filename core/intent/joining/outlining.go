package joining

import (
	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/pen"
	"capstan/core/scope"
	"capstan/core/words"
)

// refit is how far, px, the outline of a stroke may lie off the many short lines it was drawn with.
const refit = 0.04

var outliningAsked = intent.Table{
	// Texts, shapes and groups become drawn paths; they are kept inside.
	"outline": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range scope.Outermost(s.Scene(m), s.Layers(m, c.Threads)) {
			if l.Kind == doc.PathKind {
				continue
			}
			if !l.Is().Joins {
				return nil, words.New("combine.kind", l.Name)
			}
			p, err := s.Shown.Outline(s.SceneIndex(m), l.ID)
			if err != nil {
				return nil, unclear(err)
			}
			if !s.Shown.Encloses(s.SceneIndex(m), l.ID) {
				continue // a line: opening its points makes it a path
			}
			if l.Kind == doc.Group {
				if p, err = combine.Areas(combine.Unite, combine.Area{Path: p}); err != nil {
					return nil, unclear(err)
				}
			}
			if len(p.Verbs) == 0 {
				continue
			}
			list = append(list, &edit.CombineLayers{IDs: []string{l.ID}, How: doc.MadeOutline, Become: outlined(s, m, l, p)})
		}
		if len(list) == 0 {
			return nil, words.New("outline.nothing")
		}
		return edit.All(list...), nil
	}),
	// The stroke becomes an area: of a layer without a fill, the layer itself; else a new one in front of it.
	"outline.stroke": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range s.Layers(m, c.Threads) {
			p, err := strokeArea(s, m, l)
			if err != nil {
				return nil, err
			}
			if p == nil {
				continue
			}
			if l.Fill.Kind == doc.NoFill && len(l.Children) == 0 {
				become := outlined(s, m, l, p)
				become["fill"], become["stroke"] = l.Stroke.Fill, nil
				list = append(list, &edit.CombineLayers{IDs: []string{l.ID}, How: doc.MadeStroke, Become: become})
				continue
			}
			list = append(list, strokeLayer(s, m, l, p)...)
		}
		if len(list) == 0 {
			return nil, words.New("stroke.nothing")
		}
		return edit.All(list...), nil
	}),
}

// outlined returns what a layer's fields become when it shows a path in its own axes: its gradients stay where they are, and so
// does the point its moves turn it about.
func outlined(s *intent.Desk, m scope.Moment, l *doc.Layer, p *geom.Path) edit.Fields {
	box, pivot := s.Shown.Box(s.SceneIndex(m), l.ID)
	place := edit.Fields{"w": 0, "h": 0, "flipX": false, "flipY": false}
	if len(l.Moves) > 0 {
		place["pivot"] = [2]float64{pivot.X, pivot.Y}
	}
	become := edit.Fields{"kind": doc.PathKind, "path": p.Data(), "text": nil, "shape": nil, "corner": 0, "place": place}
	look := lookSource(l)
	if look != l {
		become["fill"], become["stroke"] = look.Fill, nil
		if look.Stroke != nil {
			become["stroke"] = look.Stroke
		}
	}
	if !s.Shown.Encloses(s.SceneIndex(m), l.ID) && l.Stroke != nil {
		become["fill"], become["stroke"] = l.Stroke.Fill, nil
	} else if g := look.Fill.Gradient; g != nil && look == l {
		become["fill"] = edit.Fields{"gradient": edit.Held(g, box, p.Bounds(), geom.Identity)}
	}
	return become
}

// lookSource returns the layer whose look stands for a layer: of a group, which has none, the rearmost in it.
func lookSource(l *doc.Layer) *doc.Layer {
	for l.Kind == doc.Group && len(l.Children) > 0 {
		l = l.Children[0]
	}
	return l
}

// strokeArea returns what a layer's stroke covers, with as few curves as keep to it; nil where it has none.
func strokeArea(s *intent.Desk, m scope.Moment, l *doc.Layer) (*geom.Path, error) {
	i := s.SceneIndex(m)
	p := s.Shown.StrokeOutline(i, l.ID)
	if len(p.Verbs) == 0 {
		return nil, nil
	}
	how, areas := combine.Unite, []combine.Area{{Path: p}}
	own, err := s.Shown.Outline(i, l.ID)
	if err != nil {
		return nil, unclear(err)
	}
	switch l.Stroke.Side {
	case doc.Inside:
		how, areas = combine.KeepOverlap, append(areas, combine.Area{Path: own})
	case doc.Outside:
		how, areas = combine.CutAway, append(areas, combine.Area{Path: own})
	}
	out, err := combine.Areas(how, areas...)
	if err != nil {
		return nil, unclear(err)
	}
	return pen.Path(pen.Refit(pen.Contours(out), refit)), nil
}

// strokeLayer returns the commands that take a layer's stroke off and lay it in front of it as a layer of its own.
func strokeLayer(s *intent.Desk, m scope.Moment, l *doc.Layer, p *geom.Path) []edit.Command {
	sc := s.Scene(m)
	k := s.NewLayer(sc, l.Name+" line", doc.PathKind)
	k.Fill, k.Path, k.Opacity, k.Tint, k.Hidden, k.Locked = l.Stroke.Fill, p.Data(), l.Opacity, l.Tint, l.Hidden, l.Locked
	k.Place = doc.Place{X: l.Place.X, Y: l.Place.Y, Turn: l.Place.Turn}
	parent, siblings, index := "", sc.Layers, 0
	if _, g := sc.Layer(l.ID); g != nil {
		parent, siblings = g.ID, g.Children
	}
	for i, o := range siblings {
		if o.ID == l.ID {
			index = i + 1
		}
	}
	return []edit.Command{
		&edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: edit.Fields{"stroke": nil}}}},
		&edit.AddLayers{Scene: sc.ID, Parent: parent, Index: &index, Layers: []*doc.Layer{k}},
	}
}
