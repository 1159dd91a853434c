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
	// A picture that is cut out becomes what is kept of it, and a ground behind it without that.
	"cutout.split": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Thread string     `json:"thread"`
		Hash   string     `json:"hash"` // of the ground
		Media  *doc.Media `json:"media"`
	}) (edit.Command, error) {
		list := s.Layers(m, []string{c.Thread})
		if len(list) != 1 || list[0].Picture == nil {
			return nil, words.New("picture.unselected")
		}
		l := list[0]
		return &edit.SplitPicture{ID: l.ID, Seed: s.NewID(), Ground: c.Hash, Media: c.Media, Names: [2]string{l.Name + " in front", l.Name + " behind"}}, nil
	}),
}
