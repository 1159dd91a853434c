package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// Reshaping is how the outline of a thread becomes that of the next scene.
type Reshaping struct {
	Outlines *morph.Outlines
	From, To *geom.Path  // what it goes between
	AtA, AtB geom.Matrix // from the axes of either to the page, at the end of the scene before, and at the begin of this one
	Said     *doc.Reshape
}

// Reshaping returns how a thread's outline becomes another in the morph into a scene, or, of the first, back to it; false where it does not.
func (f *Film) Reshaping(scene int, thread string) (r Reshaping, ok bool) {
	if scene < 0 || scene >= len(f.strands) {
		return r, false
	}
	st := f.strands[scene]
	if st == nil || st.kind != doc.Morph {
		return r, false
	}
	q := st.find(f, thread)
	if q == nil || q.a == nil || q.b == nil {
		return r, false
	}
	leaving, entering := st.clocks()
	becomes, gathers := q.outlines()
	r = Reshaping{Outlines: becomes, Said: q.way.Outline, AtA: f.outer(st.a, q.a, leaving).Mul(q.a.inside(leaving)), AtB: f.outer(st.b, q.b, entering).Mul(q.b.inside(entering))}
	for i := range gathers {
		if gathers[i].main {
			r.Outlines = gathers[i].becomes
		}
	}
	if r.Outlines == nil || q.way.Letters && q.a.doc.Kind == doc.TextKind && q.b.doc.Kind == doc.TextKind {
		return r, false
	}
	r.From, r.To = r.Outlines.Ends()
	return r, true
}

// find returns the pair of a thread in a morph; nil where it has none.
func (st *strand) find(f *Film, thread string) *pair {
	first, _ := st.plan(f)
	var look func(list []*pair) *pair
	look = func(list []*pair) *pair {
		for _, q := range list {
			if q.a != nil && q.a.doc.Thread == thread || q.b != nil && q.b.doc.Thread == thread {
				return q
			}
			if found := look(q.children); found != nil {
				return found
			}
		}
		return nil
	}
	return look(first)
}

// clocks are the moments at which a morph begins and ends, on the clocks of both scenes.
func (st *strand) clocks() (leaving, entering motion.Clock) {
	return st.a.endClock(), motion.Clock{At: motion.Millis(0), Side: motion.Entering, Stay: st.b.timing.Stay}
}

// Ways in which what a thread is in one scene becomes what it is in the next.
const (
	ByOutlines = "outlines" // its outline becomes another
	ByNumbers  = "numbers"  // its outline does so by numbers of one shape, or by steps that are the same
)

// Reshapes reports how the outline of a thread becomes that of the next scene, without planning it: ByOutlines, ByNumbers, or empty where it does not, or
// is the same in both.
func (f *Film) Reshapes(scene int, thread string) string {
	if scene < 0 || scene >= len(f.strands) || f.strands[scene].kind != doc.Morph {
		return ""
	}
	st := f.strands[scene]
	a, b := st.a.byThread[thread], st.b.byThread[thread]
	switch {
	case a == nil || b == nil || a.doc.Kind == doc.TextKind && b.doc.Kind == doc.TextKind:
		return ""
	case a.doc.Kind == doc.Group && b.doc.Kind != doc.Group:
		return or(f.drawn(b) != nil, ByOutlines)
	case b.doc.Kind == doc.Group && a.doc.Kind != doc.Group:
		return or(f.drawn(a) != nil, ByOutlines)
	}
	x, y := f.drawn(a), f.drawn(b)
	switch {
	case x == nil || y == nil:
		return ""
	case !alike(a, b):
		return ByOutlines
	}
	return or(morph.Hash(x) != morph.Hash(y), ByNumbers)
}

func or(is bool, what string) string {
	if is {
		return what
	}
	return ""
}
