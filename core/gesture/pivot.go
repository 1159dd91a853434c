package gesture

import (
	"fmt"
	"math"

	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/snap"
)

// movedPivot is the pivot of one layer.
type movedPivot struct{ hold }

func (s *Drags) movePivot(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	h.field = s.field(&h)
	return &movedPivot{h}, nil
}

// to moves it. It snaps to the middle, corners and edges of the box, else to what lies around, but with Alt.
func (g *movedPivot) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := gr.own.Inverse()
	if !ok {
		return nil, Readout{}
	}
	to := inv.Apply(at)
	words := ""
	var marks []snap.Mark
	if !mod.Alt {
		near := 8 / max(gr.own.MaxScale(), 1e-9)
		c := gr.box.Centre()
		snap := func(v, lo, mid, hi float64) (float64, bool) {
			for _, s := range []float64{mid, lo, hi} {
				if math.Abs(v-s) <= near {
					return s, true
				}
			}
			return v, false
		}
		x, inX := snap(to.X, gr.box.Min.X, c.X, gr.box.Max.X)
		y, inY := snap(to.Y, gr.box.Min.Y, c.Y, gr.box.Max.Y)
		if inX && inY {
			to = geom.Point{X: x, Y: y}
			words = " · on the box"
			if to == c {
				words = " · the middle"
			}
		} else if g.field != nil && !mod.Free && mod.Reach > 0 {
			var by geom.Point
			if by, marks = g.field.Place(at, mod.Reach); len(marks) > 0 {
				to = inv.Apply(at.Add(by))
			}
		}
	}
	w, h := max(gr.box.W(), 1e-9), max(gr.box.H(), 1e-9)
	r := Readout{Words: fmt.Sprintf("%.0f %%, %.0f %%%s", 100*(to.X-gr.box.Min.X)/w, 100*(to.Y-gr.box.Min.Y)/h, words)}
	return edit.SetPlaces([]edit.Part{edit.PlaceOf(gr.layer.ID, edit.Pivoted(gr.layer, gr.pivot, to))}), said(r, marks)
}
