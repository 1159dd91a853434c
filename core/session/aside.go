package session

import (
	"capstan/core/edit"
	"capstan/core/words"
)

// asideName is what the scene is called where layers lie that are set aside.
const asideName = "Aside"

var asideAsked = table{
	// Layers leave the scene for one that is not in the film, which is made when there is none.
	"set.aside": of(func(s *Session, m Moment, c *threads) (edit.Command, error) {
		if s.scene(m).Aside {
			return nil, words.New("aside.already")
		}
		film := &s.doc.Film
		var list []edit.Command
		var to string
		if n := len(film.Shown()); n < len(film.Scenes) {
			to = film.Scenes[n].ID
		} else {
			to = s.id()
			list = append(list, &edit.AddScene{ID: to, Index: n, Name: asideName, Aside: true})
		}
		return s.toScene(m, c.Threads, to, list), nil
	}),
	// Layers that were set aside come back into a scene of the film.
	"bring.back": of(func(s *Session, m Moment, c *struct {
		Threads []string `json:"threads"`
		Scene   int      `json:"scene"`
	}) (edit.Command, error) {
		shown := s.doc.Film.Shown()
		if !s.scene(m).Aside || c.Scene < 0 || c.Scene >= len(shown) {
			return nil, words.New("scene.gone")
		}
		return s.toScene(m, c.Threads, shown[c.Scene].ID, nil), nil
	}),
}

// toScene returns the commands that take layers out of the moment's scene and put them into another, where they were on the page, after those of
// list. They keep their threads where these are free there.
func (s *Session) toScene(m Moment, chosen []string, scene string, list []edit.Command) edit.Command {
	held := s.Copy(m, chosen)
	if len(held.Layers) == 0 {
		return nil
	}
	gone := ids(held.Layers)
	return edit.All(append(list,
		&edit.PasteLayers{Scene: scene, Layers: held.Layers, Seed: s.id(), Begins: held.Begins},
		&edit.DeleteLayers{IDs: gone},
	)...)
}
