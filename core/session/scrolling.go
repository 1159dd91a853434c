package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/core/words"
)

// roundsOf returns how often a scroll comes round in its scene's stay and in the whole film.
func (s *Session) roundsOf(i int, l *doc.Layer, m *doc.Move) *[2]float64 {
	if m.Effect != doc.Scroll {
		return nil
	}
	cycle := s.shown.Cycle(i, m, l.ID)
	if cycle <= 0 {
		return nil
	}
	return &[2]float64{float64(s.shown.Order.Stays[i]) / float64(cycle), float64(s.shown.Order.Length) / float64(cycle)}
}

var scrollingAsked = table{
	// Scrolls get the speed at which they come round so often in their scene, or in the film.
	"scroll.rounds": of(func(s *Session, _ Moment, c *struct {
		Moves  []string `json:"moves"`
		Rounds float64  `json:"rounds"`
		Film   bool     `json:"film"` // in all of it, not in the scene's stay
	}) (edit.Command, error) {
		var set []edit.Part
		for _, id := range c.Moves {
			m, l, i := s.move(id)
			if m == nil {
				return nil, words.New("move.gone")
			}
			if m.Effect != doc.Scroll {
				continue
			}
			within := s.film.Order.Stays[i]
			if c.Film {
				within = s.film.Order.Length
			}
			box, _ := s.film.Box(i, l.ID)
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
