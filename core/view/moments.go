package view

import (
	"capstan/core/doc"
	"capstan/core/scope"
)

// MomentOf returns the film time, in ms, of a moment of a move: its "start", its "end", or its "rest", when its layer stands as it
// does at rest: where an entrance or an arriving path ends, where anything else begins.
func (s *Views) MomentOf(id, what string) (float64, bool) {
	m, l, i := s.Move(id)
	if m == nil {
		return 0, false
	}
	iv := s.Film.Timing(i).Moves[id]
	if at, ok := s.Film.Lasting(i, l.Thread, id); ok {
		iv = at
	}
	at := iv.Begin
	if what == "end" || what == "rest" && (m.Kind == doc.Entrance || m.Path != nil && m.Path.Rest == doc.Arrives) {
		at = iv.End
	}
	time, last := float64(s.Film.Order.Begin(i)+at), i == len(s.Film.Order.Starts)-1
	if end := float64(s.Film.Order.Begin(i) + s.Film.Order.Stays[i]); time >= end && !last && m.Lasts != doc.WholeThread {
		time = end - inScene
	}
	return time, true
}

// inScene is how long before its end a scene is still looked at as the one that is shown, in ms.
const inScene = 0.5

// Span returns from when to when the moves last, in ms of the film; without any, the moment's scene.
func (s *Views) Span(m scope.Moment, moves []string) [2]int64 {
	i := s.SceneIndex(m)
	o := s.Film.Order
	out := [2]int64{o.Begin(i), o.Begin(i) + o.Stays[i]}
	found := false
	for _, id := range moves {
		mv, _, k := s.Move(id)
		if mv == nil {
			continue
		}
		iv := s.Film.Timing(k).Moves[id]
		a, b := o.Begin(k)+iv.Begin, min(o.Begin(k)+iv.End, o.Begin(k)+o.Stays[k])
		if !found {
			out, found = [2]int64{a, b}, true
		}
		out = [2]int64{min(out[0], a), max(out[1], b)}
	}
	return out
}
