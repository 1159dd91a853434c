package session

import (
	"math"
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

// carried are the fields of a layer that an edit can be carried to later scenes in.
var carried = []string{"place", "fill", "stroke", "opacity", "blend", "blur", "feather", "shadow", "glow", "corner", "shape", "text", "picture"}

// differing is a JSON merge patch (RFC 7396) that does to other values what was done from before to after: of objects, what differs alone.
func differing(before, after jsontext.Value) jsontext.Value {
	var a, b map[string]jsontext.Value
	if json.Unmarshal(before, &a) != nil || json.Unmarshal(after, &b) != nil || a == nil || b == nil {
		return after
	}
	out := map[string]jsontext.Value{}
	for k, v := range b {
		if w, ok := a[k]; !ok {
			out[k] = v
		} else if string(w) != string(v) {
			out[k] = differing(w, v)
		}
	}
	for k := range a {
		if _, ok := b[k]; !ok {
			out[k] = jsontext.Value("null")
		}
	}
	raw, err := doc.Encode(out)
	if err != nil {
		return after
	}
	return raw
}

// Later returns in how many later scenes the layers live that a patch has changed, by their threads.
func (s *Session) Later(changes edit.Patch) int {
	n := 0
	s.eachLater(changes, func(*doc.Layer, string, jsontext.Value) {}, func(count int) { n = max(n, count) })
	return n
}

// eachLater calls f for what each change would be in later scenes, and each with the number of them.
func (s *Session) eachLater(changes edit.Patch, f func(l *doc.Layer, field string, patch jsontext.Value), each func(count int)) {
	for _, c := range changes {
		part := strings.Split(c.Part, "/")
		if len(part) != 3 || part[0] != "layer" || !slices.Contains(carried, c.Field) {
			continue
		}
		i, sc := s.doc.Scene(part[1])
		if sc == nil {
			continue
		}
		l, _ := sc.Layer(part[2])
		if l == nil || len(c.Before) == 0 && len(c.After) == 0 {
			continue
		}
		patch := jsontext.Value("null")
		if len(c.After) > 0 {
			patch = differing(c.Before, c.After)
		}
		count := 0
		for _, later := range s.doc.Film.After(i) {
			if k := later.Thread(l.Thread); k != nil && k.Kind == l.Kind {
				count++
				f(k, c.Field, patch)
			}
		}
		each(count)
	}
}

func init() {
	// What was done to layers is done to the same threads in later scenes, too.
	intent("edit.later", func(s *Session, _ Moment, c *struct {
		Changes edit.Patch `json:"changes"`
	}) (edit.Command, error) {
		var list []map[string]any
		s.eachLater(c.Changes, func(l *doc.Layer, field string, patch jsontext.Value) {
			list = append(list, map[string]any{"id": l.ID, "patch": map[string]any{field: patch}})
		}, func(int) {})
		if len(list) == 0 {
			return nil, nil
		}
		return command("layer.set", map[string]any{"set": list}), nil
	})
	// Along the scenes that follow, layers stand a step further in each: from where they are in this scene.
	intent("shift.by", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		DX      float64  `json:"dx"` // px
		DY      float64  `json:"dy"`
		Turn    float64  `json:"turn"`    // degrees
		Size    float64  `json:"size"`    // factor; 0 is 1
		Opacity float64  `json:"opacity"` // added
	}) (edit.Command, error) {
		if c.Size == 0 {
			c.Size = 1
		}
		if c.Size < 0.01 || c.Size > 100 {
			return nil, words.New("intent.unreadable", "shift.by", c.Size)
		}
		i := s.sceneIndex(m)
		var out []edit.Command
		for _, l := range outermost(s.scene(m), s.layers(m, c.Threads)) {
			box, _ := s.shown.Box(i, l.ID)
			for later, sc := range s.doc.Film.After(i) {
				n, k := i+1+later, sc.Thread(l.Thread)
				if k == nil {
					break // the run of scenes ends
				}
				step := float64(n - i)
				x, y := l.Place.X+step*c.DX, l.Place.Y+step*c.DY
				if now, _ := s.shown.Box(n, k.ID); c.Size != 1 && now.W() > 0 && now.H() > 0 {
					f := math.Pow(c.Size, step)
					out = append(out, scaled(k, box.W()*f/now.W(), box.H()*f/now.H(), x, y, s.grows))
				}
				patch := map[string]any{"place": map[string]any{"x": x, "y": y, "turn": nilIf(l.Place.Turn + step*c.Turn)}}
				if c.Opacity != 0 {
					patch["opacity"] = min(max(l.Opacity+step*c.Opacity, 0), 1)
				}
				out = append(out, command("layer.set", map[string]any{"set": []any{map[string]any{"id": k.ID, "patch": patch}}}))
			}
		}
		if len(out) == 0 {
			return nil, words.New("shift.none")
		}
		return batch(out), nil
	})
	// A layer, as it is here but without its moves, in every scene that does not have it: the thread goes through all of them.
	intent("carry.all", func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Next    bool     `json:"next"` // to the next scene alone
	}) (edit.Command, error) {
		var commands []edit.Command
		for _, l := range outermost(s.scene(m), s.layers(m, c.Threads)) {
			for n, sc := range s.doc.Film.Shown() {
				if sc.Thread(l.Thread) != nil || c.Next && n != s.sceneIndex(m)+1 {
					continue
				}
				k := l.Clone()
				doc.Walk([]*doc.Layer{k}, func(l, _ *doc.Layer) bool {
					l.ID, l.Moves = s.id(), nil
					return true
				})
				commands = append(commands, command("layer.add", map[string]any{"scene": sc.ID, "layers": []*doc.Layer{k}}))
			}
		}
		if len(commands) == 0 {
			return nil, nil
		}
		return batch(commands), nil
	})
}
