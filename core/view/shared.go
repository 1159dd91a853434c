package view

import (
	"slices"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/motion"
)

// Shared is what several moves have in common in the inspector.
type Shared struct {
	Move  jsontext.Value `json:"move"`  // a MoveView with the fields that all of them share
	Mixed []string       `json:"mixed"` // the others, by their path: "duration", "params.direction"
	Kinds []string       `json:"kinds"` // what they are, each kind once: "Fade, in"
}

// notShared are the fields of a view that are nobody's but one move's.
var notShared = []string{"id", "words", "profile", "film", "cut", "early", "before", "begin", "finish", "others", "wheel", "run"}

// SharedView returns what the named moves have in common. Their own fields are told with their defaults spelt out, so that a field that one of
// them lacks is not taken for a shared one.
func (s *Views) SharedView(ids []string) Shared {
	out := Shared{Move: jsontext.Value("{}"), Mixed: []string{}, Kinds: []string{}}
	var common map[string]any
	mixed := map[string]bool{}
	for _, id := range ids {
		m, l, i := s.Move(id)
		if m == nil {
			continue
		}
		if n := motion.Name(m); !slices.Contains(out.Kinds, n) {
			out.Kinds = append(out.Kinds, n)
		}
		full := *m // with its defaults spelt out
		full.Params = m.Full()
		raw, err := flat(s.moveView(s.Doc.Film.Scenes[i], i, l, &full))
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
