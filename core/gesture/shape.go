package gesture

import (
	"fmt"
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/shape"
)

// reshaped is a layer whose shape is changed by one of its handles.
type reshaped struct{ hold }

func (s *Drags) reshape(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	return &reshaped{h}, nil
}

// to drags a handle of a shape.
func (g *reshaped) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	l := gr.layer
	inv, ok := gr.own.Inverse()
	if !ok || !l.IsShape() {
		return nil, Readout{}
	}
	if l.Kind == doc.Line {
		return g.pullEnd(at, mod)
	}
	spec := shape.Of(l).Drag(g.handle, inv.Apply(at))
	patch := edit.Fields{"shape": spec.Shape}
	if spec.Corner != l.Corner {
		patch["corner"] = spec.Corner
	}
	r := Readout{}
	for _, h := range spec.Handles() {
		if h.ID == g.handle {
			r.Words = h.Name
			if h.Value != "" {
				r.Words += " " + h.Value
			}
		}
	}
	return &edit.SetLayers{Set: []edit.Part{{ID: l.ID, Patch: patch}}}, r
}

// pullEnd drags one end of a line; the other stays. With Shift the line lies at steps of 15 degrees.
func (g *reshaped) pullEnd(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	l := gr.layer
	out, ok := gr.outer.Inverse()
	if !ok {
		return nil, Readout{}
	}
	local := out.Mul(gr.own)
	w := l.Place.W / 2
	from, to := local.Apply(geom.Point{X: -w}), local.Apply(geom.Point{X: w})
	q := out.Apply(at)
	p := shape.LineFrom(from, q, mod.Shift, false)
	if g.handle == "from" {
		p = shape.LineFrom(to, q, mod.Shift, false)
		p.Turn += 180
	}
	// Full turns are counted: the angle goes on from what it was.
	p.Turn += 360 * math.Round((l.Place.Turn-p.Turn)/360)
	p.W = max(1, p.W)
	return edit.SetPlaces([]edit.Part{edit.PlaceOf(l.ID, edit.Fields{"x": p.X, "y": p.Y, "w": p.W, "turn": p.Turn})}),
		Readout{Words: fmt.Sprintf("%.0f px, %.1f°", p.W, p.Turn)}
}
