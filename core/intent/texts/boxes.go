package texts

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
)

// What the box of a text does, beside the rooms of the document.
const (
	growsRoom = "grows"
	wrapsRoom = "wraps"
)

var boxesAsked = intent.Table{
	// The box of a text grows with its words, breaks lines at its width, keeps its height, or has the words fill it. It stays where it is.
	"text.room": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Room    string   `json:"room"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind || l.Text.Ring != nil || l.Text.Stacked {
				continue
			}
			box, _ := s.Shown.Box(s.SceneIndex(m), l.ID)
			at, set, place := box.Centre().X, edit.Fields{"wrap": true, "room": nil}, edit.Fields{}
			switch c.Room {
			case growsRoom:
				set["wrap"] = nil
				at = map[string]float64{doc.Left: box.Min.X, doc.Right: box.Max.X, doc.Justified: box.Min.X, doc.Centre: at}[l.Text.Align]
				if l.Text.Align == doc.Justified {
					set["align"] = doc.Left
				}
			case wrapsRoom:
			default:
				set["room"] = c.Room
				if l.Text.Room == "" {
					place["h"] = math.Ceil(box.H())
				}
			}
			if c.Room != growsRoom && !l.Text.Wrap {
				wide := math.Ceil(box.W()) + 1 // room for what rounding adds: no line breaks that did not before
				place["w"] = wide
				at += map[string]float64{doc.Left: 0.5, doc.Right: -0.5}[l.Text.Align] * (wide - box.W())
			}
			by := geom.Rotate(l.Place.Turn).ApplyVector(geom.Point{X: at})
			place["x"], place["y"] = l.Place.X+by.X, l.Place.Y+by.Y
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"text": set, "place": place}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}
