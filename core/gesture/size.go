package gesture

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
)

// sizedLayers are layers whose size is dragged.
type sizedLayers struct{ hold }

func (s *Drags) sizeLayers(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	h.field = s.field(&h)
	return &sizedLayers{h}, nil
}

func (g *sizedLayers) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	if len(g.grips) > 1 {
		return g.sizeTogether(at, mod)
	}
	gr := g.grips[0]
	l := gr.layer
	inv, ok := gr.own.Inverse()
	if !ok || gr.box.W() <= 0 || gr.box.H() <= 0 {
		return nil, Readout{}
	}
	d := inv.Apply(at).Sub(inv.Apply(g.from))
	w, h := gr.box.W(), gr.box.H()
	fixed := gr.box.Centre()
	nw, nh := w, h
	middle := fixed
	if mod.Alt { // from the middle: both sides go
		d = d.Mul(2)
	}
	for _, c := range g.handle {
		switch c {
		case 'e':
			nw, fixed.X = w+d.X, gr.box.Min.X
		case 'w':
			nw, fixed.X = w-d.X, gr.box.Max.X
		case 's':
			nh, fixed.Y = h+d.Y, gr.box.Min.Y
		case 'n':
			nh, fixed.Y = h-d.Y, gr.box.Max.Y
		}
	}
	if mod.Alt {
		fixed = middle
	}
	nw, nh = math.Max(nw, 1), math.Max(nh, 1)
	if l.Roomy() {
		return g.room(gr, nw, nh, fixed)
	}
	if l.Kind == doc.TextKind && (g.handle == "e" || g.handle == "w") {
		return g.wrap(gr, nw, fixed)
	}
	keep := l.Is().Keeps != mod.Shift || l.Is().Scaled
	kx, ky := nw/w, nh/h
	if keep {
		switch {
		case len(g.handle) == 1 && (g.handle == "n" || g.handle == "s"):
			kx = ky
		case len(g.handle) == 1:
			ky = kx
		default:
			k := math.Max(kx, ky)
			kx, ky = k, k
		}
	}
	kx, ky, marks := g.snapSize(&gr, kx, ky, keep, fixed, mod)
	shift := fixed.Sub(geom.Point{X: kx * fixed.X, Y: ky * fixed.Y})
	local := gr.own
	if o, ok := gr.outer.Inverse(); ok {
		local = o.Mul(gr.own)
	}
	by := local.ApplyVector(shift)
	return edit.Scaled(l, kx, ky, l.Place.X+by.X, l.Place.Y+by.Y, g.grows), said(Readout{Words: fmt.Sprintf("%.0f × %.0f", w*kx, h*ky)}, marks)
}

// wrap gives a text a width to break its lines at. The side that is not dragged stays.
func (g *sizedLayers) wrap(gr grip, width float64, fixed geom.Point) (edit.Command, Readout) {
	l := gr.layer
	left := fixed.X
	if g.handle == "w" {
		left = fixed.X - width
	}
	// The origin of a text that wraps is the middle of its upper edge.
	local := gr.own
	if o, ok := gr.outer.Inverse(); ok {
		local = o.Mul(gr.own)
	}
	by := local.ApplyVector(geom.Point{X: left + width/2})
	patch := edit.Fields{
		"text":  edit.Fields{"wrap": true},
		"place": edit.Fields{"w": width, "x": l.Place.X + by.X, "y": l.Place.Y + by.Y},
	}
	c := &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: patch}}}
	return c, Readout{Words: fmt.Sprintf("%.0f wide", width)}
}

// sizeTogether scales several layers as one, in their proportions, about the corner opposite the one that is dragged, or about the middle
// of all of them with Alt.
func (g *sizedLayers) sizeTogether(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	box := g.around()
	fixed, d := box.Centre(), at.Sub(g.from)
	sx, sy := 1.0, 1.0
	if strings.ContainsRune(g.handle, 'w') {
		sx = -1
	}
	if strings.ContainsRune(g.handle, 'n') {
		sy = -1
	}
	whole := 2.0
	if !mod.Alt {
		fixed = fixed.Sub(geom.Point{X: sx * box.W() / 2, Y: sy * box.H() / 2})
		whole = 1
	}
	w, h := math.Max(box.W(), 1e-9), math.Max(box.H(), 1e-9)
	k := math.Max((w+whole*sx*d.X)/w, (h+whole*sy*d.Y)/h)
	k = math.Max(k, 1/math.Max(w, h))
	as := grip{own: geom.Identity, box: box}
	k, _, marks := g.snapSize(&as, k, k, true, fixed, mod)
	m := geom.Scale(k, k).About(fixed)
	var list []edit.Command
	for i := range g.grips {
		x, y := g.grips[i].placed(m)
		list = append(list, &edit.ScaleLayer{ID: g.grips[i].layer.ID, KX: k, KY: k, X: x, Y: y, Grows: &g.grows})
	}
	return edit.All(list...), said(Readout{Words: fmt.Sprintf("%.0f × %.0f · %.0f %%", w*k, h*k, 100*k)}, marks)
}

// room gives the box of a text another size. fixed is the point of it, in its own axes, that stays.
func (g *sizedLayers) room(gr grip, w, h float64, fixed geom.Point) (edit.Command, Readout) {
	local := gr.own
	if o, ok := gr.outer.Inverse(); ok {
		local = o.Mul(gr.own)
	}
	// The origin of its box is the middle of its upper edge.
	from := geom.Point{X: fixed.X, Y: fixed.Y}
	share := func(v, lo, hi float64) float64 { return (v - lo) / math.Max(hi-lo, 1e-9) }
	kx, ky := share(fixed.X, gr.box.Min.X, gr.box.Max.X), share(fixed.Y, gr.box.Min.Y, gr.box.Max.Y)
	by := local.ApplyVector(from.Sub(geom.Point{X: (kx - 0.5) * w, Y: ky * h}))
	l := gr.layer
	return edit.SetPlaces([]edit.Part{edit.PlaceOf(l.ID, edit.Fields{"w": w, "h": h, "x": l.Place.X + by.X, "y": l.Place.Y + by.Y})}), Readout{Words: fmt.Sprintf("%.0f × %.0f", w, h)}
}
