package series

import (
	"reflect"
	"slices"

	"capstan/core/doc"
	"capstan/core/effect"
)

// goesOn reports whether a layer of the folded scene can be one of scene k as well: what differs between them a change can name, and nothing that
// either does is seen in the other's scene.
func (f *folder) goesOn(a, b *doc.Layer, k int) bool {
	p := f.of[a]
	if p.layer.Kind != b.Kind || p.layer.Mask != b.Mask {
		return false
	}
	if b.Kind != doc.ViewKind && f.waits(b, k) && !f.carries(p, b, k) && p.scene == k-1 && f.there(p.layer, p.scene) &&
		slices.ContainsFunc(b.Moves, func(m *doc.Move) bool { return m.Kind == doc.Entrance && f.timing[k].Moves[m.ID].Begin < 0 }) {
		return false // it comes in the transition in which it would go
	}
	for _, m := range p.layer.Moves {
		if !f.endsIn(m, p, b, k) {
			return false
		}
	}
	for _, m := range b.Moves {
		if !f.beginsIn(m, p, k) {
			return false
		}
	}
	if b.Kind == doc.Group && (len(p.layer.Moves)+len(b.Moves) > 0 || masked(p.layer.Children) || masked(b.Children) || b.Place.FlipX || b.Place.FlipY) &&
		!f.sameInside(p.layer.Children, b.Children, p.scene, k) {
		return false
	}
	from := f.from(p, b, k)
	b = f.relative(b, p, k)
	return sameHeads(from.After(doc.Difference(from, b)), b)
}

// sameHeads compares two layers but for who they are, what they do and what lies in them.
func sameHeads(a, b *doc.Layer) bool {
	x, y := *a, *b
	for _, l := range []*doc.Layer{&x, &y} {
		l.ID, l.Thread, l.Name, l.Tint, l.Locked, l.Moves, l.Children, l.Made, l.Extra = "", "", "", 0, false, nil, nil, nil, nil
	}
	return reflect.DeepEqual(&x, &y)
}

func masked(list []*doc.Layer) bool {
	return slices.ContainsFunc(list, func(l *doc.Layer) bool { return l.Mask != "" })
}

// sameInside reports whether what lies in a group is the same in two scenes, and moves alike.
func (f *folder) sameInside(x, y []*doc.Layer, j, k int) bool {
	return slices.EqualFunc(x, y, func(a, b *doc.Layer) bool {
		if a.Thread != b.Thread || !sameHeads(a, b) || len(a.Moves) != len(b.Moves) {
			return false
		}
		for _, m := range a.Moves {
			if !f.timing[j].Moves[m.ID].Whole || f.onwards(m, b, k) == nil {
				return false
			}
		}
		return f.sameInside(a.Children, b.Children, j, k)
	})
}

// onwards returns the loop of a layer of scene k that goes on one of the scene before as if they were one; nil where none does.
func (f *folder) onwards(m *doc.Move, b *doc.Layer, k int) *doc.Move {
	for _, n := range b.Moves {
		if n.Continues != m.ID || f.timing[k].Moves[n.ID].Begin > 0 {
			continue
		}
		x, y := *m, *n
		for _, c := range []*doc.Move{&x, &y} {
			c.ID, c.Start, c.Begun, c.Continues = "", doc.Start{}, 0, ""
		}
		_, before := f.scenes[k-1].Move(m.ID)
		_, now := f.scenes[k].Move(n.ID)
		if reflect.DeepEqual(&x, &y) && before != nil && f.film.Cycle(f.first+k-1, m, before.ID) == f.film.Cycle(f.first+k, n, now.ID) {
			return n
		}
	}
	return nil
}

// carried returns the move of a layer of scene k that is one of the scene before, which goes on there from where it is: scenes that were cut have
// such. nil where there is none.
func (f *folder) carried(m *doc.Move, j int, b *doc.Layer, k int) *doc.Move {
	if j != k-1 || f.timing[j].Moves[m.ID].Whole {
		return nil
	}
	for _, n := range b.Moves {
		if f.timing[k].Moves[n.ID].Begin+f.origin[k] != f.timing[j].Moves[m.ID].Begin+f.origin[j] || f.timing[k].Moves[n.ID].Begin >= 0 {
			continue
		}
		x, y := *m, *n
		for _, c := range []*doc.Move{&x, &y} {
			c.ID, c.Start, c.Begun, c.End, c.Until, c.Continues = "", doc.Start{}, 0, nil, "", ""
		}
		if reflect.DeepEqual(&x, &y) {
			return n
		}
	}
	return nil
}

// carries reports whether moves of a layer go on in scene k as those of the scene before: it rests there as it did.
func (f *folder) carries(p *part, b *doc.Layer, k int) bool {
	return slices.ContainsFunc(p.layer.Moves, func(m *doc.Move) bool { return f.carried(m, p.scene, b, k) != nil })
}

// from is what a layer of scene k is compared with: as its part of the folded scene is when the scene before ends.
func (f *folder) from(p *part, b *doc.Layer, k int) *doc.Layer {
	if f.carries(p, b, k) {
		return p.rest
	}
	return p.head
}

