package moves

import (
	"math"
	"math/rand/v2"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
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
	"rock.angle": {func(m *doc.Move) *float64 {
		if m.Rock == nil {
			return nil
		}
		return &m.Rock.Angle
	}, func(v float64) edit.Fields { return edit.Fields{"rock": edit.Fields{"angle": v}} }, -360, 360},
	"rock.phase": {func(m *doc.Move) *float64 {
		if m.Rock == nil {
			return nil
		}
		return &m.Rock.Phase
	}, func(v float64) edit.Fields { return under("rock", "phase", v) }, 0, 1},
	"wipe.softness": {func(m *doc.Move) *float64 {
		if m.Wipe == nil {
			return nil
		}
		return &m.Wipe.Softness
	}, func(v float64) edit.Fields { return under("wipe", "softness", v) }, 0, doc.MaxPlace},
	"slide.distance": {func(m *doc.Move) *float64 {
		if m.Slide == nil {
			return nil
		}
		return &m.Slide.Distance
	}, func(v float64) edit.Fields { return under("slide", "distance", v) }, 0, doc.MaxPlace},
	"scroll.speed": {func(m *doc.Move) *float64 {
		if m.Scroll == nil {
			return nil
		}
		return &m.Scroll.Speed
	}, func(v float64) edit.Fields { return edit.Fields{"scroll": edit.Fields{"speed": v}} }, 1, 100000},
	"scroll.gap": {func(m *doc.Move) *float64 {
		if m.Scroll == nil {
			return nil
		}
		return &m.Scroll.Gap
	}, func(v float64) edit.Fields { return under("scroll", "gap", v) }, -doc.MaxPlace, doc.MaxPlace},
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
		f, ok := moveFields[c.Field]
		if !ok {
			return nil, words.New("moves.unfit")
		}
		var out []edit.Command
		for _, id := range c.Moves {
			m, _, _ := s.Move(id)
			if m == nil {
				return nil, words.New("move.gone")
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

// effectParams are the fields of a move that belong to one effect, by that.
var effectParams = map[string]string{"wipe": doc.Wipe, "slide": doc.Slide, "spin": doc.Spin, "rock": doc.Rock, "scroll": doc.Scroll, "path": doc.Along}

// fitting is the part of a patch that a move has a use for.
func fitting(m *doc.Move, patch edit.Fields) edit.Fields {
	p := patch.Clone()
	for k := range p {
		if effect, of := effectParams[k]; of && m.Effect != effect {
			delete(p, k)
		}
	}
	timeless := m.Effect == doc.AtOnce && m.Unit == ""
	if timeless || m.Lasts != "" && m.Kind != doc.Loop {
		delete(p, "duration")
	}
	if timeless || m.Effect == doc.Scroll {
		delete(p, "easing")
	}
	if m.Kind == doc.Entrance || m.Kind == doc.Exit || m.Lasts != "" {
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

// completed is a change to a move with what goes with it: an exit that ends with the scene goes on doing so, and going there and back once is
// two passes.
func completed(s *intent.Desk, id string, patch edit.Fields) edit.Fields {
	patch = ordered(patch)
	return thereAndBack(s, id, endingWithScene(s, id, patch))
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
