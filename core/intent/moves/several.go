package moves

import (
	"math"
	"math/rand/v2"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/effect"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/scope"
	"capstan/core/words"
)

// moveField is a number of a move that can be changed by a sum or a factor, with the least and most it can be.
type moveField struct {
	read        func(m *doc.Move) *float64
	patch       func(v float64) edit.Fields
	least, most float64
}

func under(key, field string, v float64) edit.Fields {
	return edit.Fields{key: edit.Fields{field: v}}
}

// moveFields are these numbers by their path in the document. Times are ms.
var moveFields = map[string]moveField{
	"duration": {func(m *doc.Move) *float64 {
		if m.Duration == 0 {
			return nil
		}
		v := float64(m.Duration)
		return &v
	}, func(v float64) edit.Fields { return edit.Fields{"duration": math.Round(v)} }, doc.MinDuration, doc.MaxTime},
	"start.offset": {func(m *doc.Move) *float64 { v := float64(m.Start.Offset); return &v },
		func(v float64) edit.Fields { return under("start", "offset", math.Round(v)) }, -doc.MaxTime, doc.MaxTime},
	"repeat": {func(m *doc.Move) *float64 {
		v := max(m.Repeat, 0)
		if v == 0 {
			v = 1
		}
		return &v
	},
		func(v float64) edit.Fields { return edit.Fields{"repeat": v} }, 0.01, 10000},
	"overlap": {func(m *doc.Move) *float64 { return &m.Overlap }, func(v float64) edit.Fields { return edit.Fields{"overlap": v} }, 0, 1},
}

var severalAsked = intent.Table{
	// One change to several moves: each that has such a field gets it.
	"moves.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string    `json:"moves"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var out []edit.Command
		for _, id := range c.Moves {
			m, _, _ := s.Move(id)
			if m == nil {
				return nil, words.New("move.gone")
			}
			patch := fitting(m, c.Patch)
			if len(patch) == 0 {
				continue
			}
			remember(s, id, patch)
			out = append(out, edit.SetMove(id, completed(s, id, patch)))
		}
		if len(out) == 0 {
			return nil, words.New("moves.unfit")
		}
		return noneTooEarly(s, c.Moves, edit.All(out...))
	}),
	// A number of several moves grows by a sum, or by a factor: each from what it is.
	"moves.change": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Moves []string `json:"moves"`
		Field string   `json:"field"`
		How   string   `json:"how"` // + or *
		By    float64  `json:"by"`
	}) (edit.Command, error) {
		var out []edit.Command
		for _, id := range c.Moves {
			m, _, _ := s.Move(id)
			if m == nil {
				return nil, words.New("move.gone")
			}
			f, ok := fieldOf(m, c.Field)
			if !ok {
				continue
			}
			was := f.read(m)
			if was == nil {
				continue
			}
			v := *was + c.By
			if c.How == "*" {
				v = *was * c.By
			}
			if math.IsNaN(v) || v < f.least || v > f.most {
				return nil, words.New("moves.beyond", motion.Name(m))
			}
			out = append(out, edit.SetMove(id, completed(s, id, f.patch(v))))
		}
		if len(out) == 0 {
			return nil, words.New("moves.unfit")
		}
		return noneTooEarly(s, c.Moves, edit.All(out...))
	}),
}

// fieldOf returns a number of a move by its path in the document: one that all have, or a parameter of its effect.
func fieldOf(m *doc.Move, path string) (moveField, bool) {
	if f, ok := moveFields[path]; ok {
		return f, true
	}
	name, ok := strings.CutPrefix(path, "params.")
	e := m.Does()
	if !ok || e == nil || e.Param(name) == nil {
		return moveField{}, false
	}
	q := e.Param(name)
	if q.Control != effect.Number && q.Control != effect.Direction {
		return moveField{}, false
	}
	return moveField{
		func(m *doc.Move) *float64 { v := m.Full().Number(name); return &v },
		func(v float64) edit.Fields { return under("params", name, v) },
		q.Least / q.Times, q.Most / q.Times,
	}, true
}

