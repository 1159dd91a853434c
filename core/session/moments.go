package session

import "capstan/core/doc"

// MomentOf returns the film time, in ms, of a moment of a move: its "start", its "end", or its "rest", when its layer stands as it
// does at rest: where an entrance or an arriving path ends, where anything else begins.
func (s *Session) MomentOf(id, what string) (float64, bool) {
	m, l, i := s.move(id)
	if m == nil {
		return 0, false
	}
	iv := s.film.Timing(i).Moves[id]
	if at, ok := s.film.Lasting(i, l.Thread, id); ok {
		iv = at
	}
	at := iv.Begin
	if what == "end" || what == "rest" && (m.Kind == doc.Entrance || m.Path != nil && m.Path.Rest == doc.Arrives) {
		at = iv.End
	}
	time, last := float64(s.film.Order.Begin(i)+at), i == len(s.film.Order.Starts)-1
	if end := float64(s.film.Order.Begin(i) + s.film.Order.Stays[i]); time >= end && !last && m.Lasts != doc.WholeThread {
		time = end - inScene
	}
	return time, true
}

// inScene is how long before its end a scene is still looked at as the one that is shown, in ms.
const inScene = 0.5

// Span returns from when to when the moves last, in ms of the film; without any, the moment's scene.
func (s *Session) Span(m Moment, moves []string) [2]int64 {
	i := s.sceneIndex(m)
	o := s.film.Order
	out := [2]int64{o.Begin(i), o.Begin(i) + o.Stays[i]}
	found := false
	for _, id := range moves {
		mv, _, k := s.move(id)
		if mv == nil {
			continue
		}
		iv := s.film.Timing(k).Moves[id]
		a, b := o.Begin(k)+iv.Begin, min(o.Begin(k)+iv.End, o.Begin(k)+o.Stays[k])
		if !found {
			out, found = [2]int64{a, b}, true
		}
		out = [2]int64{min(out[0], a), max(out[1], b)}
	}
	return out
}
