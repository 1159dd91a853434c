package frame

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
	"capstan/core/state"
)

// strandClock is a moment of a morph: both sides' clocks, the eased progress between them, and the linear one.
type strandClock struct {
	a, b motion.Clock
	p, u float64
}

// of returns the moment as it is for a pair that is timed by itself.
func (c strandClock) of(q *pair) strandClock {
	if q.way.Timed() {
		c.p = q.ease(max(0, c.u-q.way.Delay) / (1 - q.way.Delay))
	}
	return c
}

// masks returns what a pair is to those it lies with on either side; on one where it is not, what it is on the other.
func (q *pair) masks() (a, b string) {
	switch {
	case q.b == nil:
		return q.a.doc.Mask, q.a.doc.Mask
	case q.a == nil:
		return q.b.doc.Mask, q.b.doc.Mask
	}
	return q.a.doc.Mask, q.b.doc.Mask
}

// one adds a pair of a morph. Layers of one side only fade; a layer with an entrance that begins inside the transition shows by that alone.
func (p *Player) one(q *pair, c strandClock, parent geom.Matrix) {
	l := q.a
	if l == nil {
		l = q.b
	}
	mask, then := q.masks()
	i := len(p.nodes)
	switch {
	case p.solo != nil && mask+then == "" && !p.alone(l):
	case mask != then:
		// It ceases to be the one by degrees, and comes to be the other.
		c = c.of(q)
		p.turning(q, c, parent, mask, 1-morph.Ease(c.p))
		p.turning(q, c, parent, then, morph.Ease(c.p))
		return
	case mask == doc.Inside && (q.a == nil || q.b == nil):
		// It does not fade: the others would, too. They come to show beyond it.
		p.inside(q, c, parent)
		p.nodes[i].gone = morph.Ease(c.p)
		if q.a == nil {
			p.nodes[i].gone = 1 - morph.Ease(c.p)
		}
	case q.b == nil:
		p.leaving(q, c, parent)
	case q.a == nil:
		p.coming(q, c, parent)
	default:
		p.both(q, c.of(q), parent, 1)
	}
	if i < len(p.nodes) {
		p.nodes[i].mask = mask
	}
}

// both adds a pair that is on both sides, as strong as it is by share.
func (p *Player) both(q *pair, c strandClock, parent geom.Matrix, share float64) {
	a, b := q.a.standing(c.a, &p.veils), q.b.standing(c.b, &p.veils)
	is := *q
	if is.a, is.b = q.a.settledAt(c.a), q.b.settledAt(c.b); is.a != q.a || is.b != q.b {
		is.reshaped = &reshaped{becomes: p.film.becoming(is.a, is.b, q.way.Outline)}
	}
	if q.apart {
		parent, a, b = p.outermost(q), q.a.absolute(c.a, &p.veils), q.b.absolute(c.b, &p.veils)
	}
	a.Opacity *= share
	b.Opacity *= share
	p.between(&is, c, parent, a, b)
}

// turning adds a pair as what it is on one side of a morph, to a share.
func (p *Player) turning(q *pair, c strandClock, parent geom.Matrix, mask string, share float64) {
	i := len(p.nodes)
	if mask == doc.Inside {
		p.both(q, c, parent, 1)
		p.nodes[i].gone = 1 - share
	} else {
		p.both(q, c, parent, share)
	}
	p.nodes[i].mask = mask
}

func (p *Player) leaving(q *pair, c strandClock, parent geom.Matrix) {
	pose := q.a.track.At(c.a, &p.veils)
	if !pose.Present {
		return
	}
	own := c.of(q)
	if q.wing != (geom.Point{}) {
		p.oneSided(q, q.a, pose, parent.Mul(geom.Translate(q.wing.Mul(own.p))), pose.Opacity, c)
		return
	}
	p.oneSided(q, q.a, pose, parent, pose.Opacity*morph.Ease(1-own.p), c)
}

func (p *Player) coming(q *pair, c strandClock, parent geom.Matrix) {
	pose := q.b.track.At(c.b, &p.veils)
	if !pose.Present {
		return
	}
	alpha, own := pose.Opacity, c.of(q)
	switch {
	case q.b.track.EntersEarly():
	case q.wing != (geom.Point{}):
		parent = parent.Mul(geom.Translate(q.wing.Mul(1 - own.p)))
	default:
		alpha *= morph.Ease(own.p)
	}
	p.oneSided(q, q.b, pose, parent, alpha, c)
}

