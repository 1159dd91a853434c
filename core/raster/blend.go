package raster

import (
	"encoding/binary"
	"image"
	"math"

	"capstan/core/paint"
)

// Pixels are handled four bytes at a time: lanes spreads the bytes of one over a uint64, 16 bits apart, so that a single
// multiplication scales all four. Every product of two bytes is divided by 255 and rounded exactly; x/256 would drift
// dark when repeated.

const (
	laneMask = 0x00FF00FF00FF00FF
	laneHalf = 0x0080008000800080
)

func lanes(p uint32) uint64 { return (uint64(p) | uint64(p)<<24) & laneMask }

func pack(l uint64) uint32 { return uint32(l | l>>24) }

// times scales four lanes of 0..255 by k/255, each rounded: exact for x <= 255*255.
func times(l uint64, k uint32) uint64 {
	t := l*uint64(k) + laneHalf
	return (t + (t>>8)&laneMask) >> 8 & laneMask
}

// div255 is x/255 rounded, exact for 0 <= x <= 255*255.
func div255(x uint32) uint32 {
	x += 128
	return (x + x>>8) >> 8
}

// premultiplied returns a colour as a pixel, r in the lowest byte.
func premultiplied(c paint.Colour) uint32 {
	a := min(1, max(0, c.A))
	f := func(v float64) uint32 { return uint32(min(1, max(0, v))*a*255 + 0.5) }
	return f(c.R) | f(c.G)<<8 | f(c.B)<<16 | uint32(a*255+0.5)<<24
}

// scaled returns a pixel at k/255 of its cover.
func scaled(p, k uint32) uint32 {
	if k == 255 {
		return p
	}
	return pack(times(lanes(p), k))
}

// over lays the pixel s over d.
func over(d, s uint32) uint32 {
	return s + pack(times(lanes(d), 255-s>>24))
}

// solid lays s, taken down to cov, over a run of pixels, two at a time.
func solid(row []byte, s, cov uint32) {
	s = scaled(s, cov)
	switch s >> 24 {
	case 0:
		return
	case 255:
		store(row, 0, s)
		for n := 4; n < len(row); n *= 2 {
			copy(row[n:], row[:n])
		}
		return
	}
	inv := uint64(255 - s>>24)
	even := uint64(s)&0x00FF00FF | uint64(s)&0x00FF00FF<<32
	odd := uint64(s)>>8&0x00FF00FF | uint64(s)>>8&0x00FF00FF<<32
	for ; len(row) >= 8; row = row[8:] {
		v := binary.LittleEndian.Uint64(row)
		a := v&laneMask*inv + laneHalf
		a = (a + a>>8&laneMask) >> 8 & laneMask
		b := v>>8&laneMask*inv + laneHalf
		b = (b + b>>8&laneMask) >> 8 & laneMask
		binary.LittleEndian.PutUint64(row, (a+even)|(b+odd)<<8)
	}
	if len(row) >= 4 {
		store(row, 0, over(load(row, 0), s))
	}
}

// overRow lays a row of pixels, each taken down to cov, over another.
func overRow(d, s []byte, cov uint32) {
	s = s[:len(d)]
	for i := 0; i+4 <= len(d); i += 4 {
		p := load(s, i)
		switch {
		case p == 0:
			continue
		case cov < 255:
			p = pack(times(lanes(p), cov))
		}
		if p>>24 < 255 {
			p = over(load(d, i), p)
		}
		store(d, i, p)
	}
}

// layOver lays what was painted on src over dst, at opacity cov.
func layOver(dst, src *surface, cov uint32) {
	box := src.dirty.Intersect(dst.box)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		dst.each(y, box.Min.X, box.Max.X, func(row []byte, y, x0, x1 int) {
			overRow(row, src.row(y, x0, x1), cov)
		})
	}
	dst.touch(box)
}

