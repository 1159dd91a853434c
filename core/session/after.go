package session

import (
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/motion"
	"capstan/core/words"
)

// After says that layers are shown, and edited, as they are after changes of theirs.
type After struct {
	Moves []string `json:"moves"` // the changes
	Words string   `json:"words"` // "after the change at 1.40 s"
}

// Changing shows layers as they are after changes, and from now on edits that: what is done to such a layer becomes what its change names. Without
// ids, or with none that is there, they are shown at rest again.
func (s *Session) Changing(ids []string) error {
	before := s.after
	s.after = slices.Clone(ids)
	if s.FilmID != "" {
		s.after = nil
	}
	f, err := s.compile(s.whole)
	if err != nil {
		s.after = before
		return err
	}
	s.ForgetWriting()
	s.show(s.whole, f)
	return nil
}

// AfterView tells of the changes that are edited; nil: layers are at rest.
func (s *Session) AfterView() *After {
	if len(s.after) == 0 {
		return nil
	}
	v := &After{Moves: s.after}
	_, _, i := s.Move(s.after[0])
	at := words.Seconds(s.Film.Timing(i).Moves[s.after[0]].Begin)
	if v.Words = "after the change at " + at; len(s.after) > 1 {
		v.Words = "after their changes from " + at
	}
	return v
}

// afterChanges returns the document with the layers as they are after the changes that are edited; those that have gone are edited no more.
func (s *Session) afterChanges(p *doc.Project) *doc.Project {
	if len(s.after) == 0 {
		return p
	}
	out := *p
	out.Film.Scenes = slices.Clone(p.Film.Scenes)
	s.after = slices.DeleteFunc(s.after, func(id string) bool {
		i := slices.IndexFunc(out.Film.Scenes, func(sc *doc.Scene) bool { m, _ := sc.Move(id); return m != nil && m.Change != nil })
		if i < 0 {
			return true
		}
		sc := *out.Film.Scenes[i]
		_, l := sc.Move(id)
		sc.Layers = with(sc.Layers, l, stateAfter(&sc, l, id, true))
		out.Film.Scenes[i] = &sc
		return false
	})
	return &out
}

// stateAfter is a layer as it is after a change and those before it that stay; without own as it is when that begins.
func stateAfter(sc *doc.Scene, l *doc.Layer, id string, own bool) *doc.Layer {
	begins := map[string]int64{}
	if t, err := motion.Resolve(sc, doc.MaxTime); err == nil { // as the film is compiled, it can be
		for _, m := range l.Moves {
			begins[m.ID] = t.Moves[m.ID].Begin
		}
	}
	var list []*doc.Move
	for _, m := range l.Moves {
		if m.Kind == doc.Change && m.Change != nil {
			list = append(list, m)
		}
	}
	slices.SortStableFunc(list, func(a, b *doc.Move) int { return int(begins[a.ID] - begins[b.ID]) })
	for _, m := range list {
		switch {
		case m.ID == id && own:
			return l.After(&m.Change.To)
		case m.ID == id:
			return l
		case !m.Alternate || int64(max(m.Repeat, 1))&1 == 1:
			l = l.After(&m.Change.To)
		}
	}
	return l
}

// with returns a list of layers in which one, wherever it lies, is another.
func with(list []*doc.Layer, was, is *doc.Layer) []*doc.Layer {
	out := slices.Clone(list)
	for i, l := range out {
		switch {
		case l == was:
			out[i] = is
		case l.Holds(was):
			g := *l
			g.Children = with(l.Children, was, is)
			out[i] = &g
		}
	}
	return out
}

// changeable are the fields of a layer that a change can name, as patches have them.
var changeable = []string{"place", "opacity", "fill", "stroke", "corner", "blur", "feather", "shadow", "glow", "adjust", "shape", "path", "text", "picture"}

