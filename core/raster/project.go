package raster

import (
	"image"
	"math"

	"capstan/core/geom"
)

// projection is the head of an OpProject: a flat picture seen in perspective.
type projection struct {
	shown image.Rectangle
	box   geom.Box        // local
	m     geom.Projection // local to device
	scale float64         // samples a local px
}

func (p *Painter) projection(r *reader, view geom.Matrix) projection {
	q := projection{shown: device(r.shown(view)), box: r.box()}
	for i := range q.m {
		q.m[i] = r.num()
	}
	q.m = geom.Flat(view).Mul(q.m)
	q.scale = min(max(r.num(), 0.01), 16)
	return q
}

// outline is the box as it is seen, or nothing where a corner lies behind the eye.
func (q *projection) outline() *geom.Path {
	out := &geom.Path{}
	for i, c := range q.box.Corners() {
		at, w := q.m.Apply(c)
		if !(w > 1e-9) {
			return &geom.Path{}
		}
		if i == 0 {
			out.Move(at)
		} else {
			out.Line(at)
		}
	}
	out.Close()
	return out
}

// mostFlat bounds the flat picture, in px a side.
const mostFlat = 8192

// project paints what is inside flat, then reads it through the inverse of the projection: exact at every pixel.
func (p *Painter) project(dst *surface, r *reader, view geom.Matrix) error {
	q := p.projection(r, view)
	w, h := int(math.Ceil(q.box.W()*q.scale)), int(math.Ceil(q.box.H()*q.scale))
	inv, ok := q.m.Inverse()
	outline := q.outline()
	if !ok || len(outline.Verbs) == 0 || w < 1 || h < 1 || w > mostFlat || h > mostFlat {
		return p.skipInside(r)
	}
	flat := p.surfaces.take(image.Rect(0, 0, w, h))
	defer p.surfaces.give(flat)
	if err := p.run(flat, r, geom.Scale(q.scale, q.scale).Mul(geom.Translate(geom.Point{X: -q.box.Min.X, Y: -q.box.Min.Y}))); err != nil {
		return err
	}
	src := &image.RGBA{Pix: flat.pix, Stride: flat.stride, Rect: flat.box}
	s := sampler{src: src, rgt: w - 1, bot: h - 1}
	p.cover(dst, outline, geom.Identity)
	at := dst.box.Min
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		y, x0, x1 = y+at.Y, max(x0+at.X, q.shown.Min.X), min(x1+at.X, q.shown.Max.X)
		if x0 >= x1 || y < q.shown.Min.Y || y >= q.shown.Max.Y {
			return
		}
		dst.touch(image.Rect(x0, y, x1, y+1))
		dst.each(y, x0, x1, func(row []byte, y, x0, x1 int) {
			for x := x0; x < x1; x++ {
				px, py := float64(x)+0.5, float64(y)+0.5
				k := inv[6]*px + inv[7]*py + inv[8]
				lx := (inv[0]*px+inv[1]*py+inv[2])/k - q.box.Min.X
				ly := (inv[3]*px+inv[4]*py+inv[5])/k - q.box.Min.Y
				u, v := int64((lx*q.scale-0.5)*65536), int64((ly*q.scale-0.5)*65536)
				s.affine(row[4*(x-x0):4*(x-x0)+4], u, v, 0, 0, a)
			}
		})
	})
	return nil
}
