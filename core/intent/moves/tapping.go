package moves

import (
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
)

var tappingAsked = intent.Table{
	// Moves begin when they were tapped, while the film played.
	"moves.tapped": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Taps []struct {
			Move string `json:"move"`
			At   int64  `json:"at"` // ms of the film
		} `json:"taps"`
	}) (edit.Command, error) {
		begins := map[string]int64{}
		for _, tap := range c.Taps {
			m, _, i := s.Move(tap.Move)
			if m == nil || m.TiedIn(s.Doc.Film.Scenes[i]) {
				continue // it has no begin of its own
			}
			at := tap.At - s.Film.Order.Begin(i)
			begins[tap.Move] = min(max((at+5)/10*10, -s.Film.Order.Into[i]), s.Film.Timing(i).Stay)
		}
		return retime(s, begins, nil)
	}),
}
