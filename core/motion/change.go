package motion

import "capstan/core/doc"

// Change is a compiled change: how far a layer is on its way to what that makes of it.
type Change struct {
	Interval
	Move   *doc.Move
	ease   Easing
	before Easing
}

func newChange(m *doc.Move, iv Interval) Change {
	return Change{Interval: iv, Move: m, ease: easingOf(m.Easing, DefaultEasing(m)), before: beforeEasing(m.Easing, DefaultEasing(m))}
}

// Changes returns the changes of a layer in the order of their begins, those that begin together as they are listed.
func (k *Track) Changes() []Change { return k.changes }

// At is the eased progress at a clock: 0 before it begins, and what it comes to after its end. It may leave 0..1 between.
func (m *Change) At(c Clock) float64 {
	t := c.of(m.Begin)
	n, x := m.Progress(t, m.Move.Alternate)
	if since := t.Sub(m.Begin); since.Num < 0 || m.Move.Alternate && n&1 == 1 && since.Cmp(m.End-m.Begin) >= 0 {
		return m.before(x)
	}
	return m.ease(x)
}

// Returns reports whether it ends where it began.
func (m *Change) Returns() bool {
	_, x := m.Progress(Millis(m.End), m.Move.Alternate)
	return x == 0
}
