package paint

import "math"

// Stop is a colour at a share of a gradient.
type Stop struct {
	At     float64 // 0..1, not below that of the stop before
	Colour Colour
}

// Gradient runs through colours: a linear one from (0, 0) to (1, 0) of its own axes, a radial one from its focus to the
// circle of radius 1 about (0, 0). Before its first and after its last stop it holds their colours. Between two stops it
// is linear in sRGB without premultiplying, as SVG 2 (section 14.2) and Canvas 2D have it.
type Gradient struct {
	Radial bool
	Focus  [2]float64 // of a radial one, within the circle
	Stops  []Stop     // two or more
}

// Share returns how far through the gradient the point x, y of its axes lies; unbounded.
func (g *Gradient) Share(x, y float64) float64 {
	if !g.Radial {
		return x
	}
	// The circle through the point that has its centre between the focus f and 0: |d + t f| = t with d = p - f.
	fx, fy := g.Focus[0], g.Focus[1]
	dx, dy := x-fx, y-fy
	a := 1 - fx*fx - fy*fy
	if a <= 0 {
		return math.Hypot(x, y)
	}
	b := dx*fx + dy*fy
	return (b + math.Sqrt(b*b+a*(dx*dx+dy*dy))) / a
}

// At returns the colour at a share.
func (g *Gradient) At(t float64) Colour {
	s := g.Stops
	if !(t > s[0].At) {
		return s[0].Colour
	}
	for i := 1; i < len(s); i++ {
		if t < s[i].At {
			a, b := s[i-1], s[i]
			k := (t - a.At) / (b.At - a.At)
			mix := func(x, y float64) float64 { return x + (y-x)*k }
			return Colour{mix(a.Colour.R, b.Colour.R), mix(a.Colour.G, b.Colour.G), mix(a.Colour.B, b.Colour.B), mix(a.Colour.A, b.Colour.A)}
		}
	}
	return s[len(s)-1].Colour
}

// Opaque reports whether nothing shows through the gradient.
func (g *Gradient) Opaque() bool {
	for _, s := range g.Stops {
		if s.Colour.A < 1 {
			return false
		}
	}
	return true
}

// MixGradients interpolates two gradients of one kind in OKLab; where they have different numbers of stops, both are
// taken at the stops of either.
func MixGradients(a, b *Gradient, t float64) *Gradient {
	out := &Gradient{Radial: a.Radial}
	for i := range out.Focus {
		out.Focus[i] = a.Focus[i] + (b.Focus[i]-a.Focus[i])*t
	}
	if len(a.Stops) == len(b.Stops) {
		for i, s := range a.Stops {
			out.Stops = append(out.Stops, Stop{s.At + (b.Stops[i].At-s.At)*t, Mix(s.Colour, b.Stops[i].Colour, t)})
		}
		return out
	}
	i, j := 0, 0
	for i < len(a.Stops) || j < len(b.Stops) {
		var at float64
		switch {
		case j == len(b.Stops) || i < len(a.Stops) && a.Stops[i].At <= b.Stops[j].At:
			at = a.Stops[i].At
			i++
		default:
			at = b.Stops[j].At
			j++
		}
		out.Stops = append(out.Stops, Stop{at, Mix(a.At(at), b.At(at), t)})
	}
	return out
}
