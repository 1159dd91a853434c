package motion

import (
	"math"

	"capstan/core/effect"
)

// Passage is how far a morph has come, and what loops of both its sides need to go over into each other without a jump (docs/motion.md,
// section 5): how long it has been at which progress. Times are ms from the begin of the segment, which is the transition itself, or
// that part of a run of morphs that is shown.
type Passage struct {
	P     float64 // eased progress of the segment
	Since float64 // film time since the segment's begin
	Into  float64 // the segment's duration
	Ease  Easing

	// Of a run of morphs with one easing over all of it; of a transition by itself Length is Into and the others are 0.
	Length float64 // of the run
	From   float64 // when the run begins, at most 0
	X      float64 // where the segment lies in the run's own time

	mean, whole float64 // integrals of the progress up to Since and up to the end
	done        bool
}

// progress is the eased progress of the segment at a time since its begin.
func (p *Passage) progress(ms float64) float64 {
	if p.Length == p.Into {
		return p.Ease(ms / p.Into)
	}
	x := min(1, max(0, p.Ease((ms-p.From)/p.Length)))*p.Length - p.X
	return min(1, max(0, x/p.Into))
}

// end is when the progress has come to 1 for good.
func (p *Passage) end() float64 { return p.From + p.Length }

// panels is into how many panels the progress is divided where it is summed up.
const panels = 64

// upTo is the integral of the progress from its begin to a time, by Simpson's rule. The panels lie between both, so it follows the time
// without a jump.
func (p *Passage) upTo(ms float64) float64 {
	h := (ms - p.From) / panels
	if h <= 0 {
		return 0
	}
	sum := p.progress(p.From) + p.progress(ms)
	for i := 1; i < panels; i++ {
		k := 2.0
		if i&1 == 1 {
			k = 4
		}
		sum += k * p.progress(p.From+float64(i)*h)
	}
	return sum * h / 3
}

// sums returns the integrals of the progress up to now and up to the end; they are worked out when a loop asks first.
func (p *Passage) sums() (mean, whole float64) {
	if !p.done {
		p.mean, p.whole, p.done = p.upTo(p.Since), p.upTo(p.end()), true
	}
	return p.mean, p.whole
}

// Passage returns how far the transition that w lies in has come at eased progress p; w is as InRun returns it.
func (o *Order) Passage(w Where, ease Easing, p float64) Passage {
	into := o.Into[w.Scene]
	if w.Scene == 0 {
		into = o.Closing
	}
	out := Passage{P: p, Since: w.Since.Ms(), Into: float64(into), Ease: ease, Length: float64(into)}
	run := o.runs[w.Scene]
	if len(run.scenes) < 2 || run.length == 0 {
		return out
	}
	out.Length = float64(run.length)
	for _, i := range run.scenes {
		if i == w.Scene {
			break
		}
		d := o.Into[i]
		if i == 0 {
			d = o.Closing
		}
		out.X += float64(d)
	}
	out.From = -out.X // stays within a run are 0
	return out
}

// turning is a loop that comes round, as a phase: how many rounds it has gone when the transition begins, how many it goes a ms, and how far it
// is now from going evenly.
type turning struct{ phase, rate, off float64 }

// cycles returns what goes round as a phase on its side of a transition that has gone on for since ms: at is the clock now, begin that at the
// transition's begin.
func (s *loop) cycles(at, begin Clock) turning {
	if s.round > 0 {
		return turning{phase: s.rolled(begin), off: s.rolled(at) - s.rolled(begin)}
	}
	round := func(t Instant) float64 {
		switch {
		case s.Pass <= 0 || s.waits(t):
			return 0
		case s.Whole:
			_, x := s.cyclic(t)
			return x
		}
		n, x := s.Progress(t, s.back)
		if s.back {
			n = 0
		}
		return float64(n) + x
	}
	eased := func(x float64) float64 {
		if s.Whole {
			return s.ease(x)
		}
		n := math.Floor(x)
		if x > 0 && x == n {
			n--
		}
		return n + s.ease(x-n)
	}
	if !s.Whole || s.back || s.Pass <= 0 || begin.At.Cmp(s.Begin) < 0 && s.Begin > 0 {
		// It does not go evenly: what it is now is told as it is, rounds that are over at the begin left out.
		return turning{off: eased(round(at.At)) - math.Floor(round(begin.At))}
	}
	x := round(at.At)
	return turning{phase: round(begin.At), rate: 1 / float64(s.Pass), off: s.ease(x) - x}
}

func (t turning) times(k float64) turning { return turning{k * t.phase, k * t.rate, k * t.off} }

// rounds is the phase that two loops of one kind, a leaving and one coming, come to together: it goes at the rates of both by their shares, and
// makes up what is left to the coming one's phase the short way.
func (p *Passage) rounds(a, b turning) float64 {
	now, _ := p.way(a, b)
	return now
}

// way is the same with the phase that they come to at the end.
func (p *Passage) way(a, b turning) (now, last float64) {
	mean, whole := p.sums()
	more := b.rate - a.rate
	end := p.end()
	left := b.phase + b.rate*end - (a.phase + a.rate*end + more*whole)
	left -= math.Round(left)
	return a.phase + a.rate*p.Since + more*mean + p.P*left + (1-p.P)*a.off + p.P*b.off, a.phase + a.rate*end + more*whole + left
}

// passing returns what two loops that go round, of either side, come to together; false for those that are of no such kind, or scroll along
// different axes. One that goes the other way counts as one that goes back.
func (p *Passage) passing(x, y *loop, from, into Clock) (effect.Going, bool) {
	if x.effect != y.effect || x.manner != effect.Rounds {
		return effect.Going{}, false
	}
	one, other := x.rule(0.5), y.rule(0.5)
	way := one.Turn*other.Turn + one.Scroll.X*other.Scroll.X + one.Scroll.Y*other.Scroll.Y
	if way == 0 {
		return effect.Going{}, false
	}
	begins := from
	begins.At = Millis(from.Stay)
	a := x.cycles(from, begins)
	begins = into
	begins.At = Millis(-int64(p.Into + 0.5))
	b := y.cycles(into, begins).times(math.Copysign(1, way))
	if one.Turn != 0 {
		return x.rule(p.rounds(a, b)), true
	}
	v, last := p.way(a, b)
	switch { // where its copies come or go the layer itself is the one that stays
	case y.waits(into.At):
		v -= math.Round(last)
	case !x.waits(from.At):
		v -= math.Floor(v)
	}
	was, is := one.Period.X+one.Period.Y, other.Period.X+other.Period.Y
	period := was + (is-was)*p.P
	out := effect.Going{Scroll: one.Scroll.Mul(2 * period * v / was)}
	if !x.waits(from.At) {
		out.Repeats += 1 - p.P
	}
	if !y.waits(into.At) {
		out.Repeats += p.P
	}
	if one.Period.X != 0 {
		out.Period.X = period
	} else {
		out.Period.Y = period
	}
	return out, true
}
