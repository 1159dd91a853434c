package raster

import (
	"errors"
	"image"
	"math"

	"capstan/core/geom"
)

func (p *Painter) picture(dst *surface, r *reader, view geom.Matrix) error {
	index, mip, key := int(r.code()), int(r.code()), r.code()
	m := view.Mul(r.matrix())
	x, y, w, h := r.num(), r.num(), r.num(), r.num()
	crop := [4]float64{r.num(), r.num(), r.num(), r.num()}
	opacity := uint32(min(1, max(0, r.num()))*255 + 0.5)
	path := p.film.Geometry.Path(key)
	if path == nil || index >= len(p.film.Pictures) || p.pictures == nil {
		return errors.New("raster: the display list names a picture the film does not have")
	}
	src, err := p.pictures(p.film.Pictures[index], mip)
	if err != nil {
		return err
	}
	inv, ok := m.Inverse()
	if !ok || w <= 0 || h <= 0 || opacity == 0 {
		return nil
	}
	sw, sh := float64(src.Rect.Dx()), float64(src.Rect.Dy())
	// device px -> local -> samples of the mip, whose centres lie at half px.
	toSrc := geom.Matrix{
		A: (crop[2] - crop[0]) * sw / w, D: (crop[3] - crop[1]) * sh / h,
		E: crop[0]*sw - x*(crop[2]-crop[0])*sw/w - 0.5, F: crop[1]*sh - y*(crop[3]-crop[1])*sh/h - 0.5,
	}.Mul(inv)
	s := sampler{src: src, m: toSrc}
	s.limit(crop[0]*sw, crop[1]*sh, crop[2]*sw, crop[3]*sh)
	p.sampled(dst, path, m, &s, opacity)
	return nil
}

// sampled fills an outline with what a sampler reads.
func (p *Painter) sampled(dst *surface, path *geom.Path, m geom.Matrix, s *sampler, opacity uint32) {
	p.cover(dst, path, m)
	at := dst.box.Min
	p.cov.sweep(func(y, x0, x1 int, a uint32) {
		y, x0, x1 = y+at.Y, x0+at.X, x1+at.X
		dst.touch(image.Rect(x0, y, x1, y+1))
		dst.each(y, x0, x1, func(row []byte, y, x0, x1 int) { s.span(row, y, x0, x1, div255(a*opacity)) })
	})
}

// sampler reads a picture bilinearly in 16.16 fixed point, with weights of 1/256; outside its limits it repeats the edge.
// Columns are weighed first, then rows, each rounded to a byte: all four channels in one multiplication.
type sampler struct {
	src            *image.RGBA
	m              geom.Matrix
	l, t, rgt, bot int // first and last sample that may be read
}

func (s *sampler) limit(l, t, r, b float64) {
	w, h := s.src.Rect.Dx(), s.src.Rect.Dy()
	s.l = min(max(int(math.Floor(l+1e-6)), 0), w-1)
	s.t = min(max(int(math.Floor(t+1e-6)), 0), h-1)
	s.rgt = min(max(int(math.Ceil(r-1e-6))-1, s.l), w-1)
	s.bot = min(max(int(math.Ceil(b-1e-6))-1, s.t), h-1)
}

// lerp weighs lanes a and b by 256-f and f.
func lerp(a, b uint64, f uint32) uint64 {
	return (a*uint64(256-f) + b*uint64(f) + laneHalf) >> 8 & laneMask
}

func put(row []byte, i int, l uint64, cov uint32) {
	if cov < 255 {
		l = times(l, cov)
	}
	p := pack(l)
	switch p >> 24 {
	case 0:
		return
	case 255:
	default:
		p = over(load(row, i), p)
	}
	store(row, i, p)
}

// span paints the pixels x0..x1 of row y. Where samples are read does not depend on where a span begins, so that a part
// painted again comes out the same.
func (s *sampler) span(row []byte, y, x0, x1 int, cov uint32) {
	du, dv := int64(math.Round(s.m.A*65536)), int64(math.Round(s.m.B*65536))
	at := s.m.Apply(geom.Point{X: 0.5, Y: float64(y) + 0.5})
	u0, v0 := int64(math.Floor(at.X*65536+0.5)), int64(math.Floor(at.Y*65536+0.5))
	if dv == 0 && du == 65536 {
		s.moved(row, u0, v0, x0, x1, cov)
		return
	}
	// Steps are rounded, so over wide spans they are taken anew from the exact place every 64 px of the page.
	const stretch = 64
	for x := x0; x < x1; {
		from := x &^ (stretch - 1)
		end := min(x1, from+stretch)
		at := s.m.Apply(geom.Point{X: float64(from) + 0.5, Y: float64(y) + 0.5})
		u := int64(math.Floor(at.X*65536+0.5)) + int64(x-from)*du
		v := int64(math.Floor(at.Y*65536+0.5)) + int64(x-from)*dv
		s.affine(row[4*(x-x0):4*(end-x0)], u, v, du, dv, cov)
		x = end
	}
}

