package motion

import (
	"math"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
)

// loop is a move that goes on and on; what drifts is a path (see addLine).
type loop struct {
	Interval
	id, continues string
	effect        string
	manner        effect.Manner
	keeps         bool
	rule          func(x float64) effect.Going
	params        effect.Params
	seed          int64
	ease          Easing
	easing        string
	ahead         float64 // share of a cycle that it is ahead by, 0..1
	uneven        bool    // is not at rest at its begin
	back          bool
	phase         int64 // ms into the cycle (there and back: into both ways) at the begin
	units         byUnit

	// Of what rolls: how many px one round is, and how far its layer has travelled at a time; nil: it does not.
	round  float64
	travel func(t Clock) float64
}

// newLoop compiles a loop; ok is false for one whose effect this version does not know: it plays as nothing.
func newLoop(m *doc.Move, iv Interval, x *Extent) (s loop, ok bool) {
	g := m.Goes()
	if g == nil {
		return s, false
	}
	s = loop{
		Interval: iv, id: m.ID, continues: m.Continues, effect: m.Effect, manner: g.Manner, keeps: g.Keeps, seed: m.Seed,
		ease: easingOf(m.Easing, DefaultEasing(m)), easing: m.Easing, back: m.Alternate,
	}
	if g.Even {
		s.ease, s.easing = Linear, ""
	}
	if g.ByUnit {
		s.units = newByUnit(m, x)
	}
	of := x.of(m, iv.Pass)
	of.Unit, s.params = s.units.unit, of.Params
	if g.Pace != nil {
		if s.Pass = x.farther(g.Pace(of)); s.Pass > 0 {
			s.Passes = float64(s.End-s.Begin) / float64(s.Pass)
		}
	}
	if g.Round != nil {
		s.round = g.Round(of)
	}
	if g.Ahead != nil {
		s.ahead = g.Ahead(of.Params)
	}
	s.rule = g.Rule(of)
	s.uneven = s.rule(s.ahead) != effect.Going{}
	return s, true
}

// of is what a rule is made for.
func (x *Extent) of(m *doc.Move, pass int64) effect.Of {
	return effect.Of{
		Params: m.Full(), Kind: m.Kind, Box: x.Box, Line: x.Line, Parts: x.Counts.Parts, Pass: pass, Seed: m.Seed,
	}
}

// farther is how long it takes what is farther away to come round, at the same pace.
func (x *Extent) farther(ms int64) int64 {
	if x.Away > 0 && x.Away != 1 {
		return int64(math.Round(float64(ms) * x.Away))
	}
	return ms
}

// CycleOf returns the time after which a loop of a layer is where it was, there and back counted, in ms; 0 for other moves, and for those that
// have none.
func CycleOf(m *doc.Move, x Extent) int64 {
	g := m.Goes()
	switch {
	case g == nil || g.Round != nil || g.Line != nil:
		return 0
	case g.Pace != nil:
		return x.farther(g.Pace(x.of(m, 0)))
	}
	pass := PassOf(m, x.Counts.Parts)
	if m.Alternate {
		pass *= 2
	}
	return pass
}

// at returns the loop's value for the layer (u nil) or one of its units. Whole-scene loops are reduced to one cycle in
// integers, before any trigonometry; finite ones that go round keep their end value, others come to rest.
func (s *loop) at(c Clock, u *Unit) effect.Going {
	t := c.At
	switch {
	case s.round > 0:
		return s.rule(s.rolled(c))
	case s.Pass <= 0 || s.waits(t):
		return effect.Going{}
	}
	switch s.manner {
	case effect.Swings, effect.Blinks:
		return s.swing(t, u)
	case effect.Strews:
		return s.strew(t)
	}
	if s.Whole {
		_, x := s.cyclic(t)
		return s.rule(s.ease(x))
	}
	n, x := s.Progress(t, s.back)
	if s.back {
		n = 0
	}
	return s.rule(float64(n) + s.ease(x))
}

// waits reports whether a loop that lasts the scene begins within it, and has not begun.
func (s *loop) waits(t Instant) bool { return s.Whole && s.Begin > 0 && t.Cmp(s.Begin) < 0 }

