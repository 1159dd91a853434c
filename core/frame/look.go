package frame

import (
	"fmt"
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
	if p.Clear() {
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
	l.alone = !l.effects.None()
}
