package pictures

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var cuttingAsked = intent.Table{
	// What is kept of pictures of one file is lifted off its ground; without a cut-out they are whole again.
	"cutout.set": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string    `json:"threads"`
		Cut     *doc.Cutout `json:"cut"`
		Media   *doc.Media  `json:"media"` // of its mask
	}) (edit.Command, error) {
		var ids []string
		for _, l := range s.Layers(m, c.Threads) {
			if l.Picture != nil && (c.Cut == nil || l.Picture.Media == c.Cut.Of) {
				ids = append(ids, l.ID)
			}
		}
		if len(ids) == 0 {
			return nil, words.New("picture.unselected")
		}
		return &edit.CutOut{IDs: ids, Cut: c.Cut, Media: c.Media}, nil
	}),
}
