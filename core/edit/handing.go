package edit

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// HandsDown reports whether a move of a group does the same when each of its layers has it instead: paths do, unless they turn the group or
// last as long as its thread, and coming and going at once.
func HandsDown(m *doc.Move) bool {
	switch {
	case m.Lasts == doc.WholeThread || m.Unit != "":
		return false
	case m.Kind == doc.MotionPath:
		return m.Path != nil && !m.Path.TurnAlong
	case m.Kind == doc.Entrance || m.Kind == doc.Exit:
		c := m.Comes()
		return c != nil && c.Apart
	}
	return false
}

// HandsTurnDown reports whether a loop that turns a group does the same when each of its layers has it about the group's pivot: where it
// goes on no other loop and none goes on it, and the layers neither turn nor are moved nor mirrored by themselves.
func HandsTurnDown(p *doc.Project, g *doc.Layer, m *doc.Move) bool {
	if g := m.Goes(); g == nil || !g.Turns || g.Round != nil || m.Unit != "" || m.Continues != "" {
		return false
	}
	for _, l := range g.Children {
		if l.Place.FlipX || l.Place.FlipY {
			return false
		}
		for _, k := range l.Moves {
			if c := k.Comes(); c == nil || !c.Still {
				return false
			}
		}
	}
	exact := true
	for _, s := range p.Film.Scenes {
		doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
			for _, k := range l.Moves {
				exact = exact && k.Continues != m.ID
			}
			return exact
		})
	}
	return exact
}

// pivotAt gives a layer that is not mirrored its pivot at a point of the axes its place is in.
func pivotAt(l *doc.Layer, at geom.Point) {
	if inv, ok := axes(l).Inverse(); ok {
		p := inv.Apply(at)
		l.Place.Pivot = &[2]float64{p.X, p.Y}
	}
}

// handDown gives the moves of a group that can be handed down to each of its layers. What hung on one of them hangs on that of the first
// layer; layers hang on their own.
func handDown(s *doc.Scene, g *doc.Layer, list []*doc.Move) {
	if len(g.Children) == 0 {
		return
	}
	name := func(move string, l *doc.Layer) string { return derive("down/"+move, l.ID) }
	to := func(l *doc.Layer) map[string]string {
		ids := map[string]string{}
		for _, m := range list {
			ids[m.ID] = name(m.ID, l)
		}
		return ids
	}
	hang := func(m *doc.Move, ids map[string]string) {
		for _, of := range []*string{&m.Start.Of, &m.Until} {
			if id, ok := ids[*of]; ok {
				*of = id
			}
		}
		if m.End != nil {
			if id, ok := ids[m.End.Of]; ok {
				m.End.Of = id
			}
		}
	}
	first := to(g.Children[0])
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		if l != g {
			for _, m := range l.Moves {
				hang(m, first)
			}
		}
		return true
	})
	for i := range s.Runs {
		for k, id := range s.Runs[i].Moves {
			if now, ok := first[id]; ok {
				s.Runs[i].Moves[k] = now
			}
		}
	}
	for _, l := range g.Children {
		own := to(l)
		var down []*doc.Move
		for _, m := range list {
			k := m.Clone()
			k.ID = own[m.ID]
			k.Continues = ""
			hang(k, own)
			down = append(down, k)
		}
		l.Moves = append(down, l.Moves...)
	}
}

// turnPaths turns the motion paths of a layer whose axes are turned by degrees, so that it goes the way it went.
func turnPaths(l *doc.Layer, degrees float64) error {
	if degrees == 0 {
		return nil
	}
	for _, m := range l.Moves {
		if m.Path == nil {
			continue
		}
		p, err := geom.ParseData(m.Path.D)
		if err != nil {
			return err
		}
		out := &geom.Path{}
		out.Append(p, geom.Rotate(degrees))
		m.Path.D = out.Data()
	}
	return nil
}
