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

// apply takes what is on s down to what the veil shows of it.
func (v *veil) apply(s *surface) {
	box := s.dirty
	for y := box.Min.Y; y < box.Max.Y; y++ {
		row := s.row(y, box.Min.X, box.Max.X)
		for x := 0; x < box.Dx(); x++ {
			if p := load(row, 4*x); p != 0 {
				store(row, 4*x, scaled(p, uint32(v.at(float64(box.Min.X+x)+0.5, float64(y)+0.5)*255+0.5)))
			}
		}
	}
}

// wipeInto turns a into (1-k) a + k b, k from the ramp.
func wipeInto(a, b *surface, box image.Rectangle, r ramp) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		s, t := a.row(y, box.Min.X, box.Max.X), b.row(y, box.Min.X, box.Max.X)
		for x := box.Min.X; x < box.Max.X; x++ {
			i := 4 * (x - box.Min.X)
			k := uint32(r.at(float64(x)+0.5, float64(y)+0.5)*255 + 0.5)
			switch k {
			case 0:
			case 255:
				store(s, i, load(t, i))
			default:
				l := lanes(load(s, i))*uint64(255-k) + lanes(load(t, i))*uint64(k) + laneHalf
				store(s, i, pack((l+(l>>8)&laneMask)>>8&laneMask))
			}
		}
	}
}

// clipTo clears what lies outside a box in device px; pixels on its edge stay by how much of them is inside.
func clipTo(s *surface, page geom.Box) {
	share := func(v int, lo, hi float64) float64 {
		return min(1, max(0, min(float64(v)+1, hi)-max(float64(v), lo)))
	}
	box := s.dirty
	for y := box.Min.Y; y < box.Max.Y; y++ {
		down := share(y, page.Min.Y, page.Max.Y)
		row := s.row(y, box.Min.X, box.Max.X)
		for x := box.Min.X; x < box.Max.X; x++ {
			i := 4 * (x - box.Min.X)
			store(row, i, scaled(load(row, i), uint32(down*share(x, page.Min.X, page.Max.X)*255+0.5)))
		}
	}
}
