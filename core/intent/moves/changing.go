package moves

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// How long a new change takes, and each way of one that comes back, ms (docs/motion.md, Defaults).
const (
	changeLasts    = 600
	emphasisesEach = 400
	panPage        = 7000 // a page's width
)

// pushes is how many times as large a view shows what it pushes in on, over the stay.
const pushes = 1.08

// newChange makes a change as it is offered; the plain one names nothing yet.
func newChange(s *intent.Desk, m *doc.Move, l *doc.Layer, variant string, stay int64) (*doc.Move, error) {
	m.Duration = changeLasts
	if u, ok := s.Last[UsedKey(m, variant)]; ok && u.Duration > 0 {
		m.Duration, m.Easing = u.Duration, u.Easing
	}
	v := func(n float64) *float64 { return &n }
	to := doc.Becomes{}
	views := map[string]bool{"push": true, "pull": true, "pan": true}
	if variant != "" && views[variant] != (l.Kind == doc.ViewKind) {
		return nil, words.New("view.not", l.Name)
	}
	rest := max(stay-m.Start.Offset, changeLasts)
	switch variant {
	case "":
	case "push", "pull":
		k := pushes
		if variant == "pull" {
			k = 1 / pushes
		}
		m.Duration = rest
		to.W, to.H = v(geom.Hundredth(l.Place.W/k)), v(geom.Hundredth(l.Place.H/k))
	case "pan":
		by := l.Place.W / 2
		to.X = v(geom.Hundredth(l.Place.X + by))
		m.Duration, m.Easing = min(rest, int64(panPage*by/float64(s.Doc.Film.Width))/10*10), "linear"
	case "emphasise":
		m.Duration, m.Repeat, m.Alternate = emphasisesEach, 2, true
		to.Scale = v(1.12)
	case "gather", "scatter":
		if len(l.Is().Units) == 0 {
			return nil, words.New("change.partless", l.Name)
		}
		m.Repeat, m.Alternate = 2, true
		if to.Apart = v(0.4); variant == "scatter" {
			to.Apart = v(1.6)
		}
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

// sways reports whether a loop moves a view: it turns it, grows it, or moves it about.
func sways(kind, name string) bool {
	e := effect.As(kind, name)
	return kind == doc.Loop && e != nil && e.Goes.Manner == effect.Swings && !e.Goes.Parted && e.Goes.Rule != nil && shakes(e)
}

func shakes(e *effect.Effect) bool {
	rule := e.Goes.Rule(effect.Of{Params: e.Complete(nil), Kind: doc.Loop, Pass: 1000, Seed: 1})
	for _, at := range []float64{0.2, 0.3, 0.6} {
		if g := rule(at); g.Turn != 0 || g.Growth != 0 || g.Sway.Len() > 0 {
			return true
		}
	}
	return false
}
