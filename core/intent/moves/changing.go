package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// How long a new change takes, and each way of one that comes back, ms (docs/motion.md, Defaults).
const (
	changeLasts    = 600
	emphasisesEach = 400
)

// newChange makes a change as it is offered; the plain one names nothing yet.
func newChange(s *intent.Desk, m *doc.Move, l *doc.Layer, variant string) (*doc.Move, error) {
	m.Duration = changeLasts
	if u, ok := s.Last[UsedKey(m, variant)]; ok && u.Duration > 0 {
		m.Duration, m.Easing = u.Duration, u.Easing
	}
	v := func(n float64) *float64 { return &n }
	to := doc.Becomes{}
	switch variant {
	case "":
	case "emphasise":
		m.Duration, m.Repeat, m.Alternate = emphasisesEach, 2, true
		to.Scale = v(1.12)
	case "grow":
		to.Scale = v(1.5)
	case "shrink":
		to.Scale = v(0.6)
	case "turn":
		to.Turn = v(l.Place.Turn + 90)
	case "dim":
		to.Opacity = v(min(l.Opacity, 0.35))
	default:
		return nil, words.New("move.unknown", doc.Change, variant)
	}
	m.Change = &doc.ChangeParams{To: to}
	return m, nil
}

var changingAsked = intent.Table{
	// What a change names is taken out of it: that stays as it is.
	"change.drop": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Move   string   `json:"move"`
		Fields []string `json:"fields"`
	}) (edit.Command, error) {
		m, _, _ := s.Move(c.Move)
		if m == nil || m.Change == nil {
			return nil, words.New("move.gone")
		}
		gone := edit.Fields{}
		for _, name := range c.Fields {
			gone[name] = nil
		}
		return edit.SetMove(c.Move, edit.Fields{"change": edit.Fields{"to": gone}}), nil
	}),
}
