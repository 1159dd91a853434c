package view

import (
	"cmp"
	"slices"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// roundsOf returns how often a scroll comes round in its scene's stay and in the whole film.
func (s *Views) roundsOf(i int, l *doc.Layer, m *doc.Move) *[2]float64 {
	if g := m.Goes(); g == nil || g.Pace == nil {
		return nil
	}
	cycle := s.Shown.Cycle(i, m, l.ID)
	if cycle <= 0 {
		return nil
	}
	return &[2]float64{float64(s.Shown.Order.Stays[i]) / float64(cycle), float64(s.Shown.Order.Length) / float64(cycle)}
}

// MoveView is a move in the inspector: its own fields, and what is worked out of them.
type MoveView struct {
	*doc.Move
	MoveFacts
}

// MoveFacts are what is worked out of a move. Times are ms on the scene's clock but for Film.
type MoveFacts struct {
	Name       string      `json:"name"`
	Words      string      `json:"words"`
	Begin      int64       `json:"begin"`
	Finish     int64       `json:"finish"`
	Early      bool        `json:"early"`
	Before     string      `json:"before"` // the loop of the scene before that it could go on from
	Units      []string    `json:"units"`  // what it can be divided into
	Film       int64       `json:"film"`   // ms of the film at its begin
	Cut        int64       `json:"cut"`    // ms beyond the scene's end
	EasingUsed string      `json:"easingUsed"`
	Speed      float64     `json:"speed"` // px/s of a path
	Profile    []float64   `json:"profile"`
	Reach      *[2]float64 `json:"reach"`  // of a path: from its begin to its end, px
	Rounds     *[2]float64 `json:"rounds"` // how often a scroll comes round in its scene, and in the film

	// Of its effect:
	Timed   bool           `json:"timed"`   // it takes time
	Eased   bool           `json:"eased"`   // its easing has a say
	Counted bool           `json:"counted"` // how long a cycle is follows from its parameters
	Runs    bool           `json:"runs"`    // its duration is how long it runs, not a cycle
	Drifts  bool           `json:"drifts"`  // it takes its layer along a line
	Chance  bool           `json:"chance"`  // it goes by its seed
	Cycles  string         `json:"cycles"`  // a cycle of it: "One turn"
	Times   string         `json:"times"`   // how many: "Turns"
	First   string         `json:"first"`   // to which side it goes first; empty: that goes without saying
	Others  []Named        `json:"others"`  // other moves, or layers by their threads, that a parameter of it may name
	Run     []Turn         `json:"run"`     // of those that go one after another with it, in their order; none: it goes by itself
	Becomes []Changes      `json:"becomes"` // what a change names
	Line    *motion.Preset `json:"line"`    // of a path, by its numbers; null: of other moves
	Points  int            `json:"points"`  // of a path's line; 0: of other moves
	Parted  bool           `json:"parted"`  // its layer has letters or parts that a change can bring apart
	Led     bool           `json:"tied"`    // other layers drive its edges: it has no begin and end of its own
	Wheel   *Wheel         `json:"wheel"`   // what a wheel seems to do; null: what it does
}

// Turn is one of the moves that go one after another.
type Turn struct {
	Move  string `json:"move"`
	Words string `json:"words"` // its layer
	Takes int64  `json:"takes"` // ms
}

// turns returns the moves that go one after another with a move of a scene.
func turns(sc *doc.Scene, m *doc.Move, t *motion.Timing) []Turn {
	list := []Turn{}
	for _, r := range sc.Runs {
		if r.When != doc.WhenEnds || !slices.Contains(r.Moves, m.ID) {
			continue
		}
		for _, id := range r.Moves {
			if _, l := sc.Move(id); l != nil {
				list = append(list, Turn{id, l.Name, t.Moves[id].End - t.Moves[id].Begin})
			}
		}
	}
	return list
}

// Changes are fields that a change names, by what they are called together.
type Changes struct {
	Words  string   `json:"words"`
	Fields []string `json:"fields"`
}

// changes returns what a change names.
func changes(m *doc.Move) []Changes {
	list := []Changes{}
	if m.Change == nil {
		return list
	}
	for _, name := range m.Change.To.Names() {
		called := cmp.Or(changedWords[name], name)
		if i := slices.IndexFunc(list, func(c Changes) bool { return c.Words == called }); i >= 0 {
			list[i].Fields = append(list[i].Fields, name)
		} else {
			list = append(list, Changes{called, []string{name}})
		}
	}
	return list
}

// Named is a move by what it is called.
type Named struct {
	Move  string `json:"move"` // or the thread of a layer
	Words string `json:"words"`
}

// others returns the moves of a scene that a parameter of a move may name: what goes by a pace, as the ground that a wheel rolls on.
func others(sc *doc.Scene, l *doc.Layer, m *doc.Move) []Named {
	list := []Named{}
	e := m.Does()
	switch {
	case m.Kind == doc.MotionPath:
		doc.Walk(sc.Layers, func(o, _ *doc.Layer) bool {
			if doc.Drives(o, l) && !o.Is().Looks && o.Kind != doc.TextKind && o.Kind != doc.Picture {
				list = append(list, Named{o.Thread, o.Name})
			}
			return true
		})
		return list
	case e != nil && e.NamesLayer():
		doc.Walk(sc.Layers, func(o, _ *doc.Layer) bool {
			if doc.Drives(o, l) && o.Mask == "" && !o.Is().Looks {
				list = append(list, Named{o.Thread, o.Name})
			}
			return true
		})
		return list
	case e == nil || !e.NamesMove():
		return list
	}
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		for _, o := range l.Moves {
			if g := o.Goes(); g != nil && g.Pace != nil && o.ID != m.ID {
				list = append(list, Named{o.ID, motion.Name(o) + " of " + l.Name})
			}
		}
		return true
	})
	return list
}

