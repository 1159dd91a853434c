package raster

import (
	"image"
	"math"

	"capstan/core/display"
	"capstan/core/geom"
)

// reveal is a term of a veil that is no join, in device px.
type reveal struct {
	term     display.VeilTerm
	opacity  float64
	inv      geom.Matrix // to its own axes
	v        [8]float64  // its numbers, the last of which says whether it is inverted
	ramp     ramp        // of a half-plane
	cover    *surface    // of an outline: how much of each pixel is inside
	inverted bool
}

// ramp is a half-plane in device px: at the middle of pixel x, y it shows clamp(x a + y b + c, 0, 1).
type ramp struct{ a, b, c float64 }

func (r *ramp) at(x, y float64) float64 { return min(1, max(0, x*r.a+y*r.b+r.c)) }

// rampOf is a half-plane as m, local to device, puts it. An edge harder than a pixel is one pixel wide, about where it lies.
func rampOf(dx, dy, edge, softness float64, m geom.Matrix) ramp {
	inv, ok := m.Inverse()
	if !ok || dx == 0 && dy == 0 {
		return ramp{c: 1}
	}
	// u = d . inv(q) = ux x + uy y + u0
	ux, uy := dx*inv.A+dy*inv.B, dx*inv.C+dy*inv.D
	u0 := dx*inv.E + dy*inv.F
	px := math.Hypot(ux, uy)
	if softness < px {
		edge += (px - softness) / 2
		softness = px
	}
	return ramp{-ux / softness, -uy / softness, (edge - u0) / softness}
}

// at is what the reveal shows of the pixel whose middle is x, y.
func (r *reveal) at(x, y float64) float64 {
	a := 0.0
	switch r.term {
	case display.VeilHalf:
		a = r.ramp.at(x, y)
	case display.VeilOutline:
		if p := (image.Point{X: int(x), Y: int(y)}); p.In(r.cover.box) {
			a = float64(r.cover.row(p.Y, p.X, p.X+1)[3]) / 255
		}
	case display.VeilSector:
		a = r.sector(r.inv.Apply(geom.Point{X: x, Y: y}))
	default:
		u, px, edge, softness := r.distance(r.inv.Apply(geom.Point{X: x, Y: y}))
		if softness < px {
			edge += (px - softness) / 2
			softness = px
		}
		if softness <= 0 {
			softness = 1e-9
		}
		a = min(1, max(0, (edge-u)/softness))
	}
	if r.inverted {
		a = 1 - a
	}
	return r.opacity * a
}

// distance returns u at a local point, by how much it changes over a device px there, and where its front is, and how soft.
func (r *reveal) distance(q geom.Point) (u, px, edge, softness float64) {
	// A step of a device px along the gradient g of u, in local axes, changes it by the length of g times the inverse.
	per := func(gx, gy float64) float64 { return math.Hypot(gx*r.inv.A+gy*r.inv.B, gx*r.inv.C+gy*r.inv.D) }
	v := &r.v
	switch r.term {
	case display.VeilDoors:
		return math.Abs(v[0]*q.X + v[1]*q.Y - v[2]), per(v[0], v[1]), v[3], v[4]
	case display.VeilNoise:
		return display.NoiseAt(uint32(v[0]), v[2] != 0, q.X/v[1], q.Y/v[1]), 0, v[3] * (1 + v[4]), v[4]
	}
	x, y := (q.X-v[0])/v[2], (q.Y-v[1])/v[3]
	sx, sy := math.Copysign(1/v[2], x), math.Copysign(1/v[3], y)
	switch r.term {
	case display.VeilBox:
		if math.Abs(x) >= math.Abs(y) {
			u, px = math.Abs(x), per(sx, 0)
		} else {
			u, px = math.Abs(y), per(0, sy)
		}
	case display.VeilDiamond:
		u, px = math.Abs(x)+math.Abs(y), per(sx, sy)
	default:
		if u = math.Hypot(x, y); u > 0 {
			px = per(x/u/v[2], y/u/v[3])
		}
	}
	return v[4] * u, v[4] * px, v[5], v[6]
}

