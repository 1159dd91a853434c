package raster

import (
	"math"

	"capstan/core/geom"
)

// texture reads a paint that lays a picture side by side.
func (p *Painter) texture(r *reader, k paintKind, m geom.Matrix) (ink, error) {
	axes := m.Mul(r.matrix())
	alpha := uint32(min(1, max(0, r.num()))*255 + 0.5)
	index := int(k.stops)
	if index >= len(p.film.Pictures) || p.pictures == nil || k.mip > 16 {
		return ink{}, errPaint
	}
	src, err := p.pictures(p.film.Pictures[index], int(k.mip))
	if err != nil {
		return ink{}, err
	}
	inv, ok := axes.Inverse()
	if w, h := src.Rect.Dx(), src.Rect.Dy(); !ok || w == 0 || h == 0 {
		return ink{}, nil
	} else {
		inv = geom.Scale(float64(w), float64(h)).Mul(inv)
	}
	return ink{texture: src, m: inv, alpha: alpha, opaqueAt: p.film.Opaque(uint32(index))}, nil
}

// tiled paints a run of pixels of row y from x0 on with a texture: bilinear, and beyond an edge goes on with the opposite one.
func (k *ink) tiled(row []byte, y, x0 int, cov uint32) {
	cov = div255(cov * k.alpha)
	src := k.texture
	w, h := src.Rect.Dx(), src.Rect.Dy()
	for i := 0; i < len(row); i += 4 {
		// From the start of the page, not of the run: a part painted again must come out the same.
		at := k.m.Apply(geom.Point{X: float64(x0+i/4) + 0.5, Y: float64(y) + 0.5})
		u, v := wrapped(at.X-0.5, w), wrapped(at.Y-0.5, h)
		iu, iv := int(u), int(v)
		fu, fv := uint32((u-float64(iu))*256+0.5), uint32((v-float64(iv))*256+0.5)
		ju, jv := iu+1, iv+1
		if ju == w {
			ju = 0
		}
		if jv == h {
			jv = 0
		}
		up, down := src.Pix[iv*src.Stride:], src.Pix[jv*src.Stride:]
		p := shared(shared(load(up, 4*iu), load(up, 4*ju), fu), shared(load(down, 4*iu), load(down, 4*ju), fu), fv)
		p = scaled(p, cov)
		if a := p >> 24; a < 255 {
			if a == 0 {
				continue
			}
			p = over(load(row, i), p)
		}
		store(row, i, p)
	}
}

// wrapped brings x into 0..n.
func wrapped(x float64, n int) float64 {
	x = math.Mod(x, float64(n))
	if x < 0 {
		x += float64(n)
	}
	if !(x < float64(n)) { // also what is no number
		return 0
	}
	return x
}

// shared mixes two pixels, f of 256 of the second.
func shared(a, b, f uint32) uint32 {
	if f == 0 || a == b {
		return a
	}
	var out uint32
	for s := 0; s < 32; s += 8 {
		x, y := a>>s&255, b>>s&255
		out |= (x*(256-f) + y*f + 128) >> 8 << s
	}
	return out
}