// oneSided adds a layer of one side; what is inside it may still have come from elsewhere.
func (p *Player) oneSided(q *pair, l *layer, pose motion.Pose, parent geom.Matrix, alpha float64, c strandClock) {
	if l.doc.Kind != doc.Group {
		own := c.a
		if q.a == nil {
			own = c.b
		}
		p.layer(l, parent, &pose, alpha, &own)
		return
	}
	own := c.a
	if q.a == nil {
		own = c.b
	}
	m, opacity := l.under(&pose, own)
	n := node{
		kind: groupNode, layer: l, m: parent.Mul(m), alpha: alpha * opacity,
		veil: pose.Veil, loops: pose.Loops, blur: pose.Blur, tilt: p.tilted(&pose.Tilts, l.box), mask: l.doc.Mask,
	}
	i := p.open(n)
	for _, k := range q.children {
		if q.turned(k, n.loops.Only) {
			continue
		}
		m := n.m
		if unit, of := p.unit(q, k, c); of {
			m = m.Mul(l.unitAt(unit, k.middle()))
		}
		p.inside(k, c, m)
	}
	p.close(i)
	p.draw(i, pose.Drawn)
}

// inside adds a child of a group of one side; one of that side only follows the group's own fade.
func (p *Player) inside(q *pair, c strandClock, m geom.Matrix) {
	switch {
	case q.a != nil && q.b != nil:
		p.one(q, c, m)
	case q.b == nil:
		p.follow(q, q.a, q.a.track.At(c.a, &p.veils), m, c)
	default:
		p.follow(q, q.b, q.b.track.At(c.b, &p.veils), m, c)
	}
}

func (p *Player) follow(q *pair, l *layer, pose motion.Pose, m geom.Matrix, c strandClock) {
	if pose.Present || l.doc.Mask == doc.Inside {
		p.oneSided(q, l, pose, m, shownBy(&pose), c)
	}
}

// shownBy is the opacity of a pose, 0 where it is not drawn.
func shownBy(p *motion.Pose) float64 {
	if !p.Present {
		return 0
	}
	return p.Opacity
}

// unit returns what moves by part make of a child of the pair's groups, and whether any do.
func (p *Player) unit(q, child *pair, c strandClock) (motion.Pose, bool) {
	of := func(l, k *layer, clock motion.Clock) (motion.Unit, bool) {
		if l == nil || k == nil || k.doc.Mask != "" || l.track.ByUnit(clock) != doc.ByPart {
			return motion.Unit{}, false
		}
		return motion.Unit{Part: l.partOf(k)}, true
	}
	ua, inA := of(q.a, child.a, c.a)
	ub, inB := of(q.b, child.b, c.b)
	if !inA && !inB {
		return motion.Rest, false
	}
	return p.unitBetween(q, c, ua, ub), true
}

// turned reports whether a child of the pair's groups is not the one that alone is shown; only is which that is, 0: all are.
func (q *pair) turned(child *pair, only int) bool {
	if only == 0 {
		return false
	}
	at := func(g, k *layer) bool { return g != nil && k != nil && (k.doc.Mask != "" || g.partOf(k)+1 == only) }
	return !at(q.a, child.a) && !at(q.b, child.b)
}

// middle is where a part turns about: the middle of its box, in its group's axes.
func (q *pair) middle() geom.Point {
	l := q.a
	if l == nil {
		l = q.b
	}
	return l.rest.ApplyBox(l.box).Centre()
}

// unitBetween returns what is made of one unit by moves on either side.
func (p *Player) unitBetween(q *pair, c strandClock, ua, ub motion.Unit) motion.Pose {
	x, y := motion.Rest, motion.Rest
	if q.a != nil {
		x = q.a.track.UnitAt(c.a, ua, &p.veils)
	}
	if q.b != nil {
		y = q.b.track.UnitAt(c.b, ub, &p.veils)
	}
	switch {
	case q.b == nil:
		return x
	case q.a == nil:
		return y
	}
	if !x.Present {
		x.Opacity = 0
	}
	if !y.Present {
		y.Opacity = 0
	}
	if q.a.track == q.b.track {
		return x // a change: both are one layer
	}
	e := morph.Ease(c.p)
	out := motion.Pose{Loops: motion.LoopsBetween(q.a.track, q.b.track, c.a, c.b, &p.passage, &ua, &ub)}
	out.Apart = morph.Number(x.Apart, y.Apart, c.p)
	out.Growth, out.Blur = morph.Number(x.Growth, y.Growth, c.p), max(0, morph.Number(x.Blur, y.Blur, c.p))
	out.Tilts, out.Drawn = x.Tilts.Toward(y.Tilts, c.p), x.Drawn.Toward(y.Drawn, c.p)
	out.Present, out.Opacity = true, morph.Number(x.Opacity, y.Opacity, e)
	out.Offset = morph.Point(x.Offset, y.Offset, c.p)
	out.Veil = p.veils.With(p.veils.Lifted(x.Veil, e), p.veils.Lifted(y.Veil, 1-e))
	return out
}

