package doc

import (
	"maps"
	"slices"
)

// Dragging changes fields of a few layers and nothing else, many times a second. Then no id, no thread, and nothing that one thing
// names of another can have gone wrong, and only those layers are looked at.

// headsOnly reports whether p differs from before in own fields of layers at most, with the same layers in the same places.
func (p *Project) headsOnly(before *Project) bool {
	a, b := &p.Film, &before.Film
	return p.Version == before.Version && p.ID == before.ID && p.Name == before.Name && a.Width == b.Width && a.Height == b.Height && a.Rate == b.Rate &&
		a.Loop == b.Loop && a.Closing.Equal(b.Closing) && same(a.EndPause, b.EndPause) && a.Clear == b.Clear && a.Under == b.Under && slices.EqualFunc(a.Shifts, b.Shifts, sameShift) && maps.Equal(p.Media, before.Media) &&
		slices.Equal(p.Films, before.Films) && len(p.Insets) == 0 && slices.Equal(a.Sounds, b.Sounds) && same(a.Mix, b.Mix) && same(a.Captions, b.Captions) && slices.Equal(p.RoleSets, before.RoleSets) && slices.Equal(p.Palette, before.Palette) && slices.Equal(p.Looks, before.Looks) && p.Table.Equal(before.Table) && slices.EqualFunc(a.Scenes, b.Scenes, sameBut)
}

// sameBut reports whether two scenes differ in own fields of layers at most.
func sameBut(a, b *Scene) bool {
	if a == b {
		return true
	}
	return a.ID == b.ID && a.Name == b.Name && a.Stay == b.Stay && a.AutoStay == b.AutoStay && a.Aside == b.Aside && a.Template == b.Template && a.Transition.Equal(&b.Transition) && sameFill(&a.Background, &b.Background) &&
		maps.Equal(a.Roles, b.Roles) && slices.Equal(a.Cues, b.Cues) && a.EndsAtCue == b.EndsAtCue && slices.Equal(a.Guides, b.Guides) && sameSounds(a.Sounds, b.Sounds) && slices.Equal(a.Captions, b.Captions) &&
		slices.EqualFunc(a.Runs, b.Runs, func(x, y MoveRun) bool { return x.ID == y.ID && x.When == y.When && slices.Equal(x.Moves, y.Moves) }) &&
		sameExtra(a.Extra, b.Extra) && sameBones(a.Layers, b.Layers)
}

// sameBones reports whether the same layers lie in the same places and have the same moves.
func sameBones(a, b []*Layer) bool {
	return slices.EqualFunc(a, b, func(x, y *Layer) bool {
		return x == y || x != nil && y != nil && x.ID == y.ID && x.Thread == y.Thread && x.Kind == y.Kind && x.Mask == y.Mask &&
			slices.EqualFunc(x.Moves, y.Moves, sameMove) && sameBones(x.Children, y.Children)
	})
}

// checkHeads checks the layers that differ from before.
func (p *Project) checkHeads(before *Project) error {
	c := &checker{media: p.Media, easings: CheckEasing}
	for i, s := range p.Film.Scenes {
		if o := before.Film.Scenes[i]; o != s {
			c.heads(s.Layers, o.Layers, s)
		}
	}
	if c.err != nil {
		return c.err
	}
	return nil
}

func (c *checker) heads(list, before []*Layer, s *Scene) {
	for i, l := range list {
		if l == before[i] {
			continue
		}
		c.head("", l, s)
		c.heads(l.Children, before[i].Children, s)
	}
}
