package raster

import (
	"encoding/binary"
	"errors"
	"image"
	"math"

	"capstan/core/geom"
)

func (p *Painter) picture(dst *surface, r *reader, view geom.Matrix) error {
	s, path, m, opacity, err := p.pictured(r, view)
	if err != nil || path == nil {
		return err
	}
	s.columns = p.columns
	p.sampled(dst, path, m, &s, opacity)
	p.columns = s.columns
	return nil
}

// pictured reads a picture: what samples it from px that view leads to, its outline and the map of that to them, and how opaque it is. There is no
// outline where nothing of it shows.
func (p *Painter) pictured(r *reader, view geom.Matrix) (s sampler, path *geom.Path, m geom.Matrix, opacity uint32, err error) {
	index, mip, key := int(r.code()), int(r.code()), r.code()
	m = view.Mul(r.matrix())
	x, y, w, h := r.num(), r.num(), r.num(), r.num()
	crop := [4]float64{r.num(), r.num(), r.num(), r.num()}
	opacity = uint32(min(1, max(0, r.num()))*255 + 0.5)
	outline := p.film.Geometry.Path(key)
	if outline == nil || index >= len(p.film.Pictures) || p.pictures == nil {
		return s, nil, m, 0, errors.New("raster: the display list names a picture the film does not have")
	}
	src, err := p.pictures(p.film.Pictures[index], mip)
	if err != nil {
		return s, nil, m, 0, err
	}
	inv, ok := m.Inverse()
	if !ok || w <= 0 || h <= 0 || opacity == 0 {
		return s, nil, m, 0, nil
	}
	sw, sh := float64(src.Rect.Dx()), float64(src.Rect.Dy())
	// device px -> local -> samples of the mip, whose centres lie at half px.
	toSrc := geom.Matrix{
		A: (crop[2] - crop[0]) * sw / w, D: (crop[3] - crop[1]) * sh / h,
		E: crop[0]*sw - x*(crop[2]-crop[0])*sw/w - 0.5, F: crop[1]*sh - y*(crop[3]-crop[1])*sh/h - 0.5,
	}.Mul(inv)
	s = sampler{src: src, m: toSrc}
	s.limit(crop[0]*sw, crop[1]*sh, crop[2]*sw, crop[3]*sh)
	return s, outline, m, opacity, nil
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
	columns        []uint64
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
	// Steps are rounded, so over wide spans they are taken anew from the exact place every so many px of the page.
	const stretch = 256
	for x := x0; x < x1; {
		from := x &^ (stretch - 1)
		end := min(x1, from+stretch)
		at := s.m.Apply(geom.Point{X: float64(from) + 0.5, Y: float64(y) + 0.5})
		u := int64(math.Floor(at.X*65536+0.5)) + int64(x-from)*du
		v := int64(math.Floor(at.Y*65536+0.5)) + int64(x-from)*dv
		if part := row[4*(x-x0) : 4*(end-x0)]; dv == 0 && du > 0 && end-x >= 16 && du < 2<<16 {
			s.upright(part, u, v, du, cov)
		} else {
			s.affine(part, u, v, du, dv, cov)
		}
		x = end
	}
}

// affine paints pixels from u, v on.
func (s *sampler) affine(row []byte, u, v, du, dv int64, cov uint32) {
	n := len(row) / 4
	// From i0 up to i1 all four samples lie within the limits.
	i0, i1 := between(u, du, int64(s.l)<<16, int64(s.rgt)<<16, n)
	j0, j1 := between(v, dv, int64(s.t)<<16, int64(s.bot)<<16, n)
	i0, i1 = max(i0, j0), min(i1, j1)
	if i0 >= i1 {
		s.atEdge(row, u, v, du, dv, cov)
		return
	}
	s.atEdge(row[:4*i0], u, v, du, dv, cov)
	s.within(row[4*i0:4*i1], u+int64(i0)*du, v+int64(i0)*dv, du, dv, cov)
	s.atEdge(row[4*i1:], u+int64(i1)*du, v+int64(i1)*dv, du, dv, cov)
}

