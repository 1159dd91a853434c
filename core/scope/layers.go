package scope

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
)

// InOrder returns chosen layers from the rearmost on, without those inside others.
func (s *Scope) InOrder(m Moment, threads []string) (list []*doc.Layer) {
	chosen := Outermost(s.Scene(m), s.Layers(m, threads))
	doc.Walk(s.Scene(m).Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(chosen, l) {
			list = append(list, l)
			return false
		}
		return true
	})
	return
}

// Outermost leaves out layers inside others of the list.
func Outermost(sc *doc.Scene, list []*doc.Layer) []*doc.Layer {
	chosen := map[string]bool{}
	for _, l := range list {
		chosen[l.ID] = true
	}
	var out []*doc.Layer
	for _, l := range list {
		inner := false
		for _, p := sc.Layer(l.ID); p != nil; _, p = sc.Layer(p.ID) {
			inner = inner || chosen[p.ID]
		}
		if !inner {
			out = append(out, l)
		}
	}
	return out
}

// Move returns a move with its layer and its scene's place in the document; -1 where there is none.
func (s *Scope) Move(id string) (*doc.Move, *doc.Layer, int) {
	for i, sc := range s.Doc.Film.Scenes {
		if m, l := sc.Move(id); m != nil {
			return m, l, i
		}
	}
	return nil, nil, -1
}

// Layers returns the layers of the moment's scene that the threads name, in that order.
func (s *Scope) Layers(m Moment, threads []string) []*doc.Layer {
	var out []*doc.Layer
	sc := s.Scene(m)
	find := sc.Thread
	if len(threads) > 16 { // looked for one by one, a thousand would take a second
		all := make(map[string]*doc.Layer, len(threads))
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool { all[l.Thread] = l; return true })
		find = func(t string) *doc.Layer { return all[t] }
	}
	for _, t := range threads {
		if l := find(t); l != nil {
			out = append(out, l)
		}
	}
	return out
}

// IDs are the ids of layers, in their order.
func IDs(list []*doc.Layer) []string {
	out := make([]string, len(list))
	for i, l := range list {
		out[i] = l.ID
	}
	return out
}

// Inside reports whether a layer lies in a group, at any depth.
func Inside(g *doc.Layer, id string) (is bool) {
	doc.Walk(g.Children, func(l, _ *doc.Layer) bool {
		is = is || l.ID == id
		return !is
	})
	return
}

// BoxOf is the upright box around corners.
func BoxOf(c [4]geom.Point) geom.Box {
	b := geom.EmptyBox()
	for _, q := range c {
		b = b.Include(q)
	}
	return b
}
