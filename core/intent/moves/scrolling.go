package moves

import (
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var scrollingAsked = intent.Table{
	// Scrolls get the speed at which they come round so often in their scene, or in the film.
	"scroll.rounds": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves  []string `json:"moves"`
		Rounds float64  `json:"rounds"`
		Film   bool     `json:"film"` // in all of it, not in the scene's stay
	}) (edit.Command, error) {
		var set []edit.Part
		for _, id := range c.Moves {
			m, l, i := s.Move(id)
			if m == nil {
				return nil, words.New("move.gone")
			}
			g := m.Goes()
			if g == nil || g.Rounded == nil {
				continue
			}
			within := s.Film.Order.Stays[i]
			if c.Film {
				within = s.Film.Order.Length
			}
			box, _ := s.Film.Box(i, l.ID)
			params, ok := g.Rounded(effect.Of{Params: m.Full(), Kind: m.Kind, Box: box}, c.Rounds, float64(within))
			if !ok {
				return nil, words.New("scroll.rounds")
			}
			set = append(set, edit.Part{ID: id, Patch: edit.Fields{"params": edit.Fields(params)}})
		}
		if len(set) == 0 {
			return nil, words.New("moves.unfit")
		}
		return &edit.SetMoves{Set: set}, nil
	}),
}
