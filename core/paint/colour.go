// Package paint holds colours and how they change: sRGB hex codes, the OKLab space in which colours
// are interpolated in time, and WCAG contrast.
package paint

import (
	"fmt"
	"math"
)

// Colour is an sRGB-encoded colour, not premultiplied, every channel in 0..1.
type Colour struct{ R, G, B, A float64 }

// Black and White are opaque.
var (
	Black = Colour{0, 0, 0, 1}
	White = Colour{1, 1, 1, 1}
)

// Parse reads #rgb, #rrggbb or #rrggbbaa.
func Parse(s string) (Colour, error) {
	if c, ok := parse(s); ok {
		return c, nil
	}
	return Colour{}, fmt.Errorf("%q is no colour; write it as #rrggbb or #rrggbbaa", s)
}

func parse(s string) (Colour, bool) {
	if len(s) < 4 || s[0] != '#' {
		return Colour{}, false
	}
	hex := s[1:]
	if len(hex) == 3 {
		hex = string([]byte{hex[0], hex[0], hex[1], hex[1], hex[2], hex[2]})
	}
	if len(hex) != 6 && len(hex) != 8 {
		return Colour{}, false
	}
	v := [4]float64{3: 1}
	for i := 0; i < len(hex); i += 2 {
		n := 0
		for _, c := range []byte(hex[i : i+2]) {
			n *= 16
			switch {
			case c >= '0' && c <= '9':
				n += int(c - '0')
			case c >= 'a' && c <= 'f':
				n += int(c-'a') + 10
			case c >= 'A' && c <= 'F':
				n += int(c-'A') + 10
			default:
				return Colour{}, false
			}
		}
		v[i/2] = float64(n) / 255
	}
	return Colour{v[0], v[1], v[2], v[3]}, true
}

// Bytes returns the channels as 0..255, rounded half up and clamped.
func (c Colour) Bytes() (r, g, b, a uint8) {
	f := func(v float64) uint8 { return uint8(math.Max(0, math.Min(255, math.Floor(v*255+0.5)))) }
	return f(c.R), f(c.G), f(c.B), f(c.A)
}

// String writes #rrggbb, or #rrggbbaa where the colour is not opaque.
func (c Colour) String() string {
	r, g, b, a := c.Bytes()
	if a == 255 {
		return fmt.Sprintf("#%02x%02x%02x", r, g, b)
	}
	return fmt.Sprintf("#%02x%02x%02x%02x", r, g, b, a)
}

// Lab is a colour in OKLab with its opacity: L in 0..1, A and B around -0.4..0.4.
type Lab struct{ L, A, B, Alpha float64 }

// Linear undoes the sRGB transfer function (CSS Color 4, section 10.2).
func Linear(v float64) float64 {
	if a := math.Abs(v); a > 0.04045 {
		return math.Copysign(math.Pow((a+0.055)/1.055, 2.4), v)
	}
	return v / 12.92
}

// Encode applies the sRGB transfer function.
func Encode(v float64) float64 {
	if a := math.Abs(v); a > 0.0031308 {
		return math.Copysign(1.055*math.Pow(a, 1/2.4)-0.055, v)
	}
	return 12.92 * v
}

// Lab converts to OKLab (matrices of CSS Color 4, after Björn Ottosson).
func (c Colour) Lab() Lab {
	v := LinearLab(Linear(c.R), Linear(c.G), Linear(c.B))
	v.Alpha = c.A
	return v
}

// LinearLab is the opaque OKLab colour of linear sRGB channels.
func LinearLab(r, g, b float64) Lab {
	l := math.Cbrt(0.4122214708*r + 0.5363325363*g + 0.0514459929*b)
	m := math.Cbrt(0.2119034982*r + 0.6806995451*g + 0.1073969566*b)
	s := math.Cbrt(0.0883024619*r + 0.2817188376*g + 0.6299787005*b)
	return Lab{
		0.2104542553*l + 0.7936177850*m - 0.0040720468*s,
		1.9779984951*l - 2.4285922050*m + 0.4505937099*s,
		0.0259040371*l + 0.7827717662*m - 0.8086757660*s,
		1,
	}
}

// linear returns the linear sRGB channels, which may lie outside 0..1.
func (v Lab) linear() (r, g, b float64) {
	l := v.L + 0.3963377774*v.A + 0.2158037573*v.B
	m := v.L - 0.1055613458*v.A - 0.0638541728*v.B
	s := v.L - 0.0894841775*v.A - 1.2914855480*v.B
	l, m, s = l*l*l, m*m*m, s*s*s
	return +4.0767416621*l - 3.3077115913*m + 0.2309699292*s,
		-1.2684380046*l + 2.6097574011*m - 0.3413193965*s,
		-0.0041960863*l - 0.7034186147*m + 1.7076147010*s
}

// Colour converts back to sRGB; each channel is clipped to 0..1 by itself.
func (v Lab) Colour() Colour {
	clip := func(x float64) float64 { return math.Max(0, math.Min(1, Encode(x))) }
	r, g, b := v.linear()
	return Colour{clip(r), clip(g), clip(b), math.Max(0, math.Min(1, v.Alpha))}
}

// Mix interpolates from a to b in OKLab with premultiplied opacity, as color-mix(in oklab) does. The ends are
// returned exactly; t outside 0..1 extrapolates and is clipped per channel.
func Mix(a, b Colour, t float64) Colour {
	if t == 0 || a == b {
		return a
	}
	if t == 1 {
		return b
	}
	p, q := a.Lab(), b.Lab()
	alpha := p.Alpha + (q.Alpha-p.Alpha)*t
	if alpha <= 0 {
		return Colour{A: 0}
	}
	mix := func(x, y float64) float64 {
		return (x*p.Alpha + (y*q.Alpha-x*p.Alpha)*t) / alpha
	}
	return Lab{mix(p.L, q.L), mix(p.A, q.A), mix(p.B, q.B), alpha}.Colour()
}

// Luminance returns the relative luminance of WCAG 2.2, ignoring opacity.
func (c Colour) Luminance() float64 {
	return 0.2126*Linear(c.R) + 0.7152*Linear(c.G) + 0.0722*Linear(c.B)
}

// Contrast returns the WCAG 2.2 contrast ratio of two opaque colours, 1..21.
func Contrast(a, b Colour) float64 {
	x, y := a.Luminance(), b.Luminance()
	if x < y {
		x, y = y, x
	}
	return (x + 0.05) / (y + 0.05)
}
