package motion

import (
	"capstan/core/effect"
	"capstan/core/geom"
)

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
	Present bool         // false: not drawn at all
	Waiting bool         // has an entrance that has shown nothing yet
	Opacity float64      // of presence moves, 0..1
	Veil    Veil         // what their fronts show of it
	Offset  geom.Point   // page px in the parent's axes, from paths and presence moves
	Angle   float64      // degrees, from turning along paths
	Apart   float64      // of changes, for a unit: it lies 1 + this times as far from the layer's pivot
	Growth  float64      // of presence moves: it is 1 + this times as large, about its pivot
	Blur    float64      // of presence moves: px, deviation of a Gaussian
	Tilts   effect.Tilts // of presence moves: out of the page
	Drawn   effect.Drawn // of presence moves: how far it is drawn
	Loops   effect.Going // what loops add
}

// Rest is the pose of a layer that nothing moves.
var Rest = Pose{Present: true, Opacity: 1}