// effectFacts are those of a move's effect.
func effectFacts(m *doc.Move, f *MoveFacts) {
	f.Timed, f.Eased, f.Runs, f.Drifts, f.Cycles, f.Times = !m.Timeless(), m.Eased(), m.Runs(), m.Drifts(), "One cycle", "Times"
	if c := m.Comes(); c != nil {
		f.Chance = c.Seeded
	}
	if g := m.Goes(); g != nil {
		f.Chance = g.Seeded
		f.Counted = g.Cycle != nil
		f.Cycles, f.Times = cmp.Or(g.Cycles, f.Cycles), cmp.Or(g.Times, f.Times)
		if g.First != nil {
			f.First = g.First(m.Full())
		}
	}
}

// MarshalJSONTo keeps the embedded move's own encoding from taking over.
func (v MoveView) MarshalJSONTo(e *jsontext.Encoder) error {
	raw, err := flat(v)
	if err != nil {
		return err
	}
	return e.WriteValue(raw)
}

// moveView returns a move of a layer of scene i as the inspector shows it.
func (s *Views) moveView(sc *doc.Scene, i int, l *doc.Layer, mv *doc.Move) MoveView {
	t := s.Shown.Timing(i)
	iv := t.Moves[mv.ID]
	w := MoveView{mv, MoveFacts{
		Name: motion.Name(mv), Words: told(sc, l, mv, t), Begin: iv.Begin, Finish: iv.End, Early: iv.Early,
		EasingUsed: mv.Easing, Units: unitsOf(l, mv),
		Film: s.Shown.Order.Begin(i) + iv.Begin, Cut: max(0, iv.End-max(t.Stay, iv.Begin)),
	}}
	effectFacts(mv, &w.MoveFacts)
	w.Run, w.Becomes, w.Parted = turns(sc, mv, t), changes(mv), mv.Change != nil && len(l.Is().Units) > 0
	w.Others, w.Wheel = others(sc, l, mv), s.wheelOf(i, l, mv)
	w.Profile, w.Rounds = motion.Profile(mv, iv, 24), s.roundsOf(i, l, mv)
	if curve, ok := s.Shown.TieCurve(i, l.ID, mv.ID); ok {
		w.Led, w.Begin, w.Finish, w.Film, w.Cut, w.Early = true, curve.Begin, curve.End, s.Shown.Order.Begin(i)+curve.Begin, 0, false
		w.MoveFacts.Eased, w.MoveFacts.Timed, w.Profile = false, false, curve.Shares
	}
	if mv.Kind == doc.Loop && i > 0 && !sc.Aside {
		w.Before = loopBefore(s.Shown.Doc.Film.Scenes[i-1].Thread(l.Thread), mv)
	}
	if w.EasingUsed == "" {
		w.EasingUsed = motion.DefaultEasing(mv)
	}
	if mv.Path != nil && iv.Pass > 0 {
		if p, err := geom.ParseData(mv.Path.D); err == nil && len(p.Points) > 1 {
			w.Speed = geom.NewMeasure(p).Length() / float64(iv.Pass) * 1000
			d := p.Points[len(p.Points)-1].Sub(p.Points[0])
			w.Reach = &[2]float64{d.X, d.Y}
			line := motion.PresetOf(p)
			w.Line, w.Points = &line, len(p.Verbs)
		}
	}
	return w
}

// loopBefore returns the first loop with the same effect of the thread's layer in the scene before, if any.
func loopBefore(l *doc.Layer, m *doc.Move) string {
	if l == nil {
		return ""
	}
	for _, o := range l.Moves {
		if o.Kind == doc.Loop && o.Effect == m.Effect && o.Lasts == doc.WholeScene {
			return o.ID
		}
	}
	return ""
}

// unitsOf returns what a move of a layer can be divided into.
func unitsOf(l *doc.Layer, m *doc.Move) []string {
	if !m.ByUnits() || m.Change != nil && !m.Change.To.Parts() {
		return []string{}
	}
	return append([]string{}, l.Is().Units...)
}

// flat encodes a MoveView as the move's own fields with the view's beside them.
func flat(v MoveView) ([]byte, error) {
	raw, err := doc.Encode(v.Move)
	if err != nil {
		return nil, err
	}
	more, err := doc.Encode(v.MoveFacts)
	if err != nil {
		return nil, err
	}
	// A move has fields always: one object goes on in the other.
	return append(append(raw[:len(raw)-1:len(raw)-1], ','), more[1:]...), nil
}
