package project

import (
	"math"
	"slices"

	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/words"
)

var replacingAsked = intent.Table{
	// Another picture in the place of one: on the threads given, or wherever the old one is used. It keeps the crop when it has
	// the same proportions, and fits into the old box otherwise.
	"picture.replace": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		From    string     `json:"from"`
		Hash    string     `json:"hash"`
		Media   *doc.Media `json:"media"`
		Threads []string   `json:"threads"`
	}) (edit.Command, error) {
		if c.Media == nil || c.Media.Width < 1 || c.Media.Height < 1 {
			return nil, words.New("picture.none")
		}
		if c.Hash == c.From {
			return nil, nil // the missing file itself: it is there again
		}
		alike := false
		if old := s.Doc.Media[c.From]; old != nil {
			alike = math.Abs(float64(old.Width*c.Media.Height)/float64(old.Height*c.Media.Width)-1) < 0.005
		}
		var set []edit.Part
		for _, sc := range s.Doc.Film.Scenes {
			doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
				if l.Picture == nil || l.Picture.Media != c.From || len(c.Threads) > 0 && !slices.Contains(c.Threads, l.Thread) {
					return true
				}
				patch := edit.Fields{"picture": edit.Fields{"media": c.Hash}}
				if !alike {
					w, h := float64(c.Media.Width), float64(c.Media.Height)
					k := min(l.Place.W/w, l.Place.H/h)
					patch["picture"] = edit.Fields{"media": c.Hash, "crop": nil}
					patch["place"] = edit.Fields{"w": w * k, "h": h * k}
				}
				set = append(set, edit.Part{ID: l.ID, Patch: patch})
				return true
			})
		}
		if len(set) == 0 {
			return nil, nil
		}
		return edit.All(
			&edit.AddMedia{Hash: c.Hash, Media: c.Media}, &edit.SetLayers{Set: set},
		), nil
	}),
	// The whole project as it was at a stage, but for its name: one step, and one to undo.
	"stage.return": intent.Of(func(s *intent.Desk, _ scope.Moment, c *struct {
		Document jsontext.Value `json:"document"`
	}) (edit.Command, error) {
		p, err := doc.Read(c.Document)
		if err != nil {
			return nil, err
		}
		p.ID, p.Name = s.Doc.ID, s.Doc.Name
		changes, err := patch.Between(s.Doc, p)
		if err != nil || len(changes) == 0 {
			return nil, err
		}
		return &edit.ApplyPatch{Changes: changes}, nil
	}),
}
