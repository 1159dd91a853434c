package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
	"capstan/core/state"
)

// becoming is a change with the layer as it is when it has become that: it and the changes before it that stay.
type becoming struct {
	*motion.Change
	to    *doc.Becomes
	layer *layer
	state state.State
}

// compileChanges makes of a layer what each of its changes makes of it.
func (f *Film) compileChanges(s *scene, l *layer) {
	is := l.doc
	list := l.track.Changes()
	for i := range list {
		m := &list[i]
		to := &m.Move.Change.To
		next := &layer{doc: is.After(to), of: l, parent: l.parent, children: l.children, track: l.track}
		if to.Looks() || to.Effects() {
			f.compileShape(s, next)
		} else {
			next.outlines = l.becomes.last(l).outlines
		}
		if l.doc.Kind == doc.Group {
			next.box = l.box
		}
		next.reaches = f.paintedBox(next)
		if next.pivot = next.box.Centre(); next.doc.Place.Pivot != nil {
			next.pivot = geom.Point{X: next.doc.Place.Pivot[0], Y: next.doc.Place.Pivot[1]}
		}
		at := state.Rest(next.doc, next.box, next.pivot)
		next.rest = at.Matrix()
		l.becomes = append(l.becomes, becoming{m, to, next, at})
		if !m.Returns() {
			is = next.doc
		}
	}
}

type becomings []becoming

// last is the layer after the last change that stays.
func (b becomings) last(l *layer) *layer {
	for i := len(b) - 1; i >= 0; i-- {
		if !b[i].Returns() {
			return b[i].layer
		}
	}
	return l
}

// restAt is the layer at rest at a clock: with what its changes have made of it.
func (l *layer) restAt(c motion.Clock) state.State {
	s := state.Rest(l.doc, l.box, l.pivot)
	for i := range l.becomes {
		b := &l.becomes[i]
		if p := b.At(c); p != 0 {
			s = s.Toward(b.to, &b.state, p)
		}
	}
	return s
}

// standing is the layer's state at a clock.
func (l *layer) standing(c motion.Clock, mem *motion.Veils) state.State {
	pose := l.track.At(c, mem)
	return l.restAt(c).With(&pose)
}

// under is the map from the layer's axes to its parent's at a clock under a pose, and how opaque it is but for that.
func (l *layer) under(pose *motion.Pose, c motion.Clock) (geom.Matrix, float64) {
	if len(l.becomes) == 0 {
		return l.at(*pose), l.doc.Opacity
	}
	s := l.restAt(c)
	opacity := s.Opacity
	s = s.With(pose)
	return s.Matrix(), opacity
}

// looks returns as what a layer is painted at a clock: as from on its way to to, a share of the way; the same twice where no change of its looks
// goes on. several says that more than one does: the one begun last decides then what it is but for its paints.
func (l *layer) looks(c motion.Clock) (from, to *layer, share float64, several bool) {
	from = l
	to = nil
	for i := range l.becomes {
		b := &l.becomes[i]
		p := b.At(c)
		switch {
		case p == 0 || !b.to.Looks() && !b.to.Effects():
			if p == 1 && !b.Returns() {
				from = b.layer
			}
		case p == 1:
			several = several || to != nil
			from = b.layer
		default:
			several = several || to != nil
			to, share = b.layer, p
		}
	}
	if to == nil || to == from {
		return from, from, 0, several
	}
	return from, to, share, several
}

// settled returns as what a layer counts at a clock for a morph that begins or ends there.
func (l *layer) settledAt(c motion.Clock) *layer {
	if len(l.becomes) == 0 {
		return l
	}
	from, to, share, _ := l.looks(c)
	if share >= 0.5 {
		return to
	}
	return from
}

