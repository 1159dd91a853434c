package raster

import (
	"image"
	"math"

	"capstan/core/geom"
)

// wipe is a half-plane with a soft edge, as a display list has it: at q it shows clamp((edge - d.q) / softness, 0, 1).
type wipe struct {
	d        geom.Point
	edge     float64
	softness float64
	inverted bool
}

func (r *reader) wipe() wipe {
	return wipe{geom.Point{X: r.num(), Y: r.num()}, r.num(), r.num(), r.num() != 0}
}

// ramp is a wipe in device px: at the middle of pixel x, y it shows clamp(x a + y b + c, 0, 1).
type ramp struct {
	a, b, c  float64
	inverted bool
}

// over returns the wipe as m, local to device, puts it. An edge harder than a pixel is one pixel wide, about where it lies.
func (w wipe) over(m geom.Matrix) ramp {
	if w.d == (geom.Point{}) {
		return ramp{c: 1, inverted: w.inverted}
	}
	inv, ok := m.Inverse()
	if !ok {
		return ramp{c: 1, inverted: w.inverted}
	}
	// u = d . inv(q) = ux x + uy y + u0
	ux, uy := w.d.X*inv.A+w.d.Y*inv.B, w.d.X*inv.C+w.d.Y*inv.D
	u0 := w.d.X*inv.E + w.d.Y*inv.F
	px := math.Hypot(ux, uy)
	soft, edge := w.softness, w.edge
	if soft < px {
		edge += (px - soft) / 2
		soft = px
	}
	return ramp{-ux / soft, -uy / soft, (edge - u0) / soft, w.inverted}
}

func (r *ramp) at(x, y float64) float64 {
	v := min(1, max(0, x*r.a+y*r.b+r.c))
	if r.inverted {
		return 1 - v
	}
	return v
}

// veil is one reveal, or two that join.
type veil struct {
	count   int
	opacity [2]float64
	wipes   [2]ramp
}

func (v *veil) at(x, y float64) float64 {
	a := v.opacity[0] * v.wipes[0].at(x, y)
	if v.count > 1 {
		b := v.opacity[1] * v.wipes[1].at(x, y)
		a += b * (1 - a)
	}
	return min(1, max(0, a))
}

// apply takes what is in box down to what the veil shows of it.
func (v *veil) apply(img *image.RGBA, box image.Rectangle) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row := img.Pix[y*img.Stride+4*box.Min.X : y*img.Stride+4*box.Max.X]
		for x := 0; x < box.Dx(); x++ {
			px := row[4*x : 4*x+4 : 4*x+4]
			if px[3] == 0 {
				continue
			}
			scalePixel(px, uint32(v.at(float64(box.Min.X+x)+0.5, float64(y)+0.5)*255+0.5))
		}
	}
}

func scalePixel(px []byte, k uint32) {
	if k == 255 {
		return
	}
	px[0], px[1] = uint8(div255(uint32(px[0])*k)), uint8(div255(uint32(px[1])*k))
	px[2], px[3] = uint8(div255(uint32(px[2])*k)), uint8(div255(uint32(px[3])*k))
}

// wipeLayers turns a into (1-k) a + k b, k from the ramp.
func wipeLayers(a, b *image.RGBA, box image.Rectangle, r ramp) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		i := y*a.Stride + 4*box.Min.X
		for x := box.Min.X; x < box.Max.X; x, i = x+1, i+4 {
			k := uint32(r.at(float64(x)+0.5, float64(y)+0.5)*255 + 0.5)
			for c := i; c < i+4; c++ {
				a.Pix[c] = uint8(div255(uint32(a.Pix[c])*(255-k) + uint32(b.Pix[c])*k))
			}
		}
	}
}

// clipTo clears what lies outside the rectangle between two device points; pixels on its edge stay by how much of them is inside.
func clipTo(img *image.RGBA, box image.Rectangle, from, to geom.Point) {
	share := func(v int, lo, hi float64) float64 {
		return min(1, max(0, min(float64(v)+1, hi)-max(float64(v), lo)))
	}
	for y := box.Min.Y; y < box.Max.Y; y++ {
		down := share(y, from.Y, to.Y)
		for x := box.Min.X; x < box.Max.X; x++ {
			i := y*img.Stride + 4*x
			scalePixel(img.Pix[i:i+4:i+4], uint32(down*share(x, from.X, to.X)*255+0.5))
		}
	}
}
