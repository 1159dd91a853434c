package gesture

import (
	"fmt"
	"math"

	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/scope"
)

// movedLayers are layers that are dragged over the page, or copies of them.
type movedLayers struct {
	hold
	seed   string            // of copies that are dragged off
	copies *scope.Duplicates // what the drag has come to, where it is copies
}

func (s *Drags) moveLayers(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	h.field = s.field(&h)
	return &movedLayers{hold: h, seed: s.NewID()}, nil
}

func (g *movedLayers) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	d := at.Sub(g.from)
	if mod.Shift {
		if math.Abs(d.X) >= math.Abs(d.Y) {
			d.Y = 0
		} else {
			d.X = 0
		}
	}
	d, marks := g.snapMove(d, mod)
	if mod.Alt {
		list := make([]string, len(g.grips))
		for i, gr := range g.grips {
			list[i] = gr.layer.ID
		}
		g.copies = &scope.Duplicates{Seed: g.seed, IDs: list}
		return &edit.DuplicateLayers{IDs: list, Seed: g.seed, DX: d.X, DY: d.Y}, said(Readout{Words: fmt.Sprintf("a copy, %+.0f, %+.0f", d.X, d.Y)}, marks)
	}
	g.copies = nil
	var list []edit.Part
	for _, gr := range g.grips {
		in := d
		if inv, ok := gr.outer.Inverse(); ok {
			in = inv.ApplyVector(d)
		}
		list = append(list, edit.PlaceOf(gr.layer.ID, edit.Fields{"x": gr.layer.Place.X + in.X, "y": gr.layer.Place.Y + in.Y}))
	}
	return edit.SetPlaces(list), said(Readout{Words: fmt.Sprintf("%+.0f, %+.0f", d.X, d.Y)}, marks)
}
