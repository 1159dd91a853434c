package state

import (
	"math"

	"capstan/core/doc"
	"capstan/core/paint"
)

// Colours maps a colour r g b, in 0..1 as sRGB encodes it, to another: three rows of what each of r, g and b adds, and a number besides.
type Colours [12]float64

// SameColours leaves every colour.
var SameColours = Colours{1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0}

// after returns the map that does m first and c then.
func (c Colours) after(m Colours) (out Colours) {
	for i := 0; i < 12; i += 4 {
		for k := range 4 {
			out[i+k] = c[i]*m[k] + c[i+1]*m[4+k] + c[i+2]*m[8+k]
		}
		out[i+3] += c[i+3]
	}
	return
}

// toward returns the map a share of the way to another.
func (c Colours) toward(o Colours, t float64) Colours {
	for i := range c {
		c[i] += (o[i] - c[i]) * t
	}
	return c
}

// luma are the weights of r, g and b in how light a colour is: those of feColorMatrix (Filter Effects 1, section 9.5), which are BT.709's.
var luma = [3]float64{0.2126, 0.7152, 0.0722}

// Adjust is what is done to the colours of what a layer shows. It is one linear map, so that what one number takes out of 0..1 another
// brings back, and colours are cut off once, at its end. In this order, as sRGB encodes colours:
//
//	sharpness   v + s (v - v'), v' being v under a Gaussian of SharpSigma page px
//	brightness  v (1 + b)                      feComponentTransfer linear; brightness() of CSS filters
//	contrast    (v - 1/2) (1 + c) + 1/2        the same; contrast()
//	saturation  feColorMatrix saturate 1 + s   section 9.5; at -1 a grey as light
//	hue         feColorMatrix hueRotate h
//	warmth      r (1 + 0.3 w), b (1 - 0.3 w), and all so much less that greys stay as light: our own
//	toned       one tone: its colour, but as light as v; two: from the first where v is black to the other where it is white. Mixed by the amount
type Adjust struct {
	Brightness, Contrast, Saturation, Warmth, Sharpness float64
	Hue                                                 float64 // degrees
	Toned                                               Colours // the zero value is none
}

// SharpSigma is the deviation of the Gaussian that sharpness takes away, in page px.
const SharpSigma = 1.5

// AdjustOf is what a layer's scene makes of its adjustments.
func AdjustOf(d *doc.Adjust, s *doc.Scene) Adjust {
	if d == nil {
		return Adjust{}
	}
	a := Adjust{Brightness: d.Brightness, Contrast: d.Contrast, Saturation: d.Saturation, Warmth: d.Warmth, Sharpness: d.Sharpness, Hue: d.Hue}
	if v := d.Toned; v != nil && v.Amount > 0 && len(v.Tones) > 0 {
		k := v.Tones[0]
		first, last := Colour(k.Colour, k.Role, k.Tone, s), paint.Colour{}
		if two := len(v.Tones) > 1; two {
			k = v.Tones[1]
			last = Colour(k.Colour, k.Role, k.Tone, s)
			a.Toned = SameColours.toward(between(first, last), v.Amount)
		} else {
			a.Toned = SameColours.toward(hued(first), v.Amount)
		}
	}
	return a
}

func greys() (m Colours) {
	for i := 0; i < 12; i += 4 {
		copy(m[i:], luma[:])
	}
	return
}

// hued gives what it maps the hue of a colour: how much each of its channels is above its own lightness is added to a grey.
func hued(c paint.Colour) Colours {
	m := greys()
	y := luma[0]*c.R + luma[1]*c.G + luma[2]*c.B
	m[3], m[7], m[11] = c.R-y, c.G-y, c.B-y
	return m
}

// between maps black to one colour and white to another, by lightness.
func between(dark, light paint.Colour) (m Colours) {
	for i, v := range [3][2]float64{{dark.R, light.R}, {dark.G, light.G}, {dark.B, light.B}} {
		for k, w := range luma {
			m[4*i+k] = w * (v[1] - v[0])
		}
		m[4*i+3] = v[0]
	}
	return
}

// None reports whether it leaves every colour.
func (a *Adjust) None() bool { return *a == Adjust{} }

// Colours is the map of what a does but for its sharpness.
func (a *Adjust) Colours() Colours {
	m := SameColours
	if b, c := 1+a.Brightness, 1+a.Contrast; b != 1 || c != 1 {
		o := 0.5 - 0.5*c
		m = Colours{b * c, 0, 0, o, 0, b * c, 0, o, 0, 0, b * c, o}
	}
	if s := 1 + a.Saturation; s != 1 {
		m = greys().toward(SameColours, s).after(m)
	}
	if a.Hue != 0 {
		m = turned(a.Hue).after(m)
	}
	if w := 0.3 * a.Warmth; w != 0 {
		r, b := 1+w, 1-w
		k := 1 / (luma[0]*r + luma[1] + luma[2]*b)
		m = Colours{r * k, 0, 0, 0, 0, k, 0, 0, 0, 0, b * k, 0}.after(m)
	}
	if a.Toned != (Colours{}) {
		m = a.Toned.after(m)
	}
	return m
}

// turned is feColorMatrix hueRotate (Filter Effects 1, section 9.5), with its rounded numbers.
func turned(degrees float64) Colours {
	s, c := math.Sincos(degrees * math.Pi / 180)
	return Colours{
		0.213 + c*0.787 - s*0.213, 0.715 - c*0.715 - s*0.715, 0.072 - c*0.072 + s*0.928, 0,
		0.213 - c*0.213 + s*0.143, 0.715 + c*0.285 + s*0.140, 0.072 - c*0.072 - s*0.283, 0,
		0.213 - c*0.213 - s*0.787, 0.715 - c*0.715 + s*0.715, 0.072 + c*0.928 + s*0.072, 0,
	}
}

// Toward is a on its way to another: numbers by numbers, and what tones do as a map.
func (a Adjust) Toward(b *Adjust, t float64) Adjust {
	if t == 0 || a == *b {
		return a
	}
	n := func(x, y float64) float64 { return x + (y-x)*t }
	out := Adjust{
		n(a.Brightness, b.Brightness), n(a.Contrast, b.Contrast), n(a.Saturation, b.Saturation), n(a.Warmth, b.Warmth), max(0, n(a.Sharpness, b.Sharpness)),
		n(a.Hue, b.Hue), Colours{},
	}
	if p, q := a.Toned, b.Toned; p != q {
		if p == (Colours{}) {
			p = SameColours
		}
		if q == (Colours{}) {
			q = SameColours
		}
		out.Toned = p.toward(q, t)
	} else {
		out.Toned = p
	}
	return out
}
