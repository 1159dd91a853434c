package overlay

import (
	"capstan/core/geom"
	"capstan/core/scope"
)

// CrowdView is the overlay of many selected layers: the upright box around all that are not locked, nil where fewer than two are not, and of
// each that is drawn its corners from its own upper left clockwise, as eight numbers.
func (s *Overlays) CrowdView(m scope.Moment, threads []string) (around *Box, corners []float64) {
	s.StandWhole(m)
	all, free := geom.EmptyBox(), 0
	for _, l := range s.Layers(m, threads) {
		c, _, ok := s.Player.Quad(l.ID)
		if !ok {
			continue
		}
		for _, p := range c {
			corners = append(corners, p.X, p.Y)
		}
		if !l.Locked {
			all = all.Union(scope.BoxOf(c))
			free++
		}
	}
	return boxAround(all, free), corners
}
