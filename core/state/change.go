package state

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Toward is the state, of a layer at rest, on its way to what a change makes of it, at eased progress p; then is its state when it has become
// that. Only what the change names differs. Where it is brought and turned, its pivot goes straight: it does not swing about its origin.
func (s State) Toward(b *doc.Becomes, then *State, p float64) State {
	n := func(x, y float64) float64 {
		if p == 1 {
			return y // exactly
		}
		return x + (y-x)*p
	}
	if b.Opacity != nil {
		s.Opacity = min(1, max(0, n(s.Opacity, then.Opacity)))
	}
	if b.Corner != nil {
		s.Corner = max(0, n(s.Corner, then.Corner))
	}
	if b.Scale != nil {
		s.Large = max(-1, n(s.Large, *b.Scale-1))
	}
	if b.X == nil && b.Y == nil && b.W == nil && b.H == nil && b.Turn == nil && b.Text == nil && b.Path == nil {
		return s
	}
	to := s
	if b.X != nil {
		to.At.X = then.At.X
	}
	if b.Y != nil {
		to.At.Y = then.At.Y
	}
	if b.Turn != nil {
		to.Turn = then.Turn
	}
	if b.W != nil || b.Text != nil || b.Path != nil {
		to.Size.X = then.Size.X
	}
	if b.H != nil || b.Text != nil || b.Path != nil {
		to.Size.Y = then.Size.Y
	}
	to.Pivot = then.Pivot
	if p == 1 {
		s.At, s.Turn, s.Size, s.Pivot = to.At, to.Turn, to.Size, to.Pivot
		return s
	}
	from, at := s.stands(), to.stands()
	s.Turn = n(s.Turn, to.Turn)
	s.Pivot = geom.Point{X: n(s.Pivot.X, to.Pivot.X), Y: n(s.Pivot.Y, to.Pivot.Y)}
	s.Size = geom.Point{X: max(0, n(s.Size.X, to.Size.X)), Y: max(0, n(s.Size.Y, to.Size.Y))}
	stands := geom.Point{X: n(from.X, at.X), Y: n(from.Y, at.Y)}
	s.At = stands.Sub(geom.Rotate(s.Turn).ApplyVector(s.Pivot))
	return s
}

// stands is where the pivot lies in the parent's axes.
func (s *State) stands() geom.Point { return s.At.Add(geom.Rotate(s.Turn).ApplyVector(s.Pivot)) }
