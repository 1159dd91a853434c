package edit

import (
	"encoding/json"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
)

func init() {
	op("layer.add", func(e *editor, c *struct {
		Scene  string       `json:"scene"`
		Parent string       `json:"parent"`
		Index  *int         `json:"index"` // absent: in front
		Layers []*doc.Layer `json:"layers"`
	}) error {
		s, err := e.scene(c.Scene)
		if err != nil {
			return err
		}
		for _, l := range c.Layers {
			if l == nil {
				return refuse("There is no layer to add. Nothing was changed.")
			}
			rounded, err := merged(l, json.RawMessage("{}"))
			if err != nil {
				return err
			}
			*l = *rounded
		}
		return addTo(s, c.Parent, c.Index, c.Layers...)
	})
	op("layer.delete", func(e *editor, c *struct {
		IDs []string `json:"ids"`
	}) error {
		for _, id := range c.IDs {
			l, parent, s, err := e.layer(id)
			if err != nil {
				return err
			}
			gone := map[string]bool{}
			doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
				for _, m := range k.Moves {
					gone[m.ID] = true
				}
				return true
			})
			if err := rehang(s, e.into(s), gone); err != nil {
				return err
			}
			remove(s, parent, id)
		}
		return nil
	})
	op("layer.set", func(e *editor, c *struct {
		Set []struct {
			ID    string          `json:"id"`
			Patch json.RawMessage `json:"patch"`
		} `json:"set"`
	}) error {
		for _, set := range c.Set {
			l, _, _, err := e.layer(set.ID)
			if err != nil {
				return err
			}
			head := *l
			head.Children, head.Moves = nil, nil
			n, err := merged(&head, set.Patch, "id", "thread", "kind", "children", "moves")
			if err != nil {
				return err
			}
			n.Children, n.Moves = l.Children, l.Moves
			*l = *n
		}
		return nil
	})
	op("layer.order", func(e *editor, c *struct {
		IDs    []string `json:"ids"` // back to front, as they shall lie
		Parent string   `json:"parent"`
		Index  int      `json:"index"` // among the others that stay there
	}) error {
		var moved []*doc.Layer
		var scene *doc.Scene
		for _, id := range c.IDs {
			l, parent, s, err := e.layer(id)
			if err != nil {
				return err
			}
			if scene != nil && s != scene {
				return refuse("These layers lie in different scenes. Nothing was changed.")
			}
			scene = s
			if inside(l, c.Parent) {
				return refuse("A group cannot be put into itself. Nothing was changed.")
			}
			place(l, ancestry(s, id), targetAxes(s, c.Parent))
			remove(s, parent, id)
			moved = append(moved, l)
		}
		if scene == nil {
			return nil
		}
		return addTo(scene, c.Parent, &c.Index, moved...)
	})
	op("layer.group", func(e *editor, c *struct {
		IDs    []string `json:"ids"`
		ID     string   `json:"id"`
		Thread string   `json:"thread"`
		Name   string   `json:"name"`
		Tint   int      `json:"tint"`
		X      float64  `json:"x"` // where the group's axes begin, in page px
		Y      float64  `json:"y"`
	}) error {
		return e.group(c.IDs, c.ID, c.Thread, c.Name, c.Tint, geom.Point{X: c.X, Y: c.Y})
	})
	op("layer.ungroup", func(e *editor, c *struct {
		IDs []string `json:"ids"`
	}) error {
		for _, id := range c.IDs {
			if err := e.ungroup(id); err != nil {
				return err
			}
		}
		return nil
	})
	op("layer.duplicate", func(e *editor, c *struct {
		IDs  []string `json:"ids"`
		Seed string   `json:"seed"`
		DX   float64  `json:"dx"`
		DY   float64  `json:"dy"`
	}) error {
		for _, id := range c.IDs {
			l, parent, s, err := e.layer(id)
			if err != nil {
				return err
			}
			k := l.Clone()
			copyIDs(s, []*doc.Layer{k}, c.Seed, false)
			d := geom.Point{X: c.DX, Y: c.DY}
			if inv, ok := ancestry(s, id).Inverse(); ok {
				d = inv.ApplyVector(d)
			}
			k.Place.X += d.X
			k.Place.Y += d.Y
			list := siblings(s, parent)
			i := slices.Index(*list, l)
			*list = slices.Insert(*list, i+1, k)
		}
		return nil
	})
	op("layer.paste", func(e *editor, c *struct {
		Scene  string       `json:"scene"`
		Layers []*doc.Layer `json:"layers"`
		Seed   string       `json:"seed"`
		DX     float64      `json:"dx"`
		DY     float64      `json:"dy"`
	}) error {
		s, err := e.scene(c.Scene)
		if err != nil {
			return err
		}
		free := true
		doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
			free = free && l != nil && s.Thread(l.Thread) == nil
			return l != nil
		})
		copyIDs(s, c.Layers, c.Seed, free)
		for _, l := range c.Layers {
			l.Place.X += c.DX
			l.Place.Y += c.DY
		}
		return addTo(s, "", nil, c.Layers...)
	})
	op("text.words", func(e *editor, c *struct {
		ID   string `json:"id"`
		Text string `json:"text"`
	}) error {
		l, _, _, err := e.layer(c.ID)
		if err != nil {
			return err
		}
		if l.Kind != doc.TextKind {
			return refuse("That layer holds no text. Nothing was changed.")
		}
		r := l.Text.Runs[0]
		r.Text = c.Text
		l.Text.Runs = []doc.Run{r}
		return nil
	})
	op("text.style", func(e *editor, c *struct {
		IDs   []string        `json:"ids"`
		Patch json.RawMessage `json:"patch"`
	}) error {
		for _, id := range c.IDs {
			l, _, _, err := e.layer(id)
			if err != nil {
				return err
			}
			if l.Kind != doc.TextKind {
				continue
			}
			for i := range l.Text.Runs {
				r, err := merged(&l.Text.Runs[i], c.Patch, "text")
				if err != nil {
					return err
				}
				l.Text.Runs[i] = *r
			}
		}
		return nil
	})
}

