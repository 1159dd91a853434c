package delivery

import (
	"bytes"
	"maps"
	"slices"

	"capstan/core/doc"
	"capstan/core/frame"
)

// SamePictures reports whether two films show the same pictures at the same times, whatever is heard of them.
func SamePictures(a, b *frame.Film) bool {
	x, y := a.Order, b.Order
	if x.Length != y.Length || x.Closing != y.Closing || !slices.Equal(x.Starts, y.Starts) || !slices.Equal(x.Into, y.Into) || !slices.Equal(x.Stays, y.Stays) {
		return false
	}
	for i := range a.Doc.Film.Scenes {
		if i >= len(b.Doc.Film.Scenes) || !maps.Equal(a.Timing(i).Moves, b.Timing(i).Moves) { // moves may hang on sounds
			return false
		}
	}
	if a.Doc.Film.Captions != nil && !slices.Equal(a.Captions(), b.Captions()) {
		return false
	}
	m, err := unheard(a.Doc)
	n, other := unheard(b.Doc)
	return err == nil && other == nil && bytes.Equal(m, n)
}

// unheard is all of a document that its film shows.
func unheard(p *doc.Project) ([]byte, error) {
	film := p.Film
	film.Sounds, film.Mix, film.Scenes = nil, nil, make([]*doc.Scene, 0, len(p.Film.Scenes))
	for _, s := range p.Film.Scenes {
		if s.Aside {
			continue
		}
		n := *s
		n.Sounds, n.Captions = nil, nil
		film.Scenes = append(film.Scenes, &n)
	}
	shown := struct {
		Film   doc.Film              `json:"film"`
		Films  []*doc.NamedFilm      `json:"films"`
		Insets []*doc.Inset          `json:"insets"`
		Roles  []*doc.RoleSet        `json:"roles"`
		Media  map[string]*doc.Media `json:"media"`
	}{film, nil, p.Insets, p.RoleSets, map[string]*doc.Media{}}
	if len(p.Insets) > 0 {
		shown.Films = p.Films
	}
	for hash, m := range p.Media {
		if !m.IsSound() {
			shown.Media[hash] = m
		}
	}
	return doc.Encode(&shown)
}
