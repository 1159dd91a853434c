package motion

import "capstan/core/doc"

// Order is the film's scenes laid out in film time (docs/motion.md, section 1). Times are ms.
type Order struct {
	Starts  []int64 // when the transition into scene i begins
	Into    []int64 // its duration
	Stays   []int64
	Length  int64
	Closing int64 // duration of the closing transition, 0 if none
}

// NewOrder lays out the scenes of f with the given stays.
func NewOrder(f *doc.Film, stays []int64) *Order {
	o := &Order{Stays: stays}
	t := int64(0)
	for i, s := range f.Scenes {
		into := int64(0)
		if i > 0 {
			into = s.Transition.Duration
		}
		o.Starts = append(o.Starts, t)
		o.Into = append(o.Into, into)
		t += into + stays[i]
	}
	if f.Closing != nil && f.Loop {
		o.Closing = f.Closing.Duration
	}
	o.Length = t + o.Closing
	return o
}

// Where is a place in the film: in the stay of a scene, or in the transition into it.
type Where struct {
	Scene int
	Clock Instant // on the scene's clock; negative inside its transition
	Into  bool    // inside the transition from From into Scene
	From  int
	Since Instant // inside a transition: time since it began
	Share float64 // inside a transition: linear progress, 0 <= Share < 1
}

// At finds film time t. Intervals are half-open; times before 0 show the start, times from the length on the
// state at the length.
func (o *Order) At(t Instant) Where {
	n := len(o.Starts)
	if t.Num < 0 {
		t = Millis(0)
	}
	end := o.Length - o.Closing
	if o.Closing > 0 && t.Cmp(end) >= 0 {
		since := t.Sub(end)
		if since.Cmp(o.Closing) >= 0 {
			return Where{Clock: Millis(0)}
		}
		return Where{
			Scene: 0, Clock: since.Sub(o.Closing), Into: true, From: n - 1,
			Since: since, Share: since.Over(o.Closing),
		}
	}
	if t.Cmp(end) >= 0 {
		return Where{Scene: n - 1, Clock: Millis(o.Stays[n-1])}
	}
	i := n - 1
	for i > 0 && t.Cmp(o.Starts[i]) < 0 {
		i--
	}
	since := t.Sub(o.Starts[i])
	w := Where{Scene: i, Clock: since.Sub(o.Into[i])}
	if since.Cmp(o.Into[i]) < 0 {
		w.Into, w.From, w.Since, w.Share = true, i-1, since, since.Over(o.Into[i])
	}
	return w
}

// Begin returns the film time at which scene i's stay begins.
func (o *Order) Begin(i int) int64 { return o.Starts[i] + o.Into[i] }