// toChanges turns a command that was made for layers as they are after changes into one for the document: what it does to them becomes what their
// changes name, all else it does as it is.
func (s *Session) toChanges(c edit.Command) (edit.Command, error) {
	if len(s.after) == 0 || c == nil {
		return c, nil
	}
	next, made, err := edit.Apply(s.Doc, c, s.Assets())
	if err != nil {
		return nil, err
	}
	alone := true // it does nothing besides
	list := edit.Commands{}
	own := map[string]bool{}
	for _, id := range s.after {
		i := slices.IndexFunc(s.Doc.Film.Scenes, func(sc *doc.Scene) bool { m, _ := sc.Move(id); return m != nil })
		if i < 0 {
			continue
		}
		_, l := s.Doc.Film.Scenes[i].Move(id) // the document’s, not the draft’s
		if i >= len(next.Film.Scenes) {
			return c, nil
		}
		is, _ := next.Film.Scenes[i].Layer(l.ID)
		if is == nil || !sameParent(s.Doc.Film.Scenes[i], next.Film.Scenes[i], l.ID) {
			return c, nil // it is gone, or lies in other axes: what it becomes goes along
		}
		sc := s.whole.Film.Scenes[i]
		part := "layer/" + sc.ID + "/" + l.ID
		own[part] = true
		if l.Kind == doc.Group {
			for _, change := range made {
				if k := change.Part[strings.LastIndexByte(change.Part, '/')+1:]; strings.HasPrefix(change.Part, "layer/") && within(l, k) && slices.Contains(changeable, change.Field) {
					return nil, words.New("change.group", l.Name)
				}
			}
		}
		diff := doc.Difference(l, is)
		if len(diff.Names()) == 0 {
			own[part] = false
			continue
		}
		m, rest := sc.Move(id)
		before := stateAfter(sc, rest, id, false)
		to := doc.Difference(before, before.After(&m.Change.To).After(diff))
		to.Scale, to.Apart = m.Change.To.Scale, m.Change.To.Apart
		list = append(list, edit.SetMove(id, edit.Fields{"change": doc.ChangeParams{To: *to}}))
		back := edit.Fields{}
		for _, change := range made {
			if change.Part == part && slices.Contains(changeable, change.Field) {
				back[change.Field] = fieldOf(rest, change.Field)
			}
		}
		list = append(list, &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: back}}})
	}
	if len(list) == 0 {
		return c, nil
	}
	for _, change := range made {
		alone = alone && own[change.Part] && slices.Contains(changeable, change.Field)
	}
	if alone {
		only := edit.Commands{}
		for i := 0; i < len(list); i += 2 {
			only = append(only, list[i])
		}
		if len(only) == 1 {
			return only[0], nil
		}
		return &edit.Batch{Commands: only}, nil
	}
	return &edit.Batch{Commands: append(edit.Commands{c}, list...)}, nil
}

func sameParent(a, b *doc.Scene, id string) bool {
	_, p := a.Layer(id)
	_, q := b.Layer(id)
	return (p == nil) == (q == nil) && (p == nil || p.ID == q.ID)
}

func within(g *doc.Layer, id string) bool {
	return slices.ContainsFunc(g.Children, func(c *doc.Layer) bool { return c.ID == id || within(c, id) })
}

// fieldOf is the value of a field that a change can name; nil where there is none.
func fieldOf(l *doc.Layer, name string) any {
	switch name {
	case "place":
		return l.Place
	case "opacity":
		return l.Opacity
	case "fill":
		return l.Fill
	case "corner":
		return l.Corner
	case "blur":
		return l.Blur
	case "feather":
		return l.Feather
	case "path":
		return l.Path
	case "stroke":
		if l.Stroke != nil {
			return l.Stroke
		}
	case "shadow":
		if l.Shadow != nil {
			return l.Shadow
		}
	case "glow":
		if l.Glow != nil {
			return l.Glow
		}
	case "adjust":
		if l.Adjust != nil {
			return l.Adjust
		}
	case "picture":
		if l.Picture != nil {
			return l.Picture
		}
	case "shape":
		if l.Shape != nil {
			return l.Shape
		}
	case "text":
		if l.Text != nil {
			return l.Text
		}
	}
	return nil
}
