package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

var tyingAsked = intent.Table{
	// An edge of a wipe, or of doors, is driven by another layer's: it goes the way of that.
	"tie": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move   string `json:"move"`
		Thread string `json:"thread"`
	}) (edit.Command, error) {
		return tie(s, c.Move, c.Thread)
	}),
	// It goes by its own time again: by the time it has.
	"untie": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move string `json:"move"`
	}) (edit.Command, error) {
		return untie(s, c.Move)
	}),
}

func tie(s *intent.Desk, id, thread string) (edit.Command, error) {
	m, _, i := s.Move(id)
	if m == nil {
		return nil, words.New("move.gone")
	}
	e := m.Does()
	if e == nil || m.Comes() == nil || m.Comes().TieTo == nil {
		return nil, words.New("tie.effect", motion.Name(m))
	}
	sc := s.Doc.Film.Scenes[i]
	driver := sc.Thread(thread)
	if driver == nil {
		return nil, words.New("tie.gone")
	}
	patch := edit.Fields{"params": edit.Fields(m.Comes().TieTo(e.Complete(m.Params), thread, s.Film.Travel(i, driver.ID)))}
	if m.Unit != "" {
		for _, of := range []string{"unit", "order", "overlap", "seed", "from"} {
			patch[of] = nil
		}
	}
	return edit.SetMove(id, patch), nil
}

func untie(s *intent.Desk, id string) (edit.Command, error) {
	m, l, i := s.Move(id)
	if m == nil {
		return nil, words.New("move.gone")
	}
	if !m.Tied() {
		return nil, nil
	}
	patch := edit.Fields{"params": edit.Fields(m.Does().Untied())}
	if curve, ok := s.Film.TieCurve(i, l.ID, id); ok {
		patch["start"] = doc.Start{When: doc.AtTime, Offset: curve.Begin}
		patch["duration"], patch["end"] = max(curve.End-curve.Begin, doc.MinDuration), nil
	}
	return edit.SetMove(id, patch), nil
}

// tiedTo returns the fault for what would hang on a tied move of a scene; nil for one that goes by its own time.
func tiedTo(s *intent.Desk, id string) error {
	m, l, i := s.Move(id)
	if m == nil || !m.TiedIn(s.Doc.Film.Scenes[i]) {
		return nil
	}
	driver := s.Doc.Film.Scenes[i].Thread(m.Ties().Layers()[0])
	return words.New("hitch.tied", motion.Name(m), l.Name, driver.Name)
}
