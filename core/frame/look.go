package frame

import (
	"fmt"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/paint"
)

// colourOf reads a colour that may be a tone of a role of the scene. The colour beside a role is what it was when it was chosen: it
// stands in where the scene has no such role.
func colourOf(code, role string, tone int, s *doc.Scene) paint.Colour {
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

// paintOf resolves a fill of a layer with the given box; no fill is a colour that does not show.
func (f *Film) paintOf(fill doc.Fill, s *doc.Scene, box geom.Box) Paint {
	switch {
	case fill.Kind == doc.PictureFill || fill.Kind == doc.Texture:
		return f.textured(fill, box)
	case fill.Kind == doc.Solid:
		return Paint{Colour: colourOf(fill.Colour, fill.Role, fill.Tone, s)}
	case fill.Graded() && fill.Gradient != nil && len(fill.Gradient.Stops) > 1:
		return graded(fill, s, box)
	}
	return Paint{}
}

// textured resolves a picture or a texture as a fill. A picture covers the box, its middle in the middle, and one px of it lies
// beyond every edge: there a texture would show the opposite edge.
func (f *Film) textured(fill doc.Fill, box geom.Box) Paint {
	media := f.Doc.Media[fill.Media]
	if media == nil || media.Width < 1 || media.Height < 1 {
		return Paint{} // validation has refused it
	}
	t := &Texture{Picture: f.pictureIndex(fill.Media), Width: media.Width, Height: media.Height}
	w, h := float64(media.Width), float64(media.Height)
	at := box.Min
	k := 1.0
	if fill.Size > 0 {
		k = fill.Size / w
	}
	if fill.Kind == doc.PictureFill {
		k = max(box.W()/max(w-2, 1), box.H()/max(h-2, 1))
		at = box.Centre().Sub(geom.Point{X: k * w / 2, Y: k * h / 2})
	}
	return Paint{Texture: t, Axes: geom.Matrix{A: k * w, D: k * h, E: at.X, F: at.Y}}
}

// sized returns the paint of an outline that m maps to the page, at a scale: of a texture with the mip that suits it.
func (p Paint) sized(m geom.Matrix, scale float64) Paint {
	if p.Texture == nil {
		return p
	}
	t, a := p.Texture, m.Mul(p.Axes)
	p.Mip = mipFor(geom.Point{X: a.A, Y: a.B}.Len()*scale/float64(t.Width), geom.Point{X: a.C, Y: a.D}.Len()*scale/float64(t.Height), t.Width, t.Height)
	return p
}

// mipFor is the mip with at least one sample a device pixel along the denser side, but less than two; across and down are device
// px a sample of the whole picture.
func mipFor(across, down float64, width, height int) (mip uint32) {
	for k := max(across, down); k <= 0.5 && k > 0 && mip < 12 && min(width, height)>>(mip+1) >= 1; k *= 2 {
		mip++
	}
	return
}

// pictureIndex returns where a picture stands among those of the film.
func (f *Film) pictureIndex(hash string) uint32 {
	i, ok := f.picture[hash]
	if !ok {
		i = uint32(len(f.Pictures))
		f.picture[hash] = i
		f.Pictures = append(f.Pictures, hash)
	}
	return i
}

func graded(fill doc.Fill, s *doc.Scene, box geom.Box) Paint {
	d := fill.Gradient
	g := &paint.Gradient{Radial: fill.Kind == doc.Radial}
	for _, v := range d.Stops {
		g.Stops = append(g.Stops, paint.Stop{At: v.At, Colour: colourOf(v.Colour, v.Role, v.Tone, s)})
	}
	at := func(v [2]float64) geom.Point {
		return geom.Point{X: box.Min.X + v[0]*box.W(), Y: box.Min.Y + v[1]*box.H()}
	}
	from, to := at(d.From), at(d.To)
	v := to.Sub(from)
	p := Paint{Gradient: g, Axes: geom.Matrix{A: v.X, B: v.Y, C: -v.Y, D: v.X, E: from.X, F: from.Y}}
	if inv, ok := p.Axes.Inverse(); ok && g.Radial && d.Focus != nil {
		f := inv.Apply(at(*d.Focus))
		if l := f.Len(); l > 0.98 {
			f = f.Mul(0.98 / l) // a focus on the rim has no cone
		}
		g.Focus = [2]float64{f.X, f.Y}
	}
	return p
}

// shaded returns a paint made darker by a share of its OKLab lightness.
func shaded(p Paint, by float64) Paint {
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

// fainter returns a paint with a share of its opacity taken away.
func fainter(p Paint, by float64) Paint {
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

// stroked adds the strokes of shapes in front of them.
func (f *Film) stroked(shapes []shape, d *doc.Stroke, s *doc.Scene, box geom.Box) []shape {
	if d == nil || d.Width <= 0 {
		return shapes
	}
	p := f.paintOf(d.Fill, s, box)
	if p.clear() {
		return shapes
	}
	n := len(shapes)
	for _, o := range shapes[:n] {
		shapes = append(shapes, shape{key: f.strokeKey(o.key, d), paint: p, side: d.Side, of: o.key})
	}
	return shapes
}

func (f *Film) strokeKey(of uint32, d *doc.Stroke) uint32 {
	name := fmt.Sprint("s", of, " ", d.Width, d.Side != "", d.Cap, d.Join, d.MiterLimit, d.Dash, d.DashOffset, d.StartHead, d.EndHead)
	if d.Trim != nil {
		name += fmt.Sprint(*d.Trim)
	}
	return f.Geometry.key(name, func() *geom.Path { return f.Geometry.Path(of).Stroke(pen(d, d.Width)) })
}

// pen is the pen that draws a stroke; one on a single side of its line is drawn twice as wide and cut to that side.
func pen(d *doc.Stroke, width float64) geom.Pen {
	if d.Side != "" {
		width *= 2
	}
	return geom.Pen{Width: width, Cap: d.Cap, Join: d.Join, MiterLimit: d.MiterLimit, Dash: d.Dash, DashOffset: d.DashOffset, StartHead: d.StartHead, EndHead: d.EndHead, Trim: d.Trim}
}

func (f *Film) compileEffects(s *scene, l *layer) {
	d := l.doc
	l.effects = Effects{Feather: d.Feather, Blur: d.Blur, Blend: Blend(max(0, slices.Index(doc.Blends, d.Blend)))}
	if v := d.Shadow; v != nil {
		l.effects.Shadow = Shadow{X: v.X, Y: v.Y, Blur: v.Blur, Colour: colourOf(v.Colour, v.Role, v.Tone, s.doc)}
	}
	if v := d.Glow; v != nil {
		l.effects.Glow = Shadow{Blur: v.Blur, Colour: colourOf(v.Colour, v.Role, v.Tone, s.doc)}
	}
	l.alone = !l.effects.none()
}

// at returns the effects of a layer that m maps to the page: lengths grow with it, shadows fall as they do on the page.
func (e Effects) at(m geom.Matrix) Effects {
	k := math.Sqrt(math.Abs(m.Det()))
	e.Feather *= k
	e.Blur *= k
	e.Shadow.Blur *= k
	e.Glow.Blur *= k
	e.Shadow.X *= k
	e.Shadow.Y *= k
	return e
}

// mixEffects interpolates the effects of two layers. A blend changes half way.
func mixEffects(a, b *Effects, t float64) Effects {
	n := func(x, y float64) float64 { return max(0, x+(y-x)*t) }
	out := Effects{Feather: n(a.Feather, b.Feather), Blur: n(a.Blur, b.Blur), Blend: a.Blend}
	if t >= 0.5 {
		out.Blend = b.Blend
	}
	out.Shadow, out.Glow = mixShadows(a.Shadow, b.Shadow, t), mixShadows(a.Glow, b.Glow, t)
	return out
}

// mixShadows interpolates two shadows. One that only one side has grows where it is.
func mixShadows(p, q Shadow, t float64) Shadow {
	n := func(x, y float64) float64 { return max(0, x+(y-x)*t) }
	if p.Colour.A == 0 {
		p = q
		p.Colour.A = 0
	} else if q.Colour.A == 0 {
		q = p
		q.Colour.A = 0
	}
	return Shadow{X: p.X + (q.X-p.X)*t, Y: p.Y + (q.Y-p.Y)*t, Blur: n(p.Blur, q.Blur), Colour: paint.Mix(p.Colour, q.Colour, t)}
}

// mixPaints interpolates two paints in OKLab. A colour counts as a gradient of that colour along the other's line; a linear and
// a radial gradient change half way.
func mixPaints(a, b *Paint, t float64) Paint {
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
		return Paint{Colour: paint.Mix(a.Colour, b.Colour, t)}
	}
	p, q := a.along(b), b.along(a)
	if p.Gradient.Radial != q.Gradient.Radial {
		if t < 0.5 {
			return *a
		}
		return *b
	}
	lerp := func(x, y float64) float64 { return x + (y-x)*t }
	m, n := p.Axes, q.Axes
	return Paint{Gradient: paint.MixGradients(p.Gradient, q.Gradient, t), Axes: geom.Matrix{
		A: lerp(m.A, n.A), B: lerp(m.B, n.B), C: lerp(m.C, n.C), D: lerp(m.D, n.D), E: lerp(m.E, n.E), F: lerp(m.F, n.F),
	}}
}

// along is p as a gradient; a colour lies along the line of o.
func (p *Paint) along(o *Paint) Paint {
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
