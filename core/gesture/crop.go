package gesture

import (
	"fmt"
	"math"
	"strings"

	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/shape"
	"capstan/core/words"
)

// croppedPicture is a picture that is moved in its frame, or its frame over it. It always covers the frame.
type croppedPicture struct {
	hold
	framed shape.Framed
}

// cropPicture begins a drag of what a picture shows. The handle is a compass point of its frame, "picture" for the picture in it, "zoom" for one of
// the picture's own corners, or "turn".
func (s *Drags) cropPicture(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	f, ok := shape.FramedOf(h.grips[0].layer)
	if !ok || len(h.grips) != 1 {
		return nil, words.New("picture.unselected")
	}
	return &croppedPicture{h, f}, nil
}

func (g *croppedPicture) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	gr := g.grips[0]
	inv, ok := gr.own.Inverse()
	if !ok {
		return nil, Readout{}
	}
	from, to, mid := inv.Apply(g.from), inv.Apply(at), gr.box.Centre()
	f, by := g.framed, geom.Point{}
	var said string
	switch g.handle {
	case "picture":
		f = f.Panned(to.Sub(from))
		c := f.Crop()
		said = fmt.Sprintf("%.0f %% from the left, %.0f %% from above", 100*c[0], 100*c[1])
	case "zoom":
		f = f.Zoomed(to.Sub(mid).Len() / max(from.Sub(mid).Len(), 1e-9))
		said = fmt.Sprintf("%.0f %% of what fills its frame", 100*f.Zoom())
	case "turn":
		a, b := from.Sub(mid), to.Sub(mid)
		f.Turn += (math.Atan2(b.Y, b.X) - math.Atan2(a.Y, a.X)) * 180 / math.Pi
		if mod.Shift {
			f.Turn = math.Round(f.Turn/15) * 15
		}
		f.Turn = math.Remainder(math.Round(f.Turn*10)/10, 360)
		f = f.Covered()
		said = fmt.Sprintf("%.1f°", f.Turn)
	default:
		f, by = g.reframed(to.Sub(from), mod.Shift)
		said = fmt.Sprintf("%.0f × %.0f", f.Frame.X, f.Frame.Y)
	}
	return &edit.SetLayers{Set: []edit.Part{edit.Framed(gr.layer, f, by)}}, Readout{Words: said}
}

// reframed moves sides of the frame by px of the layer's axes, as far as the picture goes; keep keeps its proportions.
func (g *croppedPicture) reframed(d geom.Point, keep bool) (shape.Framed, geom.Point) {
	x, y := 0.0, 0.0
	for _, c := range g.handle {
		switch c {
		case 'e':
			x = 1
		case 'w':
			x = -1
		case 's':
			y = 1
		case 'n':
			y = -1
		}
	}
	w, h := g.framed.Frame.X, g.framed.Frame.Y
	dw, dh := x*d.X, y*d.Y
	if keep && len(strings.TrimSpace(g.handle)) == 2 {
		k := max(dw/w, dh/h)
		dw, dh = k*w, k*h
	}
	dw, dh = max(dw, 1-w), max(dh, 1-h)
	at := func(kx, ky float64) (shape.Framed, geom.Point) {
		by := geom.Point{X: x * dw * kx / 2, Y: y * dh * ky / 2}
		return g.framed.Reframed(geom.Point{X: w + dw*kx, Y: h + dh*ky}, by), by
	}
	// As far as it goes: each way by itself, so that a frame slides along the picture's edge, but together where it keeps its proportions.
	far := func(covers func(k float64) bool) float64 {
		if covers(1) {
			return 1
		}
		low, high := 0.0, 1.0
		for range 40 {
			if k := (low + high) / 2; covers(k) {
				low = k
			} else {
				high = k
			}
		}
		return low
	}
	if keep {
		k := far(func(k float64) bool { f, _ := at(k, k); return f.Covers() })
		return at(k, k)
	}
	kx := far(func(k float64) bool { f, _ := at(k, 0); return f.Covers() })
	ky := far(func(k float64) bool { f, _ := at(kx, k); return f.Covers() })
	return at(kx, ky)
}
