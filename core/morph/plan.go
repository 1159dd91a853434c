// Package morph decides what becomes what when one scene turns into the next: layers are matched by
// thread, never by likeness, and put in one stacking order (docs/motion.md, section 6).
package morph

import "capstan/core/doc"

// Pair is one layer of a morph: on both sides (A and B set), leaving (A only) or coming (B only).
type Pair struct {
	A, B     *doc.Layer
	Apart    bool    // on both sides, under parents that are not each other's match
	Children []*Pair // of groups, back to front
}

// Plan is the stacking order of a morph, back to front, in its first and its second half.
type Plan struct{ First, Second []*Pair }

// NewPlan matches the layers of a and b that shown reports as drawn: at the end of a, and at clock 0 of b.
func NewPlan(a, b *doc.Scene, shownA, shownB func(*doc.Layer) bool) Plan {
	m := matcher{a: index(a, shownA), b: index(b, shownB)}
	return Plan{
		First:  m.merge(m.list(a.Layers, m.a), m.list(b.Layers, m.b), true),
		Second: m.merge(m.list(a.Layers, m.a), m.list(b.Layers, m.b), false),
	}
}

type placed struct{ layer, parent *doc.Layer }

type matcher struct{ a, b map[string]placed }

func index(s *doc.Scene, shown func(*doc.Layer) bool) map[string]placed {
	out := map[string]placed{}
	doc.Walk(s.Layers, func(l, parent *doc.Layer) bool {
		if !shown(l) {
			return false
		}
		out[l.Thread] = placed{l, parent}
		return true
	})
	return out
}

func (m matcher) list(layers []*doc.Layer, side map[string]placed) []*doc.Layer {
	var out []*doc.Layer
	for _, l := range layers {
		if _, ok := side[l.Thread]; ok {
			out = append(out, l)
		}
	}
	return out
}

// together reports whether a thread is on both sides under matching parents.
func (m matcher) together(thread string) bool {
	x, inA := m.a[thread]
	y, inB := m.b[thread]
	if !inA || !inB {
		return false
	}
	if x.parent == nil || y.parent == nil {
		return x.parent == y.parent
	}
	return x.parent.Thread == y.parent.Thread && m.together(x.parent.Thread)
}

// merge puts two lists of siblings into one order. In the first half it is A's, with each layer that is only in B
// directly above the nearest layer below it in B that A also has, else at the bottom; several on one such
// layer keep B's order. In the second half the roles are exchanged.
func (m matcher) merge(as, bs []*doc.Layer, first bool) []*Pair {
	base, other, otherSide, baseSide := as, bs, m.b, m.a
	if !first {
		base, other, otherSide, baseSide = bs, as, m.a, m.b
	}
	inBase := map[string]bool{}
	for _, l := range base {
		inBase[l.Thread] = true
	}
	// on[t] holds the layers only in other that stand on base layer t; on[""] those at the bottom.
	on := map[string][]*doc.Layer{}
	below := ""
	for _, l := range other {
		if inBase[l.Thread] {
			below = l.Thread
		} else if _, elsewhere := baseSide[l.Thread]; !elsewhere {
			on[below] = append(on[below], l)
		}
	}
	var out []*Pair
	single := func(list []*doc.Layer) {
		for _, l := range list {
			if first {
				out = append(out, &Pair{B: l, Children: m.inside(nil, l, first)})
			} else {
				out = append(out, &Pair{A: l, Children: m.inside(l, nil, first)})
			}
		}
	}
	single(on[""])
	for _, l := range base {
		match, both := otherSide[l.Thread]
		p := &Pair{A: l}
		if !first {
			p = &Pair{B: l}
		}
		if both {
			p.Apart = !m.together(l.Thread)
			if first {
				p.B = match.layer
			} else {
				p.A = match.layer
			}
		}
		p.Children = m.inside(p.A, p.B, first)
		out = append(out, p)
		single(on[l.Thread])
	}
	return out
}

func (m matcher) inside(a, b *doc.Layer, first bool) []*Pair {
	var as, bs []*doc.Layer
	if a != nil {
		as = m.list(a.Children, m.a)
	}
	if b != nil {
		bs = m.list(b.Children, m.b)
	}
	if len(as)+len(bs) == 0 {
		return nil
	}
	return m.merge(as, bs, first)
}

// Ease clamps eased progress to 0..1, for what must not overshoot: opacities and crossfades.
func Ease(p float64) float64 { return min(1, max(0, p)) }

// Number interpolates; the ends are exact.
func Number(a, b, p float64) float64 {
	if p == 1 || a == b {
		return b
	}
	return a + (b-a)*p
}
