package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var effectAsked = intent.Table{
	// Another effect of a move's kind: it starts, lasts and goes by unit as it did; the numbers of the effect before go.
	"move.effect": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Move    string `json:"move"`
		Effect  string `json:"effect"`
		Variant string `json:"variant"` // of the effect; empty: the plain one
	}) (edit.Command, error) {
		mv, l, _ := s.Move(c.Move)
		if mv == nil {
			return nil, words.New("move.gone")
		}
		if mv.Effect == c.Effect && c.Variant == "" && mv.Kind != doc.Change {
			return nil, nil
		}
		fresh, err := New(s, m, l, mv.Kind, c.Effect, c.Variant)
		if err != nil {
			return nil, err
		}
		s.Use(UsedKey(fresh, c.Variant), mv.Kind, c.Effect)
		if mv.Kind == doc.Change { // it goes when and as it did, unless it comes back now
			patch := edit.Fields{"change": *fresh.Change}
			if fresh.Alternate != mv.Alternate {
				patch["alternate"], patch["repeat"] = any(fresh.Alternate), any(fresh.Repeat)
				if !fresh.Alternate {
					patch["alternate"], patch["repeat"] = nil, nil
				}
			}
			return edit.SetMove(c.Move, patch), nil
		}
		patch := edit.Fields{"effect": c.Effect, "easing": nil, "params": paramsInstead(mv, fresh)}
		if fresh.Easing != "" {
			patch["easing"] = fresh.Easing
		}
		was, is := mv.Runs(), fresh.Runs()
		switch g := fresh.Goes(); {
		case c.Effect == mv.Effect:
		case fresh.Timeless() && mv.Unit == "":
			patch["duration"] = nil
		case is && mv.Lasts != "": // it has no cycles
			patch["duration"] = nil
		case g != nil && g.Cycle != nil:
			patch["duration"] = nil
		case mv.Duration == 0 && fresh.Duration > 0:
			patch["duration"] = fresh.Duration
		case mv.Duration == 0:
			patch["duration"] = 1000
		}
		if is {
			for _, of := range []string{"repeat", "until", "alternate", "continues"} {
				patch[of] = nil
			}
		} else if was && mv.Lasts == "" {
			patch["repeat"] = 1
		}
		if mv.Lasts == doc.WholeThread && !fresh.Drifts() {
			patch["lasts"] = doc.WholeScene
		}
		if fresh.Unit != "" {
			patch["unit"], patch["duration"] = fresh.Unit, max(mv.Duration, fresh.Duration)
		}
		if fresh.Seed != 0 {
			patch["seed"] = fresh.Seed
		}
		if !fresh.ByUnits() {
			for _, of := range []string{"unit", "order", "overlap", "from"} {
				patch[of] = nil
			}
		}
		return notTooEarly(s, c.Move, edit.SetMove(c.Move, endingWithScene(s, c.Move, patch)))
	}),
}

var lastAsked = intent.Table{
	// A move as one of its kind and effect was last given: its length, easing and numbers.
	"move.last": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Move string `json:"move"`
	}) (edit.Command, error) {
		mv, _, _ := s.Move(c.Move)
		if mv == nil {
			return nil, words.New("move.gone")
		}
		u, ok := s.Last[UsedKey(mv, "")]
		if !ok {
			return nil, words.New("move.unused", motion.Name(mv))
		}
		patch := edit.Fields{}
		if u.Duration > 0 && mv.Duration > 0 {
			patch["duration"] = u.Duration
		}
		if u.Easing != "" {
			patch["easing"] = u.Easing
		}
		if len(u.Params) > 0 {
			set := edit.Fields{}
			for name, v := range u.Params {
				set[name] = v
			}
			patch["params"] = set
		}
		return notTooEarly(s, c.Move, edit.SetMove(c.Move, endingWithScene(s, c.Move, patch)))
	}),
}

// paramsInstead are the parameters of a new move in place of those of another; it keeps the way that this one goes, where both have one.
func paramsInstead(m, fresh *doc.Move) edit.Fields {
	out := edit.Fields{}
	for name := range m.Params {
		out[name] = nil
	}
	for name, v := range fresh.Params {
		out[name] = v
	}
	full := m.Full()
	if e, was := fresh.Does(), m.Does(); e != nil && was != nil {
		for i := range e.Params {
			q := &e.Params[i]
			if o := was.Param(q.Name); o != nil && o.Control == q.Control && q.Control == effect.Direction && q.Check(full[q.Name]) == "" {
				out[q.Name] = full[q.Name]
			}
		}
	}
	return out
}
