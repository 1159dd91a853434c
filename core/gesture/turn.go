package gesture

import (
	"fmt"
	"math"

	"capstan/core/edit"
	"capstan/core/geom"
)

// turnedLayers are layers that are turned by hand: one about its pivot, several about the middle of all of them.
type turnedLayers struct {
	hold
	about  geom.Point // on the page, that turning goes about
	turned float64    // degrees since the begin, full turns counted
	last   float64
}

func (s *Drags) turnLayers(b begun) (drag, error) {
	h, err := b.held()
	if err != nil {
		return nil, err
	}
	g := &turnedLayers{hold: h, about: h.grips[0].onPage}
	if len(h.grips) > 1 {
		g.about = h.around().Centre()
	}
	g.last = angle(g.about, h.from)
	return g, nil
}

func angle(about, p geom.Point) float64 {
	return math.Atan2(p.Y-about.Y, p.X-about.X) * 180 / math.Pi
}

func (g *turnedLayers) to(at geom.Point, mod Modifiers) (edit.Command, Readout) {
	first := g.grips[0]
	now := angle(g.about, at)
	step := now - g.last
	for step > 180 {
		step -= 360
	}
	for step < -180 {
		step += 360
	}
	g.last = now
	g.turned += step
	by := g.turned
	if len(g.grips) > 1 {
		step := map[bool]float64{false: 0.1, true: 15}[mod.Shift]
		return g.turnTogether(math.Round(by/step) * step)
	}
	if mod.Shift {
		by = math.Round((first.layer.Place.Turn+by)/15)*15 - first.layer.Place.Turn
	} else {
		by = math.Round(by*10) / 10
	}
	var list []edit.Part
	for _, gr := range g.grips {
		p := gr.layer.Place
		v := geom.Rotate(p.Turn).ApplyVector(gr.pivot).Sub(geom.Rotate(p.Turn + by).ApplyVector(gr.pivot))
		list = append(list, edit.PlaceOf(gr.layer.ID, edit.Fields{"turn": p.Turn + by, "x": p.X + v.X, "y": p.Y + v.Y}))
	}
	total := first.layer.Place.Turn + by
	words := fmt.Sprintf("%.1f°", total)
	if n := math.Trunc(total / 360); n != 0 {
		words = fmt.Sprintf("%.1f° · %+.0f turns", total, n)
	}
	return edit.SetPlaces(list), Readout{Words: words}
}

// turnTogether turns several layers as one about the middle of all of them.
func (g *turnedLayers) turnTogether(by float64) (edit.Command, Readout) {
	m := geom.Rotate(by).About(g.about)
	var list []edit.Part
	for i := range g.grips {
		gr := &g.grips[i]
		x, y := gr.placed(m)
		list = append(list, edit.PlaceOf(gr.layer.ID, edit.Fields{"turn": gr.layer.Place.Turn + by, "x": x, "y": y}))
	}
	return edit.SetPlaces(list), Readout{Words: fmt.Sprintf("%+.1f°", by)}
}
