package edit

import (
	"capstan/core/doc"
)

// copyIDs gives copied layers new ids, and new threads unless they may keep theirs. Hitches inside the set are
// re-mapped; those to moves of the scene stay, others become times.
func copyIDs(s *doc.Scene, layers []*doc.Layer, seed string, keepThreads bool) {
	box := &doc.Scene{Layers: layers}
	hung := map[*doc.Move]bool{}
	doc.Walk(layers, func(l, _ *doc.Layer) bool {
		if !keepThreads {
			l.Thread = derive(seed+"/thread", l.ID)
		}
		for _, m := range l.Moves {
			m.Continues = ""
			hung[m] = true
		}
		return true
	})
	remap(box, seed, map[string]string{})
	for m := range hung {
		known := func(id string) bool {
			a, _ := box.Move(id)
			b, _ := s.Move(id)
			return a != nil || b != nil
		}
		if (m.Start.When == doc.WhenBegins || m.Start.When == doc.WhenEnds) && !known(m.Start.Of) ||
			m.Start.When == doc.AtCue {
			m.Start = doc.Start{When: doc.AtTime, Offset: max(m.Start.Offset, 0)}
		}
		if m.End != nil && m.End.When != doc.BeforeSceneEnd && !known(m.End.Of) {
			m.End = nil
		}
		if m.Until != "" && !known(m.Until) {
			m.Until = ""
		}
	}
}
