package arrange

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var maskingAsked = intent.Table{
	// One layer in a group becomes the mask of the others, or ceases to be; of several the front-most becomes that of a new group.
	"mask": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		How     string   `json:"how"` // inside, outside; empty: a layer like others
	}) (edit.Command, error) {
		sc := s.Scene(m)
		list := scope.Outermost(sc, s.Layers(m, c.Threads))
		if len(list) > 1 {
			return grouped(s, m, list, c.How), nil
		}
		if len(list) == 0 {
			return nil, nil
		}
		if _, parent := sc.Layer(list[0].ID); parent == nil {
			return nil, words.New("mask.alone")
		}
		return &edit.SetLayers{Set: []edit.Part{{ID: list[0].ID, Patch: edit.Fields{"mask": c.How}}}}, nil
	}),
}

// grouped returns the command that puts layers into a group, the front-most as a mask of the others where mask says so.
func grouped(s *intent.Desk, m scope.Moment, list []*doc.Layer, mask string) edit.Command {
	all := make([]string, len(list))
	for i, l := range list {
		all[i] = l.Thread
	}
	at := united(atRest(s, m, all)).Centre()
	return &edit.GroupLayers{
		IDs: scope.IDs(list), ID: s.NewID(), Thread: s.NewID(), Name: scope.NameFor(s.Scene(m), "Group"), Tint: list[len(list)-1].Tint,
		X: at.X, Y: at.Y, Mask: mask,
	}
}
