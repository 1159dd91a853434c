package motion

import "capstan/core/geom"

// Side says from where a scene is looked at.
type Side int

// The sides: within its own stay; leaving it, in the transition after; entering it, in the one before.
const (
	Inside Side = iota
	Leaving
	Entering
)

// Clock is a time on a scene's clock. Loops follow At through transitions; other moves stand at the
// scene's end when leaving, and at its clock 0 when entering unless they begin before 0.
type Clock struct {
	At   Instant
	Side Side
	Stay int64 // ms
}

func (c Clock) of(begin int64) Instant {
	switch {
	case c.Side == Leaving:
		return Millis(c.Stay)
	case c.Side == Entering && begin >= 0:
		return Millis(0)
	}
	return c.At
}

// Pose is what the moves of one layer, or of one of its units, add to its rest pose at a time.
type Pose struct {
	Present bool       // false: not drawn at all
	Waiting bool       // has an entrance that has shown nothing yet
	Opacity float64    // of presence moves, 0..1
	Veil    Veil       // what wipes show of it
	Offset  geom.Point // page px in the parent's axes, from paths and slides
	Angle   float64    // degrees, from turning along paths
	Turn    float64    // degrees about the pivot, from spins and rocks
	Scroll  geom.Point // px in the layer's own axes, within a period
	Period  geom.Point // px after which a scroll repeats, 0: it does not
	Repeats float64    // opacity of the repetitions, 0..1
}

// Rest is the pose of a layer that nothing moves.
var Rest = Pose{Present: true, Opacity: 1}

// Reveal shows a part of something: an opacity times a wipe that has gone Share of its way across the box.
type Reveal struct {
	Opacity   float64 // 0..1
	Direction float64 // degrees clockwise, 0 to the right
	Softness  float64 // px
	Share     float64 // 0..1
	Inverted  bool    // shows what the wipe does not
}

// Veil is up to two reveals. They multiply, or, where an entrance overlaps the exit before it, join as 1 - (1-a)(1-b).
type Veil struct {
	Reveals [2]Reveal
	Count   int
	Join    bool
}

func (v *Veil) add(r Reveal) {
	if v.Count < len(v.Reveals) {
		v.Reveals[v.Count] = r
		v.Count++
	}
}

// nothing reports whether the reveal shows nothing.
func (r *Reveal) nothing() bool {
	return r.Opacity <= 0 || !r.Inverted && r.Share <= 0 || r.Inverted && r.Share >= 1
}

// Nothing reports whether the veil shows nothing of what is under it.
func (v *Veil) Nothing() bool {
	some, none := false, false
	for i := 0; i < v.Count; i++ {
		if v.Reveals[i].nothing() {
			none = true
		} else {
			some = true
		}
	}
	return none && (!v.Join || !some)
}

// Lifted returns v with its reveals share of their way to showing everything.
func (v Veil) Lifted(share float64) Veil {
	for i := 0; i < v.Count; i++ {
		r := &v.Reveals[i]
		r.Opacity += (1 - r.Opacity) * share
		if r.Inverted {
			r.Share *= 1 - share
		} else {
			r.Share += (1 - r.Share) * share
		}
	}
	return v
}

// With returns both veils one over the other; where that is too many, the first ones.
func (v Veil) With(o Veil) Veil {
	if v.Count == 0 {
		return o
	}
	if o.Count == 0 || v.Join || o.Join {
		return v
	}
	for i := 0; i < o.Count; i++ {
		v.add(o.Reveals[i])
	}
	return v
}