// affine paints pixels from u, v on.
func (s *sampler) affine(row []byte, u, v, du, dv int64, cov uint32) {
	pix, stride := s.src.Pix, s.src.Stride
	for i := 0; i < len(row); i += 4 {
		ix, iy := int(u>>16), int(v>>16)
		fx, fy := uint32(u>>8)&255, uint32(v>>8)&255
		u += du
		v += dv
		var a, b, c, d int
		if ix >= s.l && ix < s.rgt && iy >= s.t && iy < s.bot {
			a = iy*stride + 4*ix
			b, c, d = a+stride, a+4, a+stride+4
		} else {
			xa, xb := min(max(ix, s.l), s.rgt), min(max(ix+1, s.l), s.rgt)
			ya, yb := min(max(iy, s.t), s.bot)*stride, min(max(iy+1, s.t), s.bot)*stride
			a, b, c, d = ya+4*xa, yb+4*xa, ya+4*xb, yb+4*xb
		}
		left := lerp(lanes(load(pix, a)), lanes(load(pix, b)), fy)
		right := lerp(lanes(load(pix, c)), lanes(load(pix, d)), fy)
		put(row, i, lerp(left, right, fx), cov)
	}
}

// moved paints a picture that is neither turned nor scaled: the weights are the same everywhere, and those of a column serve
// two pixels.
func (s *sampler) moved(row []byte, u0, v0 int64, x0, x1 int, cov uint32) {
	iy := int(v0 >> 16)
	fx, fy := uint32(u0>>8)&255, uint32(v0>>8)&255
	ya, yb := min(max(iy, s.t), s.bot)*s.src.Stride, min(max(iy+1, s.t), s.bot)*s.src.Stride
	up, low := s.src.Pix[ya:ya+4*s.src.Rect.Dx()], s.src.Pix[yb:yb+4*s.src.Rect.Dx()]
	shift := int(u0 >> 16)
	column := func(ix int) uint64 {
		ix = 4 * min(max(ix, s.l), s.rgt)
		if fy == 0 {
			return lanes(load(up, ix))
		}
		return lerp(lanes(load(up, ix)), lanes(load(low, ix)), fy)
	}
	x := x0
	// The part where no sample is beyond the limits.
	inner0, inner1 := max(x0, s.l-shift), min(x1, s.rgt-shift)
	for ; x < min(inner0, x1); x++ {
		put(row, 4*(x-x0), lerp(column(x+shift), column(x+shift+1), fx), cov)
	}
	if x < inner1 {
		n := inner1 - x
		out := row[4*(x-x0) : 4*(x-x0+n)]
		a := up[4*(x+shift) : 4*(x+shift+n+1)]
		b := low[4*(x+shift) : 4*(x+shift+n+1)]
		switch {
		case fx == 0 && fy == 0:
			overRow(out, a[:4*n], cov)
		case fy == 0:
			left := lanes(load(a, 0))
			for i := 0; i+4 <= len(out); i += 4 {
				right := lanes(load(a, i+4))
				put(out, i, lerp(left, right, fx), cov)
				left = right
			}
		case fx == 0:
			for i := 0; i+4 <= len(out); i += 4 {
				put(out, i, lerp(lanes(load(a, i)), lanes(load(b, i)), fy), cov)
			}
		default:
			left := lerp(lanes(load(a, 0)), lanes(load(b, 0)), fy)
			for i := 0; i+4 <= len(out); i += 4 {
				right := lerp(lanes(load(a, i+4)), lanes(load(b, i+4)), fy)
				put(out, i, lerp(left, right, fx), cov)
				left = right
			}
		}
		x = inner1
	}
	for ; x < x1; x++ {
		put(row, 4*(x-x0), lerp(column(x+shift), column(x+shift+1), fx), cov)
	}
}
