package session

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/motion"
)

// Snap is where a dragged bar comes to lie, and on what, in words.
type Snap struct {
	By    int64  `json:"by"`    // ms, instead of the asked ones
	At    int64  `json:"at"`    // ms of the film, where it snapped; -1: nowhere
	Words string `json:"words"` // "begins when Path of Kite ends"
}

// SnapBar returns how far a bar, or one of its ends, is dragged when it snaps to what lies within a tolerance of ms: begins and
// ends of other moves of its scene, the scene's own begin and end, and the playhead. Nearest wins; moves go before the
// scene and the playhead.
func (s *Session) SnapBar(m Moment, id, part string, by, tolerance int64) Snap {
	out := Snap{By: by, At: -1}
	mv, _, i := s.move(id)
	if mv == nil {
		return out
	}
	sc, t := s.doc.Film.Scenes[i], s.film.Timing(i)
	iv := t.Moves[id]
	start := s.film.Order.Begin(i)
	best := tolerance + 1
	try := func(own int64, verb string, at int64, what string) {
		d := at - own - by
		if a := max(d, -d); a < best {
			best = a
			out = Snap{by + d, start + at, verb + " " + what}
		}
	}
	each := func(own int64, verb string) {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			for _, o := range l.Moves {
				if o.ID == id {
					continue
				}
				name := fmt.Sprintf("%s of %s", motion.Name(o), l.Name)
				try(own, verb, t.Moves[o.ID].Begin, "when "+name+" begins")
				if !t.Moves[o.ID].Whole {
					try(own, verb, t.Moves[o.ID].End, "when "+name+" ends")
				}
			}
			return true
		})
		try(own, verb, 0, "with the scene")
		try(own, verb, t.Stay, "at the scene’s end")
		if !m.Rest {
			if w := s.film.Order.At(instant(m.Time)); w.Scene == i {
				try(own, verb, int64(w.Clock.Ms()+0.5), "at the playhead")
			}
		}
	}
	if part != "end" {
		each(iv.Begin, "begins")
	}
	if part != "begin" && mv.Effect != doc.AtOnce {
		each(iv.End, "ends")
	}
	return out
}
