package scenes

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
)

var strandsAsked = intent.Table{
	// How threads go through a morph: which way they turn, when, and by which way.
	"strand.set": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Scene   string   `json:"scene"` // that the morph leads into; the first: back to it
		Turn    *string  `json:"turn"`
		Turns   *int     `json:"turns"`
		Easing  *string  `json:"easing"` // empty: that of the transition
		Delay   *float64 `json:"delay"`
		Arc     *float64 `json:"arc"`
		Wing    *string  `json:"wing"`
		Letters *bool    `json:"letters"`
	}) (edit.Command, error) {
		return s.SetStrands(c.Scene, c.Threads, func(own *doc.Strand) error {
			if c.Turn != nil {
				own.Turn = *c.Turn
			}
			if c.Turns != nil {
				own.Turns = *c.Turns
			}
			if c.Easing != nil {
				own.Easing = *c.Easing
			}
			if c.Delay != nil {
				own.Delay = *c.Delay
			}
			if c.Letters != nil {
				own.Letters = *c.Letters
			}
			if c.Wing != nil {
				own.Wing = *c.Wing
			}
			if c.Arc != nil {
				own.Arc = *c.Arc
			}
			return nil
		})
	}),
}
