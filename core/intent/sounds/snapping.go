package sounds

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Snap is how far sounds are dragged when an end of the first comes near something: to what, and in words.
type Snap struct {
	By    int64  `json:"by"`
	At    int64  `json:"at"` // ms of the film; -1: it is near nothing
	Words string `json:"words"`
}

// SnapSound finds what an end of a sound that is dragged by so many ms comes within a tolerance of: begins and ends of moves, of scenes and of other sounds, cues,
// and the playhead. part is which end is dragged, begin or end; else both go along.
func SnapSound(s *intent.Desk, m scope.Moment, ids []string, part string, by, tolerance int64) Snap {
	out := Snap{By: by, At: -1}
	if len(ids) == 0 {
		return out
	}
	q, sc := s.Doc.Film.Sound(ids[0])
	if q == nil {
		return out
	}
	o := s.Film.Order
	ends := func(q *doc.Sound, sc *doc.Scene) (begin, end int64) {
		begin, end = heard(s, q, sc)
		if sc != nil {
			i, _ := s.Doc.Scene(sc.ID)
			begin, end = begin+o.Begin(i), end+o.Begin(i)
		}
		return begin, end
	}
	begin, end := ends(q, sc)
	best := tolerance + 1
	try := func(at int64, what string) {
		for _, own := range []struct {
			at         int64
			part, verb string
		}{{begin, "begin", "begins"}, {end, "end", "ends"}} {
			if part != "whole" && part != own.part {
				continue
			}
			d := at - own.at - by
			if a := max(d, -d); a < best {
				best, out = a, Snap{by + d, at, own.verb + " " + what}
			}
		}
	}
	try(0, "with the film")
	try(o.Length, "with the film’s end")
	for i, c := range s.Doc.Film.Shown() {
		at, t := o.Begin(i), s.Film.Timing(i)
		if i > 0 {
			try(at, "with "+c.Name)
		}
		doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
			for _, v := range l.Moves {
				iv := t.Moves[v.ID]
				name := fmt.Sprintf("%s of %s", motion.Name(v), l.Name)
				try(at+iv.Begin, "when "+name+" begins")
				if v.Lasts == "" {
					try(at+iv.End, "when "+name+" ends")
				}
			}
			return true
		})
		for _, cue := range c.Cues {
			try(at+motion.CueTime(c, cue.ID), "at cue "+cue.Name)
		}
	}
	s.Doc.Film.EachSound(func(other *doc.Sound, osc *doc.Scene) {
		if other != q && (osc == nil || !osc.Aside) {
			b, e := ends(other, osc)
			try(b, "when "+other.Name+" begins")
			try(e, "when "+other.Name+" ends")
		}
	})
	for _, at := range s.Film.Beats() {
		if q.Beats == nil {
			try(at, "on a beat")
		}
	}
	if !m.Rest {
		try(int64(m.Time+0.5), "at the playhead")
	}
	return out
}
