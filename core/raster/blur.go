package raster

import (
	"image"
	"math"
)

// A blur is a Gaussian of a deviation in px: three box passes one after another from 2 px on (the approximation given in
// Filter Effects 1, section 9.6, and Canvas implementations use it too), the sampled curve itself below, where boxes
// are too coarse. Sums are kept at 16 bits a channel between the passes.

// blurReach is how many px a blur spreads what it blurs, on each side.
func blurReach(sigma float64) int {
	if sigma <= 0 {
		return 0
	}
	if sigma < 2 {
		return int(math.Ceil(3 * sigma))
	}
	return (3*boxWidth(sigma) + 1) / 2
}

// boxWidth is the width d of the boxes: floor(s 3 sqrt(2 pi)/4 + 0.5).
func boxWidth(sigma float64) int { return int(math.Floor(sigma*3*math.Sqrt(2*math.Pi)/4 + 0.5)) }

// blurrer blurs lines of values of 0..65280.
type blurrer struct {
	kernel []uint32 // for small deviations: half of it, from the middle, 1<<16 in all
	d      int
	tmp    []uint32
}

func newBlurrer(sigma float64) *blurrer {
	if sigma >= 2 {
		return &blurrer{d: boxWidth(sigma)}
	}
	n := int(math.Ceil(3 * sigma))
	w := make([]float64, n+1)
	sum := 0.0
	for i := range w {
		w[i] = math.Exp(-float64(i*i) / (2 * sigma * sigma))
		sum += w[i]
		if i > 0 {
			sum += w[i]
		}
	}
	b := &blurrer{kernel: make([]uint32, n+1)}
	rest := uint32(1 << 16)
	for i := n; i > 0; i-- {
		b.kernel[i] = uint32(w[i]/sum*65536 + 0.5)
		rest -= 2 * b.kernel[i]
	}
	b.kernel[0] = rest
	return b
}

// line blurs v in place; beyond its ends lies nothing.
func (b *blurrer) line(v []uint32) {
	n := len(v)
	if cap(b.tmp) < n {
		b.tmp = make([]uint32, n)
	}
	t := b.tmp[:n]
	if b.kernel != nil {
		r := len(b.kernel) - 1
		for i := range v {
			sum := uint64(v[i]) * uint64(b.kernel[0])
			for k := 1; k <= r; k++ {
				w := uint64(b.kernel[k])
				if i >= k {
					sum += uint64(v[i-k]) * w
				}
				if i+k < n {
					sum += uint64(v[i+k]) * w
				}
			}
			t[i] = uint32((sum + 32768) >> 16)
		}
		copy(v, t)
		return
	}
	if b.d%2 == 1 {
		box(t, v, b.d/2, b.d/2)
		box(v, t, b.d/2, b.d/2)
		box(t, v, b.d/2, b.d/2)
	} else {
		box(t, v, b.d/2, b.d/2-1)
		box(v, t, b.d/2-1, b.d/2)
		box(t, v, b.d/2, b.d/2)
	}
	copy(v, t)
}

// box writes means of the values from l before to r after.
func box(dst, src []uint32, l, r int) {
	n := len(src)
	scale := (uint64(1)<<32 + uint64(l+r+1)/2) / uint64(l+r+1)
	sum := uint64(0)
	for i := 0; i < min(r, n); i++ {
		sum += uint64(src[i])
	}
	for i := range dst {
		if i+r < n {
			sum += uint64(src[i+r])
		}
		if i-l-1 >= 0 {
			sum -= uint64(src[i-l-1])
		}
		dst[i] = uint32((sum*scale + 1<<31) >> 32)
	}
}

