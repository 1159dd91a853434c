package motion

import "capstan/core/doc"

// sameAs reports whether two linked loops are one function of time.
func (s *loop) sameAs(o *loop) bool {
	return s.effect == o.effect && s.Whole && o.Whole && s.Pass == o.Pass && s.sense == o.sense && s.back == o.back && s.easing == o.easing &&
		s.amplitude == o.amplitude && s.ahead == o.ahead && s.axis == o.axis
}

// Link sets the phases of b's whole-scene loops that continue loops of a, the scene before, which stays
// stay ms; into is the duration of the transition between them (docs/motion.md, section 5).
// Equal cycles keep their phase exactly; for unequal ones it is rounded to 1 ms of the new cycle.
func Link(a, b *Track, stay, into int64) {
	for i := range b.loops {
		s := &b.loops[i]
		o := a.find(s.continues)
		if o == nil || o.effect != s.effect || !s.Whole || !o.Whole || o.cycle() == 0 || s.cycle() == 0 {
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

// LoopsBetween returns what the loops of a layer that is on both sides of a transition make of it, or of one of its units; only the Turn, Scroll,
// Period and Repeats of the pose are set. Linked equal loops are one function across it. Other spins and scrolls go over into each other at the
// rates of both, by their shares; rocks mix. One on one side only contributes its value at that side's end, reduced to the nearest equal state
// (a rock: at that time), as the other side takes over. ua and ub name the unit on either side; without them it is what moves the whole layer.
func LoopsBetween(a, b *Track, from, into Clock, by *Passage, ua, ub *Unit) Pose {
	p := by.P
	var sum turned
	both := func(x, y *loop) {
		if x.effect != doc.Rock {
			if v, ok := by.passing(x, y, from, into); ok {
				sum = sum.plus(v, 1)
				return
			}
		}
		sum = sum.plus(x.at(from.At, ua), 1-p).plus(y.at(into.At, ub), p)
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
			sum = sum.plus(o.at(from.At, ua), 1)
		default:
			both(o, s)
		}
	}
	for _, effect := range [...]string{doc.Spin, doc.Rock, doc.Scroll} {
		i, j := 0, 0
		for {
			x := nextFree(a, &i, effect, func(s *loop) bool { return other(s) || follower(b, s) })
			y := nextFree(b, &j, effect, func(s *loop) bool { return other(s) || linked(s) != nil })
			if x == nil && y == nil {
				break
			}
			switch {
			case y == nil:
				sum = sum.plus(x.alone(from.At, Millis(from.Stay), ua), 1-p)
			case x == nil:
				sum = sum.plus(y.alone(into.At, Millis(0), ub), p)
			default:
				both(x, y)
			}
		}
	}
	return Pose{Turn: sum.turn, Scroll: sum.scroll, Period: sum.period, Repeats: sum.shows}
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

// alone is the value of a loop that only one side has: at the side's end for those that come round, now for a rock.
func (s *loop) alone(now, end Instant, u *Unit) turned {
	if s.effect == doc.Rock {
		return s.at(now, u)
	}
	return s.nearest(s.at(end, u))
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
		return s.at(t, nil).turn
	}
	return 0
}
