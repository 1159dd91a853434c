package frame

import (
	"sync"

	"capstan/core/doc"
	"capstan/core/morph"
	"capstan/core/motion"
)

// strand is what a transition between two scenes needs.
type strand struct {
	a, b       *scene
	transition doc.Transition
	ease       motion.Easing
	kind       string

	// A morph is planned when it is first looked at: while something is dragged in a stay nobody does.
	once          sync.Once
	first, second []*pair
}

type pair struct {
	a, b     *layer
	apart    bool
	children []*pair
}

func newStrand(a, b *scene, t doc.Transition) *strand {
	st := &strand{a: a, b: b, transition: t, kind: t.Kind, ease: motion.Linear}
	if t.Kind == doc.Cut {
		return st
	}
	easing := t.Easing
	if easing == "" {
		easing = "ease-in-out"
	}
	if e, err := motion.ParseEasing(easing); err == nil { // validation has refused others
		st.ease = e
	}
	return st
}

// plan returns the pairs of a morph in the order of its first half and of its second.
func (st *strand) plan() (first, second []*pair) {
	st.once.Do(st.match)
	return st.first, st.second
}

func (st *strand) match() {
	a, b := st.a, st.b
	leaving := a.endClock()
	entering := motion.Clock{At: motion.Millis(0), Side: motion.Entering, Stay: b.timing.Stay}
	shown := func(s *scene, c motion.Clock) func(*doc.Layer) bool {
		return func(d *doc.Layer) bool {
			p := s.byID[d.ID].track.At(c)
			return !d.Hidden && (p.Present && !p.Waiting || d.Mask == doc.Inside)
		}
	}
	plan := morph.NewPlan(a.doc, b.doc, shown(a, leaving), shown(b, entering))
	var pairs func(list []*morph.Pair) []*pair
	pairs = func(list []*morph.Pair) []*pair {
		var out []*pair
		for _, p := range list {
			q := &pair{apart: p.Apart, children: pairs(p.Children)}
			if p.A != nil {
				q.a = a.byID[p.A.ID]
			}
			if p.B != nil {
				q.b = b.byID[p.B.ID]
			}
			out = append(out, q)
		}
		return out
	}
	st.first, st.second = pairs(plan.First), pairs(plan.Second)
}
