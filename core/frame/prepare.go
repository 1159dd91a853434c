package frame

import (
	"iter"
	"sync"

	"capstan/core/doc"
	"capstan/core/morph"
	"capstan/core/motion"
)

// reshaped is how outlines of a pair become each other. It is planned when it is first asked for, or before that in steps.
type reshaped struct {
	mu      sync.Mutex
	plan    func(pause func()) (*morph.Outlines, []gathered) // nil once it is planned
	step    func() (struct{}, bool)                          // goes on with planning; nil before it was begun
	becomes *morph.Outlines                                  // of outlines that are no numbers of one shape, nor equal steps
	gathers []gathered                                       // of a group and a single outline: how its parts become it, or come of it
}

// outlines returns how the outlines of a pair become each other; nothing where they do not.
func (q *pair) outlines() (*morph.Outlines, []gathered) {
	r := q.reshaped
	if r == nil {
		return nil, nil
	}
	r.mu.Lock()
	defer r.mu.Unlock()
	switch {
	case r.step != nil:
		for r.on() {
		}
	case r.plan != nil:
		r.becomes, r.gathers = r.plan(func() {})
		r.plan = nil
	}
	return r.becomes, r.gathers
}

// on does a small piece of planning; false when it was the last.
func (r *reshaped) on() bool {
	if r.plan == nil {
		return false
	}
	if r.step == nil {
		r.step, _ = iter.Pull(func(yield func(struct{}) bool) {
			r.becomes, r.gathers = r.plan(func() { yield(struct{}{}) })
		})
	}
	if _, more := r.step(); more {
		return true
	}
	r.plan, r.step = nil, nil
	return false
}

// Prepare does a small piece of what the film's morphs need planned, some hundredths of a second at most; false when all is. Who does not call it waits
// when a morph is first looked at.
func (f *Film) Prepare() bool {
	for ; f.prepared < len(f.strands); f.prepared++ {
		st := f.strands[f.prepared]
		if st.a == nil || st.b == nil || st.kind != doc.Morph {
			continue
		}
		first, _ := st.plan(f)
		if prepare(first) {
			return true
		}
	}
	return false
}

func prepare(list []*pair) bool {
	for _, q := range list {
		if r := q.reshaped; r != nil {
			r.mu.Lock()
			more := r.on()
			r.mu.Unlock()
			if more {
				return true
			}
		}
		if prepare(q.children) {
			return true
		}
	}
	return false
}

// reshapes says once how outlines of a pair come to be planned.
func (f *Film) reshapes(q *pair, known map[[2]*layer]*reshaped, leaving, entering motion.Clock) {
	k := [2]*layer{q.a, q.b}
	if q.reshaped = known[k]; q.reshaped != nil {
		return
	}
	a, b, way := q.a, q.b, q.way
	q.reshaped = &reshaped{plan: func(pause func()) (o *morph.Outlines, list []gathered) {
		if o = f.outlinesOf(a, b, way.Outline, pause); o == nil && way.Letters {
			o = f.lettersOf(a, b)
		}
		return o, f.gatheredOf(a, b, leaving, entering, way.Outline, pause)
	}}
	known[k] = q.reshaped
}