// absolute returns the layer's state in the page's axes, through all parents.
func (l *layer) absolute(c motion.Clock, mem *motion.Veils) state.State {
	s := l.standing(c, mem)
	for g := l.parent; g != nil; g = g.parent {
		o := g.standing(c, mem)
		s.At = o.Matrix().Apply(s.At)
		s.Turn += o.Turn + o.Spin
		s.Opacity *= o.Opacity
		s.Growth = (1+s.Growth)*(1+o.Large)*(1+o.Growth)*(1+o.Loops.Growth) - 1
	}
	return s
}

// between adds a layer that is on both sides.
func (p *Player) between(q *pair, c strandClock, parent geom.Matrix, a, b state.State) {
	e := c.p
	loops := motion.LoopsBetween(q.a.track, q.b.track, c.a, c.b, &p.passage, nil, nil)
	is := morph.Between(&a, &b, e, q.way, &loops, &p.veils)
	if p.bends != nil {
		is.At = is.At.Add(p.bends.offLine(p.film, p.into, q, e))
	}
	m := parent.Mul(is.Matrix())
	n := node{
		kind: leafNode, layer: q.a, other: q.b, share: e, m: m, alpha: is.Opacity,
		veil: is.Veil, loops: is.Loops, blur: is.Blur, tilt: p.tilted(&is.Tilts, q.a.boxOf(is.Size)),
		size: is.Size, corner: is.Corner, sized: a.Size != b.Size || a.Corner != b.Corner || !q.a.doc.Shape.Equal(q.b.doc.Shape),
	}
	if q.a.alone || q.b.alone {
		p.effects = append(p.effects, morph.Effects(&q.a.effects, &q.b.effects, morph.Ease(e)))
		n.mixed = len(p.effects)
	}
	if q.a.doc.Kind == doc.Group && q.b.doc.Kind == doc.Group {
		n.kind, n.other, n.sized = groupNode, nil, false
		i := p.open(n)
		for _, k := range q.children {
			if q.turned(k, n.loops.Only) {
				continue
			}
			inner := m
			if unit, of := p.unit(q, k, c); of {
				inner = m.Mul(q.a.unitAt(unit, k.middle()))
			}
			p.one(k, c, inner)
		}
		p.close(i)
		p.draw(i, is.Drawn)
		return
	}
	byUnit := q.a.track.ByUnit(c.a) != "" || q.b.track.ByUnit(c.b) != ""
	becomes, gathers := q.outlines()
	if alike(q.a, q.b) && (becomes == nil || byUnit) {
		if q.a.doc.Kind == doc.TextKind {
			p.words(q, n, c)
			return
		}
		i := p.open(n)
		p.close(i)
		p.draw(i, is.Drawn)
		return
	}
	if becomes != nil && !byUnit {
		n.becomes, n.sized = becomes, false
		i := p.open(n)
		p.close(i)
		return
	}
	if gathers != nil {
		p.gather(q, gathers, n, c)
		return
	}
	// Different contents: each side stretched into the interpolated box, one dissolving into the other.
	mix := p.open(node{kind: mixNode, share: morph.Ease(e), alpha: 1})
	for k, l := range []*layer{q.a, q.b} {
		i := p.open(node{kind: sideNode, alpha: 1})
		clock := c.a
		if k == 1 {
			clock = c.b
		}
		p.fit(l, m, is.Size, is.Opacity, &clock)
		p.close(i)
	}
	p.close(mix)
}

