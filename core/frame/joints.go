package frame

import (
	"math"

	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
)

// joint is a layer of a run of siblings, none of them over another, some of which share edges: while they stand to each other as they do
// at rest they are added up, so that of a pixel on a shared edge each covers its share and no line shows between. The parts of a
// shape that was broken up or divided are such, and the tiles of a grid without a gap.
type joint struct {
	run  *layer // the rearmost of them
	meet bool   // shares an edge
	*outlined
}

// outlined is how a layer of one outline, painted as it is, lies at rest.
type outlined struct {
	box  geom.Box    // of the outline, in the parent's axes
	at   geom.Matrix // from the layer's axes to the parent's
	back geom.Matrix // its inverse
}

// maxJoined is how many layers one run has at most, maxJointPoints how many points their outlines.
const (
	maxJoined      = 400
	maxJointPoints = 200
)

// near is how far apart, in px, edges lie at most that count as one.
const near = combine.Near

// join notes the runs of a list of siblings, in stacking order.
func (f *Film) join(list []*layer, into map[*layer]*joint) {
	var run []*layer
	var meet [maxJoined]bool
	var made []joint // room for all of the list: they do not move
	end := func() {
		first, last := -1, 0
		for i := range run {
			if meet[i] {
				if first < 0 {
					first = i
				}
				last = i
			}
		}
		if first >= 0 && made == nil {
			made = make([]joint, 0, len(list))
		}
		for i := first; i >= 0 && i <= last; i++ {
			made = append(made, joint{run[first], meet[i], run[i].edge})
			into[run[i]] = &made[len(made)-1]
		}
		run = run[:0]
	}
	for _, l := range list {
		if len(l.children) > 0 {
			f.join(l.children, into)
		}
		if l.doc.Hidden {
			continue
		}
		if l.edge == nil {
			end()
			continue
		}
		laps, meets := len(run) == maxJoined, false
		box := l.edge.box.Grow(near)
		for i := len(run) - 1; i >= 0 && !laps; i-- {
			if o := run[i].edge; o.box.Min.X < box.Max.X && o.box.Max.X > box.Min.X && o.box.Min.Y < box.Max.Y && o.box.Max.Y > box.Min.Y {
				c := f.contact(run[i], l, o.back.Mul(l.edge.at))
				laps = c.Laps
				if c.Meets {
					meet[i], meets = true, true
				}
			}
		}
		if laps {
			end()
			meets = false
		}
		meet[len(run)] = meets
		run = append(run, l)
	}
	end()
}

// joined returns the end of the nodes from i on that are added up, and how far: less than 1 where they have gone up to half a pixel
// from where they stand to each other at rest, so that nothing jumps as they part. It is i where none are.
func (p *Player) joined(i, to int) (end int, share float64) {
	if p.apart || p.film.joints == nil {
		return i, 0
	}
	var run *layer
	var parent geom.Matrix
	far := 0.0
	for end = i; end < to; end = p.nodes[end].end {
		n := &p.nodes[end]
		j, l := p.joint(n)
		if j == nil || n.kind != leafNode || n.grown != 0 || n.tilt > 0 || n.mixed > 0 || n.mask != "" || n.loops.Period != (geom.Point{}) || n.rests != (geom.Point{}) {
			break
		}
		m, d := n.m, 0.0
		if n.sized {
			if w, h := l.box.W(), l.box.H(); w > 0 && h > 0 {
				m = m.Mul(geom.Scale(n.size.X/w, n.size.Y/h))
			}
			d = math.Abs(n.corner - l.doc.Corner)
		}
		if n.other != nil && n.other.doc.Path != n.layer.doc.Path {
			d += 1000 * min(n.share, 1-n.share)
		}
		if run == nil {
			run, parent = j.run, m.Mul(j.back)
		} else if run != j.run {
			break
		}
		rest := parent.Mul(j.at)
		for _, c := range l.box.Corners() {
			d = max(d, m.Apply(c).Sub(rest.Apply(c)).Len())
		}
		if d > 0.5 {
			break
		}
		far = max(far, d)
	}
	if end == i || end == p.nodes[i].end {
		return i, 0
	}
	return end, min(1, (0.5-far)/(0.5-2*near))
}

// joint returns what a node's layer is in its run, in a morph on the side that is nearer; nil where it is in none.
func (p *Player) joint(n *node) (*joint, *layer) {
	l := n.layer
	if n.other != nil && n.share >= 0.5 {
		l = n.other
	}
	return p.film.joints[l], l
}

// edge returns how a layer lies where it is one outline, painted as it is; else nil.
func (f *Film) edge(l *layer) *outlined {
	if l.doc.Kind == doc.TextKind || len(l.shapes) != 1 || l.alone || l.doc.Mask != "" || l.doc.Through != nil || l.plate != nil {
		return nil
	}
	at := l.rest
	back, flat := at.Inverse()
	if n := len(f.Geometry.Path(l.shapes[0].key).Points); !flat || n < 3 || n > maxJointPoints {
		return nil
	}
	return &outlined{at.ApplyBox(f.Geometry.Bounds(l.shapes[0].key)), at, back}
}

// contacts are kept by outlines and by the map from the axes of the second to those of the first.
type contactKey struct {
	a, b uint32
	to   geom.Matrix
}

func (f *Film) contact(a, b *layer, to geom.Matrix) combine.Contact {
	s := f.Geometry
	k := contactKey{a.shapes[0].key, b.shapes[0].key, to}
	c, ok := s.contacts[k]
	if ok {
		return c
	}
	c = combine.ContactOf(s.Path(k.a), s.Path(k.b), s.Bounds(k.a), s.Bounds(k.b), to)
	if len(s.contacts) >= maxOutlines {
		clear(s.contacts)
	}
	s.contacts[k] = c
	return c
}
