package frame

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// strandClock is a moment of a morph: both sides' clocks and the eased progress between them.
type strandClock struct {
	a, b motion.Clock
	p    float64
}

// morph adds the pairs of one list of siblings. Layers of one side only fade; a layer with an entrance
// that begins inside the transition shows by that alone.
func (p *Player) morph(list []*pair, c strandClock, parent geom.Matrix) {
	for _, q := range list {
		switch {
		case q.b == nil:
			p.leaving(q, c, parent)
		case q.a == nil:
			p.coming(q, c, parent)
		case q.apart:
			p.between(q, c, geom.Identity, q.a.absolute(c.a), q.b.absolute(c.b))
		default:
			p.between(q, c, parent, q.a.standing(c.a), q.b.standing(c.b))
		}
	}
}

func (p *Player) leaving(q *pair, c strandClock, parent geom.Matrix) {
	pose := q.a.track.At(c.a)
	if pose.Present {
		p.oneSided(q, q.a, pose, parent, pose.Opacity*morph.Ease(1-c.p), c)
	}
}

func (p *Player) coming(q *pair, c strandClock, parent geom.Matrix) {
	pose := q.b.track.At(c.b)
	if !pose.Present {
		return
	}
	alpha := pose.Opacity
	if !q.b.track.EntersEarly() {
		alpha *= morph.Ease(c.p)
	}
	p.oneSided(q, q.b, pose, parent, alpha, c)
}

// oneSided adds a layer of one side; what is inside it may still have come from elsewhere.
func (p *Player) oneSided(q *pair, l *layer, pose motion.Pose, parent geom.Matrix, alpha float64, c strandClock) {
	n := node{kind: leafNode, layer: l, m: parent.Mul(l.at(pose)), alpha: alpha * l.doc.Opacity}
	if l.doc.Kind == doc.Group {
		n.kind = groupNode
	}
	i := p.open(n)
	if n.kind == groupNode {
		p.inside(q.children, c, n.m)
	}
	p.close(i)
}

// inside adds the children of a group; those of one side follow the group's own fade.
func (p *Player) inside(list []*pair, c strandClock, m geom.Matrix) {
	for _, q := range list {
		switch {
		case q.a != nil && q.b != nil:
			p.morph([]*pair{q}, c, m)
		case q.b == nil:
			if pose := q.a.track.At(c.a); pose.Present {
				p.oneSided(q, q.a, pose, m, pose.Opacity, c)
			}
		default:
			if pose := q.b.track.At(c.b); pose.Present {
				p.oneSided(q, q.b, pose, m, pose.Opacity, c)
			}
		}
	}
}

// stance is where a layer stands on one side of a morph, in its parent's or the page's axes.
type stance struct {
	at         geom.Point
	turn, spin float64
	alpha      float64
	size       geom.Point
	corner     float64
	pivot      geom.Point
}

func (l *layer) standing(c motion.Clock) stance {
	pose := l.track.At(c)
	pl := &l.doc.Place
	return stance{
		at: geom.Point{X: pl.X, Y: pl.Y}.Add(pose.Offset), turn: pl.Turn + pose.Angle, spin: pose.Turn,
		alpha: pose.Opacity * l.doc.Opacity, size: geom.Point{X: l.box.W(), Y: l.box.H()},
		corner: l.doc.Corner, pivot: l.pivot,
	}
}

// absolute returns the stance in the page's axes, through all parents.
func (l *layer) absolute(c motion.Clock) stance {
	s := l.standing(c)
	for g := l.parent; g != nil; g = g.parent {
		o := g.standing(c)
		m := g.at(g.track.At(c))
		s.at = m.Apply(s.at)
		s.turn += o.turn + o.spin
		s.alpha *= o.alpha
	}
	return s
}

func lerpPoint(a, b geom.Point, p float64) geom.Point {
	return geom.Point{X: morph.Number(a.X, b.X, p), Y: morph.Number(a.Y, b.Y, p)}
}

