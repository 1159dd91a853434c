package moves

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
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
			if m.Effect != doc.Scroll {
				continue
			}
			within := s.Film.Order.Stays[i]
			if c.Film {
				within = s.Film.Order.Length
			}
			box, _ := s.Film.Box(i, l.ID)
			speed := math.Round(motion.Period(m, box)*c.Rounds/float64(max(within, 1))*1000*1e4) / 1e4
			if c.Rounds <= 0 || speed < 1 || speed > 100000 {
				return nil, words.New("scroll.rounds")
			}
			set = append(set, edit.Part{ID: id, Patch: edit.Fields{"scroll": edit.Fields{"speed": speed}}})
		}
		if len(set) == 0 {
			return nil, words.New("moves.unfit")
		}
		return &edit.SetMoves{Set: set}, nil
	}),
}
