package session

import (
	"math"
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/core/words"
)

// Shared is what several moves have in common in the inspector.
type Shared struct {
	Move  jsontext.Value `json:"move"`  // a MoveView with the fields that all of them share
	Mixed []string       `json:"mixed"` // the others, by their path: "duration", "wipe.direction"
	Kinds []string       `json:"kinds"` // what they are, each kind once: "Fade, in"
}

// notShared are the fields of a view that are nobody's but one move's.
var notShared = []string{"id", "words", "profile", "film", "cut", "early", "before", "begin", "finish"}

// SharedView returns what the named moves have in common. Their own fields are told with their defaults spelt out, so that a field that one of
// them lacks is not taken for a shared one.
func (s *Session) SharedView(ids []string) Shared {
	out := Shared{Move: jsontext.Value("{}"), Mixed: []string{}, Kinds: []string{}}
	var common map[string]any
	mixed := map[string]bool{}
	for _, id := range ids {
		m, l, i := s.move(id)
		if m == nil {
			continue
		}
		if n := motion.Name(m); !slices.Contains(out.Kinds, n) {
			out.Kinds = append(out.Kinds, n)
		}
		raw, err := flat(s.moveView(s.doc.Film.Scenes[i], i, l, m))
		var v map[string]any
		if err != nil || json.Unmarshal(raw, &v) != nil {
			continue
		}
		for _, k := range notShared {
			delete(v, k)
		}
		if common == nil {
			common = v
			continue
		}
		shareFields(common, v, "", mixed)
	}
	for k := range mixed {
		out.Mixed = append(out.Mixed, k)
	}
	slices.Sort(out.Mixed)
	if raw, err := doc.Encode(common); err == nil && common != nil {
		out.Move = raw
	}
	return out
}

// shareFields keeps what a and b have in common in a; the paths of all else go into mixed.
func shareFields(a, b map[string]any, at string, mixed map[string]bool) {
	for k := range b {
		if _, ok := a[k]; !ok {
			mixed[at+k] = true
		}
	}
	for k, v := range a {
		w, ok := b[k]
		inner, isMap := v.(map[string]any)
		other, both := w.(map[string]any)
		switch {
		case ok && isMap && both:
			shareFields(inner, other, at+k+".", mixed)
		case !ok || !equalJSON(v, w):
			mixed[at+k] = true
			delete(a, k)
		}
	}
}

func equalJSON(a, b any) bool {
	x, err1 := doc.Encode(a)
	y, err2 := doc.Encode(b)
	return err1 == nil && err2 == nil && string(x) == string(y)
}

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

var severalAsked = table{
	// One change to several moves: each that has such a field gets it.
	"moves.set": of(func(s *Session, _ Moment, c *struct {
		Moves []string    `json:"moves"`
		Patch edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		var out []edit.Command
		for _, id := range c.Moves {
			m, _, _ := s.move(id)
			if m == nil {
				return nil, words.New("move.gone")
			}
			patch := fitting(m, c.Patch)
			if len(patch) == 0 {
				continue
			}
			s.remember(id, patch)
			out = append(out, setMove(id, s.completed(id, patch)))
		}
		if len(out) == 0 {
			return nil, words.New("moves.unfit")
		}
		return s.noneTooEarly(c.Moves, edit.All(out...))
	}),
	// A number of several moves grows by a sum, or by a factor: each from what it is.
	"moves.change": of(func(s *Session, _ Moment, c *struct {
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
			m, _, _ := s.move(id)
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
			out = append(out, setMove(id, s.completed(id, f.patch(v))))
		}
		if len(out) == 0 {
			return nil, words.New("moves.unfit")
		}
		return s.noneTooEarly(c.Moves, edit.All(out...))
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
func (s *Session) completed(id string, patch edit.Fields) edit.Fields {
	return s.thereAndBack(id, s.endingWithScene(id, patch))
}

// thereAndBack completes a change of whether a move comes back: one that goes once gets a second pass for it, and gives it up again.
func (s *Session) thereAndBack(id string, patch edit.Fields) edit.Fields {
	m, _, _ := s.move(id)
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
