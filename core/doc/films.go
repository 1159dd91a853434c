package doc

import (
	"slices"

	"capstan/core/words"
)

// NamedFilm is a film of a project beside its first one. Ids are unique in the project, whichever film they are in, and a thread lives in one
// film alone.
type NamedFilm struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Film Film   `json:"film"`
}

// MaxFilms is how many films a project has beside its first one at most.
const MaxFilms = 50

// EachFilm calls f for every film with its id; that of the first is empty.
func (p *Project) EachFilm(f func(id string, film *Film)) {
	p = p.Settled()
	f("", &p.Film)
	for _, v := range p.Films {
		if v != nil {
			f(v.ID, &v.Film)
		}
	}
}

// FindScene finds a scene of any film by its id; nil where there is none.
func (p *Project) FindScene(id string) (found *Scene) {
	p.EachFilm(func(_ string, film *Film) {
		for _, s := range film.Scenes {
			if s != nil && s.ID == id {
				found = s
			}
		}
	})
	return
}

// Showing returns the project with the film of an id in the place of its first one, for all that works on one film; nil where there is no such
// film. What is changed in it is changed in the project by Settled.
func (p *Project) Showing(id string) *Project {
	if id == p.shows {
		return p
	}
	p = p.Settled()
	i := slices.IndexFunc(p.Films, func(v *NamedFilm) bool { return v != nil && v.ID == id })
	if id != "" && i < 0 {
		return nil
	}
	if id == "" {
		return p
	}
	c := *p
	first := p.Film
	c.first, c.shows, c.Film = &first, id, p.Films[i].Film
	return &c
}

// FilmOf is Showing with an error in words where there is no such film.
func (p *Project) FilmOf(id string) (*Project, error) {
	if q := p.Showing(id); q != nil {
		return q, nil
	}
	return nil, words.New("film.gone")
}

// Shows is the id of the film that stands in the place of the first one; empty: none does.
func (p *Project) Shows() string { return p.shows }

// Settled returns the project as it is stored, each film in its place.
func (p *Project) Settled() *Project {
	if p.shows == "" {
		return p
	}
	c := *p
	c.first, c.shows, c.Film = nil, "", *p.first
	c.Films = slices.Clone(p.Films)
	for i, v := range c.Films {
		if v != nil && v.ID == p.shows {
			c.Films[i] = &NamedFilm{v.ID, v.Name, p.Film}
		}
	}
	return &c
}
