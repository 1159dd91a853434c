package scope

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// Standing is the map from a layer's own axes, without its mirroring, to the page: as the moment shows it, or at rest.
func (s *Scope) Standing(m Moment, l *doc.Layer) geom.Matrix {
	s.Stand(m)
	i := s.SceneIndex(m)
	own, _, ok := s.Player.Axes(l.ID)
	if !ok {
		own = s.Shown.Ancestry(i, l.ID).Mul(s.Shown.RestMatrix(i, l.ID))
	}
	x, y := 1.0, 1.0
	if l.Place.FlipX {
		x = -1
	}
	if l.Place.FlipY {
		y = -1
	}
	_, pivot := s.Shown.Box(i, l.ID)
	return own.Mul(geom.Scale(x, y).About(pivot))
}

// Thin tells the player what a moment at rest shows.
func (s *Scope) Thin(m Moment) {
	var at *motion.Clock
	i := s.SceneIndex(m)
	if m.Rest && s.OnNow && !s.Scene(m).Aside {
		at = &motion.Clock{At: Instant(m.Time).Sub(s.Shown.Order.Begin(i)), Stay: s.Shown.Order.Stays[i]}
		if w := s.Shown.Order.At(Instant(m.Time)); w.Scene != i || w.Into {
			at.At = motion.Millis(0) // the playhead is elsewhere
		}
	}
	s.Player.Thin(at)
}

// Stand places everything as the moment shows it, for hits and overlays.
func (s *Scope) Stand(m Moment) {
	s.Thin(m)
	s.placeAll(m)
}

// StandWhole is stand with all that a scene at rest has, also what is not on now: what is selected is shown where it is.
func (s *Scope) StandWhole(m Moment) {
	s.Player.Thin(nil)
	s.placeAll(m)
}

func (s *Scope) placeAll(m Moment) {
	if m.Rest {
		s.Player.StandAtRest(s.SceneIndex(m))
	} else {
		s.Player.Stand(Instant(m.Time))
	}
}
