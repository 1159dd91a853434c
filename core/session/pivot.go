package session

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
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
