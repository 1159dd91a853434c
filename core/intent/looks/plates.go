package looks

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/ink"
	"capstan/core/intent"
	"capstan/core/paint"
	"capstan/core/scope"
)

// plateBefore is the plate that was taken away last, or the foremost of the scene.
func plateBefore(s *intent.Desk, sc *doc.Scene) *doc.Plate {
	v := s.LastPlate
	doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
		if l.Text != nil && l.Text.Plate != nil && s.LastPlate == nil {
			v = l.Text.Plate
		}
		return true
	})
	return v
}

var platesAsked = intent.Table{
	// A plate behind texts: put there as the last one was, or in a readable tone of what lies behind; changed; taken away.
	"text.plate": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		On      *bool       `json:"on"`
		Behind  string      `json:"behind"` // the colour that lies behind the words
		Patch   edit.Fields `json:"patch"`
	}) (edit.Command, error) {
		sc := s.Scene(m)
		var list []edit.Part
		for _, l := range s.Layers(m, c.Threads) {
			if l.Kind != doc.TextKind {
				continue
			}
			var plate any
			switch {
			case c.On != nil && !*c.On:
				if l.Text.Plate == nil {
					continue
				}
				s.LastPlate = l.Text.Plate
			case c.On != nil && l.Text.Plate != nil:
				continue
			case c.On != nil && plateBefore(s, sc) != nil:
				v := plateBefore(s, sc)
				plate = *v
			case c.On != nil:
				words, err := paint.Parse(ink.Code(l.Fill.Colour, l.Fill.Role, l.Fill.Tone, sc))
				if err != nil {
					words = paint.Black
				}
				behind, err := paint.Parse(c.Behind)
				if err != nil {
					behind = paint.White
				}
				size := l.Text.Runs[0].Size
				plate = edit.Fields{"colour": ink.ReadableOn(behind, words).String(), "padding": math.Round(size * 0.22), "corner": math.Round(size * 0.2)}
			default:
				plate = c.Patch
			}
			list = append(list, edit.Part{ID: l.ID, Patch: edit.Fields{"text": edit.Fields{"plate": plate}}})
		}
		if len(list) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: list}, nil
	}),
}
