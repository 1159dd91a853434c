package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/words"
)

// axes returns the map from a group's axes to its parent's at rest.
func axes(l *doc.Layer) geom.Matrix {
	// Mirrored ones are refused: their pivot would have to be known.
	return geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y}).Mul(geom.Rotate(l.Place.Turn))
}

// ancestry returns the map from the axes the layer's place is in to the page.
func ancestry(s *doc.Scene, id string) geom.Matrix {
	m := geom.Identity
	for _, parent := s.Layer(id); parent != nil; _, parent = s.Layer(parent.ID) {
		m = axes(parent).Mul(m)
	}
	return m
}

// unmirrored refuses to take a layer out of a group that is mirrored, or into one: it would have to be mirrored by itself. From one parent
// to the same it stays in its axes.
func unmirrored(s *doc.Scene, from, to *doc.Layer) error {
	if from == to {
		return nil
	}
	for _, side := range []*doc.Layer{from, to} {
		for g := side; g != nil; _, g = s.Layer(g.ID) {
			if g.Place.FlipX || g.Place.FlipY {
				return words.New("group.mirrored", g.Name)
			}
		}
	}
	return nil
}

func targetAxes(s *doc.Scene, parent string) geom.Matrix {
	if l, _ := s.Layer(parent); l != nil {
		return ancestry(s, parent).Mul(axes(l))
	}
	return geom.Identity
}

// place moves a layer from one group's axes to another's, staying where it is on the page.
func place(l *doc.Layer, from, to geom.Matrix) {
	inv, ok := to.Inverse()
	if !ok || from == to {
		return
	}
	m := inv.Mul(from)
	mapChanges(l, m)
	p := m.Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
	l.Place.X, l.Place.Y = p.X, p.Y
	if m.A != 1 || m.B != 0 {
		l.Place.Turn += geom.AngleOf(m)
	}
}

func (e *editor) group(ids []string, id, thread, name string, tint int, origin geom.Point, mask string) error {
	if len(ids) == 0 {
		return words.New("group.nothing")
	}
	var scene *doc.Scene
	member := map[string]bool{}
	for _, k := range ids {
		_, _, s, err := e.layer(k)
		if err != nil {
			return err
		}
		if scene != nil && s != scene {
			return words.New("group.apart")
		}
		scene, member[k] = s, true
	}
	// In stacking order; the group takes the place of the front-most.
	var list []*doc.Layer
	doc.Walk(scene.Layers, func(l, _ *doc.Layer) bool {
		if member[l.ID] {
			list = append(list, l)
			return false
		}
		return true
	})
	front := list[len(list)-1]
	_, parent := scene.Layer(front.ID)
	g := &doc.Layer{
		ID: id, Thread: thread, Name: name, Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Tint: tint,
	}
	outer := ancestry(scene, front.ID)
	inv, ok := outer.Inverse()
	if !ok {
		return words.New("group.where")
	}
	at := inv.Apply(origin)
	g.Place = doc.Place{X: at.X, Y: at.Y}
	inner := outer.Mul(axes(g))
	into := siblings(scene, parent)
	*into = slices.Insert(*into, slices.Index(*into, front)+1, g)
	for _, l := range list {
		_, p := scene.Layer(l.ID)
		if err := unmirrored(scene, p, parent); err != nil {
			return err
		}
		place(l, ancestry(scene, l.ID), inner)
		remove(scene, p, l.ID)
		if p != parent {
			l.Mask = ""
		}
		g.Children = append(g.Children, l)
	}
	if mask != "" {
		front.Mask = mask
	}
	return nil
}

func (e *editor) ungroup(id string, down bool, about *geom.Point) error {
	g, parent, s, err := e.layer(id)
	if err != nil {
		return err
	}
	if g.Kind != doc.Group {
		return words.New("group.none", g.Name)
	}
	if g.Place.FlipX || g.Place.FlipY {
		return words.New("group.mirrored", g.Name)
	}
	gone := map[string]bool{}
	var handed []*doc.Move
	for _, m := range g.Moves {
		if down && len(g.Children) > 0 && (HandsDown(m) || about != nil && HandsTurnDown(e.p, g, m)) {
			handed = append(handed, m)
		} else {
			gone[m.ID] = true
		}
	}
	if err := rehang(s, e.into(s), gone); err != nil {
		return err
	}
	m := axes(g)
	list := siblings(s, parent)
	i := slices.Index(*list, g)
	for _, l := range g.Children {
		place(l, m, geom.Identity)
		l.Mask = ""
		l.Opacity *= g.Opacity
		l.Hidden = l.Hidden || g.Hidden
		if about != nil {
			for _, m := range handed {
				if m.Kind == doc.Loop {
					pivotAt(l, axes(g).Apply(*about))
				}
			}
		}
		if down {
			if err := turnPaths(l, g.Place.Turn); err != nil {
				return words.New("path.unreadable", err)
			}
		}
	}
	handDown(s, g, handed)
	*list = slices.Replace(*list, i, i+1, g.Children...)
	return nil
}
