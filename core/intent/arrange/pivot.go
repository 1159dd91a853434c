package arrange

import (
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
)

var pivotAsked = intent.Table{
	// The pivot as a share of the layer's box, both ways; absent: the middle again.
	"pivot": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		X       *float64 `json:"x"`
		Y       *float64 `json:"y"`
		Reset   bool     `json:"reset"`
	}) (edit.Command, error) {
		var list []edit.Part
		i := s.SceneIndex(m)
		for _, l := range s.Layers(m, c.Threads) {
			box, was := s.Shown.Box(i, l.ID)
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
			patch := edit.Pivoted(l, was, to)
			if c.Reset {
				patch["pivot"] = nil
			}
			list = append(list, edit.PlaceOf(l.ID, patch))
		}
		if len(list) == 0 {
			return nil, nil
		}
		return edit.SetPlaces(list), nil
	}),
}
