package moves

import (
	"sort"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
)

// Target is a move that another may hang on.
type Target struct {
	Move string `json:"move"`
	Name string `json:"name"` // with its layer
	Why  string `json:"why"`  // why it cannot hang there, in words; empty: it can
}

// What of a move hangs on others.
const (
	itsStart = "start"
	itsEnd   = "end"
	itsUntil = "until" // how long it repeats
)

// hardestSought is how many moves that hang on the one asked about are tried out one by one; beyond, they are taken to make a ring.
const hardestSought = 24

// Targets returns the other moves of a move's scene that its start, its end, or how long it repeats may hang on, when they begin or end:
// those it can hang on first, of these the nearest in time.
func Targets(s *intent.Desk, id, part, when string) []Target {
	m, own, i := s.Move(id)
	if m == nil {
		return []Target{}
	}
	sc, t := s.Doc.Film.Scenes[i], s.Film.Timing(i)
	hanging := followers(sc, []string{id})
	at := t.Moves[id].Begin
	if part == itsEnd {
		at = t.Moves[id].End
	}
	type found struct {
		Target
		far int64
	}
	var list []found
	sought := 0
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		for _, o := range l.Moves {
			if o.ID == id || o.TiedIn(sc) {
				continue // nothing hangs on what another layer drives: that one's own moves are in the list
			}
			v := found{Target: Target{Move: o.ID, Name: motion.Name(o)}}
			if l != own {
				v.Name += " of " + l.Name
			}
			moment := t.Moves[o.ID].Begin
			if when == doc.WhenEnds {
				moment = t.Moves[o.ID].End
			}
			v.far = max(moment-at, at-moment)
			switch {
			case when == doc.WhenEnds && o.Lasts != "":
				v.Why = "it lasts as long as the scene"
			case hanging[o.ID]:
				if sought++; sought > hardestSought || !hangs(s, id, part, when, o.ID) {
					v.Why = "it hangs on this one"
				}
			}
			list = append(list, v)
		}
		return true
	})
	sort.SliceStable(list, func(a, b int) bool {
		if x, y := list[a].Why == "", list[b].Why == ""; x != y {
			return x
		}
		return list[a].far < list[b].far
	})
	out := make([]Target, len(list))
	for k, v := range list {
		out[k] = v.Target
	}
	return out
}

// hangs reports whether a move can be made to hang on another without closing a ring.
func hangs(s *intent.Desk, id, part, when, of string) bool {
	var c edit.Command
	var err error
	switch part {
	case itsEnd:
		m, _, _ := s.Move(id)
		c, err = endWith(s, id, when, of, m.End != nil && m.End.Stretches)
	case itsUntil:
		c = edit.SetMove(id, edit.Fields{"until": of, "lasts": nil})
	default:
		c, err = hang(s, id, when, of)
	}
	if err != nil {
		return false
	}
	_, err = edit.Preview(s.Doc, c, s.Assets())
	return err == nil
}
