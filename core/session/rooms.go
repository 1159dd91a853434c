package session

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
)

// What the box of a text does, beside the rooms of the document.
const (
	growsRoom = "grows"
	wrapsRoom = "wraps"
)

// Fit is how the words of a text fill a box of a height of its own.
type Fit struct {
	Scale float64 `json:"scale"` // of their sizes
	Over  float64 `json:"over"`  // px that the box is too low for them
}

var roomsAsked = table{
	// The box of a text grows with its words, breaks lines at its width, keeps its height, or has the words fill it. It stays where it is.
	"text.room": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Room    string   `json:"room"`
	}) (edit.Command, error) {
		var list []edit.Part
		for _, l := range s.layers(m, c.Threads) {
			if l.Kind != doc.TextKind || l.Text.Ring != nil || l.Text.Stacked {
				continue
			}
			box, _ := s.shown.Box(s.sceneIndex(m), l.ID)
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

// roomy reports whether a layer is a text whose box has a height of its own.
func roomy(l *doc.Layer) bool { return l.Kind == doc.TextKind && l.Text.Room != "" && l.Text.Wraps() }

// roomTyped returns what puts typed numbers into the box of a text that wraps, about its middle; false where they scale it.
func roomTyped(l *doc.Layer, box geom.Box, at geom.Point, w, h *float64) (edit.Part, bool) {
	if l.Kind != doc.TextKind || !l.Text.Wraps() || h != nil && !roomy(l) || w == nil && h == nil {
		return edit.Part{}, false
	}
	set := edit.Fields{"x": at.X, "y": at.Y}
	if w != nil {
		set["w"] = math.Max(*w, 1)
	}
	if h != nil {
		set["h"] = math.Max(*h, 1)
		by := geom.Rotate(l.Place.Turn).ApplyVector(geom.Point{Y: (box.H() - math.Max(*h, 1)) / 2})
		set["x"], set["y"] = at.X+by.X, at.Y+by.Y
	}
	return placeOf(l.ID, set), true
}
