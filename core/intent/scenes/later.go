package scenes

import (
	"reflect"
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/patch"
	"capstan/core/scope"
)

// Carried is what the last edit would be in later scenes, where the same threads live.
type Carried struct {
	Count int    `json:"count"` // scenes in which something would change
	Own   int    `json:"own"`   // scenes that have something of their own there, which they keep
	What  string `json:"what"`  // the fields that it changes, in words
}

// carried are the fields of a layer that an edit can be carried to later scenes in.
var carried = []string{"place", "fill", "stroke", "opacity", "blend", "blur", "feather", "shadow", "glow", "adjust", "corner", "shape", "text", "picture"}

// fieldWords are what the parts of these are called on the screen; a field without a word here is called by its name.
var fieldWords = map[string]string{
	"place.x": "place", "place.y": "place", "place.w": "size", "place.h": "size", "place.turn": "turn", "place.flipX": "turned over", "place.flipY": "turned over", "place.pivot": "pivot",
	"corner": "corners", "text.align": "alignment", "text.wrap": "box", "text.room": "box", "text.stand": "box", "text.lineHeight": "line height", "text.letterSpacing": "letter spacing",
	"text.stacked": "stacking", "text.ring": "ring", "text.plate": "plate", "run.size": "size of letters", "run.raise": "raising", "run.family": "family",
	"run.weight": "weight", "run.italic": "italic", "run.colour": "colour", "run.role": "colour", "run.tone": "colour", "run.case": "case",
}

// wordsOf names what a change of a field changes, each once.
func wordsOf(field string, to any) []string {
	parts, ok := to.(edit.Fields)
	if !ok {
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

// stretch is a part of a text whose setting was changed in one way, in characters.
type stretch struct {
	from, to int
	patch    edit.Fields
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
			patch := edit.Differing(&x, &y)
			if k := len(out) - 1; k >= 0 && out[k].to == at && reflect.DeepEqual(out[k].patch, patch) {
				out[k].to = at + n
			} else {
				out = append(out, stretch{at, at + n, patch})
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
			return []edit.Command{&edit.SetWords{ID: k.ID, Text: is}}, []string{"words"}
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
		list = append(list, &edit.StyleTexts{IDs: []string{k.ID}, Patch: st.patch, From: from, To: to})
		what = append(what, wordsOf("run", st.patch)...)
	}
	return list, what
}

// alone is a layer with nothing but the field that a change says, as it was or is.
func alone(field string, raw jsontext.Value) (*doc.Layer, error) {
	l := &doc.Layer{}
	if len(raw) == 0 {
		return l, nil
	}
	return l, edit.Fields{field: raw}.Change(l)
}

// shared leaves of a change what another layer has as it was before the change; own reports whether it has something of its own there instead.
func shared(set, differs edit.Fields) (left edit.Fields, own bool) {
	left = edit.Fields{}
	for name, to := range set {
		other, has := differs[name]
		inner, deep := to.(edit.Fields)
		otherInner, otherDeep := other.(edit.Fields)
		switch {
		case !has:
			left[name] = to
		case deep && otherDeep:
			rest, some := shared(inner, otherInner)
			if own = own || some; len(rest) > 0 {
				left[name] = rest
			}
		default:
			own = true
		}
	}
	return left, own
}

// fieldOf returns a field of a layer as it is written.
func fieldOf(l *doc.Layer, field string) jsontext.Value {
	head := *l
	head.Moves, head.Children = nil, nil
	raw, err := doc.Encode(&head)
	if err != nil {
		return nil
	}
	var all map[string]jsontext.Value
	if json.Unmarshal(raw, &all) != nil {
		return nil
	}
	return all[field]
}

// carriedTo returns what a change of a field is for a layer of a later scene, and the words for it. What the layer has of its own there it keeps,
// but for all.
func carriedTo(c patch.Change, k *doc.Layer, all bool) (list []edit.Command, what []string, own bool) {
	before, err1 := alone(c.Field, c.Before)
	after, err2 := alone(c.Field, c.After)
	is, err3 := alone(c.Field, fieldOf(k, c.Field))
	if err1 != nil || err2 != nil || err3 != nil {
		return nil, nil, false
	}
	set := edit.Differing(before, after)
	if c.Field != "text" {
		left, some := shared(set, edit.Differing(before, is))
		if own = some; !all {
			set = left
		}
		if len(set) == 0 {
			return nil, nil, own
		}
	}
	if c.Field == "text" {
		if k.Text == nil || before.Text == nil || after.Text == nil {
			return nil, nil, false
		}
		list, what = carriedText(before.Text, after.Text, k)
		other, _ := set["text"].(edit.Fields)
		delete(other, "runs")
		if len(other) == 0 {
			return list, what, false
		}
	}
	list = append(list, &edit.SetLayers{Set: []edit.Part{{ID: k.ID, Patch: set}}})
	return list, append(what, wordsOf(c.Field, set[c.Field])...), own
}

// later returns what changes are in later scenes, and what is said of it.
func later(s *intent.Desk, changes patch.Patch, all bool) ([]edit.Command, Carried) {
	var list []edit.Command
	var what []string
	scenes, owns := map[int]bool{}, map[int]bool{}
	for _, c := range changes {
		part := strings.Split(c.Part, "/")
		if len(part) != 3 || part[0] != "layer" || !slices.Contains(carried, c.Field) {
			continue
		}
		i, sc := s.Doc.Scene(part[1])
		if sc == nil {
			continue
		}
		l, _ := sc.Layer(part[2])
		if l == nil || len(c.Before) == 0 && len(c.After) == 0 {
			continue
		}
		for n, later := range s.Doc.Film.After(i) {
			k := later.Thread(l.Thread)
			if k == nil || k.Kind != l.Kind {
				continue
			}
			done, said, own := carriedTo(c, k, all)
			if own {
				owns[n] = true
			}
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
	return list, Carried{len(scenes), len(owns), strings.Join(what, ", ")}
}

// Later returns in how many later scenes a patch that was made here could be made too, and what of it.
func Later(s *intent.Desk, changes patch.Patch) Carried {
	_, v := later(s, changes, false)
	return v
}

var laterAsked = intent.Table{
	// What was done to layers is done to the same threads in later scenes, too.
	"edit.later": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Changes patch.Patch `json:"changes"`
		All     bool        `json:"all"` // also where they have something of their own
	}) (edit.Command, error) {
		list, _ := later(s, c.Changes, c.All)
		if len(list) == 0 {
			return nil, nil
		}
		return edit.All(list...), nil
	}),
}
