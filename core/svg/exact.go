package svg

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// exact makes a layer of one of our shapes of what is exactly that: a rectangle, its corners round or not, or an ellipse, level or turned. nil: it is none, or
// its stroke would be pressed flat.
func (w *walker) exact(n *node, s state, name string, fill, stroke fill, fills, strokes bool, width float64) *doc.Layer {
	local := geom.Box{}
	kind, corner := doc.Rectangle, 0.0
	num := func(name string, side int) float64 {
		v, _ := s.g.length(s.style[name], side)
		return v
	}
	sx, sy := math.Hypot(s.m.A, s.m.B), math.Hypot(s.m.C, s.m.D)
	if sx == 0 || sy == 0 || math.Abs(s.m.A*s.m.C+s.m.B*s.m.D) > 1e-9*sx*sy || strokes && !similar(s.m) || s.style["vector-effect"] != "" && strokes {
		return nil
	}
	switch n.name {
	case "rect":
		local.Min = geom.Point{X: num("x", across), Y: num("y", down)}
		local.Max = local.Min.Add(geom.Point{X: num("width", across), Y: num("height", down)})
		rx, ry := s.corners(local.W(), local.H())
		rx, ry = rx*sx, ry*sy
		if rx == 0 || ry == 0 {
			rx, ry = 0, 0
		}
		if math.Abs(rx-ry) > 1e-6 {
			return nil
		}
		corner = rx
	case "circle", "ellipse":
		p := w.outline(n, s)
		if p == nil {
			return nil
		}
		kind, local = doc.Ellipse, p.Bounds()
	default:
		return nil
	}
	if local.Empty() {
		return nil
	}
	l := w.layer(kind, name)
	at := s.m.Apply(local.Centre())
	l.Place = doc.Place{X: round4(at.X), Y: round4(at.Y), W: round4(local.W() * sx), H: round4(local.H() * sy), Turn: round4(math.Atan2(s.m.B, s.m.A) * 180 / math.Pi), FlipY: s.m.Det() < 0}
	l.Corner = round4(corner)
	// Gradients lie in shares of its box as it is before it is turned.
	own := geom.Scale(sx, sy)
	if fills {
		l.Fill = w.shares(fill, local, own, own.ApplyBox(local), n)
	}
	if strokes {
		l.Stroke = w.strokeOf(n, s, stroke, width, local, own.ApplyBox(local))
		l.Stroke.Fill = w.shares(stroke, local, own, own.ApplyBox(local), n)
	}
	return l
}
