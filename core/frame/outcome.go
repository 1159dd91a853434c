package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/motion"
)

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
	return pose
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
