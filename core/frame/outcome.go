package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// Has reports whether scene i has a layer.
func (f *Film) Has(i int, id string) bool { return f.scenes[i].byID[id] != nil }

// EndPose returns what the moves of a layer have made of it when scene i ends, without the paths that go on with its thread.
func (f *Film) EndPose(i int, id string) motion.Pose {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return motion.Pose{}
	}
	pose := l.track.At(s.endClock(), nil)
	off, angle := l.track.AlongThread(s.endClock())
	pose.Offset, pose.Angle = pose.Offset.Sub(off), pose.Angle-angle
	if f.hidden(s, l, s.timing.Stay) {
		pose.Present = false
	}
	return pose
}

// Ends reports whether a layer is there when scene i ends, be it seen or not: what covers it, or drives its edges, has no say.
func (f *Film) Ends(i int, id string) bool {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return false
	}
	pose := l.track.At(s.endClock(), nil)
	return pose.Present && !pose.Waiting
}

// Begins reports whether a layer is there as scene i begins.
func (f *Film) Begins(i int, id string) bool {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return false
	}
	pose := l.track.At(motion.Clock{At: motion.Millis(0), Side: motion.Entering, Stay: s.timing.Stay}, nil)
	return pose.Present && !pose.Waiting
}

// Passes returns the scene that the transition at a time of the film goes into, and how far it is there, eased, 0..1; the scene that stays and 1 where
// there is none.
func (f *Film) Passes(t motion.Instant) (scene int, share float64) {
	w := f.Order.At(t)
	if !w.Into {
		return w.Scene, 1
	}
	w, share = f.Order.InRun(w, t, f.easeOf(w.Scene))
	return w.Scene, min(1, max(0, share))
}

// EndLayer returns what the changes of a layer have made of it when scene i ends, and how many times as large as it was about its pivot; nil for one
// without changes. What a change that is cut off is on its way to counts where it is more than half way there, but for numbers of place.
func (f *Film) EndLayer(i int, id string) (is *doc.Layer, large float64) {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil || len(l.becomes) == 0 {
		return nil, 1
	}
	at := l.restAt(s.endClock())
	if l.doc.Kind == doc.ViewKind {
		v, out := f.sightAfter(l, s.endClock()), *l.doc
		out.Place.X, out.Place.Y, out.Place.Turn = v.at.X, v.at.Y, v.turn
		out.Place.W, out.Place.H = f.pageBox().W()/v.zoom, f.pageBox().H()/v.zoom
		return &out, 1
	}
	pivot := geom.Rotate(at.Turn).ApplyVector(at.Pivot)
	at.At = at.At.Add(pivot).Sub(pivot.Mul(1 + at.Large)) // it is as large about its origin then
	out := *l.settledAt(s.endClock()).doc
	out.Place = l.doc.Place
	out.Place.X, out.Place.Y, out.Place.Turn = at.At.X, at.At.Y, at.Turn
	if !out.Is().Scaled {
		out.Place.W, out.Place.H = at.Size.X, at.Size.Y
	}
	out.Opacity, out.Corner = at.Opacity, at.Corner
	return &out, 1 + at.Large
}

// EndApart returns by how much farther from the pivot of a layer its letters or parts lie when scene i ends, and the change that has brought them
// there last; nil where they lie as they rest.
func (f *Film) EndApart(i int, id string) (*doc.Move, float64) {
	s := f.scenes[i]
	if l := s.byID[id]; l != nil {
		return l.track.Apart(s.endClock())
	}
	return nil, 1
}

// Cycle returns after which time a loop of scene i is where it was, there and back counted, in ms; 0 for other moves.
func (f *Film) Cycle(i int, m *doc.Move, layerID string) int64 {
	if l := f.scenes[i].byID[layerID]; l != nil {
		return motion.CycleOf(m, l.extent())
	}
	return 0
}

// Phase returns how far into its cycle a loop of scene i is at its begin, in ms.
func (f *Film) Phase(i int, move, layerID string) int64 {
	if l := f.scenes[i].byID[layerID]; l != nil {
		return l.track.PhaseOf(move)
	}
	return 0
}

// Lasting returns when a path that lasts as long as its thread begins and ends, on scene i's clock.
func (f *Film) Lasting(i int, thread, move string) (motion.Interval, bool) {
	for _, l := range f.scenes[i].lasting[thread] {
		if l.Move.ID == move {
			return l.Interval, true
		}
	}
	return motion.Interval{}, false
}

// EndTurn returns what one loop has turned its layer when scene i ends.
func (f *Film) EndTurn(i int, layerID, move string) float64 {
	s := f.scenes[i]
	if l := s.byID[layerID]; l != nil {
		return l.track.TurnOf(move, motion.Millis(s.timing.Stay))
	}
	return 0
}

// FastestTurn returns by how many degrees one loop turns its layer from frame to frame at most while scene i stays, of its first two thousand.
func (f *Film) FastestTurn(i int, layerID, move string) (most float64) {
	s, r := f.scenes[i], f.Doc.Film.Rate
	l := s.byID[layerID]
	if l == nil {
		return 0
	}
	was := l.track.TurnOf(move, motion.Millis(0))
	for k := range min(2000, motion.Frames(s.timing.Stay, r.Num, r.Den)) {
		is := l.track.TurnOf(move, motion.FrameTime(k+1, r.Num, r.Den))
		most, was = max(most, math.Abs(is-was)), is
	}
	return most
}

func (s *scene) endClock() motion.Clock {
	return motion.Clock{At: motion.Millis(s.timing.Stay), Side: motion.Leaving, Stay: s.timing.Stay}
}