// layAdded adds what was painted on src to dst, at opacity cov.
func layAdded(dst, src *surface, cov uint32) {
	box := src.dirty.Intersect(dst.box)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		dst.each(y, box.Min.X, box.Max.X, func(row []byte, y, x0, x1 int) {
			from := src.row(y, x0, x1)
			for i := 0; i < len(row); i += 4 {
				if load(row, i) == 0 && cov == 255 {
					copy(row[i:i+4], from[i:i+4])
					continue
				}
				s := scaled(load(from, i), cov)
				for c := range 4 {
					row[i+c] = uint8(min(255, uint32(row[i+c])+s>>(8*c)&255))
				}
			}
		})
	}
	dst.touch(box)
}

// mixInto turns a into (1-p) a + p b inside box.
func mixInto(a, b *surface, box image.Rectangle, p float64) {
	k := uint32(p*65536 + 0.5)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		s, t := a.row(y, box.Min.X, box.Max.X), b.row(y, box.Min.X, box.Max.X)
		for i := 0; i+4 <= len(s); i += 4 {
			if load(s, i) == load(t, i) {
				continue
			}
			for c := i; c < i+4; c++ {
				s[c] = uint8((uint32(s[c])*(65536-k) + uint32(t[c])*k + 32768) >> 16)
			}
		}
	}
}

// A mode is the blending function B(cb, cs) of a separable blend mode, for one channel in 0..1
// (W3C Compositing and Blending 1, section 9.1).
type mode func(b, s float64) float64

func hardLight(b, s float64) float64 {
	if s <= 0.5 {
		return b * 2 * s
	}
	return b + (2*s - 1) - b*(2*s-1)
}

// modes by the codes of frame.Blend.
var modes = [...]mode{
	1:  func(b, s float64) float64 { return b * s },
	2:  func(b, s float64) float64 { return b + s - b*s },
	3:  func(b, s float64) float64 { return hardLight(s, b) },
	4:  math.Min,
	5:  math.Max,
	6:  dodge,
	7:  burn,
	8:  hardLight,
	9:  softLight,
	10: func(b, s float64) float64 { return math.Abs(b - s) },
	11: func(b, s float64) float64 { return b + s - 2*b*s },
}

func dodge(b, s float64) float64 {
	switch {
	case b == 0:
		return 0
	case s == 1:
		return 1
	}
	return min(1, b/(1-s))
}

func burn(b, s float64) float64 {
	switch {
	case b == 1:
		return 1
	case s == 0:
		return 0
	}
	return 1 - min(1, (1-b)/s)
}

func softLight(b, s float64) float64 {
	if s <= 0.5 {
		return b - (1-2*s)*b*(1-b)
	}
	d := math.Sqrt(b)
	if b <= 0.25 {
		d = ((16*b-12)*b + 4) * b
	}
	return b + (2*s-1)*(d-b)
}

// layBlended lays src over dst at opacity cov in a blend mode:
// co = cs as (1-ab) + cb ab (1-as) + as ab B(cb, cs) (section 5.8).
func layBlended(dst, src *surface, cov uint32, blend mode) {
	box := src.dirty.Intersect(dst.box)
	var last [2]uint32
	out := uint32(0)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		dst.each(y, box.Min.X, box.Max.X, func(row []byte, y, x0, x1 int) {
			from := src.row(y, x0, x1)
			for i := 0; i < len(row); i += 4 {
				s := scaled(load(from, i), cov)
				if s>>24 == 0 {
					continue
				}
				d := load(row, i)
				if key := [2]uint32{d, s}; key != last {
					last, out = key, blended(d, s, blend)
				}
				store(row, i, out)
			}
		})
	}
	dst.touch(box)
}

func blended(d, s uint32, blend mode) uint32 {
	as, ab := float64(s>>24)/255, float64(d>>24)/255
	if ab == 0 {
		return s
	}
	out := uint32((as+ab-as*ab)*255+0.5) << 24
	for k := 0; k < 24; k += 8 {
		cs, cb := float64(s>>k&255)/255, float64(d>>k&255)/255 // premultiplied
		v := cs*(1-ab) + cb*(1-as) + as*ab*blend(min(1, cb/ab), min(1, cs/as))
		out |= uint32(min(max(v, 0), 1)*255+0.5) << k
	}
	return out
}
