package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/words"
)

// CombineLayers makes several layers one: the rearmost of them, which keeps its thread, name, moves and place in the stack. All are kept inside it,
// without the moves of the others. What the one becomes, such as its outline, was worked out where the command was made.
type CombineLayers struct {
	IDs    []string `json:"ids"`
	How    string   `json:"how"`
	Become Fields   `json:"become"` // merged into the rearmost

	Children []*doc.Layer `json:"children"` // of a text that is split
}

// Op is its name on the wire.
func (c *CombineLayers) Op() string { return "layers.combine" }

func (c *CombineLayers) apply(e *editor) error {
	scene, list, err := e.stacked(c.IDs)
	if err != nil {
		return err
	}
	rear := list[0]
	gone := map[string]bool{}
	kept := make([]*doc.Layer, len(list))
	for i, l := range list {
		kept[i] = l.Clone()
		doc.Walk([]*doc.Layer{l}, func(k, _ *doc.Layer) bool {
			for _, m := range k.Moves {
				if k != rear {
					gone[m.ID] = true
					closeGap(scene, m.ID)
				}
			}
			return true
		})
		doc.Walk(kept[i:i+1], func(k, _ *doc.Layer) bool { k.Moves = nil; return true })
	}
	if err := rehang(scene, e.into(scene), gone); err != nil {
		return err
	}
	head := *rear
	head.Children, head.Moves, head.Made = nil, nil, nil
	n, err := merged(&head, c.Become, "id", "thread", "children", "moves", "made")
	if err != nil {
		return err
	}
	n.Moves = rear.Moves
	for _, k := range c.Children {
		n.Children = append(n.Children, k.Clone())
	}
	from := make([]placed, len(list))
	for i, l := range list {
		from[i] = placed{l, ancestry(scene, l.ID)}
	}
	*rear = *n
	inner := ancestry(scene, rear.ID).Mul(axes(rear))
	for i, p := range from {
		place(kept[i], p.outer, inner)
		settle(kept[i])
		if i > 0 {
			_, parent := scene.Layer(p.layer.ID)
			remove(scene, parent, p.layer.ID)
		}
	}
	rear.Made = &doc.Made{How: c.How, Of: kept}
	return nil
}

// TakeApart brings back what a layer was made of, in its place. The rearmost is the same layer again, with the moves it has now; the others are
// new where their ids or threads are taken by now.
type TakeApart struct {
	IDs  []string `json:"ids"`
	Seed string   `json:"seed"`
}

// Op is its name on the wire.
func (c *TakeApart) Op() string { return "layer.apart" }

func (c *TakeApart) apply(e *editor) error {
	for _, id := range c.IDs {
		if err := e.apart(id, c.Seed); err != nil {
			return err
		}
	}
	return nil
}

// settle rounds a place that was worked out, so that there and back is the same to the last digit.
func settle(l *doc.Layer) {
	p := &l.Place
	p.X, p.Y, p.Turn = round(p.X), round(p.Y), round(p.Turn)
}

// placed is a layer with the map from the axes its place is in to the page.
type placed struct {
	layer *doc.Layer
	outer geom.Matrix
}

// stacked returns layers of one scene from the rearmost on.
func (e *editor) stacked(ids []string) (scene *doc.Scene, list []*doc.Layer, err error) {
	for _, id := range ids {
		_, _, s, err := e.layer(id)
		if err != nil {
			return nil, nil, err
		}
		if scene != nil && s != scene {
			return nil, nil, words.New("layers.apart")
		}
		scene = s
	}
	if scene == nil {
		return nil, nil, words.New("layer.gone")
	}
	doc.Walk(scene.Layers, func(l, _ *doc.Layer) bool {
		if slices.Contains(ids, l.ID) {
			list = append(list, l)
			return false
		}
		return true
	})
	if len(list) < len(ids) {
		return nil, nil, words.New("group.into-itself")
	}
	return scene, list, nil
}

func (e *editor) apart(id, seed string) error {
	l, parent, s, err := e.layer(id)
	if err != nil {
		return err
	}
	if l.Made == nil {
		return words.New("apart.none", l.Name)
	}
	if l.Place.FlipX || l.Place.FlipY {
		return words.New("group.mirrored", l.Name)
	}
	var back []*doc.Layer
	for _, k := range l.Made.Of {
		k = k.Clone()
		place(k, axes(l), geom.Identity)
		settle(k)
		k.Mask = "" // they may come back elsewhere than they left
		back = append(back, k)
	}
	if l.Kind == doc.Group {
		if err := e.childrenGone(s, l); err != nil {
			return err
		}
	}
	first, others := back[0], back[1:]
	list := siblings(s, parent)
	i := slices.Index(*list, l)
	*list = slices.Delete(*list, i, i+1)
	first.ID, first.Thread, first.Moves, first.Tint = l.ID, l.Thread, l.Moves, l.Tint
	first.Hidden, first.Locked, first.Mask = l.Hidden, l.Locked, l.Mask
	e.renew(s, first.Children, seed)
	e.renew(s, others, seed)
	*siblings(s, parent) = slices.Insert(*siblings(s, parent), i, back...)
	return nil
}

// childrenGone takes the moves of a group's children out of the scene's times.
func (e *editor) childrenGone(s *doc.Scene, g *doc.Layer) error {
	gone := map[string]bool{}
	doc.Walk(g.Children, func(k, _ *doc.Layer) bool {
		for _, m := range k.Moves {
			gone[m.ID] = true
			closeGap(s, m.ID)
		}
		return true
	})
	if len(gone) == 0 {
		return nil
	}
	return rehang(s, e.into(s), gone)
}

// renew gives layers that come back new ids and threads where theirs are taken.
func (e *editor) renew(s *doc.Scene, list []*doc.Layer, seed string) {
	doc.Walk(list, func(k, _ *doc.Layer) bool {
		for _, sc := range e.p.Film.Scenes {
			if other, _ := sc.Layer(k.ID); other != nil {
				k.ID = derive(seed, k.ID)
				break
			}
		}
		if s.Thread(k.Thread) != nil {
			k.Thread = derive(seed+"/thread", k.ID)
		}
		return true
	})
}
