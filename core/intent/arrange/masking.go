package arrange

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var maskingAsked = intent.Table{
	// One layer in a group becomes the mask of the others, or ceases to be; of several the front-most becomes that of a new group.
	"mask": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		How     string   `json:"how"` // inside, outside; empty: a layer like others
	}) (edit.Command, error) {
		sc := s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
		if len(list) > 1 {
			return grouped(s, m, list, c.How), nil
		}
		if len(list) == 0 {
			return nil, nil
		}
		if _, parent := sc.Layer(list[0].ID); parent == nil {
			return nil, words.New("mask.alone")
		}
		return &edit.SetLayers{Set: []edit.Part{{ID: list[0].ID, Patch: edit.Fields{"mask": c.How}}}}, nil
	}),
	// Layers are cut as windows out of what lies beneath them: they stay what they are, and can be moved and changed.
	"window": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		All     bool     `json:"all"` // out of everything below, not only of what lies right beneath
	}) (edit.Command, error) {
		return windows(s, m, c.Threads, c.All)
	}),
}

// mostWindows is how many masks a group gets; beyond that, what has windows becomes a part of a new one.
const mostWindows = 4

func windows(s *intent.Desk, m scope.Moment, threads []string, all bool) (edit.Command, error) {
	sc, i := s.Scene(m), s.SceneIndex(m)
	list := scope.Outermost(sc, s.Layers(m, threads))
	if len(list) == 0 {
		return nil, nil
	}
	_, parent := sc.Layer(list[0].ID)
	beside := sc.Layers
	if parent != nil {
		beside = parent.Children
	}
	first := len(beside)
	for _, l := range list {
		k := slices.Index(beside, l)
		if k < 0 {
			return nil, words.New("arrange.apart")
		}
		first = min(first, k)
	}
	// Beneath is what lies behind the rearmost window and under one of them.
	var under []*doc.Layer
	for k := first - 1; k >= 0; k-- {
		l := beside[k]
		if l.Hidden || l.Mask != "" || !l.Is().Grounds && l.Kind != doc.Group && l.Kind != doc.PathKind && l.Kind != doc.TextKind {
			continue
		}
		if all || slices.ContainsFunc(list, func(w *doc.Layer) bool { return meets(s, i, w, l) }) {
			under = append(under, l)
			if !all {
				break
			}
		}
	}
	if len(under) == 0 {
		return nil, words.New("window.none")
	}
	slices.Reverse(under)
	plate := under[len(under)-1]
	order := &edit.OrderLayers{IDs: scope.IDs(list)}
	commands := []edit.Command{order}
	cut := list
	if len(list) > 1 {
		// Several are one mask, in a group of their own, so that something can be seen through all of them.
		g := grouped(s, m, list, "").(*edit.GroupLayers)
		g.Name = scope.NameFor(sc, "Windows")
		commands = append(commands, g)
		cut = []*doc.Layer{{ID: g.ID}}
	}
	if len(under) == 1 && masks(plate) > 0 && masks(plate) < mostWindows {
		// One more window in what has windows already.
		order.Parent, order.Index = plate.ID, len(plate.Children)
		return edit.All(append(commands, punched(cut))...), nil
	}
	for _, l := range beside[:slices.Index(beside, plate)+1] {
		if !slices.Contains(list, l) {
			order.Index++
		}
	}
	if parent != nil {
		order.Parent = parent.ID
	}
	g := grouped(s, m, append(slices.Clone(under), list...), "").(*edit.GroupLayers)
	g.IDs = append(scope.IDs(under), scope.IDs(cut)...)
	g.Name, g.Tint = scope.NameFor(sc, plate.Name+" with a window"), plate.Tint
	return edit.All(append(commands, g, punched(cut))...), nil
}

// punched is the command by which layers are punched out of those they lie with.
func punched(list []*doc.Layer) edit.Command {
	c := &edit.SetLayers{}
	for _, l := range list {
		c.Set = append(c.Set, edit.Part{ID: l.ID, Patch: edit.Fields{"mask": doc.Outside}})
	}
	return c
}

// masks counts those of a group.
func masks(l *doc.Layer) (n int) {
	for _, k := range l.Children {
		if k.Mask != "" {
			n++
		}
	}
	return
}

// meets reports whether the boxes of two layers overlap at rest.
func meets(s *intent.Desk, scene int, a, b *doc.Layer) bool {
	at := func(l *doc.Layer) geom.Box {
		box, _ := s.Shown.Box(scene, l.ID)
		return s.Shown.RestMatrix(scene, l.ID).ApplyBox(box)
	}
	p, q := at(a), at(b)
	return p.Min.X < q.Max.X && q.Min.X < p.Max.X && p.Min.Y < q.Max.Y && q.Min.Y < p.Max.Y
}

// grouped returns the command that puts layers into a group, the front-most as a mask of the others where mask says so.
func grouped(s *intent.Desk, m scope.Moment, list []*doc.Layer, mask string) edit.Command {
	all := make([]string, len(list))
	for i, l := range list {
		all[i] = l.Thread
	}
	at := united(atRest(s, m, all)).Centre()
	return &edit.GroupLayers{
		IDs: scope.IDs(list), ID: s.NewID(), Thread: s.NewID(), Name: scope.NameFor(s.Scene(m), "Group"), Tint: list[len(list)-1].Tint,
		X: at.X, Y: at.Y, Mask: mask,
	}
}
