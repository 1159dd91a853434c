package joining

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

var mergingAsked = intent.Table{
	// Layers become a picture that the server has painted of them, at rest, where it lies on the page.
	"merge": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string   `json:"threads"`
		Hash    string     `json:"hash"`
		Media   *doc.Media `json:"media"`
		Box     [4]float64 `json:"box"` // left, top, width, height: page px
	}) (edit.Command, error) {
		list := s.InOrder(m, c.Threads)
		if len(list) == 0 || c.Media == nil {
			return nil, words.New("merge.nothing")
		}
		outer := s.Shown.Ancestry(s.SceneIndex(m), list[0].ID)
		inv, ok := outer.Inverse()
		if !ok {
			return nil, words.New("combine.flat", list[0].Name)
		}
		at := inv.Apply(geom.Point{X: c.Box[0] + c.Box[2]/2, Y: c.Box[1] + c.Box[3]/2})
		become := edit.Fields{
			"kind": doc.Picture, "picture": edit.Fields{"media": c.Hash}, "path": nil, "text": nil, "shape": nil, "corner": nil,
			"fill": doc.Fill{Kind: doc.NoFill}, "stroke": nil, "opacity": 1, "blend": nil, "blur": nil, "feather": nil, "shadow": nil, "glow": nil, "adjust": nil,
			"place": edit.Fields{"x": at.X, "y": at.Y, "w": c.Box[2], "h": c.Box[3], "turn": -geom.AngleOf(outer), "flipX": nil, "flipY": nil, "pivot": nil},
		}
		return edit.All(
			&edit.AddMedia{Hash: c.Hash, Media: c.Media},
			&edit.CombineLayers{IDs: scope.IDs(list), How: doc.MadePicture, Become: become},
		), nil
	}),
}
