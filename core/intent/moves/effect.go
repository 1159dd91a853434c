package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var effectAsked = intent.Table{
	// Another effect of a move's kind: it starts, lasts and goes by unit as it did; the numbers of the effect before go.
	"move.effect": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Move   string `json:"move"`
		Effect string `json:"effect"`
	}) (edit.Command, error) {
		mv, l, _ := s.Move(c.Move)
		if mv == nil {
			return nil, words.New("move.gone")
		}
		if mv.Effect == c.Effect {
			return nil, nil
		}
		fresh, err := newMove(s, m, l, mv.Kind, c.Effect)
		if err != nil {
			return nil, err
		}
		patch := edit.Fields{"effect": c.Effect, "easing": nil, "wipe": nil, "slide": nil, "spin": nil, "rock": nil, "scroll": nil}
		if fresh.Easing != "" {
			patch["easing"] = fresh.Easing
		}
		switch c.Effect {
		case doc.Wipe:
			patch["wipe"] = edit.Fields{"direction": directionOf(mv, fresh.Wipe.Direction)}
		case doc.Slide:
			patch["slide"] = edit.Fields{"direction": directionOf(mv, fresh.Slide.Direction)}
		case doc.Spin:
			patch["spin"] = edit.Fields{}
		case doc.Rock:
			patch["rock"] = edit.Fields{"angle": fresh.Rock.Angle}
		case doc.Scroll:
			patch["scroll"] = edit.Fields{"direction": fresh.Scroll.Direction, "speed": fresh.Scroll.Speed}
		}
		switch {
		case c.Effect == doc.AtOnce && mv.Unit == "":
			patch["duration"] = nil
		case c.Effect == doc.Scroll: // it has no cycles
			for _, of := range []string{"repeat", "until", "alternate", "continues"} {
				patch[of] = nil
			}
			if mv.Lasts != "" {
				patch["duration"] = nil
			}
		case mv.Duration == 0 && fresh.Duration > 0:
			patch["duration"] = fresh.Duration
		}
		if mv.Effect == doc.Scroll && mv.Lasts == "" {
			patch["repeat"] = 1
		}
		if mv.Kind == doc.Loop && c.Effect != doc.Rock {
			for _, of := range []string{"unit", "order", "overlap", "seed", "from"} {
				patch[of] = nil
			}
		}
		return notTooEarly(s, c.Move, edit.SetMove(c.Move, endingWithScene(s, c.Move, patch)))
	}),
}

// directionOf is the direction that a move goes in, or the usual one.
func directionOf(m *doc.Move, usual float64) float64 {
	switch {
	case m.Wipe != nil:
		return m.Wipe.Direction
	case m.Slide != nil:
		return m.Slide.Direction
	}
	return usual
}
