package session

import (
	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/pen"
	"capstan/core/words"
)

// refit is how far, px, the outline of a stroke may lie off the many short lines it was drawn with.
const refit = 0.04

var outliningAsked = table{
	// Texts, shapes and groups become drawn paths; they are kept inside.
	"outline": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range outermost(s.scene(m), s.layers(m, c.Threads)) {
			if l.Kind == doc.PathKind {
				continue
			}
			if err := combinable(l); err != nil {
				return nil, err
			}
			p, err := s.shown.Outline(s.sceneIndex(m), l.ID)
			if err != nil {
				return nil, unclear(err)
			}
			if !s.shown.Encloses(s.sceneIndex(m), l.ID) {
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
			list = append(list, &edit.CombineLayers{IDs: []string{l.ID}, How: doc.MadeOutline, Become: s.outlined(m, l, p)})
		}
		if len(list) == 0 {
			return nil, words.New("outline.nothing")
		}
		return edit.All(list...), nil
	}),
	// The stroke becomes an area: of a layer without a fill, the layer itself; else a new one in front of it.
	"outline.stroke": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		var list []edit.Command
		for _, l := range s.layers(m, c.Threads) {
			p, err := s.strokeArea(m, l)
			if err != nil {
				return nil, err
			}
			if p == nil {
				continue
			}
			if l.Fill.Kind == doc.NoFill && len(l.Children) == 0 {
				become := s.outlined(m, l, p)
				become["fill"], become["stroke"] = l.Stroke.Fill, nil
				list = append(list, &edit.CombineLayers{IDs: []string{l.ID}, How: doc.MadeStroke, Become: become})
				continue
			}
			list = append(list, s.strokeLayer(m, l, p)...)
		}
		if len(list) == 0 {
			return nil, words.New("stroke.nothing")
		}
		return edit.All(list...), nil
	}),
}

// outlined returns what a layer's fields become when it shows a path in its own axes: its gradients stay where they are, and so
// does the point its moves turn it about.
func (s *Session) outlined(m Moment, l *doc.Layer, p *geom.Path) edit.Fields {
	box, pivot := s.shown.Box(s.sceneIndex(m), l.ID)
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
	if !s.shown.Encloses(s.sceneIndex(m), l.ID) && l.Stroke != nil {
		become["fill"], become["stroke"] = l.Stroke.Fill, nil
	} else if g := look.Fill.Gradient; g != nil && look == l {
		become["fill"] = edit.Fields{"gradient": held(g, box, p.Bounds(), geom.Identity)}
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

// held returns a gradient that lies where it lay when its box becomes another, in axes that m leads to.
func held(g *doc.Gradient, from, to geom.Box, m geom.Matrix) *doc.Gradient {
	if !(to.W() > 0 && to.H() > 0) {
		return g
	}
	at := func(v [2]float64) [2]float64 {
		q := m.Apply(geom.Point{X: from.Min.X + v[0]*from.W(), Y: from.Min.Y + v[1]*from.H()}).Sub(to.Min)
		return [2]float64{q.X / to.W(), q.Y / to.H()}
	}
	c := *g
	c.From, c.To = at(g.From), at(g.To)
	if g.Focus != nil {
		f := at(*g.Focus)
		c.Focus = &f
	}
	return &c
}

// strokeArea returns what a layer's stroke covers, with as few curves as keep to it; nil where it has none.
func (s *Session) strokeArea(m Moment, l *doc.Layer) (*geom.Path, error) {
	i := s.sceneIndex(m)
	p := s.shown.StrokeOutline(i, l.ID)
	if len(p.Verbs) == 0 {
		return nil, nil
	}
	how, areas := combine.Unite, []combine.Area{{Path: p}}
	own, err := s.shown.Outline(i, l.ID)
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
func (s *Session) strokeLayer(m Moment, l *doc.Layer, p *geom.Path) []edit.Command {
	sc := s.scene(m)
	k := s.newLayer(sc, l.Name+" line", doc.PathKind)
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
