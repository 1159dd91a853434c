package session

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

var stackingAsked = table{
	// What lay behind lies in front, among the chosen layers of one group; the others stay where they are.
	"order.reverse": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		sc := s.scene(m)
		list := outermost(sc, s.layers(m, c.Threads))
		if len(list) < 2 {
			return nil, words.New("arrange.two")
		}
		_, parent := sc.Layer(list[0].ID)
		all, name := sc.Layers, ""
		if parent != nil {
			all, name = parent.Children, parent.ID
		}
		order := slices.Clone(all)
		var at []int
		for i, l := range order {
			if slices.Contains(list, l) {
				at = append(at, i)
			}
		}
		if len(at) != len(list) {
			return nil, words.New("arrange.apart")
		}
		for i, k := 0, len(at)-1; i < k; i, k = i+1, k-1 {
			order[at[i]], order[at[k]] = order[at[k]], order[at[i]]
		}
		return &edit.OrderLayers{IDs: ids(order), Parent: name, Index: 0}, nil
	}),
	// All layers of the scene are locked, or none is.
	"lock.all": of(func(s *Session, m Moment, c *struct {
		On bool `json:"on"`
	}) (edit.Command, error) {
		var set []edit.Part
		doc.Walk(s.scene(m).Layers, func(l, parent *doc.Layer) bool {
			if l.Locked != c.On && (parent == nil || !c.On) {
				set = append(set, edit.Part{ID: l.ID, Patch: edit.Fields{"locked": c.On}})
			}
			return true
		})
		if len(set) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: set}, nil
	}),
}