// cyclic returns the pass and the share of it, there and back counted.
func (s *loop) cyclic(t Instant) (int64, float64) {
	n, x := t.Sub(s.Begin).Add(s.phase).Passes(s.Pass)
	if s.back && n&1 != 0 {
		x = 1 - x
	}
	return n, x
}

// swing returns what comes round to rest. One that does not last the scene is at rest outside its active time; unless it is a whole number of
// cycles and starts at rest, what swings is faded in and out over min(0.2 s, a quarter of that).
func (s *loop) swing(t Instant, u *Unit) effect.Going {
	lag := 0.0
	if u != nil && s.units.unit != "" {
		lag = s.units.lag(s.units.place(u))
	}
	weight := 1.0
	var x float64
	if s.Whole {
		_, x = s.cyclic(t)
	} else {
		since := t.Sub(s.Begin)
		length := s.End - s.Begin
		if since.Num <= 0 || since.Cmp(length) >= 0 {
			if !s.keeps && (since.Num != 0 || s.manner == effect.Swings) {
				return effect.Going{}
			}
			_, x = s.Progress(t, s.back)
			return s.rule(x)
		}
		_, x = s.Progress(t, s.back)
		if s.manner == effect.Swings && (length%s.Pass != 0 || lag != 0 || s.uneven) {
			fade := min(200, float64(length)/4)
			ms := since.Ms()
			weight = min(1, ms/fade, (float64(length)-ms)/fade)
		}
	}
	if at := s.ahead - lag; at != 0 {
		x += at
		x -= math.Floor(x)
	}
	v := s.rule(s.ease(x))
	if weight != 1 {
		v = effect.Going{}.Plus(&v, weight)
	}
	return v
}

// strew returns copies as they are at a time.
func (s *loop) strew(t Instant) effect.Going {
	since := t.Sub(s.Begin)
	if !s.Whole && (since.Num < 0 || since.Cmp(s.End-s.Begin) >= 0) {
		return effect.Going{}
	}
	_, x := since.Add(s.phase).Passes(s.Pass)
	v := s.rule(x)
	f := &v.Flocks[0]
	f.Since = math.Inf(1)
	if !s.Whole {
		f.Since, f.Length = since.Ms(), float64(s.End-s.Begin)
	} else if s.Begin > 0 {
		f.Since = since.Ms()
	}
	return v
}

// rolled returns how many rounds a layer has rolled: as far as it has travelled in the loop's active time.
func (s *loop) rolled(c Clock) float64 {
	if s.travel == nil {
		return 0
	}
	if !s.Whole {
		c.At = c.At.within(s.Begin, s.End)
	}
	return s.travel(c) / s.round
}

// within returns the time, or the nearer end of from..to, ms, where it lies outside.
func (t Instant) within(from, to int64) Instant {
	switch {
	case t.Cmp(from) < 0:
		return Millis(from)
	case t.Cmp(to) > 0:
		return Millis(to)
	}
	return t
}

// cycle is the time after which a whole-scene loop is where it was, counting the way back.
func (s *loop) cycle() int64 {
	if s.back {
		return 2 * s.Pass
	}
	return s.Pass
}

// Repeats returns after how many px, in the layer's own axes, its scrolls repeat it; 0: they do not.
func (k *Track) Repeats() geom.Point {
	var out geom.Point
	for i := range k.loops {
		s := &k.loops[i]
		if s.manner == effect.Rounds && s.Pass > 0 && s.round == 0 {
			p := s.rule(0).Period
			out.X, out.Y = max(out.X, p.X), max(out.Y, p.Y)
		}
	}
	return out
}

// nearestOf returns the least value that looks the same: a turn within half a circle, a scroll within half a period.
func nearestOf(v effect.Going) effect.Going {
	v.Turn = nearest(v.Turn, 360)
	v.Scroll.X, v.Scroll.Y = nearest(v.Scroll.X, v.Period.X), nearest(v.Scroll.Y, v.Period.Y)
	return v
}

func nearest(v, period float64) float64 {
	if period <= 0 {
		return v
	}
	v = math.Mod(v, period)
	switch {
	case v > period/2:
		return v - period
	case v < -period/2:
		return v + period
	}
	return v
}