func (e *editor) into(s *doc.Scene) int64 {
	if i, _ := e.p.Scene(s.ID); i > 0 {
		return s.Transition.Duration
	}
	return 0
}

func siblings(s *doc.Scene, parent *doc.Layer) *[]*doc.Layer {
	if parent == nil {
		return &s.Layers
	}
	return &parent.Children
}

func remove(s *doc.Scene, parent *doc.Layer, id string) {
	list := siblings(s, parent)
	*list = slices.DeleteFunc(*list, func(l *doc.Layer) bool { return l.ID == id })
}

func addTo(s *doc.Scene, parent string, index *int, layers ...*doc.Layer) error {
	var group *doc.Layer
	if parent != "" {
		if group, _ = s.Layer(parent); group == nil || group.Kind != doc.Group {
			return refuse("That group is no longer there. Nothing was changed.")
		}
	}
	list := siblings(s, group)
	at := len(*list)
	if index != nil {
		at = min(max(*index, 0), at)
	}
	*list = slices.Insert(*list, at, layers...)
	return nil
}

func inside(l *doc.Layer, id string) bool {
	found := false
	doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
		found = found || k.ID == id
		return !found
	})
	return found && id != ""
}

// axes returns the map from a group's axes to its parent's at rest.
func axes(l *doc.Layer) geom.Matrix {
	return geom.Translate(geom.Point{X: l.Place.X, Y: l.Place.Y}).Mul(geom.Rotate(l.Place.Turn))
}

// ancestry returns the map from the axes the layer's place is in to the page.
func ancestry(s *doc.Scene, id string) geom.Matrix {
	m := geom.Identity
	for _, parent := s.Layer(id); parent != nil; _, parent = s.Layer(parent.ID) {
		m = axes(parent).Mul(m)
	}
	return m
}

func targetAxes(s *doc.Scene, parent string) geom.Matrix {
	if l, _ := s.Layer(parent); l != nil {
		return ancestry(s, parent).Mul(axes(l))
	}
	return geom.Identity
}

// place moves a layer from one group's axes to another's, staying where it is on the page.
func place(l *doc.Layer, from, to geom.Matrix) {
	inv, ok := to.Inverse()
	if !ok || from == to {
		return
	}
	m := inv.Mul(from)
	p := m.Apply(geom.Point{X: l.Place.X, Y: l.Place.Y})
	l.Place.X, l.Place.Y = p.X, p.Y
	if m.A != 1 || m.B != 0 {
		l.Place.Turn += geom.AngleOf(m)
	}
}

func (e *editor) group(ids []string, id, thread, name string, tint int, origin geom.Point) error {
	if len(ids) == 0 {
		return refuse("Nothing is selected to group.")
	}
	var scene *doc.Scene
	member := map[string]bool{}
	for _, k := range ids {
		_, _, s, err := e.layer(k)
		if err != nil {
			return err
		}
		if scene != nil && s != scene {
			return refuse("These layers lie in different scenes. Nothing was grouped.")
		}
		scene, member[k] = s, true
	}
	// In stacking order; the group takes the place of the front-most.
	var list []*doc.Layer
	doc.Walk(scene.Layers, func(l, _ *doc.Layer) bool {
		if member[l.ID] {
			list = append(list, l)
			return false
		}
		return true
	})
	front := list[len(list)-1]
	_, parent := scene.Layer(front.ID)
	g := &doc.Layer{
		ID: id, Thread: thread, Name: name, Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Tint: tint,
	}
	outer := ancestry(scene, front.ID)
	inv, ok := outer.Inverse()
	if !ok {
		return refuse("These layers cannot be grouped where they are. Nothing was changed.")
	}
	at := inv.Apply(origin)
	g.Place = doc.Place{X: at.X, Y: at.Y}
	inner := outer.Mul(axes(g))
	into := siblings(scene, parent)
	*into = slices.Insert(*into, slices.Index(*into, front)+1, g)
	for _, l := range list {
		_, p := scene.Layer(l.ID)
		place(l, ancestry(scene, l.ID), inner)
		remove(scene, p, l.ID)
		g.Children = append(g.Children, l)
	}
	return nil
}

