// Package state is what a layer is at a time: where it stands, how large it is, how it is painted and how much of it shows; at rest, and with
// what its moves add to that. There is one transform, and one vocabulary for whoever asks: painting, hits, morphs, edits.
package state

import (
	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/motion"
)

// What effects make of layers is told as they do.
type (
	Tilts = effect.Tilts
	Drawn = effect.Drawn
	Pen   = effect.Pen
	Glow  = effect.Glow
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

	Large  float64      // of changes: it is 1 + this times as large, about its pivot
	Growth float64      // of presence moves: it is 1 + this times as large, about its pivot
	Blur   float64      // of presence moves: px, deviation of a Gaussian
	Tilts  effect.Tilts // of presence moves: out of the page
	Drawn  effect.Drawn // of presence moves: how far it is drawn
	Loops  effect.Going // what loops make of it besides
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
	if !p.Present {
		s.Opacity = 0
	}
	s.Opacity *= p.Opacity
	s.Veil, s.Growth, s.Blur, s.Tilts, s.Drawn = p.Veil, p.Growth, p.Blur, p.Tilts, p.Drawn
	return s.Going(&p.Loops)
}

// Going is the state with these loops.
func (s State) Going(g *effect.Going) State {
	s.Loops, s.Spin = *g, g.Turn
	return s
}

// Matrix maps the layer's axes to its parent's: T(at + sway) R(turn) [T(pivot) R(spin) S(growth) T(-pivot)] Flip (docs/motion.md, section 3).
func (s *State) Matrix() geom.Matrix {
	m := geom.Translate(s.At.Add(s.Loops.Sway))
	if s.Turn != 0 {
		m = m.Mul(geom.Rotate(s.Turn))
	}
	if s.Spin != 0 {
		m = m.Mul(geom.Rotate(s.Spin).About(s.Pivot))
	}
	if k := (1 + s.Large) * (1 + s.Growth) * (1 + s.Loops.Growth); k != 1 {
		m = m.Mul(geom.Scale(k, k).About(s.Pivot))
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

// Shows is how opaque the layer is, loops counted.
func (s *State) Shows() float64 { return s.Opacity * (1 - s.Loops.Dim) }
