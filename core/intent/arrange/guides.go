package arrange

import (
	"math"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// maxGuides is how many guides a scene has at most.
const maxGuides = 100

// setGuides is the command that gives the scene its guides.
func setGuides(sc *doc.Scene, list []doc.Guide) (edit.Command, error) {
	if len(list) > maxGuides {
		return nil, words.New("guides.many", maxGuides)
	}
	var v any = list
	if len(list) == 0 {
		v = nil
	}
	return &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"guides": v}}, nil
}

var guidesAsked = intent.Table{
	// A guide is put down, moved (index counts from 0), or taken away (no place).
	"guide": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Index *int     `json:"index"`
		Axis  string   `json:"axis"` // of a new one: upright, level
		At    *float64 `json:"at"`   // page px
	}) (edit.Command, error) {
		sc := s.Scene(m)
		list := append([]doc.Guide(nil), sc.Guides...)
		switch {
		case c.Index == nil && c.At != nil && (c.Axis == doc.Upright || c.Axis == doc.Level):
			list = append(list, doc.Guide{Axis: c.Axis, At: *c.At})
		case c.Index == nil || *c.Index < 0 || *c.Index >= len(list):
			return nil, words.New("intent.unreadable", "guide", c.Axis)
		case c.At == nil:
			list = append(list[:*c.Index], list[*c.Index+1:]...)
		default:
			list[*c.Index].At = *c.At
		}
		return setGuides(sc, list)
	}),
	// Guides along the edges and through the middles of layers, or none at all any more.
	"guides.of": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		sc := s.Scene(m)
		if len(c.Threads) == 0 {
			return setGuides(sc, nil)
		}
		list := append([]doc.Guide(nil), sc.Guides...)
		there := map[doc.Guide]bool{}
		for _, g := range list {
			there[g] = true
		}
		for _, r := range atRest(s, m, c.Threads) {
			for _, name := range []string{"left", "centre", "right", "top", "middle", "bottom"} {
				at, down, _ := edge(r.box, name)
				g := doc.Guide{Axis: map[bool]string{false: doc.Upright, true: doc.Level}[down], At: math.Round(at*100) / 100}
				if !there[g] {
					there[g] = true
					list = append(list, g)
				}
			}
		}
		return setGuides(sc, list)
	}),
}
