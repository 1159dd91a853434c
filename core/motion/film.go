package motion

import (
	"slices"
	"sort"

	"capstan/core/doc"
)

// Order is the film's scenes laid out in film time (docs/motion.md, section 1). Times are ms.
type Order struct {
	Starts  []int64 // when the transition into scene i begins
	Into    []int64 // its duration
	Stays   []int64
	Length  int64
	Closing int64      // duration of the closing transition, 0 if none
	shown   int        // scenes that are in the film; those set aside follow, and begin at its end
	runs    []morphRun // by the transition into scene i; the closing one is that into scene 0
}

// morphRun is the transitions that move as one with that into a scene.
type morphRun struct {
	scenes []int // transitions into these scenes; one for a transition by itself
	begin  int64 // film time
	length int64 // ms of all
}

// NewOrder lays out the scenes of f with the given stays.
func NewOrder(f *doc.Film, stays []int64) *Order {
	o := &Order{Stays: stays, shown: len(f.Shown())}
	t := int64(0)
	for i, s := range f.Shown() {
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
	for range f.Scenes[o.shown:] {
		o.Starts, o.Into = append(o.Starts, o.Length), append(o.Into, 0)
	}
	o.joinRuns(f)
	return o
}

// joinRuns finds the runs of morphs: a morph goes on the run of the one before when it says so and the scene between them does
// not stay.
func (o *Order) joinRuns(f *doc.Film) {
	n := o.shown
	o.runs = make([]morphRun, len(f.Scenes))
	var run morphRun
	last := doc.Transition{}
	for k := 1; k <= n; k++ {
		i, t, begin, length := k, doc.Transition{}, int64(0), o.Closing
		if k < n {
			t, begin, length = f.Scenes[k].Transition, o.Starts[k], o.Into[k]
		} else if i, begin = 0, o.Length-o.Closing; o.Closing > 0 {
			t = *f.Closing
		}
		goesOn := t.GoesOn && t.Kind == doc.Morph && last.Kind == doc.Morph && o.Stays[k-1] == 0 && len(run.scenes) > 0
		if !goesOn {
			run = morphRun{begin: begin}
		}
		run.scenes = append(slices.Clip(run.scenes), i)
		run.length += length
		for _, j := range run.scenes {
			o.runs[j] = run
		}
		last = t
	}
}

// RunOf returns the scenes whose transitions move as one with that into scene i, in order; nil when it moves by itself.
func (o *Order) RunOf(i int) []int {
	if len(o.runs[i].scenes) < 2 {
		return nil
	}
	return o.runs[i].scenes
}

// InRun returns where film time t is shown when the run of morphs that w lies in moves with one easing over all of it: the
// segment that holds the eased progress, and in Share how far it is there. Loops stay on film time, which Clock and Since
// follow. Of other transitions it returns w, with its share eased.
func (o *Order) InRun(w Where, t Instant, ease Easing) (Where, float64) {
	run := o.runs[w.Scene]
	if len(run.scenes) < 2 || run.length == 0 {
		return w, ease(w.Share)
	}
	x := min(1, max(0, ease(t.Sub(run.begin).Over(run.length)))) * float64(run.length)
	begin := run.begin
	for k, i := range run.scenes {
		into := o.Into[i]
		if i == 0 {
			into = o.Closing
		}
		if x < float64(into) || k == len(run.scenes)-1 {
			since := t.Sub(begin)
			from := i - 1
			if i == 0 {
				from = o.shown - 1
			}
			share := min(1, x/float64(into))
			return Where{Scene: i, From: from, Into: true, Since: since, Clock: since.Sub(into), Share: share}, share
		}
		x -= float64(into)
		begin += into
	}
	return w, w.Share
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
	n := o.shown
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
	i := sort.Search(n, func(i int) bool { return t.Cmp(o.Starts[i]) < 0 }) - 1
	i = max(i, 0)
	since := t.Sub(o.Starts[i])
	w := Where{Scene: i, Clock: since.Sub(o.Into[i])}
	if since.Cmp(o.Into[i]) < 0 {
		w.Into, w.From, w.Since, w.Share = true, i-1, since, since.Over(o.Into[i])
	}
	return w
}

// Begin returns the film time at which scene i's stay begins.
func (o *Order) Begin(i int) int64 { return o.Starts[i] + o.Into[i] }
