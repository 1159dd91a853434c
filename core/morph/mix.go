package morph

import (
	"math"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/paint"
	"capstan/core/state"
)

// Point interpolates; the ends are exact.
func Point(a, b geom.Point, p float64) geom.Point {
	return geom.Point{X: Number(a.X, b.X, p), Y: Number(a.Y, b.Y, p)}
}

// Arc is how far along an arc of a circle from a to b a share p of its angle is; ends are exact. The arc is as high as the share of the distance,
// to the right of who looks from a to b; 0 is the straight line. By a circle, even progress is even speed.
func Arc(a, b geom.Point, height, p float64) geom.Point {
	chord := b.Sub(a)
	c := chord.Len()
	if height == 0 || c == 0 || p == 0 || p == 1 {
		return Point(a, b, p)
	}
	// A chord of length c with sagitta s: radius (c²/4 + s²) / 2s, half of the angle 2 atan(2s/c).
	s := height * c
	r, half := (c*c/4+s*s)/(2*s), 2*math.Atan(2*s/c)
	sin, cos := math.Sincos((2*p - 1) * half)
	ahead, right := r*sin, r*cos-(r-s)
	along := chord.Mul(1 / c)
	return a.Add(chord.Mul(0.5)).Add(along.Mul(ahead)).Add(geom.Point{X: -along.Y, Y: along.X}.Mul(right))
}

// Between is a layer on its way from one state to another, at eased progress p: numbers go from the one to the other, flips change half way, and
// what each side's veil hides comes to show, or goes. way says how it turns; loops are what loops on both sides make of it meanwhile. mem keeps
// the veil.
func Between(a, b *state.State, p float64, way doc.Strand, loops *effect.Going, mem *motion.Veils) state.State {
	flip := a
	if p >= 0.5 {
		flip = b
	}
	size := Point(a.Size, b.Size, p)
	return state.State{
		At: Arc(a.At, b.At, way.Arc, p), Turn: Number(a.Turn, Turned(a.Turn, b.Turn, way), p), Pivot: Point(a.Pivot, b.Pivot, p),
		FlipX: flip.FlipX, FlipY: flip.FlipY,
		Size: geom.Point{X: max(size.X, 0), Y: max(size.Y, 0)}, Corner: max(Number(a.Corner, b.Corner, p), 0),
		Opacity: Ease(Number(a.Opacity, b.Opacity, p)), Veil: mem.With(mem.Lifted(a.Veil, Ease(p)), mem.Lifted(b.Veil, 1-Ease(p))),
		Large: max(-1, Number(a.Large, b.Large, p)), Growth: max(-1, Number(a.Growth, b.Growth, p)), Blur: max(0, Number(a.Blur, b.Blur, p)), Tilts: a.Tilts.Toward(b.Tilts, p), Drawn: a.Drawn.Toward(b.Drawn, p),
	}.Going(loops)
}

// Effects interpolates the effects of two layers. A blend changes half way.
func Effects(a, b *state.Effects, t float64) state.Effects {
	n := func(x, y float64) float64 { return max(0, x+(y-x)*t) }
	out := state.Effects{Adjust: a.Adjust.Toward(&b.Adjust, t), Feather: n(a.Feather, b.Feather), Blur: n(a.Blur, b.Blur), Blend: a.Blend}
	if t >= 0.5 {
		out.Blend = b.Blend
	}
	out.Shadow, out.Glow = shadows(a.Shadow, b.Shadow, t), shadows(a.Glow, b.Glow, t)
	return out
}

// shadows interpolates two shadows. One that only one side has grows where it is.
func shadows(p, q state.Shadow, t float64) state.Shadow {
	n := func(x, y float64) float64 { return max(0, x+(y-x)*t) }
	if p.Colour.A == 0 {
		p = q
		p.Colour.A = 0
	} else if q.Colour.A == 0 {
		q = p
		q.Colour.A = 0
	}
	return state.Shadow{X: p.X + (q.X-p.X)*t, Y: p.Y + (q.Y-p.Y)*t, Blur: n(p.Blur, q.Blur), Colour: paint.Mix(p.Colour, q.Colour, t)}
}

// Steady reports whether Paints takes one paint into the other by degrees: it changes textures, and kinds of gradients, half way.
func Steady(a, b *state.Paint) bool {
	if a.Texture != nil || b.Texture != nil {
		return a.Texture != nil && b.Texture != nil && *a.Texture == *b.Texture && a.Axes == b.Axes
	}
	return a.Gradient == nil || b.Gradient == nil || a.Gradient.Radial == b.Gradient.Radial
}

// Paints interpolates two paints in OKLab. A colour counts as a gradient of that colour along the other's line; a linear and
// a radial gradient change half way.
func Paints(a, b *state.Paint, t float64) state.Paint {
	switch {
	case t == 0:
		return *a
	case t == 1:
		return *b
	case a.Texture != nil || b.Texture != nil: // textures change half way
		if t < 0.5 {
			return *a
		}
		return *b
	case a.Gradient == nil && b.Gradient == nil:
		return state.Paint{Colour: paint.Mix(a.Colour, b.Colour, t)}
	}
	p, q := a.Along(b), b.Along(a)
	if p.Gradient.Radial != q.Gradient.Radial {
		if t < 0.5 {
			return *a
		}
		return *b
	}
	lerp := func(x, y float64) float64 { return x + (y-x)*t }
	m, n := p.Axes, q.Axes
	return state.Paint{Gradient: paint.MixGradients(p.Gradient, q.Gradient, t), Axes: geom.Matrix{
		A: lerp(m.A, n.A), B: lerp(m.B, n.B), C: lerp(m.C, n.C), D: lerp(m.D, n.D), E: lerp(m.E, n.E), F: lerp(m.F, n.F),
	}}
}