// endsIn reports whether nothing that a move does is seen after its scene, or goes on as what scene k's layer does.
func (f *folder) endsIn(m *doc.Move, p *part, b *doc.Layer, k int) bool {
	iv, stay, g := f.timing[p.scene].Moves[m.ID], f.timing[p.scene].Stay, m.Goes()
	switch {
	case m.TiedIn(f.scenes[p.scene]):
		return false
	case f.carried(m, p.scene, b, k) != nil:
		return true
	case f.carries(p, b, k) && iv.Begin < stay:
		return false // what is over then is rest in the one and not in the other
	case iv.Whole:
		return p.scene == k-1 && f.onwards(m, b, k) != nil
	case iv.Begin >= stay:
		return !fillsBack(m)
	case m.Lasts == doc.WholeScene && m.Keeps != "":
		return false
	case iv.End > stay || m.Drifts() && m.Kind != doc.MotionPath:
		return false
	case m.Kind == doc.Change:
		return m.Unit == "" && !m.Alternate && m.Repeat <= 1 && m.Change.To.Scale == nil && m.Change.To.Apart == nil
	case m.Kind == doc.Loop:
		return g != nil && !g.Keeps && g.Manner != effect.Rounds
	}
	return true
}

// beginsIn reports whether nothing that a move of scene k does is seen before that.
func (f *folder) beginsIn(m *doc.Move, p *part, k int) bool {
	carried := func(o *doc.Move) bool { return f.carried(o, p.scene, &doc.Layer{Moves: []*doc.Move{m}}, k) != nil }
	switch {
	case slices.ContainsFunc(p.layer.Moves, carried):
		return true
	case m.TiedIn(f.scenes[k]) || fillsBack(m):
		return false
	case !f.timing[k].Moves[m.ID].Whole && f.timing[k].Moves[m.ID].Begin < -f.into(k):
		return false // it has gone on for a while, and would be seen before
	case f.timing[k].Moves[m.ID].Whole:
		return p.scene == k-1 && slices.ContainsFunc(p.layer.Moves, func(o *doc.Move) bool {
			return o.ID == m.Continues && f.onwards(o, &doc.Layer{Moves: []*doc.Move{m}}, k) != nil
		})
	}
	return true
}

// dropped reports whether a move never has a say, since its scene ends before.
func (f *folder) dropped(m *doc.Move, k int) bool {
	return k < len(f.scenes)-1 && f.timing[k].Moves[m.ID].Begin >= f.timing[k].Stay && !fillsBack(m) && !m.TiedIn(f.scenes[k])
}

// gone reports whether what a move of scene k hangs on is not there to be hung on.
func (f *folder) gone(id string, k int) bool {
	if id == "" {
		return false
	}
	m, _ := f.scenes[k].Move(id)
	return m == nil || f.lost[id] || f.dropped(m, k) || f.timing[k].Moves[id].Whole
}

// move is a move of scene k on the folded scene's clock; nil where it has no say, or a loop that is there already goes on as it.
func (f *folder) move(m *doc.Move, k int) *doc.Move {
	iv, last := f.timing[k].Moves[m.ID], k == len(f.scenes)-1
	if f.dropped(m, k) {
		return nil
	}
	n := m.Clone()
	if iv.Whole {
		return f.loop(n, k)
	}
	if m.End != nil && (m.End.When == doc.BeforeSceneEnd && !last || f.gone(m.End.Of, k)) || f.gone(m.Until, k) || iv.Early || m.Lasts == doc.WholeScene && !last {
		n.Start.When = doc.AtTime
		explicit(n, iv)
	}
	switch {
	case iv.Early || n.Start.When == doc.AtTime, n.Start.When == doc.BeforeSceneEnd && !last, n.Start.OnSound() && k > 0, !n.Start.OnSound() && f.gone(n.Start.Of, k) && n.Start.When != doc.AtCue:
		f.begin(n, iv.Begin+f.origin[k])
	}
	return n
}

// begin lets a move begin at a time of the folded clock.
func (f *folder) begin(m *doc.Move, at int64) {
	BeginAt(m, at, f.into(0))
}

// loop is a loop of scene k that goes on in transitions: from where the one that it continues is then. One of a thread of its own goes on none of the
// scene before the first, and begins so much earlier that it is where it was.
func (f *folder) loop(n *doc.Move, k int) *doc.Move {
	_, l := f.scenes[k].Move(n.ID)
	n.End, n.Until = nil, "" // it lasts as long as the scene
	at := f.timing[k].Moves[n.ID].Begin + f.origin[k]
	// What goes on before its scene begins does so here, too: so many times round earlier.
	early := func(at int64) int64 {
		if cycle := f.film.Cycle(f.first+k, n, l.ID); f.timing[k].Moves[n.ID].Begin <= 0 && at > 0 && cycle > 0 {
			return at - (at+cycle-1)/cycle*cycle
		}
		return at
	}
	if k > 0 {
		before, of := f.scenes[k-1].Move(n.Continues)
		switch root, known := f.roots[n.Continues]; {
		case known && before != nil && of.Thread == l.Thread && f.onwards(before, &doc.Layer{Moves: []*doc.Move{n}}, k) != nil:
			f.roots[n.ID], at = root, root
			if f.joins != nil {
				id := n.Continues
				if to := f.loops[id]; to != "" {
					id = to
				}
				f.loops[n.ID] = id
				return nil
			}
		case f.timing[k].Moves[n.ID].Begin > 0: // it waits for that, and begins anew
		default:
			at -= f.film.Phase(f.first+k, n.ID, l.ID)
		}
		n.Continues = ""
		at = early(at)
		f.begin(n, at)
	} else {
		f.begin(n, at)
		at -= f.film.Phase(f.first, n.ID, l.ID)
	}
	f.roots[n.ID] = at
	return n
}
