package anim

import (
	"cmp"
	"image"
	"slices"

	"capstan/core/paint"
)

// Census counts the colours of sample frames, as premultiplied RGBA. Pixels that are mostly clear are not counted.
type Census struct {
	bins  map[uint32]*bin
	exact map[uint32]int // while they are few
	many  bool
}

type bin struct {
	n   int
	sum [3]int
}

// half is the cover from which on a pixel of a film on clear ground is drawn: a GIF knows no half clear ones.
const half = 128

// Add counts the pixels of a frame, laid on matte where they are half clear; step > 1 looks at every step-th only.
func (c *Census) Add(img *image.RGBA, matte paint.Colour, step int) {
	if c.bins == nil {
		c.bins, c.exact = map[uint32]*bin{}, map[uint32]int{}
	}
	m := matted(matte)
	last, b := uint32(1<<31), (*bin)(nil)
	for i := 0; i+3 < len(img.Pix); i += 4 * step {
		p := img.Pix[i : i+4 : i+4]
		if p[3] < half {
			continue
		}
		rgb := m.over(p)
		if rgb != last {
			last = rgb
			key := rgb & 0xFCFCFC
			if b = c.bins[key]; b == nil {
				b = &bin{}
				c.bins[key] = b
			}
		}
		if !c.many {
			if c.exact[rgb]++; len(c.exact) > MostColours {
				c.many, c.exact = true, nil
			}
		}
		n := 1
		if i >= 4 && flat(p, img.Pix[i-4:i]) {
			n = areas
		}
		b.n += n
		b.sum[0] += n * int(rgb>>16)
		b.sum[1] += n * int(rgb>>8&255)
		b.sum[2] += n * int(rgb&255)
	}
}

// areas is how much more a pixel counts that goes on from the one beside it: a wrong colour of an area is seen, one in the middle of an edge is not.
// Edges of what moves, a few in each frame, would else take most of a palette.
const areas = 16

// flat reports whether two pixels beside each other differ by no more than a gradient's do.
func flat(a, b []uint8) bool {
	for c := range 3 {
		if d := int(a[c]) - int(b[c]); d > 6 || d < -6 {
			return false
		}
	}
	return true
}

// matte is what half clear pixels are laid on.
type matte [3]uint32

func matted(c paint.Colour) matte {
	r, g, b, _ := c.Bytes()
	return matte{uint32(r), uint32(g), uint32(b)}
}

// over lays a premultiplied pixel on the matte.
func (m matte) over(p []uint8) uint32 {
	if p[3] == 255 {
		return uint32(p[0])<<16 | uint32(p[1])<<8 | uint32(p[2])
	}
	left := 255 - uint32(p[3])
	mix := func(v uint8, by uint32) uint32 { return min(255, uint32(v)+(by*left+127)/255) }
	return mix(p[0], m[0])<<16 | mix(p[1], m[1])<<8 | mix(p[2], m[2])
}

// sample is a colour and how many pixels have it.
type sample struct {
	n   float64
	lab [3]float64
}

// samples returns the counted colours in an order that does not depend on that of counting.
func (c *Census) samples() []sample {
	keys := make([]uint32, 0, len(c.bins))
	for k := range c.bins {
		keys = append(keys, k)
	}
	slices.SortFunc(keys, cmp.Compare)
	list := make([]sample, 0, len(keys))
	for _, k := range keys {
		b := c.bins[k]
		f := 1 / (255 * float64(b.n))
		lab := paint.Colour{R: float64(b.sum[0]) * f, G: float64(b.sum[1]) * f, B: float64(b.sum[2]) * f, A: 1}.Lab()
		list = append(list, sample{float64(b.n), [3]float64{lab.L, lab.A, lab.B}})
	}
	return list
}
