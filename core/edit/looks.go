package edit

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Parts that have a fill of their own: of layers, and of the scene.
const (
	FillPart       = "fill"
	strokePart     = "stroke"
	BackgroundPart = "background"
)

// FillOf returns the fill of a part of a layer; false where it has none.
func FillOf(l *doc.Layer, part string) (doc.Fill, bool) {
	switch {
	case !l.Is().Filled:
		return doc.Fill{}, false
	case part == strokePart:
		if l.Stroke == nil {
			return doc.Fill{}, false
		}
		return l.Stroke.Fill, true
	}
	return l.Fill, true
}

// Filled returns the patch of a layer, or of the scene, that changes the fill of a part.
func Filled(part string, patch Fields) Fields {
	if part == BackgroundPart {
		return Fields{"background": patch}
	}
	p := Fields{"fill": patch}
	if part == strokePart {
		return Fields{"stroke": p}
	}
	return p
}

// Graded returns the patch of a layer, or of the scene, that changes the gradient of a part.
func Graded(part string, patch Fields) Fields {
	return Filled(part, Fields{"gradient": patch})
}

// MoveStop moves a colour of a gradient between its neighbours.
func MoveStop(stops []doc.Stop, i int, at float64) []doc.Stop {
	if i < 0 || i >= len(stops) {
		return nil
	}
	lo, hi := 0.0, 1.0
	if i > 0 {
		lo = stops[i-1].At
	}
	if i+1 < len(stops) {
		hi = stops[i+1].At
	}
	stops[i].At = min(hi, max(lo, at))
	return stops
}

// Held returns a gradient that lies where it lay when its box becomes another, in axes that m leads to.
func Held(g *doc.Gradient, from, to geom.Box, m geom.Matrix) *doc.Gradient {
	if !(to.W() > 0 && to.H() > 0) {
		return g
	}
	at := func(v [2]float64) [2]float64 {
		q := m.Apply(geom.Point{X: from.Min.X + v[0]*from.W(), Y: from.Min.Y + v[1]*from.H()}).Sub(to.Min)
		return [2]float64{q.X / to.W(), q.Y / to.H()}
	}
	c := *g
	c.From, c.To = at(g.From), at(g.To)
	if g.Focus != nil {
		f := at(*g.Focus)
		c.Focus = &f
	}
	return &c
}
