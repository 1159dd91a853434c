package doc

import (
	"maps"
	"slices"
)

// NewProject returns a project with one empty scene.
func NewProject(id, name string, width, height int, sceneID string) *Project {
	return &Project{
		Version: Version, ID: id, Name: name,
		Film: Film{
			Width: width, Height: height, Rate: Rate{30, 1},
			Scenes: []*Scene{NewScene(sceneID, "Scene 1")},
		},
	}
}

// NewScene returns an empty scene on white that stays 4 s.
func NewScene(id, name string) *Scene {
	return &Scene{
		ID: id, Name: name, Stay: 4000, Transition: Transition{Kind: Cut},
		Background: Fill{Kind: Solid, Colour: "#ffffff"}, Layers: []*Layer{},
	}
}

// Scene finds a scene of the film by id, with its place; -1 and nil where there is none.
func (p *Project) Scene(id string) (int, *Scene) {
	for i, s := range p.Film.Scenes {
		if s.ID == id {
			return i, s
		}
	}
	return -1, nil
}

// Walk calls f for every layer of the list and what is inside it, parents first. Returning false
// leaves out the children of that layer.
func Walk(layers []*Layer, f func(l, parent *Layer) bool) { walk(layers, nil, f) }

func walk(layers []*Layer, parent *Layer, f func(l, parent *Layer) bool) {
	for _, l := range layers {
		if f(l, parent) {
			walk(l.Children, l, f)
		}
	}
}

// Layer finds a layer of the scene by id, with its parent (nil at the top).
func (s *Scene) Layer(id string) (layer, parent *Layer) {
	Walk(s.Layers, func(l, p *Layer) bool {
		if l.ID == id {
			layer, parent = l, p
		}
		return layer == nil
	})
	return
}

// Thread finds the scene's layer of a thread, or nil.
func (s *Scene) Thread(thread string) (layer *Layer) {
	Walk(s.Layers, func(l, _ *Layer) bool {
		if l.Thread == thread {
			layer = l
		}
		return layer == nil
	})
	return
}

// Move finds a move of the scene by id, with its layer.
func (s *Scene) Move(id string) (move *Move, layer *Layer) {
	Walk(s.Layers, func(l, _ *Layer) bool {
		for _, m := range l.Moves {
			if m.ID == id {
				move, layer = m, l
			}
		}
		return move == nil
	})
	return
}

// Clone returns a deep copy of the scene; documents share what was not cloned.
func (s *Scene) Clone() *Scene {
	c := *s
	c.Background = s.Background.clone()
	c.Cues = slices.Clone(s.Cues)
	c.Transition.Threads, c.Transition.Params = maps.Clone(s.Transition.Threads), s.Transition.Params.Clone()
	c.Guides = slices.Clone(s.Guides)
	c.Runs = slices.Clone(s.Runs)
	for i := range c.Runs {
		c.Runs[i].Moves = slices.Clone(c.Runs[i].Moves)
	}
	c.Sounds, c.Captions = CloneSounds(s.Sounds), slices.Clone(s.Captions)
	c.Layers = CloneAll(s.Layers)
	if s.Roles != nil {
		c.Roles = make(map[string]string, len(s.Roles))
		for k, v := range s.Roles {
			c.Roles[k] = v
		}
	}
	return &c
}

// Clone returns a deep copy of the layer with everything inside it.
func (l *Layer) Clone() *Layer {
	c := *l
	c.Place.Pivot = copied(l.Place.Pivot)
	c.Fill, c.Shadow, c.Glow, c.Adjust = l.Fill.clone(), copied(l.Shadow), copied(l.Glow), l.Adjust.Clone()
	if c.Stroke = copied(l.Stroke); c.Stroke != nil {
		c.Stroke.Fill, c.Stroke.Dash, c.Stroke.Trim = l.Stroke.Fill.clone(), slices.Clone(l.Stroke.Dash), copied(l.Stroke.Trim)
	}
	c.Made, c.Through = l.Made.clone(), copied(l.Through)
	for _, f := range fields {
		f.clone(&c)
	}
	c.Moves = nil
	for _, m := range l.Moves {
		c.Moves = append(c.Moves, m.Clone())
	}
	c.Children = nil
	for _, k := range l.Children {
		c.Children = append(c.Children, k.Clone())
	}
	return &c
}

// CloneAll returns deep copies of layers.
func CloneAll(list []*Layer) []*Layer {
	out := make([]*Layer, len(list))
	for i, l := range list {
		out[i] = l.Clone()
	}
	return out
}

// Clone returns a copy of what is known of a file; none of none.
func (m *Media) Clone() *Media { return copied(m) }

// Clone returns a deep copy of the move.
func (m *Move) Clone() *Move {
	c := *m
	c.End, c.From = copied(m.End), copied(m.From)
	c.Path, c.Params = copied(m.Path), m.Params.Clone()
	if c.Change != nil {
		c.Change = &ChangeParams{To: m.Change.To.Clone()}
	}
	return &c
}

func (f Fill) clone() Fill {
	if f.Gradient = copied(f.Gradient); f.Gradient != nil {
		f.Gradient.Focus, f.Gradient.Stops = copied(f.Gradient.Focus), slices.Clone(f.Gradient.Stops)
	}
	return f
}

func copied[T any](v *T) *T {
	if v == nil {
		return nil
	}
	c := *v
	return &c
}

// Mark is a place in a text: before a rune of a run.
type Mark struct{ Run, Rune int }

// Stretch returns the runs between two places of a text, the first before the second.
func (t *Text) Stretch(from, to Mark) []Run {
	var out []Run
	for i := from.Run; i <= to.Run && i < len(t.Runs); i++ {
		r := t.Runs[i]
		runes := []rune(r.Text)
		a, b := 0, len(runes)
		if i == from.Run {
			a = min(from.Rune, b)
		}
		if i == to.Run {
			b = min(to.Rune, b)
		}
		if r.Text = string(runes[min(a, b):b]); r.Text != "" {
			out = append(out, r)
		}
	}
	return out
}

// String returns the words of the text without their setting.
func (t *Text) String() string {
	s := ""
	for _, r := range t.Runs {
		s += r.Text
	}
	return s
}
