package frame

import (
	"math"
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// strand is what a transition between two scenes needs.
type strand struct {
	a, b       *scene
	transition doc.Transition
	senses     map[string]string // of the one that closes the film: which way threads turn that nothing is said of
	ease       motion.Easing
	kind       string
	crossing   motion.Crossing // of an effect of pages

	// A morph is planned when it is first looked at: while something is dragged in a stay nobody does.
	once          sync.Once
	first, second []*pair
}

type pair struct {
	a, b     *layer
	apart    bool
	way      doc.Strand
	ease     motion.Easing // of its own, where it is timed
	reshaped *reshaped     // how outlines of both sides become each other
	wing     geom.Point    // of a layer of one side: from where it stands to off the page, in its parent's axes; zero: it fades
	children []*pair
}

func newStrand(a, b *scene, t doc.Transition, senses map[string]string) *strand {
	st := &strand{a: a, b: b, transition: t, senses: senses, kind: t.Kind, ease: motion.Linear}
	if t.Kind == doc.Cut {
		return st
	}
	easing := t.Easing
	if easing == "" {
		easing = motion.PagesEase
	}
	st.crossing = motion.CrossingOf(&t)
	if e, err := motion.ParseEasing(easing); err == nil { // validation has refused others
		st.ease = e
	}
	return st
}

// way says how a thread goes through the morph.
func (st *strand) way(thread string) doc.Strand {
	w := st.transition.Threads[thread]
	if w.Turn == "" {
		w.Turn = st.senses[thread]
	}
	return w
}

// senses returns which way threads turn through the closing morph that nothing is said of, of those that turn at all.
func (f *Film) senses(a, b *scene, t *doc.Transition) map[string]string {
	if t.Kind != doc.Morph {
		return nil
	}
	var out map[string]string
	for thread, l := range a.byThread {
		if k := b.byThread[thread]; k != nil && k.doc.Place.Turn != l.doc.Place.Turn && t.Threads[thread].Turn == "" {
			if out == nil {
				out = map[string]string{}
			}
			out[thread] = morph.Sense(&f.Doc.Film, thread, func(scene int) *doc.Layer { return f.Thread(scene, thread) })
		}
	}
	return out
}

// Thread returns the layer of a thread in a scene, nil where it has none.
func (f *Film) Thread(scene int, thread string) *doc.Layer {
	if l := f.scenes[scene].byThread[thread]; l != nil {
		return l.doc
	}
	return nil
}

// Strand returns how a thread goes through the morph into a scene, or, of the first, back to it.
func (f *Film) Strand(scene int, thread string) doc.Strand { return f.strands[scene].way(thread) }

// plan returns the pairs of a morph in the order of its first half and of its second.
func (st *strand) plan(f *Film) (first, second []*pair) {
	st.once.Do(func() { st.match(f) })
	return st.first, st.second
}

func (st *strand) match(f *Film) {
	a, b := st.a, st.b
	leaving, entering := st.clocks()
	shown := func(s *scene, c motion.Clock, ms int64) func(*doc.Layer) bool {
		return func(d *doc.Layer) bool {
			p := s.byID[d.ID].track.At(c, nil)
			return !d.Hidden && (p.Present && !p.Waiting && !f.hidden(s, s.byID[d.ID], ms) || d.Mask == doc.Inside)
		}
	}
	plan := morph.NewPlan(a.doc, b.doc, shown(a, leaving, a.timing.Stay), shown(b, entering, 0))
	known := map[[2]*layer]*reshaped{} // the same in both halves
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
			if p.A != nil {
				q.way = st.way(p.A.Thread)
			} else {
				q.way = st.way(p.B.Thread)
			}
			switch {
			case q.b == nil:
				q.wing = f.wing(a, q.a, leaving, q.way.Wing)
			case q.a == nil:
				q.wing = f.wing(b, q.b, entering, q.way.Wing)
			default:
				f.reshapes(q, known, leaving, entering)
			}
			if q.way.Timed() {
				if q.ease = st.ease; q.way.Easing != "" {
					if e, err := motion.ParseEasing(q.way.Easing); err == nil { // validation has refused others
						q.ease = e
					}
				}
			}
			out = append(out, q)
		}
		return out
	}
	st.first, st.second = pairs(plan.First), pairs(plan.Second)
}

// wing is the way off the page by a side of it, from where a layer stands at a clock, in its parent's axes.
func (f *Film) wing(s *scene, l *layer, c motion.Clock, side string) geom.Point {
	to, set := doc.Wings[side]
	if !set {
		return geom.Point{}
	}
	outer := f.outer(s, l, c)
	back, ok := outer.Inverse()
	if !ok {
		return geom.Point{}
	}
	page := geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
	v := geom.Point{X: to[0], Y: to[1]}
	d := geom.Leaving(geom.Quad(l.reaches, outer.Mul(l.alongPaths(c))), v, page)
	if math.IsInf(d, 0) || math.IsNaN(d) {
		return geom.Point{}
	}
	return back.ApplyVector(v.Mul(d))
}
