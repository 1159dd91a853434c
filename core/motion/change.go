package motion

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Change is a compiled change: how far a layer is on its way to what that makes of it.
type Change struct {
	Interval
	Move   *doc.Move
	ease   Easing
	before Easing
	units  byUnit // where it brings them; none: it goes as a whole
}

func newChange(m *doc.Move, l *doc.Layer, iv Interval, x *Extent) Change {
	c := Change{Interval: iv, Move: m, ease: easingOf(m.Easing, DefaultEasing(m)), before: beforeEasing(m.Easing, DefaultEasing(m))}
	if m.Change.To.Parts() {
		by := *m
		if by.Unit = unitOf(m, l); m.Unit == "" {
			by.Overlap = 1
		}
		c.units = newByUnit(&by, x)
	}
	return c
}

// unitOf is the unit that a move of a layer goes by: its own; where letters or parts are brought apart, these, all at once.
func unitOf(m *doc.Move, l *doc.Layer) string {
	if units := l.Is().Units; m.Unit == "" && m.Change != nil && m.Change.To.Apart != nil && len(units) > 0 {
		return units[len(units)-1]
	}
	return m.Unit
}

// Changes returns the changes of a layer in the order of their begins, those that begin together as they are listed.
func (k *Track) Changes() []Change { return k.changes }

// At is the eased progress at a clock: 0 before it begins, and what it comes to after its end. It may leave 0..1 between.
func (m *Change) At(c Clock) float64 {
	return m.of(c, nil)
}

// of is At of the whole, or of one unit.
func (m *Change) of(c Clock, u *Unit) float64 {
	t := c.of(m.Begin)
	n, x := m.Progress(t, m.Move.Alternate)
	if u != nil && m.units.unit != "" {
		x, _ = m.units.share(x, m.units.place(u))
	}
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

// Unit is At of one unit, which may be one of other words: those beyond the last of the words at rest go with that. ok is false for a change that
// goes as a whole.
func (m *Change) Unit(c Clock, u *Unit) (p float64, ok bool) {
	own := len(m.units.ranks)
	if own == 0 {
		return 0, false
	}
	i := min(u.of(m.units.unit), own-1)
	return m.of(c, &Unit{i, i, i, i}), true
}

// partsAt is what changes make of one unit beside what they make of the whole: how far it is from where that has come, in the parent's axes, and how
// many times as far from the pivot it lies, less 1. rest is where the layer rests.
func (k *Track) partsAt(c Clock, u *Unit) (off geom.Point, apart float64) {
	whole, unit, far := k.rest, k.rest, 1.0
	for i := range k.changes {
		m := &k.changes[i]
		to := &m.Move.Change.To
		if !to.Parts() {
			continue
		}
		p, q := m.of(c, nil), m.of(c, u)
		if to.X != nil {
			whole.X, unit.X = whole.X+(*to.X-whole.X)*p, unit.X+(*to.X-unit.X)*q
		}
		if to.Y != nil {
			whole.Y, unit.Y = whole.Y+(*to.Y-whole.Y)*p, unit.Y+(*to.Y-unit.Y)*q
		}
		if to.Apart != nil {
			far += (*to.Apart - far) * q
		}
	}
	return unit.Sub(whole), max(far, 0) - 1
}

// Apart returns how many times as far from the pivot the units of the layer lie at a clock, and the change that has brought them there last; nil where
// that is as they rest. Units that are on their way count as the whole does.
func (k *Track) Apart(c Clock) (by *doc.Move, far float64) {
	far = 1
	for i := range k.changes {
		m := &k.changes[i]
		if to := m.Move.Change.To.Apart; to != nil {
			if p := m.At(c); p != 0 {
				by, far = m.Move, far+(*to-far)*p
			}
		}
	}
	if far == 1 {
		return nil, 1
	}
	return by, far
}

// partsChange reports whether a change has its units somewhere else than the whole.
func (k *Track) partsChange(c Clock) bool {
	for i := range k.changes {
		m := &k.changes[i]
		t := c.of(m.Begin)
		if m.units.unit != "" && t.Cmp(m.Begin) >= 0 && (m.Move.Change.To.Apart != nil || t.Cmp(m.End) < 0) {
			return true
		}
	}
	return false
}
