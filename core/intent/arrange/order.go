package arrange

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var orderAsked = intent.Table{
	// What lay behind lies in front, among the chosen layers of one group; the others stay where they are.
	"order.reverse": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		sc := s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
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
		return &edit.OrderLayers{IDs: scope.IDs(order), Parent: name, Index: 0}, nil
	}),
	// All layers of the scene are locked, or none is.
	"lock.all": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		On bool `json:"on"`
	}) (edit.Command, error) {
		var set []edit.Part
		doc.Walk(s.Scene(m).Layers, func(l, parent *doc.Layer) bool {
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
