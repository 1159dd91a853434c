package raster

import (
	"image"

	"capstan/core/paint"
)

// div255 is x/255 rounded, exact for 0 <= x <= 255*255.
func div255(x uint32) uint32 {
	x += 128
	return (x + x>>8) >> 8
}

type pixel struct{ r, g, b, a uint32 } // premultiplied, 0..255

func premultiplied(c paint.Colour) pixel {
	a := min(1, max(0, c.A))
	f := func(v float64) uint32 { return uint32(min(1, max(0, v))*a*255 + 0.5) }
	return pixel{f(c.R), f(c.G), f(c.B), uint32(a*255 + 0.5)}
}

// solid lays s over the pixels x0..x1 of row y with coverage cov.
func solid(dst *image.RGBA, y, x0, x1 int, s pixel, cov uint32) {
	row := dst.Pix[y*dst.Stride+4*x0 : y*dst.Stride+4*x1]
	if cov < 255 {
		s = pixel{div255(s.r * cov), div255(s.g * cov), div255(s.b * cov), div255(s.a * cov)}
	}
	if s.a == 255 {
		row[0], row[1], row[2], row[3] = uint8(s.r), uint8(s.g), uint8(s.b), 255
		for n := 4; n < len(row); n *= 2 {
			copy(row[n:], row[:n])
		}
		return
	}
	inv := 255 - s.a
	for i := 0; i+3 < len(row); i += 4 {
		p := row[i : i+4 : i+4]
		p[0] = uint8(s.r + div255(uint32(p[0])*inv))
		p[1] = uint8(s.g + div255(uint32(p[1])*inv))
		p[2] = uint8(s.b + div255(uint32(p[2])*inv))
		p[3] = uint8(s.a + div255(uint32(p[3])*inv))
	}
}

// over lays one premultiplied pixel over another at coverage cov.
func over(p []uint8, r, g, b, a, cov uint32) {
	if cov < 255 {
		r, g, b, a = div255(r*cov), div255(g*cov), div255(b*cov), div255(a*cov)
	}
	if a == 255 {
		p[0], p[1], p[2], p[3] = uint8(r), uint8(g), uint8(b), 255
		return
	}
	inv := 255 - a
	p[0] = uint8(r + div255(uint32(p[0])*inv))
	p[1] = uint8(g + div255(uint32(p[1])*inv))
	p[2] = uint8(b + div255(uint32(p[2])*inv))
	p[3] = uint8(a + div255(uint32(p[3])*inv))
}

// overLayer lays src over dst inside box, at opacity cov.
func overLayer(dst, src *image.RGBA, box image.Rectangle, cov uint32) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		d := dst.Pix[y*dst.Stride+4*box.Min.X : y*dst.Stride+4*box.Max.X]
		s := src.Pix[y*src.Stride+4*box.Min.X : y*src.Stride+4*box.Max.X]
		for i := 0; i < len(d); i += 4 {
			if s[i+3] != 0 {
				over(d[i:i+4:i+4], uint32(s[i]), uint32(s[i+1]), uint32(s[i+2]), uint32(s[i+3]), cov)
			}
		}
	}
}

// mixLayers turns a into (1-p) a + p b inside box.
func mixLayers(a, b *image.RGBA, box image.Rectangle, p float64) {
	k := uint32(p*65536 + 0.5)
	for y := box.Min.Y; y < box.Max.Y; y++ {
		s := a.Pix[y*a.Stride+4*box.Min.X : y*a.Stride+4*box.Max.X]
		t := b.Pix[y*b.Stride+4*box.Min.X : y*b.Stride+4*box.Max.X]
		for i := range s {
			s[i] = uint8((uint32(s[i])*(65536-k) + uint32(t[i])*k + 32768) >> 16)
		}
	}
}
