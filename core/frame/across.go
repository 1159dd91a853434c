package frame

import (
	"capstan/core/geom"
	"capstan/core/motion"
)

// Across tells where the middle of a layer of scene i is across the page at a time of the scene's clock, in ms, on its paths and as it is seen: -1 is the left
// side of the page, 1 the right; what lies beside the page is beyond these. It is 0 for a layer that the scene does not have.
func (f *Film) Across(i int, id string, ms float64) float64 {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return 0
	}
	c := motion.Clock{At: motion.Seconds(ms / 1000), Stay: s.timing.Stay}
	at := f.outer(s, l, c).Mul(l.alongPaths(c)).Apply(geom.Point{X: (l.box.Min.X + l.box.Max.X) / 2, Y: (l.box.Min.Y + l.box.Max.Y) / 2})
	return 2*at.X/float64(f.Doc.Film.Width) - 1
}
