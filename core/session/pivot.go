package session

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/snap"
)

var pivotAsked = table{
	// The pivot as a share of the layer's box, both ways; absent: the middle again.
	"pivot": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		X       *float64 `json:"x"`
		Y       *float64 `json:"y"`
		Reset   bool     `json:"reset"`
	}) (edit.Command, error) {
		var list []edit.Part
		i := s.sceneIndex(m)
		for _, l := range s.layers(m, c.Threads) {
			box, was := s.shown.Box(i, l.ID)
			to := was
			if c.X != nil {
				to.X = box.Min.X + box.W()**c.X
			}
			if c.Y != nil {
				to.Y = box.Min.Y + box.H()**c.Y
			}
			if c.Reset {
				to = box.Centre()
			}
			patch := pivoted(l, was, to)
			if c.Reset {
				patch["pivot"] = nil
			}
			list = append(list, placeOf(l.ID, patch))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return setPlaces(list), nil
	}),
}

// pivoted returns the change that moves a layer's pivot and leaves the layer where it is: a flipped one is flipped about it.
func pivoted(l *doc.Layer, was, to geom.Point) edit.Fields {
	patch := edit.Fields{"pivot": []float64{to.X, to.Y}}
	d := geom.Point{}
	if l.Place.FlipX {
		d.X = 2 * (to.X - was.X)
	}
	if l.Place.FlipY {
		d.Y = 2 * (to.Y - was.Y)
	}
	if d != (geom.Point{}) {
		d = geom.Rotate(l.Place.Turn).ApplyVector(d)
		patch["x"], patch["y"] = l.Place.X-d.X, l.Place.Y-d.Y
	}
	return patch
}

// movePivot drags the pivot of one layer. It snaps to the middle, corners and edges of the box, else to what lies around, but with Alt.
func (g *gesture) movePivot(at geom.Point, mod Modifiers) (edit.Command, Readout) {
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
	return setPlaces([]edit.Part{placeOf(gr.layer.ID, pivoted(gr.layer, gr.pivot, to))}), said(r, marks)
}