// upright is affine for a picture that is scaled but not turned: a row lies between the same two rows of samples all along, so
// each column is weighed once and serves all pixels that lie at it.
func (s *sampler) upright(row []byte, u, v, du int64, cov uint32) {
	n := len(row) / 4
	from, to := int(u>>16), int((u+int64(n-1)*du)>>16)+1
	if cap(s.columns) < to-from+1 {
		s.columns = make([]uint64, to-from+512)
	}
	columns := s.columns[:to-from+1]
	iy, fy := int(v>>16), uint32(v>>8)&255
	ya, yb := min(max(iy, s.t), s.bot)*s.src.Stride, min(max(iy+1, s.t), s.bot)*s.src.Stride
	w := 4 * s.src.Rect.Dx()
	up, low := s.src.Pix[ya:ya+w], s.src.Pix[yb:yb+w]
	i := 0
	for ; i < len(columns) && from+i < s.l; i++ {
		columns[i] = lerp(lanes(load(up, 4*s.l)), lanes(load(low, 4*s.l)), fy)
	}
	last := min(len(columns), s.rgt+1-from)
	f, g := uint64(fy), uint64(256-fy)
	for ; i+1 < last; i += 2 { // two at a time, as in within
		at := 4 * (from + i)
		p, q := binary.LittleEndian.Uint64(up[at:]), binary.LittleEndian.Uint64(low[at:])
		even := (p&laneMask*g + q&laneMask*f + laneHalf) >> 8 & laneMask
		odd := (p>>8&laneMask*g + q>>8&laneMask*f + laneHalf) >> 8 & laneMask
		columns[i], columns[i+1] = even&0xFFFFFFFF|odd<<32, even>>32|odd&^0xFFFFFFFF
	}
	for ; i < last; i++ {
		columns[i] = lerp(lanes(load(up, 4*(from+i))), lanes(load(low, 4*(from+i))), fy)
	}
	for ; i < len(columns); i++ {
		columns[i] = lerp(lanes(load(up, 4*s.rgt)), lanes(load(low, 4*s.rgt)), fy)
	}
	u -= int64(from) << 16
	for ; len(row) >= 4; row = row[4:] {
		at := int(u >> 16)
		fx := uint64(u>>8) & 255
		u += du
		l := (columns[at]*(256-fx) + columns[at+1]*fx + laneHalf) >> 8 & laneMask
		if cov == 255 && l>>48 == 255 {
			binary.LittleEndian.PutUint32(row, uint32(l|l>>24))
			continue
		}
		put(row, 0, l, cov)
	}
}

// between returns for which i of 0..n-1 lo <= u + i du < hi.
func between(u, du, lo, hi int64, n int) (int, int) {
	if du == 0 {
		if u >= lo && u < hi {
			return 0, n
		}
		return 0, 0
	}
	// The first i with u + i du >= x, or for falling ones the first with u + i du < x.
	first := func(x int64) int64 {
		if du > 0 {
			return ceilDiv(x-u, du)
		}
		return ceilDiv(u-x+1, -du)
	}
	a, b := first(lo), first(hi)
	if du < 0 {
		a, b = b, a
	}
	return int(min(max(a, 0), int64(n))), int(min(max(b, 0), int64(n)))
}

func ceilDiv(a, b int64) int64 {
	q := a / b
	if a%b != 0 && (a < 0) == (b < 0) {
		q++
	}
	return q
}

// within paints pixels whose samples all lie within the limits. Two neighbours are read at a time: v holds both in the bytes of
// a uint64, even bytes are their reds and blues, odd ones greens and alphas.
func (s *sampler) within(row []byte, u, v, du, dv int64, cov uint32) {
	pix, stride := s.src.Pix, s.src.Stride
	const low = 0xFFFFFFFF
	for ; len(row) >= 4; row = row[4:] {
		at := int(v>>16)*stride + 4*int(u>>16)
		fx, fy := uint64(u>>8)&255, uint64(v>>8)&255
		u += du
		v += dv
		p := binary.LittleEndian.Uint64(pix[at:])
		q := binary.LittleEndian.Uint64(pix[at+stride:])
		gy := 256 - fy
		even := (p&laneMask*gy + q&laneMask*fy + laneHalf) >> 8 & laneMask
		odd := (p>>8&laneMask*gy + q>>8&laneMask*fy + laneHalf) >> 8 & laneMask
		l := ((even&low|odd<<32)*(256-fx) + (even>>32|odd&^low)*fx + laneHalf) >> 8 & laneMask
		if cov == 255 && l>>48 == 255 {
			binary.LittleEndian.PutUint32(row, uint32(l|l>>24))
			continue
		}
		put(row, 0, l, cov)
	}
}

// atEdge paints pixels some of whose samples lie beyond the limits: the edge is repeated.
func (s *sampler) atEdge(row []byte, u, v, du, dv int64, cov uint32) {
	pix, stride := s.src.Pix, s.src.Stride
	for i := 0; i < len(row); i += 4 {
		ix, iy := int(u>>16), int(v>>16)
		fx, fy := uint32(u>>8)&255, uint32(v>>8)&255
		u += du
		v += dv
		xa, xb := 4*min(max(ix, s.l), s.rgt), 4*min(max(ix+1, s.l), s.rgt)
		ya, yb := min(max(iy, s.t), s.bot)*stride, min(max(iy+1, s.t), s.bot)*stride
		left := lerp(lanes(load(pix, ya+xa)), lanes(load(pix, yb+xa)), fy)
		right := lerp(lanes(load(pix, ya+xb)), lanes(load(pix, yb+xb)), fy)
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