// fitting is the part of a patch that a move has a use for.
func fitting(m *doc.Move, patch edit.Fields) edit.Fields {
	p := patch.Clone()
	if m.Kind != doc.MotionPath {
		delete(p, "path")
	}
	if m.Kind != doc.Change {
		delete(p, "change")
	}
	if params, ok := p["params"]; ok {
		if own := ownParams(m, params); len(own) > 0 {
			p["params"] = own
		} else {
			delete(p, "params")
		}
	}
	g := m.Goes()
	if m.Timeless() || m.Lasts != "" && m.Kind != doc.Loop || g != nil && g.Cycle != nil {
		delete(p, "duration")
	}
	if !m.Eased() {
		delete(p, "easing")
	}
	if m.Kind == doc.Entrance || m.Kind == doc.Exit || m.Lasts != "" || m.Runs() {
		delete(p, "repeat")
	}
	if m.Kind == doc.Entrance || m.Kind == doc.Exit {
		delete(p, "alternate")
	}
	if m.Kind != doc.Exit {
		delete(p, "back")
	}
	if m.Unit == "" {
		for _, k := range strings.Fields("order overlap seed from") {
			delete(p, k)
		}
	}
	return p
}

// ownParams is the part of a change of parameters that an effect has.
func ownParams(m *doc.Move, params any) edit.Fields {
	own := edit.Fields{}
	e := m.Does()
	if e == nil {
		return own
	}
	for name, v := range edit.FieldsOf(params) {
		if e.Param(name) != nil {
			own[name] = v
		}
	}
	return own
}

// completed is a change to a move with what goes with it: an exit that ends with the scene goes on doing so, and going there and back once is
// two passes.
func completed(s *intent.Desk, id string, patch edit.Fields) edit.Fields {
	patch = ordered(patch)
	return goingAlong(s, id, thereAndBack(s, id, endingWithScene(s, id, patch)))
}

// goingAlong completes a tie: what goes one way goes that of its driver.
func goingAlong(s *intent.Desk, id string, patch edit.Fields) edit.Fields {
	m, _, i := s.Move(id)
	if m == nil || m.Comes() == nil || m.Comes().TieTo == nil || !patch.Has("params") {
		return patch
	}
	asked := edit.FieldsOf(patch["params"])
	thread, _ := asked["tie"].(string)
	driver := s.Doc.Film.Scenes[i].Thread(thread)
	if thread == "" || driver == nil || asked.Has("direction") {
		return patch
	}
	if p := m.Comes().TieTo(m.Full(), thread, s.Film.Travel(i, driver.ID)); p["tie"] == thread && p["direction"] != nil {
		asked, patch = asked.Clone(), patch.Clone()
		asked["direction"] = p["direction"]
		patch["params"] = asked
	}
	return patch
}

// thereAndBack completes a change of whether a move comes back: one that goes once gets a second pass for it, and gives it up again.
func thereAndBack(s *intent.Desk, id string, patch edit.Fields) edit.Fields {
	m, _, _ := s.Move(id)
	if m == nil || !patch.Has("alternate") || patch.Has("repeat") || m.Lasts != "" || m.Until != "" {
		return patch
	}
	patch = patch.Clone()
	var back bool
	patch.Get("alternate", &back)
	switch {
	case back && !m.Alternate && m.Repeat <= 1:
		patch["repeat"] = 2
	case !back && m.Alternate && m.Repeat == 2:
		patch["repeat"] = nil
		if m.Kind == doc.Loop {
			patch["repeat"] = 1
		}
	}
	return patch
}

// ordered completes a change of the order of units: by chance it gets a shuffle, from a point the middle of the lower side, and forwards, which
// is not written, neither.
func ordered(patch edit.Fields) edit.Fields {
	if !patch.Has("order") || patch.Has("seed") || patch.Has("from") {
		return patch
	}
	var order string
	patch.Get("order", &order)
	patch = patch.Clone()
	patch["seed"], patch["from"] = nil, nil
	switch order {
	case "shuffled":
		patch["seed"] = rand.Int64N(1e6)
	case "point":
		patch["from"] = [2]float64{0.5, 1}
	case "forwards":
		patch["order"] = nil
	}
	return patch
}
