// Package state is what a layer is at a time: where it stands, how large it is, how it is painted and how much of it shows; at rest, and with
// what its moves add to that. There is one transform, and one vocabulary for whoever asks: painting, hits, morphs, edits.
package state

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// State is a layer in its parent's axes; lengths are px, angles degrees clockwise with full turns counted.
type State struct {
	At           geom.Point // of its origin
	Turn         float64    // about its origin
	Spin         float64    // about its pivot, after that
	Pivot        geom.Point // own axes
	FlipX, FlipY bool       // about its pivot, before all else

	Size    geom.Point // of its box
	Corner  float64
	Opacity float64     // 0..1; 0 where it is not drawn
	Veil    motion.Veil // what shows of it

	Scroll  geom.Point // own axes, within a period
	Period  geom.Point // after which a scroll repeats, 0: it does not
	Repeats float64    // opacity of the repetitions, 0..1
}

// Rest is a layer at rest, with its box and pivot in its own axes.
func Rest(l *doc.Layer, box geom.Box, pivot geom.Point) State {
	p := &l.Place
	return State{
		At: geom.Point{X: p.X, Y: p.Y}, Turn: p.Turn, Pivot: pivot, FlipX: p.FlipX, FlipY: p.FlipY,
		Size: geom.Point{X: box.W(), Y: box.H()}, Corner: l.Corner, Opacity: l.Opacity,
	}
}

// With adds what the moves of a layer make of it.
func (s State) With(p *motion.Pose) State {
	s.At = s.At.Add(p.Offset)
	s.Turn += p.Angle
	s.Spin += p.Turn
	if !p.Present {
		s.Opacity = 0
	}
	s.Opacity *= p.Opacity
	s.Veil, s.Scroll, s.Period, s.Repeats = p.Veil, p.Scroll, p.Period, p.Repeats
	return s
}

// Matrix maps the layer's axes to its parent's: T(at) R(turn) [T(pivot) R(spin) T(-pivot)] Flip (docs/motion.md, section 3).
func (s *State) Matrix() geom.Matrix {
	m := geom.Translate(s.At)
	if s.Turn != 0 {
		m = m.Mul(geom.Rotate(s.Turn))
	}
	if s.Spin != 0 {
		m = m.Mul(geom.Rotate(s.Spin).About(s.Pivot))
	}
	if s.FlipX || s.FlipY {
		x, y := 1.0, 1.0
		if s.FlipX {
			x = -1
		}
		if s.FlipY {
			y = -1
		}
		m = m.Mul(geom.Scale(x, y).About(s.Pivot))
	}
	return m
}
