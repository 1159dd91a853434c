package state

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/paint"
)

// Colour reads a colour that may be a tone of a role of the scene. The colour beside a role is what it was when it was chosen: it
// stands in where the scene has no such role.
func Colour(code, role string, tone int, s *doc.Scene) paint.Colour {
	by := 0
	if c, ok := s.Roles[role]; ok && role != "" {
		code, by = c, tone
	}
	c, err := paint.Parse(code)
	if err != nil {
		return paint.Black // validation has refused it
	}
	return c.Tone(by)
}

// Graded resolves a gradient over a box.
func Graded(fill doc.Fill, s *doc.Scene, box geom.Box) Paint {
	d := fill.Gradient
	g := &paint.Gradient{Radial: fill.Kind == doc.Radial}
	for _, v := range d.Stops {
		g.Stops = append(g.Stops, paint.Stop{At: v.At, Colour: Colour(v.Colour, v.Role, v.Tone, s)})
	}
	at := func(v [2]float64) geom.Point {
		return geom.Point{X: box.Min.X + v[0]*box.W(), Y: box.Min.Y + v[1]*box.H()}
	}
	from, to := at(d.From), at(d.To)
	v := to.Sub(from)
	p := Paint{Gradient: g, Axes: geom.Matrix{A: v.X, B: v.Y, C: -v.Y, D: v.X, E: from.X, F: from.Y}}
	if r := d.Ratio; g.Radial && r > 0 {
		p.Axes.C, p.Axes.D = r*p.Axes.C, r*p.Axes.D
	}
	if inv, ok := p.Axes.Inverse(); ok && g.Radial && d.Focus != nil {
		f := inv.Apply(at(*d.Focus))
		if l := f.Len(); l > 0.98 {
			f = f.Mul(0.98 / l) // a focus on the rim has no cone
		}
		g.Focus = [2]float64{f.X, f.Y}
	}
	return p
}

// Shaded returns the paint made darker by a share of its OKLab lightness.
func (p Paint) Shaded(by float64) Paint {
	if by == 0 {
		return p
	}
	p.Colour = paint.Mix(p.Colour, paint.Colour{A: p.Colour.A}, by)
	if p.Gradient != nil {
		g := *p.Gradient
		g.Stops = slices.Clone(g.Stops)
		for i, s := range g.Stops {
			g.Stops[i].Colour = paint.Mix(s.Colour, paint.Colour{A: s.Colour.A}, by)
		}
		p.Gradient = &g
	}
	return p
}

// Fainter returns the paint with a share of its opacity taken away.
func (p Paint) Fainter(by float64) Paint {
	if by == 0 {
		return p
	}
	p.Colour.A *= 1 - by
	if p.Gradient != nil {
		g := *p.Gradient
		g.Stops = slices.Clone(g.Stops)
		for i := range g.Stops {
			g.Stops[i].Colour.A *= 1 - by
		}
		p.Gradient = &g
	}
	return p
}

// White is the paint of what only covers.
var White = Paint{Colour: paint.White}

// EffectsOf are the effects of a layer in its scene.
func EffectsOf(d *doc.Layer, s *doc.Scene) Effects {
	e := Effects{Adjust: AdjustOf(d.Adjust, s), Feather: d.Feather, Blur: d.Blur, Blend: Blend(max(0, slices.Index(doc.Blends, d.Blend)))}
	if v := d.Shadow; v != nil {
		e.Shadow = Shadow{X: v.X, Y: v.Y, Blur: v.Blur, Colour: Colour(v.Colour, v.Role, v.Tone, s)}
	}
	if v := d.Glow; v != nil {
		e.Glow = Shadow{Blur: v.Blur, Colour: Colour(v.Colour, v.Role, v.Tone, s)}
	}
	return e
}