func (e *editor) ungroup(id string) error {
	g, parent, s, err := e.layer(id)
	if err != nil {
		return err
	}
	if g.Kind != doc.Group {
		return refuse("“%s” is no group. Nothing was changed.", g.Name)
	}
	if g.Place.FlipX || g.Place.FlipY {
		return refuse("“%s” is mirrored, and its layers cannot be mirrored one by one. Nothing was changed; mirror it back first.", g.Name)
	}
	gone := map[string]bool{}
	for _, m := range g.Moves {
		gone[m.ID] = true
	}
	if err := rehang(s, e.into(s), gone); err != nil {
		return err
	}
	m := axes(g)
	list := siblings(s, parent)
	i := slices.Index(*list, g)
	for _, l := range g.Children {
		place(l, m, geom.Identity)
		l.Opacity *= g.Opacity
		l.Hidden = l.Hidden || g.Hidden
	}
	*list = slices.Replace(*list, i, i+1, g.Children...)
	return nil
}

// copyIDs gives copied layers new ids, and new threads unless they may keep theirs. Hitches inside the set are
// re-mapped; those to moves of the scene stay, others become times.
func copyIDs(s *doc.Scene, layers []*doc.Layer, seed string, keepThreads bool) {
	box := &doc.Scene{Layers: layers}
	hung := map[*doc.Move]bool{}
	doc.Walk(layers, func(l, _ *doc.Layer) bool {
		if !keepThreads {
			l.Thread = derive(seed+"/thread", l.ID)
		}
		for _, m := range l.Moves {
			m.Continues = ""
			hung[m] = true
		}
		return true
	})
	remap(box, seed, map[string]string{})
	for m := range hung {
		known := func(id string) bool {
			a, _ := box.Move(id)
			b, _ := s.Move(id)
			return a != nil || b != nil
		}
		if (m.Start.When == doc.WhenBegins || m.Start.When == doc.WhenEnds) && !known(m.Start.Of) ||
			m.Start.When == doc.AtCue {
			m.Start = doc.Start{When: doc.AtTime, Offset: max(m.Start.Offset, 0)}
		}
		if m.End != nil && m.End.When != doc.BeforeSceneEnd && !known(m.End.Of) {
			m.End = nil
		}
		if m.Until != "" && !known(m.Until) {
			m.Until = ""
		}
	}
}

func init() {
	op("layer.scale", func(e *editor, c *struct {
		ID string  `json:"id"`
		X  float64 `json:"x"` // where its place is afterwards
		Y  float64 `json:"y"`
		KX float64 `json:"kx"` // factors along the layer's own axes; of groups and texts only kx counts
		KY float64 `json:"ky"`
	}) error {
		l, _, _, err := e.layer(c.ID)
		if err != nil {
			return err
		}
		if !(c.KX > 0 && c.KY > 0) {
			return refuse("A layer cannot be scaled to nothing. Nothing was changed.")
		}
		if err := scale(l, c.KX, c.KY); err != nil {
			return err
		}
		l.Place.X, l.Place.Y = round(c.X).(float64), round(c.Y).(float64)
		return nil
	})
}

// scale changes the size of a layer about its origin. Groups and texts keep their proportions: kx holds for both axes.
func scale(l *doc.Layer, kx, ky float64) error {
	if l.Kind == doc.Group || l.Kind == doc.TextKind {
		ky = kx
	}
	cut := func(v float64) float64 { return round(v).(float64) }
	l.Place.W, l.Place.H = cut(l.Place.W*kx), cut(l.Place.H*ky)
	if v := l.Place.Pivot; v != nil {
		v[0], v[1] = v[0]*kx, v[1]*ky
	}
	switch l.Kind {
	case doc.TextKind:
		for i := range l.Text.Runs {
			l.Text.Runs[i].Size = cut(min(4000, max(1, l.Text.Runs[i].Size*kx)))
		}
		l.Text.LetterSpacing *= kx
	case doc.PathKind:
		p, err := geom.ParseData(l.Path)
		if err != nil {
			return refuse("This path cannot be read: %v. Nothing was changed.", err)
		}
		out := &geom.Path{}
		out.Append(p, geom.Scale(kx, ky))
		l.Path = out.Data()
	case doc.Group:
		l.Corner *= kx
		for _, k := range l.Children {
			k.Place.X, k.Place.Y = k.Place.X*kx, k.Place.Y*kx
			if err := scale(k, kx, kx); err != nil {
				return err
			}
			k.Corner *= kx
			for _, m := range k.Moves {
				if m.Path == nil {
					continue
				}
				p, err := geom.ParseData(m.Path.D)
				if err != nil {
					return refuse("A motion path cannot be read: %v. Nothing was changed.", err)
				}
				out := &geom.Path{}
				out.Append(p, geom.Scale(kx, kx))
				m.Path.D = out.Data()
			}
		}
	}
	return nil
}
