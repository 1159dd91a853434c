package arrange

import (
	"capstan/core/edit"
	"capstan/core/intent"
	"capstan/core/scope"
	"capstan/core/words"
)

// asideName is what the scene is called where layers lie that are set aside.
const asideName = "Aside"

var asideAsked = intent.Table{
	// Layers leave the scene for one that is not in the film, which is made when there is none.
	"set.aside": intent.Of(func(s *intent.Desk, m scope.Moment, c *intent.Threads) (edit.Command, error) {
		if s.Scene(m).Aside {
			return nil, words.New("aside.already")
		}
		film := &s.Doc.Film
		var list []edit.Command
		var to string
		n := len(film.Shown())
		for _, sc := range film.Scenes[n:] {
			if !sc.Template && to == "" {
				to = sc.ID
			}
		}
		if to == "" {
			to = s.NewID()
			list = append(list, &edit.AddScene{ID: to, Index: n, Name: asideName, Aside: true})
		}
		return toScene(s, m, c.Threads, to, list), nil
	}),
	// Layers that were set aside come back into a scene of the film.
	"bring.back": intent.Of(func(s *intent.Desk, m scope.Moment, c *struct {
		Threads []string `json:"threads"`
		Scene   int      `json:"scene"`
	}) (edit.Command, error) {
		shown := s.Doc.Film.Shown()
		if !s.Scene(m).Aside || c.Scene < 0 || c.Scene >= len(shown) {
			return nil, words.New("scene.gone")
		}
		return toScene(s, m, c.Threads, shown[c.Scene].ID, nil), nil
	}),
}

// toScene returns the commands that take layers out of the moment's scene and put them into another, where they were on the page, after those of
// list. They keep their threads where these are free there.
func toScene(s *intent.Desk, m scope.Moment, chosen []string, scene string, list []edit.Command) edit.Command {
	held := Copy(s, m, chosen)
	if len(held.Layers) == 0 {
		return nil
	}
	gone := scope.IDs(held.Layers)
	return edit.All(append(list,
		&edit.PasteLayers{Scene: scene, Layers: held.Layers, Seed: s.NewID(), Begins: held.Begins},
		&edit.DeleteLayers{IDs: gone},
	)...)
}
