package edit

import (
	"slices"

	"capstan/core/doc"
	"capstan/core/words"
)

// In carries out a command on one film of the project: without it, commands are about the first, or the one that is shown. On the wire it is the
// command with a field film.
type In struct {
	Film    string
	Command Command
}

// Op is the name of what is carried out.
func (c *In) Op() string { return c.Command.Op() }

func (c *In) apply(e *editor) error {
	before := e.p.Shows()
	if err := e.show(c.Film); err != nil {
		return err
	}
	if err := c.Command.apply(e); err != nil {
		return err
	}
	return e.show(before)
}

// show lets the commands that follow be about a film.
func (e *editor) show(film string) error {
	if film == e.p.Shows() {
		return nil
	}
	p := e.p.Showing(film)
	if p == nil {
		return words.New("film.gone")
	}
	e.p = shallow(p)
	return nil
}

// AddFilm puts another film into the project, empty but for one scene.
type AddFilm struct {
	ID     string `json:"id"`
	Name   string `json:"name"`
	Width  int    `json:"width"` // page px
	Height int    `json:"height"`
	Scene  string `json:"scene"` // the id of its scene
}

// Op is its name on the wire.
func (c *AddFilm) Op() string { return "film.add" }

func (c *AddFilm) apply(e *editor) error {
	made := doc.NewProject("x", c.Name, c.Width, c.Height, c.Scene)
	made.Film.Rate = e.p.Film.Rate
	return e.settled(func(p *doc.Project) {
		p.Films = append(slices.Clone(p.Films), &doc.NamedFilm{ID: c.ID, Name: c.Name, Film: made.Film})
	})
}

// DeleteFilms takes films out of the project, which keeps its first.
type DeleteFilms struct {
	IDs []string `json:"ids"`
}

// Op is its name on the wire.
func (c *DeleteFilms) Op() string { return "film.delete" }

func (c *DeleteFilms) apply(e *editor) error {
	if slices.Contains(c.IDs, e.p.Shows()) {
		return words.New("film.gone")
	}
	return e.settled(func(p *doc.Project) {
		p.Films = slices.DeleteFunc(slices.Clone(p.Films), func(f *doc.NamedFilm) bool { return slices.Contains(c.IDs, f.ID) })
		if len(p.Films) == 0 {
			p.Films = nil // as it is read again
		}
	})
}

// settled changes the project as a whole, whichever film is shown.
func (e *editor) settled(f func(p *doc.Project)) error {
	film := e.p.Shows()
	p := *e.p.Settled()
	f(&p)
	e.p = shallow(&p)
	return e.show(film)
}
