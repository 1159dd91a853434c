package series

import (
	"crypto/sha256"
	"encoding/base32"
	"strings"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/geom"
)

// Derive makes the id of a copy from a command's seed, the same on every machine. It must stay as it is: stored commands are carried out again, and
// later ones name what came out.
func Derive(seed, id string) string {
	h := sha256.Sum256([]byte(seed + "/" + id))
	return strings.ToLower(base32.StdEncoding.EncodeToString(h[:])[:12])
}

// Remap gives the layers, moves and cues of a copied scene new ids and hangs hitches on the new moves.
func Remap(s *doc.Scene, seed string, old map[string]string) {
	ids := map[string]string{}
	id := func(was string) string {
		n := Derive(seed, was)
		ids[was], old[n] = n, was
		return n
	}
	for i := range s.Cues {
		s.Cues[i].ID = id(s.Cues[i].ID)
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		l.ID = id(l.ID)
		for _, m := range l.Moves {
			m.ID = id(m.ID)
		}
		return true
	})
	for _, q := range s.Sounds {
		if q == nil {
			continue // validation says so
		}
		q.ID = id(q.ID)
		for i := range q.Marks {
			q.Marks[i].ID = id(q.Marks[i].ID)
		}
	}
	to := func(was string) string {
		if n, ok := ids[was]; ok {
			return n
		}
		return was
	}
	s.EndsAtCue = to(s.EndsAtCue)
	for i := range s.Runs {
		s.Runs[i].ID = Derive(seed, s.Runs[i].ID)
		for k := range s.Runs[i].Moves {
			s.Runs[i].Moves[k] = to(s.Runs[i].Moves[k])
		}
	}
	for _, q := range s.Sounds {
		if q == nil {
			continue // validation says so
		}
		q.Start.Of = to(q.Start.Of)
		if q.End != nil {
			q.End.Of = to(q.End.Of)
		}
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			m.Start.Of, m.Until = to(m.Start.Of), to(m.Until)
			m.Rename(to)
			if m.End != nil {
				m.End.Of = to(m.End.Of)
			}
		}
		return true
	})
}

// Rethread gives layers of a scene other threads, and moves that name these layers, too.
func Rethread(s *doc.Scene, to map[string]string) {
	now := func(thread string) string {
		if n, other := to[thread]; other {
			return n
		}
		return thread
	}
	doc.Walk(s.Layers, func(l, _ *doc.Layer) bool {
		l.Thread = now(l.Thread)
		l.RenameThreads(now)
		return true
	})
}

// TurnAbout adds a turn about the layer's pivot to its place.
func TurnAbout(l *doc.Layer, film *frame.Film, scene int, deg float64) {
	if deg == 0 {
		return
	}
	_, pivot := film.Box(scene, l.ID)
	before := geom.Rotate(l.Place.Turn).ApplyVector(pivot)
	l.Place.Turn += deg
	after := geom.Rotate(l.Place.Turn).ApplyVector(pivot)
	l.Place.X += before.X - after.X
	l.Place.Y += before.Y - after.Y
}

// Becoming calls f with what each change of a layer names.
func Becoming(l *doc.Layer, f func(b *doc.Becomes)) {
	for _, m := range l.Moves {
		if m.Kind == doc.Change && m.Change != nil {
			f(&m.Change.To)
		}
	}
}

// Settle gives a layer what its changes have made of it; its moves and what lies in it stay: is says what, scaled how many times as large it has become, which grow
// makes it.
func Settle(l, is *doc.Layer, scaled float64, grow func(l *doc.Layer, times float64) error) error {
	// The film's layer is the document's: what is done to this one must not reach it.
	head := *is
	head.Moves, head.Children = nil, nil
	own := head.Clone()
	own.Moves, own.Children = l.Moves, l.Children
	*l = *own
	if scaled > 0 && scaled != 1 {
		return grow(l, scaled)
	}
	return nil
}
