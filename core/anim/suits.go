package anim

import (
	"image"
	"math/bits"

	"capstan/core/likeness"
	"capstan/core/paint"
)

// Limits by which a dither is chosen: ours, from the demo's films.
const (
	seen   = 1.0 // banding (likeness.Banding) from which on steps in gradients are looked at
	helps  = 0.7 // a dither is taken where it leaves at most this share of it
	affair = 1.6 // and makes a frame no larger than by this much
)

// Suits returns the dither that suits sample frames on clear or opaque ground: none, unless steps would be seen without and another makes them go
// at a price that is fair.
func (p *Palette) Suits(frames []*image.RGBA, on paint.Colour) Dither {
	banding, size := p.cost(frames, on, Flat)
	if banding <= seen {
		return Flat
	}
	best := Flat
	least := helps * banding
	for _, d := range []Dither{Ordered, BlueNoise, Diffused} {
		if b, s := p.cost(frames, on, d); b <= least && float64(s) <= affair*float64(size) {
			best, least = d, b
		}
	}
	return best
}

// cost returns the banding of frames that are drawn by a dither, and how many bytes they take one by one.
func (p *Palette) cost(frames []*image.RGBA, on paint.Colour, d Dither) (banding float64, size int) {
	pen, z := p.Pen(d, on), &packer{}
	for _, f := range frames {
		n := f.Rect.Dx() * f.Rect.Dy()
		drawn := make([]uint8, Drawn*n)
		pen.Draw(drawn, f, f.Rect)
		want, got := image.NewRGBA(f.Rect), image.NewRGBA(f.Rect)
		r := &row{pix: make([]uint8, n), free: make([]bool, n)}
		for i := range n {
			px := drawn[Drawn*i:][:Drawn]
			r.pix[i] = px[3]
			if px[3] != through {
				copy(want.Pix[4*i:], px[:3])
				copy(got.Pix[4*i:], p.colours[px[3]-1][:])
			}
		}
		banding += likeness.Banding(want, got) / float64(len(frames))
		size += len(z.pack(r, uint(max(2, bits.Len(uint(len(p.colours))))), make([]uint8, n)))
	}
	return
}
