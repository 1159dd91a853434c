package raster

import (
	"image"

	"capstan/core/display"
	"capstan/core/geom"
)

// tile paints pixels that stand in the list itself. They are set into a clear border one sample wide, which makes their edges
// soft when they are enlarged, as canvases do.
func (p *Painter) tile(dst *surface, r *reader, view geom.Matrix) error {
	w, h, depth := int(r.code()), int(r.code()), int(r.code())
	n := (w*h*depth + 3) / 4
	if w < 1 || h < 1 || w > display.MaxTile || h > display.MaxTile || depth != 1 && depth != 4 || r.c+n > len(r.codes) {
		return errList
	}
	codes := r.codes[r.c : r.c+n]
	r.c += n
	m := view.Mul(r.matrix())
	box := r.box()
	colour := r.colour()
	src := image.NewRGBA(image.Rect(0, 0, w+2, h+2))
	ink := premultiplied(colour)
	for i := range w * h {
		at := src.PixOffset(1+i%w, 1+i/w)
		if depth == 4 {
			store(src.Pix, at, codes[i])
		} else {
			store(src.Pix, at, scaled(ink, codes[i/4]>>(8*(i%4))&255))
		}
	}
	inv, ok := m.Inverse()
	if !ok || box.Empty() {
		return nil
	}
	// device -> local -> samples, the first of which lies at 1 behind the border.
	to := geom.Matrix{A: float64(w) / box.W(), D: float64(h) / box.H(), E: 0.5 - box.Min.X*float64(w)/box.W(), F: 0.5 - box.Min.Y*float64(h)/box.H()}.Mul(inv)
	s := sampler{src: src, m: to, rgt: w + 1, bot: h + 1}
	opacity := uint32(255)
	if depth == 4 {
		opacity = uint32(min(1, max(0, colour.A))*255 + 0.5)
	}
	p.sampled(dst, geom.Rectangle(withBorder(box, w, h), 0), m, &s, opacity)
	return nil
}

// withBorder is the box of a tile with the half sample all round over which its edges fade.
func withBorder(b geom.Box, w, h int) geom.Box {
	d := geom.Point{X: b.W() / float64(max(w, 1)) / 2, Y: b.H() / float64(max(h, 1)) / 2}
	return geom.Box{Min: b.Min.Sub(d), Max: b.Max.Add(d)}
}
