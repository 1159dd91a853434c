package gesture

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
)

// movedGradient is the gradient of a layer's fill, or of the background of a scene.
type movedGradient struct {
	hold
	background string // the scene whose background it is; empty: a layer's
}

func (s *Drags) moveGradient(b begun) (drag, error) {
	if b.of == edit.BackgroundPart {
		sc := s.Scene(b.moment)
		b.grips = []grip{{layer: &doc.Layer{Fill: sc.Background}, own: geom.Identity, outer: geom.Identity, box: s.Page()}}
		return &movedGradient{b.hold, sc.ID}, nil
	}
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	return &movedGradient{hold: h}, nil
}

// to drags a point of it: an end, the focus, or one of its colours along the line.
func (g *movedGradient) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := gr.own.Inverse()
	f := gr.layer.Fill
	if !ok || !f.Graded() || gr.box.Empty() {
		return nil, Readout{}
	}
	q := inv.Apply(at)
	d := f.Gradient
	from, to := geom.AtShares(gr.box, d.From), geom.AtShares(gr.box, d.To)
	share := func(p geom.Point) []float64 {
		return []float64{(p.X - gr.box.Min.X) / gr.box.W(), (p.Y - gr.box.Min.Y) / gr.box.H()}
	}
	patch := edit.Fields{}
	words := ""
	line := func(v geom.Point) string {
		return fmt.Sprintf("%.0f px, %.0f°", v.Len(), math.Atan2(v.Y, v.X)*180/math.Pi)
	}
	switch {
	case g.handle == "from":
		if f.Kind == doc.Radial {
			// The middle takes the rim and the focus along.
			by := q.Sub(from)
			patch["from"], patch["to"] = share(q), share(to.Add(by))
			if d.Focus != nil {
				patch["focus"] = share(geom.AtShares(gr.box, *d.Focus).Add(by))
			}
			words = fmt.Sprintf("%+.0f, %+.0f", by.X, by.Y)
			break
		}
		q = towards(to, q, mod.Shift)
		patch["from"], words = share(q), line(to.Sub(q))
	case g.handle == "to":
		q = towards(from, q, mod.Shift)
		patch["to"], words = share(q), line(q.Sub(from))
	case g.handle == "focus":
		r := to.Sub(from).Len()
		v := q.Sub(from)
		if v.Len() > 0.98*r {
			v = v.Mul(0.98 * r / v.Len())
		}
		patch["focus"], words = share(from.Add(v)), fmt.Sprintf("focus %+.0f, %+.0f", v.X, v.Y)
		if v.Len() < 0.04*r { // back in the middle
			patch["focus"], words = nil, "focus in the middle"
		}
	default:
		i, err := strconv.Atoi(strings.TrimPrefix(g.handle, "stop"))
		if err != nil {
			return nil, Readout{}
		}
		if d.Focus != nil {
			from = geom.AtShares(gr.box, *d.Focus)
		}
		v := to.Sub(from)
		if v.Len() == 0 {
			return nil, Readout{}
		}
		w := q.Sub(from)
		stops := edit.MoveStop(slices.Clone(d.Stops), i, (w.X*v.X+w.Y*v.Y)/(v.X*v.X+v.Y*v.Y))
		if stops == nil {
			return nil, Readout{}
		}
		patch["stops"], words = stops, fmt.Sprintf("%.0f %%", stops[i].At*100)
	}
	if g.background != "" {
		return &edit.SetScenes{IDs: []string{g.background}, Patch: edit.Graded(edit.BackgroundPart, patch)}, Readout{Words: words}
	}
	return edit.SetPlaces([]edit.Part{{ID: gr.layer.ID, Patch: edit.Graded(edit.FillPart, patch)}}), Readout{Words: words}
}