// between adds a layer that is on both sides.
func (p *Player) between(q *pair, c strandClock, parent geom.Matrix, a, b stance) {
	e := c.p
	at := lerpPoint(a.at, b.at, e)
	turn := morph.Number(a.turn, b.turn, e)
	spin := motion.TurnBetween(q.a.track, q.b.track, c.a, c.b, e)
	pivot := lerpPoint(a.pivot, b.pivot, e)
	alpha := morph.Ease(morph.Number(a.alpha, b.alpha, e))
	size := lerpPoint(a.size, b.size, e)
	size.X, size.Y = max(size.X, 0), max(size.Y, 0)
	flip := &q.a.doc.Place
	if e >= 0.5 {
		flip = &q.b.doc.Place
	}
	m := parent.Mul(transform(at, turn, spin, pivot, flip))
	if q.a.doc.Kind == doc.Group && q.b.doc.Kind == doc.Group {
		i := p.open(node{kind: groupNode, layer: q.a, m: m, alpha: alpha})
		p.morph(q.children, c, m)
		p.close(i)
		return
	}
	n := node{
		kind: leafNode, layer: q.a, other: q.b, share: e, m: m, alpha: alpha,
		size: size, corner: max(morph.Number(a.corner, b.corner, e), 0), sized: a.size != b.size || a.corner != b.corner,
	}
	if alike(q.a, q.b) {
		if n.sized && q.a.doc.Kind == doc.TextKind {
			// A text scales as a whole, about its origin.
			k := size.Y / max(q.a.box.H(), 1e-9)
			n.m, n.sized = m.Mul(geom.Scale(k, k)), false
		}
		p.close(p.open(n))
		return
	}
	// Different contents: each side stretched into the interpolated box, one dissolving into the other.
	mix := p.open(node{kind: mixNode, share: morph.Ease(e), alpha: 1})
	for _, l := range []*layer{q.a, q.b} {
		i := p.open(node{kind: sideNode, alpha: 1})
		p.fit(l, m, size, alpha)
		p.close(i)
	}
	p.close(mix)
}

// fit adds l at rest inside a box of the given size about the middle of its own box. Texts keep their
// proportions and take the box's height.
func (p *Player) fit(l *layer, m geom.Matrix, size geom.Point, alpha float64) {
	w, h := l.box.W(), l.box.H()
	if w > 0 && h > 0 {
		x, y := size.X/w, size.Y/h
		if l.doc.Kind == doc.TextKind {
			x = y
		}
		m = m.Mul(geom.Scale(x, y))
	}
	n := node{kind: leafNode, layer: l, m: m, alpha: alpha}
	if l.doc.Kind == doc.Group {
		n.kind = groupNode
	}
	i := p.open(n)
	p.layers(l.children, m, nil)
	p.close(i)
}

// alike reports whether two matched layers differ in numbers and colours only.
func alike(a, b *layer) bool {
	x, y := a.doc, b.doc
	if x.Kind != y.Kind || len(a.shapes) != len(b.shapes) {
		return false
	}
	switch x.Kind {
	case doc.Rectangle, doc.Ellipse:
		return true
	case doc.PathKind:
		return x.Path == y.Path || a.blends(b)
	case doc.Picture:
		return x.Picture.Media == y.Picture.Media
	case doc.TextKind:
		return sameSetting(x.Text, y.Text)
	}
	return false
}

// blends reports whether two drawn paths have the same steps, so that their points can be interpolated.
func (l *layer) blends(o *layer) bool { return slices.Equal(l.path.Verbs, o.path.Verbs) }

// sameSetting reports whether two texts differ in size and colour only.
func sameSetting(a, b *doc.Text) bool {
	if len(a.Runs) != len(b.Runs) || a.Align != b.Align || a.Wrap || b.Wrap || a.LineHeight != b.LineHeight {
		return false
	}
	k := b.Runs[0].Size / a.Runs[0].Size
	for i, r := range a.Runs {
		s := b.Runs[i]
		if r.Text != s.Text || r.Family != s.Family || r.Weight != s.Weight || r.Italic != s.Italic || r.Size*k != s.Size ||
			(r.Colour == "") != (s.Colour == "") {
			return false
		}
	}
	return a.LetterSpacing*k == b.LetterSpacing
}