// blur blurs what is on s, whose dirty box grows by the blur's reach; s must be large enough for it.
func blur(s *surface, sigma float64) {
	if sigma <= 0 || s.dirty.Empty() {
		return
	}
	b := newBlurrer(sigma)
	area := s.dirty.Inset(-blurReach(sigma)).Intersect(s.box)
	w, h := area.Dx(), area.Dy()
	line := make([]uint32, max(w, h))
	plane := make([]uint16, w*h)
	for c := 0; c < 4; c++ {
		for y := 0; y < h; y++ {
			row := s.row(area.Min.Y+y, area.Min.X, area.Max.X)
			any := byte(0)
			for x := range w {
				any |= row[4*x+c]
				line[x] = uint32(row[4*x+c]) << 8
			}
			if any != 0 {
				b.line(line[:w])
			}
			out := plane[y*w : y*w+w]
			for x := range out {
				out[x] = uint16(line[x])
			}
		}
		for x := 0; x < w; x++ {
			for y := range h {
				line[y] = uint32(plane[y*w+x])
			}
			b.line(line[:h])
			i := (area.Min.Y-s.box.Min.Y)*s.stride + 4*(area.Min.X-s.box.Min.X+x) + c
			for y := range h {
				s.pix[i] = uint8((line[y] + 128) >> 8)
				i += s.stride
			}
		}
	}
	s.dirty = area
}

// alphaMap is the cover of a part of a surface.
type alphaMap struct {
	box image.Rectangle
	pix []uint8
}

// blurredAlpha returns the cover of s, blurred, over a box that is larger by the blur's reach, cut to within.
func blurredAlpha(s *surface, sigma float64, within image.Rectangle) *alphaMap {
	area := s.dirty.Inset(-blurReach(sigma)).Intersect(within)
	m := &alphaMap{area, make([]uint8, max(0, area.Dx())*max(0, area.Dy()))}
	if area.Empty() {
		return m
	}
	// What lies outside the box still shines in: the source is read as far as it reaches.
	// Between the passes it spreads beyond that, and back.
	from := s.dirty.Intersect(area.Inset(-blurReach(sigma)))
	full := from.Union(area).Inset(-blurReach(sigma))
	w, h := full.Dx(), full.Dy()
	plane := make([]uint16, w*h)
	line := make([]uint32, max(w, h))
	b := &blurrer{}
	if sigma > 0 {
		b = newBlurrer(sigma)
	}
	for y := from.Min.Y; y < from.Max.Y; y++ {
		clear(line)
		row := s.row(y, from.Min.X, from.Max.X)
		for x := 0; x < from.Dx(); x++ {
			line[from.Min.X-full.Min.X+x] = uint32(row[4*x+3]) << 8
		}
		if sigma > 0 {
			b.line(line[:w])
		}
		out := plane[(y-full.Min.Y)*w : (y-full.Min.Y+1)*w]
		for x := range out {
			out[x] = uint16(line[x])
		}
	}
	for x := area.Min.X; x < area.Max.X; x++ {
		for y := range h {
			line[y] = uint32(plane[y*w+x-full.Min.X])
		}
		if sigma > 0 {
			b.line(line[:h])
		}
		for y := area.Min.Y; y < area.Max.Y; y++ {
			m.pix[(y-area.Min.Y)*area.Dx()+x-area.Min.X] = uint8((line[y-full.Min.Y] + 128) >> 8)
		}
	}
	return m
}

func (m *alphaMap) row(y int) []uint8 {
	w := m.box.Dx()
	return m.pix[(y-m.box.Min.Y)*w : (y-m.box.Min.Y+1)*w]
}

// feather fades the border of what is on s over width px, inwards: its cover a becomes a x max(0, 2 b - 1), b its blurred
// cover. At an edge b is a half.
func feather(s *surface, width float64) {
	m := blurredAlpha(s, featherSigma(width), s.dirty)
	for y := m.box.Min.Y; y < m.box.Max.Y; y++ {
		row := s.row(y, m.box.Min.X, m.box.Max.X)
		for x, b := range m.row(y) {
			store(row, 4*x, scaled(load(row, 4*x), uint32(max(0, 2*int(b)-255))))
		}
	}
}

// featherSigma is the deviation whose blur spreads an edge over width px to either side.
func featherSigma(width float64) float64 { return width / 2.8 }
