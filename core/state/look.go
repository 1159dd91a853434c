package state

import (
	"math"
	"slices"

	"capstan/core/geom"
	"capstan/core/paint"
)

// Blend is how a group is laid over what is under it.
type Blend = uint32

// The separable blend modes of W3C Compositing and Blending 1, section 9.1, in the order of doc.Blends.
const (
	Normal Blend = iota
	Multiply
	Screen
	Overlay
	Darken
	Lighten
	ColourDodge
	ColourBurn
	HardLight
	SoftLight
	Difference
	Exclusion
	// Added adds colour and cover (plus, section 9.1.4 of the same): what two that adjoin cover of a pixel comes to all of it.
	// No layer is laid so by a document.
	Added
)

// Shadow lies under a group: its shape, moved, softened by a Gaussian of deviation Blur and coloured.
type Shadow struct {
	X, Y, Blur float64 // page px
	Colour     paint.Colour
}

// Effects are what is done to a group as a whole, in this order. The zero value but for Opacity 1 does nothing.
type Effects struct {
	Adjust  Adjust
	Feather float64 // page px over which its border fades, inwards
	Blur    float64 // page px, deviation of a Gaussian
	Glow    Shadow  // light around it, which falls nowhere
	Shadow  Shadow
	Opacity float64
	Blend   Blend
}

// Layers returns the effects as one group has them, or as two that lie in each other where there are both a glow and a shadow:
// the shadow is that of what glows.
func (e Effects) Layers() (outer, inner Effects, two bool) {
	if e.Glow.Colour.A == 0 {
		return e, Effects{}, false
	}
	glow := e.Glow
	e.Glow = Shadow{}
	if e.Shadow.Colour.A == 0 {
		e.Shadow = glow
		return e, Effects{}, false
	}
	inner = Effects{Adjust: e.Adjust, Feather: e.Feather, Blur: e.Blur, Shadow: glow, Opacity: 1}
	e.Adjust, e.Feather, e.Blur = Adjust{}, 0, 0
	return e, inner, true
}

// None reports whether the effects do nothing but fade.
func (e *Effects) None() bool {
	return e.Adjust.None() && e.Feather == 0 && e.Blur == 0 && e.Shadow.Colour.A == 0 && e.Glow.Colour.A == 0 && e.Blend == Normal
}

// Reach returns how far beyond its box effects show: left, up, right, down, in page px. A blur is taken to end
// three deviations out.
func (e *Effects) Reach() (l, t, r, b float64) {
	d := 3 * e.Blur
	l, t, r, b = d, d, d, d
	if e.Shadow.Colour.A > 0 {
		s := d + 3*e.Shadow.Blur
		l, r = max(l, s-e.Shadow.X), max(r, s+e.Shadow.X)
		t, b = max(t, s-e.Shadow.Y), max(b, s+e.Shadow.Y)
	}
	return
}

// Paint is what an outline is filled with: a colour, a gradient, or a picture laid side by side.
type Paint struct {
	Colour   paint.Colour
	Gradient *paint.Gradient // before Colour
	Texture  *Texture        // before both
	Mip      uint32          // of the texture
	Axes     geom.Matrix     // from the gradient's axes, or those of a tile of 1 by 1, to those of the outline
}

// Texture is a picture that is laid side by side without a seam: sampled bilinearly, beyond an edge from the opposite one.
type Texture struct {
	Picture       uint32 // of Film.Pictures
	Width, Height int    // of the picture, px
}

// Opaque reports whether a colour covers what is under it.
func (p *Paint) Opaque() bool { return p.Gradient == nil && p.Texture == nil && p.Colour.A >= 1 }

// Clear reports whether it paints nothing.
func (p *Paint) Clear() bool { return p.Gradient == nil && p.Texture == nil && p.Colour.A <= 0 }

// Sized returns the paint of an outline that m maps to the page, at a scale: of a texture with the mip that suits it.
func (p Paint) Sized(m geom.Matrix, scale float64) Paint {
	if p.Texture == nil {
		return p
	}
	t, a := p.Texture, m.Mul(p.Axes)
	p.Mip = MipFor(geom.Point{X: a.A, Y: a.B}.Len()*scale/float64(t.Width), geom.Point{X: a.C, Y: a.D}.Len()*scale/float64(t.Height), t.Width, t.Height)
	return p
}

// MipFor is the mip with at least one sample a device pixel along the denser side, but less than two; across and down are device
// px a sample of the whole picture.
func MipFor(across, down float64, width, height int) (mip uint32) {
	for k := max(across, down); k <= 0.5 && k > 0 && mip < 12 && min(width, height)>>(mip+1) >= 1; k *= 2 {
		mip++
	}
	return
}

// On returns the effects of a layer that m maps to the page: lengths grow with it, shadows fall as they do on the page.
func (e Effects) On(m geom.Matrix) Effects {
	k := math.Sqrt(math.Abs(m.Det()))
	e.Feather *= k
	e.Blur *= k
	e.Shadow.Blur *= k
	e.Glow.Blur *= k
	e.Shadow.X *= k
	e.Shadow.Y *= k
	return e
}

// Along is p as a gradient; a colour lies along the line of o.
func (p *Paint) Along(o *Paint) Paint {
	if p.Gradient != nil {
		return *p
	}
	g := *o.Gradient
	g.Stops = slices.Clone(g.Stops)
	for i := range g.Stops {
		g.Stops[i].Colour = p.Colour
	}
	return Paint{Gradient: &g, Axes: o.Axes}
}
