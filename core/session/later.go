package session

import (
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/patch"
)

// Later is what the last edit would be in later scenes, where the same threads live.
type Later struct {
	Count int    `json:"count"` // scenes in which something would change
	What  string `json:"what"`  // the fields that it changes, in words
}

// carried are the fields of a layer that an edit can be carried to later scenes in.
var carried = []string{"place", "fill", "stroke", "opacity", "blend", "blur", "feather", "shadow", "glow", "corner", "shape", "text", "picture"}

// fieldWords are what the parts of these are called on the screen; a field without a word here is called by its name.
var fieldWords = map[string]string{
	"place.x": "place", "place.y": "place", "place.w": "size", "place.h": "size", "place.turn": "turn", "place.flipX": "turned over", "place.flipY": "turned over", "place.pivot": "pivot",
	"corner": "corners", "text.align": "alignment", "text.wrap": "box", "text.room": "box", "text.stand": "box", "text.lineHeight": "line height", "text.letterSpacing": "letter spacing",
	"text.stacked": "stacking", "text.ring": "ring", "text.plate": "plate", "run.size": "size of letters", "run.raise": "raising", "run.family": "family",
	"run.weight": "weight", "run.italic": "italic", "run.colour": "colour", "run.role": "colour", "run.tone": "colour", "run.case": "case",
}

// wordsOf names what a merge patch of a field changes, each once.
func wordsOf(field string, patch jsontext.Value) []string {
	var parts map[string]jsontext.Value
	if json.Unmarshal(patch, &parts) != nil || parts == nil {
		return []string{named(field, field)}
	}
	var out []string
	for k := range parts {
		w := named(field+"."+k, field)
		if !slices.Contains(out, w) {
			out = append(out, w)
		}
	}
	slices.Sort(out)
	return out
}

func named(key, otherwise string) string {
	if w := fieldWords[key]; w != "" {
		return w
	}
	return otherwise
}

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

// stretch is a part of a text whose setting was changed in one way, in characters.
type stretch struct {
	from, to int
	patch    jsontext.Value
}

// restyled returns the stretches of a text whose setting has changed, as long as its words have not.
func restyled(before, after []doc.Run) []stretch {
	var out []stretch
	at, i, j, usedA, usedB := 0, 0, 0, 0, 0
	for i < len(before) && j < len(after) {
		a, b := []rune(before[i].Text), []rune(after[j].Text)
		n := min(len(a)-usedA, len(b)-usedB)
		x, y := before[i], after[j]
		x.Text, y.Text = "", ""
		if n > 0 && x != y {
			was, err1 := doc.Encode(x)
			is, err2 := doc.Encode(y)
			if err1 == nil && err2 == nil {
				patch := differing(was, is)
				if k := len(out) - 1; k >= 0 && out[k].to == at && string(out[k].patch) == string(patch) {
					out[k].to = at + n
				} else {
					out = append(out, stretch{at, at + n, patch})
				}
			}
		}
		at, usedA, usedB = at+n, usedA+n, usedB+n
		if usedA == len(a) {
			i, usedA = i+1, 0
		}
		if usedB == len(b) {
			j, usedB = j+1, 0
		}
	}
	return out
}

// carriedText returns what a change of a text is for another text of the thread: looks of stretches where both have the same words, of the
// whole where they have not; other words only where it had those that were changed.
func carriedText(before, after *doc.Text, k *doc.Layer) (list []edit.Command, what []string) {
	was, is, there := before.String(), after.String(), k.Text.String()
	if was != is {
		if there == was {
			return []edit.Command{command("text.words", map[string]any{"id": k.ID, "text": is})}, []string{"words"}
		}
		return nil, nil
	}
	for _, st := range restyled(before.Runs, after.Runs) {
		from, to := st.from, st.to
		if there != was {
			if from > 0 || to < len([]rune(was)) {
				continue
			}
			from, to = 0, 0
		}
		list = append(list, command("text.style", map[string]any{"ids": []string{k.ID}, "patch": st.patch, "from": from, "to": to}))
		what = append(what, wordsOf("run", st.patch)...)
	}
	return list, what
}

// carriedTo returns what a change of a field is for a layer of a later scene, and the words for it.
func carriedTo(c patch.Change, k *doc.Layer) (list []edit.Command, what []string) {
	patch := jsontext.Value("null")
	if len(c.After) > 0 {
		patch = differing(c.Before, c.After)
	}
	if c.Field == "text" {
		var before, after doc.Text
		if k.Text == nil || json.Unmarshal(c.Before, &before) != nil || json.Unmarshal(c.After, &after) != nil {
			return nil, nil
		}
		list, what = carriedText(&before, &after, k)
		var other map[string]jsontext.Value
		if json.Unmarshal(patch, &other) != nil {
			return list, what
		}
		delete(other, "runs")
		if len(other) == 0 {
			return list, what
		}
		raw, err := doc.Encode(other)
		if err != nil {
			return list, what
		}
		patch = raw
	}
	list = append(list, command("layer.set", map[string]any{"set": []any{map[string]any{"id": k.ID, "patch": map[string]any{c.Field: patch}}}}))
	return list, append(what, wordsOf(c.Field, patch)...)
}

// later returns what changes are in later scenes, and what is said of it.
func (s *Session) later(changes patch.Patch) ([]edit.Command, Later) {
	var list []edit.Command
	var what []string
	scenes := map[int]bool{}
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
		for n, later := range s.doc.Film.After(i) {
			k := later.Thread(l.Thread)
			if k == nil || k.Kind != l.Kind {
				continue
			}
			done, said := carriedTo(c, k)
			if len(done) == 0 {
				continue
			}
			scenes[n] = true
			list = append(list, done...)
			for _, w := range said {
				if !slices.Contains(what, w) {
					what = append(what, w)
				}
			}
		}
	}
	return list, Later{len(scenes), strings.Join(what, ", ")}
}

// Later returns in how many later scenes a patch that was made here could be made too, and what of it.
func (s *Session) Later(changes patch.Patch) Later {
	_, v := s.later(changes)
	return v
}

func init() {
	// What was done to layers is done to the same threads in later scenes, too.
	intent("edit.later", func(s *Session, _ Moment, c *struct {
		Changes patch.Patch `json:"changes"`
	}) (edit.Command, error) {
		list, _ := s.later(c.Changes)
		if len(list) == 0 {
			return nil, nil
		}
		return batch(list), nil
	})
}
