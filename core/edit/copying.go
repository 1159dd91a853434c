package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/motion"
	"capstan/core/series"
)

// copyIDs gives copied layers new ids, and new threads unless they may keep theirs. Hitches inside the set are
// re-mapped; those to moves and cues of the scene stay, others become the resolved times of begins.
func copyIDs(s *doc.Scene, layers []*doc.Layer, seed string, keepThreads bool, begins map[string]int64) {
	box := &doc.Scene{Layers: layers}
	hung := map[*doc.Move]int64{} // to its resolved begin
	threads := map[string]string{}
	doc.Walk(layers, func(l, _ *doc.Layer) bool {
		if !keepThreads {
			threads[l.Thread] = CopyThread(seed, l.ID)
			l.Thread = threads[l.Thread]
		}
		for _, m := range l.Moves {
			m.Continues = ""
			at, ok := begins[m.ID]
			if !ok {
				at = max(m.Start.Offset, 0)
			}
			hung[m] = at
		}
		return true
	})
	doc.Walk(layers, func(l, _ *doc.Layer) bool {
		l.RenameThreads(func(t string) string {
			if n, ok := threads[t]; ok {
				return n
			}
			return t
		})
		return true
	})
	series.Remap(box, seed, map[string]string{})
	known := func(id string) bool {
		a, _ := box.Move(id)
		b, _ := s.Move(id)
		return a != nil || b != nil
	}
	for m, at := range hung {
		resolved := doc.Start{When: doc.AtTime, Offset: at}
		switch m.Start.When {
		case doc.WhenBegins, doc.WhenEnds:
			if !known(m.Start.Of) {
				m.Start = resolved
			}
		case doc.WhenHeard, doc.WhenSilent:
			if !s.Holds(m.Start) {
				m.Start = resolved
			}
		case doc.AtCue:
			if !slices.ContainsFunc(s.Cues, func(q doc.Cue) bool { return q.ID == m.Start.Of }) {
				m.Start = resolved
			}
		}
		if m.End != nil && m.End.When != doc.BeforeSceneEnd && !known(m.End.Of) {
			if !m.End.Stretches {
				m.Start = resolved
			}
			m.End = nil
		}
		if m.Until != "" && !known(m.Until) {
			m.Until = ""
		}
	}
}

func begins(t *motion.Timing) map[string]int64 {
	out := map[string]int64{}
	for id, iv := range t.Moves {
		out[id] = iv.Begin
	}
	return out
}
