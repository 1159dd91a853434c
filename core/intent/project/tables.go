package project

import (
	"slices"
	"strings"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
)

var tablesAsked = intent.Table{
	// Texts and pictures get a name for tables, in all scenes that they are in; an empty one takes it away.
	"table.name": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Name    string   `json:"name"`
	}) (edit.Command, error) {
		var set []edit.Part
		name := strings.TrimSpace(c.Name)
		for _, sc := range s.Doc.Film.Scenes {
			doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
				if slices.Contains(c.Threads, l.Thread) && (l.Text != nil || l.Picture != nil) && l.Column != name {
					set = append(set, edit.Part{ID: l.ID, Patch: edit.Fields{"column": name}})
				}
				return true
			})
		}
		if len(set) == 0 {
			return nil, nil
		}
		return &edit.SetLayers{Set: set}, nil
	}),
}
