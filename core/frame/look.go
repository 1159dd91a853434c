package frame

import (
	"fmt"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/state"
)

// paintOf resolves a fill of a layer with the given box; no fill is a colour that does not show.
func (f *Film) paintOf(fill doc.Fill, s *doc.Scene, box geom.Box) Paint {
	switch {
	case fill.Kind == doc.PictureFill || fill.Kind == doc.Texture:
		return f.textured(fill, box)
	case fill.Kind == doc.Solid:
		return Paint{Colour: state.Colour(fill.Colour, fill.Role, fill.Tone, s)}
	case fill.Graded() && fill.Gradient != nil && len(fill.Gradient.Stops) > 1:
		return state.Graded(fill, s, box)
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

// Opaque reports whether nothing shows through one of the film's pictures.
func (f *Film) Opaque(picture uint32) bool {
	hash, mask := doc.Shown(f.Pictures[picture])
	media := f.Doc.Media[hash]
	return media != nil && media.Opaque && mask == ""
}

// pictureIndex returns where a picture stands among those of the film, by what doc.PictureUse.Shows.
func (f *Film) pictureIndex(hash string) uint32 {
	i, ok := f.picture[hash]
	if !ok {
		i = uint32(len(f.Pictures))
		f.picture[hash] = i
		f.Pictures = append(f.Pictures, hash)
	}
	return i
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
	key := f.Geometry.key(name, func() *geom.Path { return f.Geometry.Path(of).Stroke(pen(d, d.Width)) })
	f.Geometry.strokes[key] = of
	return key
}

// pen is the pen that draws a stroke; one on a single side of its line is drawn twice as wide and cut to that side.
func pen(d *doc.Stroke, width float64) geom.Pen {
	if d.Side != "" {
		width *= 2
	}
	return geom.Pen{Width: width, Cap: d.Cap, Join: d.Join, MiterLimit: d.MiterLimit, Dash: d.Dash, DashOffset: d.DashOffset, StartHead: d.StartHead, EndHead: d.EndHead, Trim: d.Trim}
}

func (f *Film) compileEffects(s *scene, l *layer) {
	l.effects = state.EffectsOf(l.doc, s.doc)
	l.alone = !l.effects.None()
}
