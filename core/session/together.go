package session

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/edit"
	"capstan/core/geom"
)

// around is the upright box on the page around all that a gesture holds, as it was when the gesture began.
func (g *gesture) around() geom.Box {
	b := geom.EmptyBox()
	for i := range g.grips {
		b = b.Union(g.grips[i].pageBox())
	}
	return b
}

// placed returns where a grip's origin comes to lie, in the axes its place is in, when m is done to it on the page.
func (gr *grip) placed(m geom.Matrix) (x, y float64) {
	p := geom.Point{X: gr.layer.Place.X, Y: gr.layer.Place.Y}
	if inv, ok := gr.outer.Inverse(); ok {
		p = inv.Apply(m.Apply(gr.outer.Apply(p)))
	}
	return p.X, p.Y
}

// sizeTogether scales several layers as one, in their proportions, about the corner opposite the one that is dragged, or about the middle
// of all of them with Alt.
func (g *gesture) sizeTogether(at geom.Point, mod Modifiers) (edit.Command, Readout) {
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

// turnTogether turns several layers as one about the middle of all of them.
func (g *gesture) turnTogether(by float64) (edit.Command, Readout) {
	m := geom.Rotate(by).About(g.about)
	var list []edit.Part
	for i := range g.grips {
		gr := &g.grips[i]
		x, y := gr.placed(m)
		list = append(list, placeOf(gr.layer.ID, edit.Fields{"turn": gr.layer.Place.Turn + by, "x": x, "y": y}))
	}
	return setPlaces(list), Readout{Words: fmt.Sprintf("%+.1f°", by)}
}
