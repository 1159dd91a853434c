package motion

import (
	"slices"

	"capstan/core/effect"
)

// sameAs reports whether two linked loops are one function of time.
func (s *loop) sameAs(o *loop) bool {
	a, b := s.rule(0.25), o.rule(0.25)
	a.Flocks, b.Flocks = [2]effect.Flight{}, [2]effect.Flight{} // they follow from the rest
	return s.effect == o.effect && s.Whole && o.Whole && s.Pass == o.Pass && s.round == 0 && o.round == 0 && s.back == o.back && s.easing == o.easing &&
		s.seed == o.seed && s.params.Equal(o.params) && a == b
}

// Link sets the phases of b's whole-scene loops that continue loops of a, the scene before, which stays
// stay ms; into is the duration of the transition between them (docs/motion.md, section 5).
// Equal cycles keep their phase exactly; for unequal ones it is rounded to 1 ms of the new cycle.
func Link(a, b *Track, stay, into int64) {
	for i := range b.loops {
		s := &b.loops[i]
		o := a.find(s.continues)
		if o == nil || o.effect != s.effect || !s.Whole || !o.Whole || s.round > 0 || o.round > 0 || o.cycle() == 0 || s.cycle() == 0 {
			continue
		}
		ms := (o.phase + stay + into - o.Begin) % o.cycle()
		if ms < 0 {
			ms += o.cycle()
		}
		if s.cycle() != o.cycle() {
			ms = (2*ms*s.cycle() + o.cycle()) / (2 * o.cycle())
		}
		// phase is counted at the begin of s, ms at the clock 0 of its scene.
		s.phase = ms + s.Begin
	}
}

func (k *Track) find(id string) *loop {
	for i := range k.loops {
		if id != "" && k.loops[i].id == id {
			return &k.loops[i]
		}
	}
	return nil
}

// LoopsBetween returns what the loops of a layer that is on both sides of a transition make of it, or of one of its units. Linked equal loops are
// one function across it. Others that go round go over into each other at the rates of both, by their shares; the rest mix. One on one side only
// contributes its value at that side's end, reduced to the nearest equal state (what swings: at that time), as the other side takes over; what
// blinks counts as shown. ua and ub name the unit on either side; without them it is what moves the whole layer.
func LoopsBetween(a, b *Track, from, into Clock, by *Passage, ua, ub *Unit) (sum effect.Going) {
	if len(a.loops)+len(b.loops) == 0 {
		return
	}
	p := by.P
	both := func(x, y *loop) {
		if v, ok := by.passing(x, y, from, into); ok {
			sum = sum.Plus(&v, 1)
			return
		}
		v, w := x.at(from, ua), y.at(into, ub)
		if x.manner == effect.Rounds {
			sum = sum.Plus(&v, 1-p).Plus(&w, p)
			return
		}
		v = effect.Mixed(&v, &w, p)
		sum = sum.Plus(&v, 1)
	}
	other := func(s *loop) bool { return (s.units.unit != "") != (ua != nil) }
	linked := func(s *loop) *loop {
		if o := a.find(s.continues); o != nil && o.effect == s.effect {
			return o
		}
		return nil
	}
	for i := range b.loops {
		s := &b.loops[i]
		switch o := linked(s); {
		case o == nil || other(s):
		case o.sameAs(s):
			v := o.at(from, ua)
			sum = sum.Plus(&v, 1)
		default:
			both(o, s)
		}
	}
	for n, effects := 0, kindsOf(a, b); n < len(effects); n++ {
		i, j := 0, 0
		for {
			x := nextFree(a, &i, effects[n], func(s *loop) bool { return other(s) || follower(b, s) })
			y := nextFree(b, &j, effects[n], func(s *loop) bool { return other(s) || linked(s) != nil })
			if x == nil && y == nil {
				break
			}
			switch {
			case y == nil:
				v := x.alone(from, Millis(from.Stay), ua)
				sum = sum.Plus(&v, 1-p)
			case x == nil:
				v := y.alone(into, Millis(0), ub)
				sum = sum.Plus(&v, p)
			default:
				both(x, y)
			}
		}
	}
	return
}

// kindsOf returns the effects of the loops of two tracks, each once.
func kindsOf(a, b *Track) (effects []string) {
	for _, k := range [2]*Track{a, b} {
		for i := range k.loops {
			if e := k.loops[i].effect; !slices.Contains(effects, e) {
				effects = append(effects, e)
			}
		}
	}
	return
}

// follower reports whether a loop of b continues s.
func follower(b *Track, s *loop) bool {
	for i := range b.loops {
		if b.loops[i].continues == s.id && b.loops[i].effect == s.effect {
			return true
		}
	}
	return false
}

// nextFree returns the next loop of an effect that is not taken, from *i on; nil when there is none.
func nextFree(k *Track, i *int, effect string, taken func(*loop) bool) *loop {
	for *i < len(k.loops) {
		s := &k.loops[*i]
		*i++
		if s.effect == effect && !taken(s) {
			return s
		}
	}
	return nil
}

// alone is the value of a loop that only one side has: at the side's end for those that come round, now for those that swing.
func (s *loop) alone(now Clock, end Instant, u *Unit) effect.Going {
	if s.manner != effect.Rounds {
		v := s.at(now, u)
		if s.manner == effect.Blinks {
			v.Dim = 0
		}
		return v
	}
	now.At = end
	return nearestOf(s.at(now, u))
}

// PhaseOf returns how far into its cycle a loop is at its begin, in ms: not 0 for one that continues another.
func (k *Track) PhaseOf(id string) int64 {
	s := k.find(id)
	if s == nil || s.cycle() <= 0 {
		return 0
	}
	return (s.phase%s.cycle() + s.cycle()) % s.cycle()
}

// TurnOf returns the turn of one loop of the whole layer at a time, 0 for a loop the track does not have.
func (k *Track) TurnOf(id string, t Instant) float64 {
	if s := k.find(id); s != nil && s.units.unit == "" {
		return s.at(Clock{At: t}, nil).Turn
	}
	return 0
}
