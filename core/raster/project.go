package raster

import (
	"encoding/binary"
	"image"
	"math"

	"capstan/core/display"
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
	if done, err := p.projectPicture(dst, r, &q, &inv); done || err != nil {
		return err
	}
	flat := p.surfaces.take(image.Rect(0, 0, w, h))
	defer p.surfaces.give(flat)
	if err := p.run(flat, r, geom.Scale(q.scale, q.scale).Mul(geom.Translate(geom.Point{X: -q.box.Min.X, Y: -q.box.Min.Y}))); err != nil {
		return err
	}
	src := &image.RGBA{Pix: flat.pix, Stride: flat.stride, Rect: flat.box}
	s := sampler{src: src, rgt: w - 1, bot: h - 1}
	// To samples of the flat picture, in 16.16 fixed point, whose centres lie at half px.
	toFlat := geom.Projection{
		q.scale * 65536, 0, (-q.box.Min.X*q.scale - 0.5) * 65536,
		0, q.scale * 65536, (-q.box.Min.Y*q.scale - 0.5) * 65536,
		0, 0, 1,
	}.Mul(inv)
	p.seen(dst, outline, &s, &toFlat, q.shown, 255)
	return nil
}

// seen fills an outline on the device with what a sampler reads through a projection.
func (p *Painter) seen(dst *surface, outline *geom.Path, s *sampler, to *geom.Projection, shown image.Rectangle, opacity uint32) {
	p.cover(dst, outline, geom.Identity)
	at := dst.box.Min
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		y, x0, x1 = y+at.Y, max(x0+at.X, shown.Min.X), min(x1+at.X, shown.Max.X)
		if x0 >= x1 || y < shown.Min.Y || y >= shown.Max.Y {
			return
		}
		dst.touch(image.Rect(x0, y, x1, y+1))
		dst.each(y, x0, x1, func(row []byte, y, x0, x1 int) {
			s.projected(row, to, y, x0, div255(a*opacity))
		})
	})
}

// projected paints the pixels of a row from x0 on with the samples that a projection of the device leads to.
func (s *sampler) projected(row []byte, to *geom.Projection, y, x0 int, cov uint32) {
	pix, stride := s.src.Pix, s.src.Stride
	const low = 0xFFFFFFFF
	py := float64(y) + 0.5
	u0, v0, k0 := to[1]*py+to[2], to[4]*py+to[5], to[7]*py+to[8]
	left, top := int64(s.l)<<16, int64(s.t)<<16
	wide, high := uint64(s.rgt-s.l)<<16, uint64(s.bot-s.t)<<16
	for i := 0; i+4 <= len(row); i += 4 {
		px := float64(x0+i/4) + 0.5
		k := 1 / (to[6]*px + k0)
		u, v := int64((to[0]*px+u0)*k), int64((to[3]*px+v0)*k)
		if uint64(u-left) >= wide || uint64(v-top) >= high { // below 0, too
			s.atEdge(row[i:i+4], u, v, 0, 0, cov)
			continue
		}
		// As in within.
		at := int(v>>16)*stride + 4*int(u>>16)
		fx, fy := uint64(u>>8)&255, uint64(v>>8)&255
		p := binary.LittleEndian.Uint64(pix[at:])
		q := binary.LittleEndian.Uint64(pix[at+stride:])
		gy := 256 - fy
		even := (p&laneMask*gy + q&laneMask*fy + laneHalf) >> 8 & laneMask
		odd := (p>>8&laneMask*gy + q>>8&laneMask*fy + laneHalf) >> 8 & laneMask
		l := ((even&low|odd<<32)*(256-fx) + (even>>32|odd&^low)*fx + laneHalf) >> 8 & laneMask
		if cov == 255 && l>>48 == 255 {
			binary.LittleEndian.PutUint32(row[i:], uint32(l|l>>24))
			continue
		}
		put(row, i, l, cov)
	}
}

// projectPicture is project of one picture and nothing else, which is read through the projection itself: that is sharper than by way of a sheet, and
// takes half as long. done is false where there is more.
func (p *Painter) projectPicture(dst *surface, r *reader, q *projection, inv *geom.Projection) (done bool, err error) {
	if r.c+4 >= len(r.codes) || r.codes[r.c] != display.OpPicture || r.codes[r.c+4] != display.OpEnd {
		return false, nil
	}
	r.c++
	s, path, m, opacity, err := p.pictured(r, geom.Identity)
	r.c++ // its end
	if err != nil || path == nil {
		return true, err
	}
	seen := q.m.Mul(geom.Flat(m))
	p.outline.Reset()
	p.outline.Project(path, &seen, 0.02)
	to := geom.Flat(geom.Scale(65536, 65536).Mul(s.m)).Mul(*inv)
	p.seen(dst, &p.outline, &s, &to, q.shown, opacity)
	return true, nil
}
