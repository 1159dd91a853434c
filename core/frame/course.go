package frame

import (
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// bends are the courses of a run of morphs whose positions lie on smooth curves. They are worked out when the run is first looked at.
type bends struct {
	once sync.Once
	legs []map[string]leg // by the segments of the run, by thread
}

// leg is a thread's part of its course while a segment of the run is shown.
type leg struct {
	course   *geom.Measure
	from, to float64 // shares of the time of the whole course
}

// bendsOf returns the courses of the run that the transition into scene i belongs to; nil where its positions go straight.
func (f *Film) bendsOf(i int) *bends {
	run := f.Order.RunOf(i)
	if run == nil {
		return nil
	}
	return f.bends[run[0]]
}

// bend finds the runs of morphs whose positions lie on curves.
func (f *Film) bend() {
	for i, st := range f.strands {
		if run := f.Order.RunOf(i); run != nil && run[0] == i && st.transition.Curve {
			if f.bends == nil {
				f.bends = map[int]*bends{}
			}
			f.bends[i] = &bends{}
		}
	}
}

// plan works out the courses of a run: of each thread through the scenes that it goes on in, from where its first scene leaves it.
func (b *bends) plan(f *Film, run []int) {
	b.legs = make([]map[string]leg, len(run))
	type chain struct {
		points []geom.Point
		first  int // segment
		last   int
	}
	var chains []*chain
	open := map[string]*chain{}
	threads := map[*chain]string{}
	into := func(i int) float64 {
		if i == 0 {
			return float64(f.Order.Closing)
		}
		return float64(f.Order.Into[i])
	}
	for k, i := range run {
		st := f.strands[i]
		first, _ := st.plan(f)
		now := map[string]*chain{}
		for _, q := range flat(first) {
			if q.a == nil || q.b == nil || q.apart || q.way.Timed() || q.a.doc.Kind == doc.ViewKind {
				continue
			}
			thread := q.a.doc.Thread
			c := open[thread]
			if c == nil {
				c = &chain{points: []geom.Point{q.a.lies(st.a.endClock())}, first: k}
				chains = append(chains, c)
				threads[c] = thread
			}
			c.points = append(c.points, q.b.lies(motion.Clock{At: motion.Millis(0), Side: motion.Entering, Stay: st.b.timing.Stay}))
			c.last = k
			now[thread] = c
		}
		open = now
	}
	for _, c := range chains {
		if len(c.points) < 3 {
			continue
		}
		course := geom.NewMeasure(morph.Course(c.points))
		if course.Length() == 0 {
			continue
		}
		all, at := 0.0, 0.0
		for k := c.first; k <= c.last; k++ {
			all += into(run[k])
		}
		for k := c.first; k <= c.last; k++ {
			next := at + into(run[k])
			if b.legs[k] == nil {
				b.legs[k] = map[string]leg{}
			}
			b.legs[k][threads[c]] = leg{course, at / all, next / all}
			at = next
		}
	}
}

// flat returns pairs with those in them.
func flat(list []*pair) []*pair {
	var out []*pair
	for _, q := range list {
		out = append(append(out, q), flat(q.children)...)
	}
	return out
}

// lies is where a layer lies at a clock, in its parent's axes, with what changes and paths have made of it.
func (l *layer) lies(c motion.Clock) geom.Point {
	off, _ := l.track.Along(c)
	return l.restAt(c).At.Add(off)
}

// OffLine returns how far from its straight way a thread is, in its parent's axes, at an eased share of the transition into scene i: not at all but
// in runs of morphs that go along curves.
func (f *Film) OffLine(i int, thread string, share float64) geom.Point {
	b := f.bendsOf(i)
	if b == nil {
		return geom.Point{}
	}
	first, _ := f.strands[i].plan(f)
	for _, q := range flat(first) {
		if q.a != nil && q.b != nil && q.a.doc.Thread == thread {
			return b.offLine(f, i, q, share)
		}
	}
	return geom.Point{}
}

// offLine returns how far from its straight way a thread is on its course, at a share of the segment of the run into scene i.
func (b *bends) offLine(f *Film, i int, q *pair, share float64) geom.Point {
	run := f.Order.RunOf(i)
	b.once.Do(func() { b.plan(f, run) })
	for k, j := range run {
		if j != i {
			continue
		}
		g, on := b.legs[k][q.a.doc.Thread]
		if !on {
			return geom.Point{}
		}
		at, _ := g.course.At(g.from + (g.to-g.from)*share)
		st := f.strands[i]
		line := morph.Point(q.a.lies(st.a.endClock()), q.b.lies(motion.Clock{At: motion.Millis(0), Side: motion.Entering, Stay: st.b.timing.Stay}), share)
		return at.Sub(line)
	}
	return geom.Point{}
}
