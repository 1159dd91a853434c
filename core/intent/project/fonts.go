package project

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var fontsAsked = intent.Table{
	// A font file becomes one of the document's own.
	"font.add": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Hash  string     `json:"hash"`
		Media *doc.Media `json:"media"`
	}) (edit.Command, error) {
		if c.Media == nil || !c.Media.IsFont() {
			return nil, words.New("font.kind")
		}
		if s.Doc.Media[c.Hash] != nil {
			return nil, nil // it is there
		}
		return &edit.AddMedia{Hash: c.Hash, Media: c.Media}, nil
	}),
}
