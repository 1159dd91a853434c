package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/words"
)

// AddLayers puts new layers into a scene, or into a group of it.
type AddLayers struct {
	Scene  string       `json:"scene"`
	Parent string       `json:"parent"`
	Index  *int         `json:"index"` // absent: in front
	Layers []*doc.Layer `json:"layers"`
}

// Op is its name on the wire.
func (c *AddLayers) Op() string { return "layer.add" }

func (c *AddLayers) apply(e *editor) error {
	s, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	if !sound(c.Layers) {
		return words.New("layer.none")
	}
	return addTo(s, c.Parent, c.Index, doc.CloneAll(c.Layers)...)
}

// DeleteLayers takes layers away, with what is in them. What hung on their moves keeps its times.
type DeleteLayers struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *DeleteLayers) Op() string { return "layer.delete" }

func (c *DeleteLayers) apply(e *editor) error {
	for _, id := range c.IDs {
		l, parent, s, err := e.layer(id)
		if err != nil {
			return err
		}
		gone := map[string]bool{}
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			for _, m := range k.Moves {
				gone[m.ID] = true
				closeGap(s, m.ID)
			}
			return true
		})
		if err := rehang(s, e.into(s), gone); err != nil {
			return err
		}
		remove(s, parent, id)
	}
	return nil
}

// Part is a layer or a move with what becomes of its fields.
type Part struct {
	ID    string `json:"id"`
	Patch Fields `json:"patch"`
}

// SetLayers changes fields of layers, but for their identity, their kind, and what moves or lies in them.
type SetLayers struct {
	Set []Part `json:"set"`
}

// Op is its name on the wire.
func (c *SetLayers) Op() string { return "layer.set" }

func (c *SetLayers) apply(e *editor) error {
	for _, set := range c.Set {
		l, err := e.head(set.ID)
		if err != nil {
			return err
		}
		head := *l
		head.Children, head.Moves = nil, nil
		n, err := merged(&head, set.Patch, "id", "thread", "kind", "children", "moves", "made")
		if err != nil {
			return err
		}
		n.Children, n.Moves = l.Children, l.Moves
		*l = *n
	}
	return nil
}

// OrderLayers puts layers of one scene into another place of its stack, or into a group; they stay where they are on the page.
type OrderLayers struct {
	IDs    []string `json:"ids"` // back to front, as they shall lie
	Parent string   `json:"parent"`
	Index  int      `json:"index"` // among the others that stay there
}

// Op is its name on the wire.
func (c *OrderLayers) Op() string { return "layer.order" }

func (c *OrderLayers) apply(e *editor) error {
	var moved []*doc.Layer
	var scene *doc.Scene
	for _, id := range c.IDs {
		l, parent, s, err := e.layer(id)
		if err != nil {
			return err
		}
		if scene != nil && s != scene {
			return words.New("layers.apart")
		}
		scene = s
		if inside(l, c.Parent) {
			return words.New("group.into-itself")
		}
		into, _ := s.Layer(c.Parent)
		if err := unmirrored(s, parent, into); err != nil {
			return err
		}
		place(l, ancestry(s, id), targetAxes(s, c.Parent))
		if parent != into {
			l.Mask = ""
		}
		remove(s, parent, id)
		moved = append(moved, l)
	}
	if scene == nil {
		return nil
	}
	return addTo(scene, c.Parent, &c.Index, moved...)
}

// GroupLayers puts layers of one scene into a new group, in the place of the front-most of them.
type GroupLayers struct {
	IDs    []string `json:"ids"`
	ID     string   `json:"id"`
	Thread string   `json:"thread"`
	Name   string   `json:"name"`
	Tint   int      `json:"tint"`
	X      float64  `json:"x"` // where the group's axes begin, in page px
	Y      float64  `json:"y"`
	Mask   string   `json:"mask"` // what the front-most is to the others: inside, outside; empty: a layer like them
}

// Op is its name on the wire.
func (c *GroupLayers) Op() string { return "layer.group" }

