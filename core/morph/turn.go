package morph

import (
	"math"

	"capstan/core/doc"
)

// Turned returns the turn, in degrees, that a thread goes to through a morph from one turn towards another: that other one, or one that looks
// like it. Turns more go in the sense it turns in, clockwise where it does not.
func Turned(from, to float64, s doc.Strand) float64 {
	d := to - from
	switch s.Turn {
	case doc.TurnShort:
		d = math.Mod(d, 360)
		if d > 180 {
			d -= 360
		} else if d <= -180 {
			d += 360
		}
	case doc.TurnClockwise:
		if d = math.Mod(d, 360); d < 0 {
			d += 360
		}
	case doc.TurnAnticlockwise:
		if d = math.Mod(d, 360); d > 0 {
			d -= 360
		}
	}
	more := 360 * float64(s.Turns)
	if d < 0 || s.Turn == doc.TurnAnticlockwise {
		more = -more
	}
	return from + d + more
}

// Sense returns the way in which the morph back to the first scene turns a thread that nothing is said of: that of the film's morphs before
// it, where all that turn it do so the same way, else from number to number. layer returns the thread's in a scene, or nil.
func Sense(f *doc.Film, thread string, layer func(scene int) *doc.Layer) string {
	sense := ""
	scenes := f.Shown()
	for i := 1; i < len(scenes); i++ {
		t := &scenes[i].Transition
		if t.Kind != doc.Morph {
			continue
		}
		a, b := layer(i-1), layer(i)
		if a == nil || b == nil {
			continue
		}
		way := doc.TurnClockwise
		switch d := Turned(a.Place.Turn, b.Place.Turn, t.Threads[thread]) - a.Place.Turn; {
		case d == 0:
			continue
		case d < 0:
			way = doc.TurnAnticlockwise
		}
		if sense != "" && sense != way {
			return doc.TurnNumbered
		}
		sense = way
	}
	if sense == "" {
		return doc.TurnNumbered
	}
	return sense
}
