package shape

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Framed is how a picture lies in its frame. Lengths are px of the layer's axes, in which the frame is upright.
type Framed struct {
	Frame geom.Point // the frame's width and height
	Whole geom.Point // those of all of the picture
	At    geom.Point // what of the picture is in the middle of the frame, in shares of it
	Turn  float64    // degrees clockwise by which the picture is turned about that
}

// LeastCrop is the smallest part of a picture, each way, that can be shown, as a share of it.
const LeastCrop = 0.001

// FramedOf is how a picture lies in its frame; false for other layers, and for frames without extent.
func FramedOf(l *doc.Layer) (Framed, bool) {
	if l.Picture == nil || !(l.Place.W > 0) || !(l.Place.H > 0) {
		return Framed{}, false
	}
	c := l.Picture.Cropped()
	return Framed{
		geom.Point{X: l.Place.W, Y: l.Place.H}, geom.Point{X: l.Place.W / (c[2] - c[0]), Y: l.Place.H / (c[3] - c[1])},
		geom.Point{X: (c[0] + c[2]) / 2, Y: (c[1] + c[3]) / 2}, l.Picture.Turn,
	}, true
}

// Crop is the part that lies in the frame, as the format has it: as if it were not turned.
func (f Framed) Crop() doc.Crop {
	x, y := f.Frame.X/f.Whole.X/2, f.Frame.Y/f.Whole.Y/2
	return doc.Crop{f.At.X - x, f.At.Y - y, f.At.X + x, f.At.Y + y}
}

// needs is how large all of the picture is at least: it covers the frame, and its part lies in it.
func (f Framed) needs() geom.Point {
	s, c := math.Sincos(f.Turn * math.Pi / 180)
	s, c = math.Abs(s), math.Abs(c)
	return geom.Point{X: max(f.Frame.X*c+f.Frame.Y*s, f.Frame.X), Y: max(f.Frame.X*s+f.Frame.Y*c, f.Frame.Y)}
}

// Covered returns it with the picture enlarged, where it has to be, and then moved, so that it covers the frame.
func (f Framed) Covered() Framed {
	n := f.needs()
	if k := max(n.X/f.Whole.X, n.Y/f.Whole.Y); k > 1 {
		f.Whole = f.Whole.Mul(k)
	}
	x, y := min(0.5, n.X/f.Whole.X/2), min(0.5, n.Y/f.Whole.Y/2)
	f.At = geom.Point{X: min(max(f.At.X, x), 1-x), Y: min(max(f.At.Y, y), 1-y)}
	return f
}

// Covers reports whether the picture covers the frame.
func (f Framed) Covers() bool {
	c := f.Covered()
	return c.Whole.Sub(f.Whole).Len() <= 1e-6*f.Whole.Len() && c.At.Sub(f.At).Len() <= 1e-6
}

// Zoomed returns it with the picture k times as large about the middle of the frame, not smaller than covers it, and not so large that nothing is
// left of it.
func (f Framed) Zoomed(k float64) Framed {
	f.Whole = f.Whole.Mul(k)
	if most := min(f.Frame.X/f.Whole.X, f.Frame.Y/f.Whole.Y) / LeastCrop; most < 1 {
		f.Whole = f.Whole.Mul(most)
	}
	return f.Covered()
}

// Zoom is how large the picture is of what it would be if it just covered the frame.
func (f Framed) Zoom() float64 {
	n := f.needs()
	return 1 / max(n.X/f.Whole.X, n.Y/f.Whole.Y)
}

// Panned returns it with the picture moved by px of the layer's axes, as far as it covers the frame.
func (f Framed) Panned(by geom.Point) Framed {
	d := geom.Rotate(-f.Turn).ApplyVector(by)
	f.At = f.At.Sub(geom.Point{X: d.X / f.Whole.X, Y: d.Y / f.Whole.Y})
	return f.Covered()
}

// Reframed returns it with another frame, whose middle lies by px from that of the one before, over the picture as it lies.
func (f Framed) Reframed(frame, by geom.Point) Framed {
	d := geom.Rotate(-f.Turn).ApplyVector(by)
	f.At = f.At.Add(geom.Point{X: d.X / f.Whole.X, Y: d.Y / f.Whole.Y})
	f.Frame = frame
	return f
}