func (c *GroupLayers) apply(e *editor) error {
	return e.group(c.IDs, c.ID, c.Thread, c.Name, c.Tint, geom.Point{X: c.X, Y: c.Y}, c.Mask)
}

// UngroupLayers lets the layers of groups lie where these lay. What hung on moves that are lost keeps its times.
type UngroupLayers struct {
	IDs []string `json:"ids"`
	// Down hands the group's moves to its layers where that is the same, and turns their paths with its axes. Commands stored before
	// it was there are without.
	Down bool `json:"down"`
	// About says, by group, the point in its own axes that its turning loops go about: they are handed down, too, where HandsTurnDown.
	About map[string][2]float64 `json:"about"`
}

// Op is its name on the wire.
func (c *UngroupLayers) Op() string { return "layer.ungroup" }

func (c *UngroupLayers) apply(e *editor) error {
	for _, id := range c.IDs {
		var about *geom.Point
		if v, ok := c.About[id]; ok {
			about = &geom.Point{X: v[0], Y: v[1]}
		}
		if err := e.ungroup(id, c.Down, about); err != nil {
			return err
		}
	}
	return nil
}

// DuplicateLayers puts a copy in front of each of some layers.
type DuplicateLayers struct {
	IDs  []string `json:"ids"`
	Seed string   `json:"seed"`
	DX   float64  `json:"dx"`
	DY   float64  `json:"dy"`
}

// Op is its name on the wire.
func (c *DuplicateLayers) Op() string { return "layer.duplicate" }

func (c *DuplicateLayers) apply(e *editor) error {
	for _, id := range c.IDs {
		l, parent, s, err := e.layer(id)
		if err != nil {
			return err
		}
		k := l.Clone()
		k.Mask = "" // one that cannot be seen would be of no use
		t, err := motion.Resolve(s, e.into(s))
		if err != nil {
			return err
		}
		copyIDs(s, []*doc.Layer{k}, c.Seed, false, begins(t))
		d := geom.Point{X: c.DX, Y: c.DY}
		if inv, ok := ancestry(s, id).Inverse(); ok {
			d = inv.ApplyVector(d)
		}
		k.Place.X += d.X
		k.Place.Y += d.Y
		shiftChanges(k, d.X, d.Y)
		list := siblings(s, parent)
		i := slices.Index(*list, l)
		*list = slices.Insert(*list, i+1, k)
	}
	return nil
}

// PasteLayers puts copies of layers, from anywhere, into a scene.
type PasteLayers struct {
	Scene  string           `json:"scene"`
	Layers []*doc.Layer     `json:"layers"`
	Seed   string           `json:"seed"`
	DX     float64          `json:"dx"`
	DY     float64          `json:"dy"`
	Begins map[string]int64 `json:"begins"` // of the moves where they were copied, ms on that scene's clock
	New    bool             `json:"new"`    // threads of their own, also where theirs are free
}

// Op is its name on the wire.
func (c *PasteLayers) Op() string { return "layer.paste" }

func (c *PasteLayers) apply(e *editor) error {
	s, err := e.scene(c.Scene)
	if err != nil {
		return err
	}
	if !sound(c.Layers) {
		return words.New("layer.none")
	}
	free := true
	doc.Walk(c.Layers, func(l, _ *doc.Layer) bool {
		free = free && l != nil && s.Thread(l.Thread) == nil
		return l != nil
	})
	list := doc.CloneAll(c.Layers)
	copyIDs(s, list, c.Seed, free && !c.New, c.Begins)
	for _, l := range list {
		l.Place.X += c.DX
		l.Place.Y += c.DY
		shiftChanges(l, c.DX, c.DY)
	}
	return addTo(s, "", nil, list...)
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
	if parent != nil && len(*list) == 0 {
		*list = nil // as it is read again
	}
}

func addTo(s *doc.Scene, parent string, index *int, layers ...*doc.Layer) error {
	var group *doc.Layer
	if parent != "" {
		if group, _ = s.Layer(parent); group == nil || group.Kind != doc.Group {
			return words.New("group.gone")
		}
	}
	if group == nil {
		for _, l := range layers {
			l.Mask = "" // there is nothing that it could be the mask of
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