// as is a node that shows a layer as it is at a clock, of which n says how it stands. What it is on its way to is said, too, and what is done to it
// as a whole.
func (p *Player) as(l *layer, n node, c motion.Clock) (node, *layer) {
	from, to, share, several := l.looks(c)
	n.layer = from
	if from == to && !several {
		return n, from
	}
	at := l.restAt(c)
	effects, changed := l.effects, false
	for i := range l.becomes {
		if b := &l.becomes[i]; b.to.Effects() {
			if v := b.At(c); v != 0 {
				effects, changed = morph.Effects(&effects, &b.layer.effects, morph.Ease(v)), true
			}
		}
	}
	if changed {
		p.effects = append(p.effects, effects)
		n.mixed = len(p.effects)
	}
	if n.kind == groupNode || from == to {
		return n, to
	}
	n.other, n.share = to, share
	n.size, n.corner = at.Size, at.Corner
	n.sized = from.box.W() != at.Size.X || from.box.H() != at.Size.Y || from.doc.Corner != at.Corner || !from.doc.Shape.Equal(to.doc.Shape)
	if several && len(from.shapes) == len(l.shapes) && len(to.shapes) == len(l.shapes) {
		first := len(p.paints)
		for k := range l.shapes {
			paint := l.shapes[k].paint
			for i := range l.becomes {
				if b := &l.becomes[i]; (b.to.Fill != nil || b.to.Stroke != nil || b.to.Text != nil) && k < len(b.layer.shapes) {
					if v := b.At(c); v != 0 {
						paint = morph.Paints(&paint, &b.layer.shapes[k].paint, v)
					}
				}
			}
			p.paints = append(p.paints, paint)
		}
		n.painted = first + 1
	}
	return n, to
}

// into is the change that makes a layer of it.
func (b becomings) into(to *layer) *becoming {
	for i := range b {
		if b[i].layer == to {
			return &b[i]
		}
	}
	return nil
}

// respell adds a text on its way to other words that come letter by letter, or by another unit: each dissolves into that in its place, what has none
// there comes or goes by itself. ok is false for what goes as a whole, and for words with a plate.
func (p *Player) respell(n node, to *layer, by *becoming, c *motion.Clock) (ok bool) {
	from := n.layer
	if by == nil || len(from.pieces) == 0 || len(to.pieces) == 0 || from.plate != nil || to.plate != nil {
		return false
	}
	if _, ok := by.Unit(*c, &from.pieces[0].unit); !ok {
		return false
	}
	n.kind, n.other, n.sized = textNode, nil, false
	unit := from.track.ByUnit(*c) != ""
	piece := func(l *layer, k int, opacity float64) {
		pose := motion.Rest
		if unit {
			pose = l.track.UnitAt(*c, l.pieces[k].unit, &p.veils)
		}
		pose.Opacity *= opacity
		p.pieceOf(l, k, n.m, pose)
	}
	share := func(l *layer, k int) float64 {
		if k >= len(l.pieces) {
			return -1
		}
		v, _ := by.Unit(*c, &l.pieces[k].unit)
		return morph.Ease(v)
	}
	i := p.open(n)
	for k := range max(len(from.pieces), len(to.pieces)) {
		a, b := share(from, k), share(to, k)
		if a == b && a > 0 && a < 1 { // what is the same in both does not dip
			mix := p.open(node{kind: mixNode, share: a, alpha: 1})
			for _, l := range []*layer{from, to} {
				side := p.open(node{kind: sideNode, alpha: 1})
				piece(l, k, 1)
				p.close(side)
			}
			p.close(mix)
			continue
		}
		if a >= 0 && a < 1 {
			piece(from, k, 1-a)
		}
		if b > 0 {
			piece(to, k, b)
		}
	}
	p.close(i)
	return true
}

// dissolve adds a layer on its way from one thing to another that it cannot become by degrees: the one dissolves into the other.
func (p *Player) dissolve(n node, to *layer, c *motion.Clock) {
	from, share := n.layer, n.share
	mix := p.open(node{kind: mixNode, share: morph.Ease(share), alpha: 1})
	for _, l := range []*layer{from, to} {
		i := p.open(node{kind: sideNode, alpha: 1})
		size := n.size
		if l.doc.Kind == doc.TextKind {
			size = geom.Point{X: l.box.W(), Y: l.box.H()} // words keep their size
		}
		first := len(p.nodes)
		p.fit(l, n.m, size, n.alpha, c)
		p.nodes[first].veil, p.nodes[first].loops, p.nodes[first].blur, p.nodes[first].mixed = n.veil, n.loops, n.blur, n.mixed
		p.close(i)
	}
	p.close(mix)
}
