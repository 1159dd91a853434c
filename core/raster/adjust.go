package raster

import (
	"image"
	"math"

	"capstan/core/state"
)

// adjusting is what a group does to the colours of what is in it, before all else.
type adjusting struct {
	sharp   float64 // of the difference from what a Gaussian makes of it
	sigma   float64 // its deviation, device px
	colours state.Colours
}

func (a *adjusting) none() bool { return a.sharp == 0 && a.colours == state.SameColours }

// adjusting reads what a group does to colours.
func (r *reader) adjusting(k float64) (a adjusting) {
	a.sharp, a.sigma = min(max(r.num(), 0), 100), distance(r.num()*k)
	for i := range a.colours {
		a.colours[i] = min(max(r.num(), -1000), 1000)
		if a.colours[i] != a.colours[i] {
			a.colours[i] = 0
		}
	}
	return a
}

// adjust changes the colours on a surface; its covers stay.
func (p *Painter) adjust(s *surface, a *adjusting) {
	if a.sharp > 0 && !s.dirty.Empty() {
		p.sharpen(s, a)
	}
	if a.colours == state.SameColours {
		return
	}
	// In 1/4096: what is linear in a colour is so in one that is multiplied by its cover, and what is added is as much of the cover.
	var m [12]int64
	for i, v := range a.colours {
		m[i] = int64(math.Round(v * 4096))
	}
	add, quick := addends(&a.colours)
	last, made := uint32(0), uint32(0) // large parts of what is drawn have one colour
	for y := s.dirty.Min.Y; y < s.dirty.Max.Y; y++ {
		row := s.row(y, s.dirty.Min.X, s.dirty.Max.X)
		for ; len(row) >= 4; row = row[4:] {
			v := load(row, 0)
			if v != last {
				last = v
				if quick && v >= 255<<24 {
					made = mappedOpaque(v, add)
				} else {
					made = mappedCovered(v, &m)
				}
			}
			store(row, 0, made)
		}
	}
}

// Mapped is a picture with a map of colours done to it; its covers stay.
func Mapped(img *image.RGBA, by *state.Colours) *image.RGBA {
	out := image.NewRGBA(img.Rect)
	copy(out.Pix, img.Pix)
	var m [12]int64
	for i, v := range by {
		m[i] = int64(math.Round(v * 4096))
	}
	for row := out.Pix; len(row) >= 4; row = row[4:] {
		store(row, 0, mappedCovered(load(row, 0), &m))
	}
	return out
}

// lanes21 is what each value of a channel adds to the three channels of an opaque colour, in 1/16, in three lanes of 21 bits, that do not go below 0.
type lanes21 [3][256]uint64

const (
	laneBits = 21
	laneOnes = 1<<laneBits - 1
	laneBias = 1 << 15 // levels that a sum of three is above what it stands for
)

// addends returns them for a map of colours; quick is false for maps that lead too far beyond what can be shown.
func addends(c *state.Colours) (t *lanes21, quick bool) {
	t = &lanes21{}
	for i := 0; i < 12; i += 4 {
		if 255*(math.Abs(c[i])+math.Abs(c[i+1])+math.Abs(c[i+2])+math.Abs(c[i+3])) > laneBias/2 {
			return nil, false
		}
	}
	for from := range 3 {
		for v := range 256 {
			for to := range 3 {
				sum := c[4*to+from] * float64(v)
				if from == 0 {
					sum += 255*c[4*to+3] + 0.5
				}
				t[from][v] |= uint64(int64(math.Round(sum*16))+laneBias*16/4) << (to * laneBits)
			}
		}
	}
	return t, true
}

func mappedOpaque(v uint32, t *lanes21) uint32 {
	x := t[0][v&0xFF] + t[1][v>>8&0xFF] + t[2][v>>16&0xFF]
	const bias = 3 * laneBias / 4
	r, g, b := int(x&laneOnes)>>4-bias, int(x>>laneBits&laneOnes)>>4-bias, int(x>>(2*laneBits))>>4-bias
	return uint32(min(max(r, 0), 255)) | uint32(min(max(g, 0), 255))<<8 | uint32(min(max(b, 0), 255))<<16 | 255<<24
}

func mappedCovered(v uint32, m *[12]int64) uint32 {
	a := int64(v >> 24)
	if a == 0 {
		return 0
	}
	r, g, b := int64(v&0xFF), int64(v>>8&0xFF), int64(v>>16&0xFF)
	x := (m[0]*r + m[1]*g + m[2]*b + m[3]*a + 2048) >> 12
	y := (m[4]*r + m[5]*g + m[6]*b + m[7]*a + 2048) >> 12
	z := (m[8]*r + m[9]*g + m[10]*b + m[11]*a + 2048) >> 12
	return uint32(min(max(x, 0), a)) | uint32(min(max(y, 0), a))<<8 | uint32(min(max(z, 0), a))<<16 | uint32(a)<<24
}

// sharpen takes from each colour what is around it. A border does not count as dark: what is around is weighed by its cover.
func (p *Painter) sharpen(s *surface, a *adjusting) {
	around := p.surfaces.take(s.dirty)
	defer p.surfaces.give(around)
	w := s.dirty
	around.dirty = w
	for y := w.Min.Y; y < w.Max.Y; y++ {
		copy(around.row(y, w.Min.X, w.Max.X), s.row(y, w.Min.X, w.Max.X))
	}
	p.blurrer.blur(around, a.sigma)
	k := int64(math.Round(a.sharp * 4096))
	for y := w.Min.Y; y < w.Max.Y; y++ {
		row, rest := s.row(y, w.Min.X, w.Max.X), around.row(y, w.Min.X, w.Max.X)
		for ; len(row) >= 4; row, rest = row[4:], rest[4:] {
			v, u := load(row, 0), load(rest, 0)
			c, d := int64(v>>24), int64(u>>24)
			if c == 0 || d == 0 || v == u {
				continue
			}
			out := uint32(c) << 24
			for shift := 0; shift < 24; shift += 8 {
				own, near := int64(v>>shift&0xFF), int64(u>>shift&0xFF)
				if d != c {
					near = (near*c + d/2) / d
				}
				out |= uint32(min(max(own+(k*(own-near)+2048)>>12, 0), c)) << shift
			}
			store(row, 0, out)
		}
	}
}
