package paint

import "math"

// Shifted returns the colour turned by degrees of hue, by so much lighter (-1..1 of OKLab lightness) and with its chroma 1 + chroma times as
// large, as far as sRGB has it. Its opacity stays.
func (c Colour) Shifted(hue, light, chroma float64) Colour {
	v := c.Lab()
	s, k := math.Sincos(hue * math.Pi / 180)
	by := max(0, 1+chroma)
	v.A, v.B = (v.A*k-v.B*s)*by, (v.A*s+v.B*k)*by
	v.L = min(1, max(0, v.L+light))
	out := v.inGamut()
	out.A = c.A
	return out
}

// Apart returns how far two colours lie apart in OKLab, whatever their opacities.
func Apart(a, b Colour) float64 {
	x, y := a.Lab(), b.Lab()
	return math.Sqrt((x.L-y.L)*(x.L-y.L) + (x.A-y.A)*(x.A-y.A) + (x.B-y.B)*(x.B-y.B))
}