// words adds a text that is the same on both sides but for its size and colours, in pieces when moves divide it on either side.
func (p *Player) words(q *pair, n node, c strandClock) {
	if q.a.track.ByUnit(c.a) == "" && q.b.track.ByUnit(c.b) == "" || len(q.a.pieces)+len(q.b.pieces) == 0 {
		if n.sized { // a text scales as a whole, about its origin
			k := n.size.Y / max(q.a.box.H(), 1e-9)
			n.m, n.sized, n.grown = n.m.Mul(geom.Scale(k, k)), false, k
		}
		p.close(p.open(n))
		return
	}
	base, other := q.a, q.b
	if len(q.a.pieces) < len(q.b.pieces) {
		base, other, n.share = q.b, q.a, 1-n.share
	}
	k := n.size.Y / max(base.box.H(), 1e-9)
	n.m, n.sized, n.grown = n.m.Mul(geom.Scale(k, k)), false, k
	n.kind, n.layer, n.other = textNode, base, other
	i := p.open(n)
	for k := range base.pieces {
		u := base.pieces[k].unit
		unit := p.unitBetween(q, c, u, u)
		if unit.Opacity <= 0 {
			continue
		}
		piece := n
		piece.kind, piece.piece, piece.alpha, piece.veil = pieceNode, k, unit.Opacity, unit.Veil
		piece.loops, piece.blur, piece.mixed = unit.Loops, unit.Blur, 0
		piece.tilt = p.tilted(&unit.Tilts, base.pieces[k].box)
		piece.m = n.m.Mul(base.unitAt(unit, base.pieces[k].box.Centre()))
		p.close(p.open(piece))
	}
	p.close(i)
}

// fit adds l, its units as they move, inside a box of the given size about the middle of its own box. Texts keep their
// proportions and take the box's height.
func (p *Player) fit(l *layer, m geom.Matrix, size geom.Point, alpha float64, c *motion.Clock) {
	w, h := l.box.W(), l.box.H()
	if w > 0 && h > 0 {
		x, y := size.X/w, size.Y/h
		if l.doc.Kind == doc.TextKind {
			x = y
		}
		m = m.Mul(geom.Scale(x, y))
	}
	n := node{kind: leafNode, layer: l, m: m, alpha: alpha}
	switch {
	case l.doc.Kind == doc.Group:
		n.kind = groupNode
	case len(l.pieces) > 0 && l.track.ByUnit(*c) != "":
		n.kind = textNode
	}
	i := p.open(n)
	if n.kind == textNode {
		for k := range l.pieces {
			p.pieceOf(l, k, m, l.track.UnitAt(*c, l.pieces[k].unit, &p.veils))
		}
	}
	p.layers(l.children, m, nil)
	p.close(i)
}

// alike reports whether two matched layers differ in numbers and colours only.
func alike(a, b *layer) bool {
	x, y := a.doc, b.doc
	if x.Kind != y.Kind || a.fills() != b.fills() || (x.Through == nil) != (y.Through == nil) || x.Through != nil && *x.Through != *y.Through {
		return false
	}
	same := kinds[x.Kind].alike
	return same != nil && same(a, b)
}

// fills is how many of its shapes are no strokes.
func (l *layer) fills() int {
	n := 0
	for n < len(l.shapes) && l.shapes[n].of == 0 {
		n++
	}
	return n
}

// blends reports whether two drawn paths have the same steps, so that their points can be interpolated.
func (l *layer) blends(o *layer) bool { return slices.Equal(l.path.Verbs, o.path.Verbs) }

// sameSetting reports whether two texts differ in size and colour only.
func sameSetting(a, b *doc.Text) bool {
	if len(a.Runs) != len(b.Runs) || a.Align != b.Align || a.Wrap || b.Wrap || a.LineHeight != b.LineHeight || a.Stacked != b.Stacked || a.Ring != nil || b.Ring != nil {
		return false
	}
	k := b.Runs[0].Size / a.Runs[0].Size
	if v, w := a.Plate, b.Plate; (v == nil) != (w == nil) || v != nil && (v.Padding*k != w.Padding || v.Corner*k != w.Corner || v.Whole != w.Whole) {
		return false
	}
	for i, r := range a.Runs {
		s := b.Runs[i]
		if r.Text != s.Text || r.Family != s.Family || r.Weight != s.Weight || r.Italic != s.Italic || r.Size*k != s.Size ||
			(r.Colour == "") != (s.Colour == "") || r.Case != s.Case || r.Raise != s.Raise {
			return false
		}
	}
	return a.LetterSpacing*k == b.LetterSpacing
}