// sector is 1 inside, 0 outside, and goes over one device px across its two sides.
func (r *reveal) sector(q geom.Point) float64 {
	v := &r.v
	start, sweep := v[2], v[3]
	if sweep < 0 {
		start, sweep = start+sweep, -sweep
	}
	if sweep >= 360 {
		return 1
	}
	q = q.Sub(geom.Point{X: v[0], Y: v[1]})
	px := math.Hypot(r.inv.A, r.inv.B) // a device px, in local px
	// How far inside of each side: to its right as one looks along the first, to its left along the second.
	sin, cos := math.Sincos(start * math.Pi / 180)
	first := min(1, max(0, (q.X*cos+q.Y*sin)/px+0.5))
	sin, cos = math.Sincos((start + sweep) * math.Pi / 180)
	second := min(1, max(0, -(q.X*cos+q.Y*sin)/px+0.5))
	switch {
	case sweep <= 0:
		return 0
	case sweep <= 180:
		return min(first, second)
	}
	return max(first, second)
}

// veil is what shows of something: terms in postfix order.
type veil struct {
	terms   []display.VeilTerm
	reveals []reveal
}

// veil reads the terms of a veil: their codes, then f, which reads what stands between codes and numbers, then these.
func (p *Painter) veil(dst *surface, r *reader, view geom.Matrix, f func()) (veil, error) {
	n := int(r.code())
	if n > display.MaxVeilTerms {
		return veil{}, errList
	}
	var v veil
	var keys []uint32
	depth := 0
	for range n {
		t := r.code()
		switch {
		case t >= uint32(len(display.VeilTerms)):
			return veil{}, errList
		case t == display.VeilOver || t == display.VeilTimes:
			depth--
		default:
			depth++
		}
		if depth < 1 {
			return veil{}, errList
		}
		key := uint32(0)
		if t == display.VeilOutline {
			key = r.code()
		}
		v.terms, keys = append(v.terms, t), append(keys, key)
	}
	if depth > 1 {
		return veil{}, errList
	}
	f()
	for i, t := range v.terms {
		if t == display.VeilOver || t == display.VeilTimes {
			continue
		}
		m := view.Mul(r.matrix())
		k := reveal{term: t, opacity: r.num()}
		own := display.VeilTerms[t].Numbers - 7
		for i := range own {
			k.v[i] = r.num()
		}
		k.inverted = k.v[own-1] != 0
		var ok bool
		if k.inv, ok = m.Inverse(); !ok && t != display.VeilHalf {
			k.opacity = 0
		}
		switch t {
		case display.VeilHalf:
			k.ramp = rampOf(k.v[0], k.v[1], k.v[2], k.v[3], m)
		case display.VeilOutline:
			path := p.film.Geometry.Path(keys[i])
			if path == nil {
				return veil{}, errList
			}
			k.cover = p.surfaces.take(dst.box)
			p.fill(k.cover, path, m, &ink{colour: 0xff000000})
		}
		v.reveals = append(v.reveals, k)
	}
	if r.short {
		return v, errList
	}
	return v, nil
}

// done gives back what the veil took.
func (p *Painter) done(v *veil) {
	for i := range v.reveals {
		if s := v.reveals[i].cover; s != nil {
			p.surfaces.give(s)
		}
	}
}

// at is what shows of the pixel whose middle is x, y; without terms all does.
func (v *veil) at(x, y float64) float64 {
	switch len(v.terms) {
	case 0:
		return 1
	case 1:
		return min(1, max(0, v.reveals[0].at(x, y)))
	}
	var stack [display.MaxVeilTerms]float64
	n, k := 0, 0
	for _, t := range v.terms {
		switch t {
		case display.VeilOver:
			n--
			stack[n-1] += stack[n] * (1 - stack[n-1])
		case display.VeilTimes:
			n--
			stack[n-1] *= stack[n]
		default:
			stack[n] = v.reveals[k].at(x, y)
			n, k = n+1, k+1
		}
	}
	return min(1, max(0, stack[0]))
}

// apply takes what is on s down to what the veil shows of it.
func (v *veil) apply(s *surface) {
	if v.grainy() {
		v.reveals[0].sprinkle(s)
		return
	}
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

// wipeInto turns a into (1-k) a + k b, k being what a veil shows.
func wipeInto(a, b *surface, box image.Rectangle, v *veil) {
	for y := box.Min.Y; y < box.Max.Y; y++ {
		s, t := a.row(y, box.Min.X, box.Max.X), b.row(y, box.Min.X, box.Max.X)
		for x := box.Min.X; x < box.Max.X; x++ {
			i := 4 * (x - box.Min.X)
			k := uint32(v.at(float64(x)+0.5, float64(y)+0.5)*255 + 0.5)
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
