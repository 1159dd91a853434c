package edit

import (
	"strings"

	"capstan/core/doc"
	"capstan/core/patch"
	"capstan/core/words"
)

// RenameProject gives the project another name, which may not be blank.
type RenameProject struct {
	Name string `json:"name"`
}

// Op is its name on the wire.
func (c *RenameProject) Op() string { return "project.rename" }

func (c *RenameProject) apply(e *editor) error {
	if strings.TrimSpace(c.Name) == "" {
		return words.New("project.name")
	}
	e.p.Name = strings.TrimSpace(c.Name)
	return nil
}

// SetProject changes what the project has put aside: palette, looks, roleSets.
type SetProject struct {
	Patch Fields `json:"patch"`
}

// Op is its name on the wire.
func (c *SetProject) Op() string { return "project.set" }

func (c *SetProject) apply(e *editor) error {
	old := struct {
		Palette  []string         `json:"palette,omitzero"`
		Looks    []*doc.SavedLook `json:"looks,omitzero"`
		RoleSets []*doc.RoleSet   `json:"roleSets,omitzero"`
	}{e.p.Palette, e.p.Looks, e.p.RoleSets}
	next, err := merged(&old, c.Patch, "id", "name", "film", "media", "version")
	if err != nil {
		return err
	}
	e.p.Palette, e.p.Looks, e.p.RoleSets = next.Palette, next.Looks, next.RoleSets
	return nil
}

// SetFilm changes fields of the film itself: its size, rate, closing and the like, not its scenes.
type SetFilm struct {
	Patch Fields `json:"patch"`
}

// Op is its name on the wire.
func (c *SetFilm) Op() string { return "film.set" }

func (c *SetFilm) apply(e *editor) error {
	old := e.p.Film
	old.Scenes, old.Sounds = nil, nil
	f, err := merged(&old, c.Patch, "scenes", "sounds")
	if err != nil {
		return err
	}
	f.Scenes, f.Sounds = e.p.Film.Scenes, e.p.Film.Sounds
	e.p.Film = *f
	return nil
}

// AddMedia tells the document of a file that was taken in.
type AddMedia struct {
	Hash  string     `json:"hash"`
	Media *doc.Media `json:"media"`
}

// Op is its name on the wire.
func (c *AddMedia) Op() string { return "media.add" }

func (c *AddMedia) apply(e *editor) error {
	if e.p.Media == nil {
		e.p.Media = map[string]*doc.Media{}
	}
	m := c.Media.Clone()
	if old := e.p.Media[c.Hash]; old != nil { // who made it has been said
		m.Source, m.Licence = old.Source, old.Licence
		if m.Name == "" {
			m.Name = old.Name
		}
	}
	e.p.Media[c.Hash] = m
	return nil
}

// CreditMedia says who made a file, or where it is from, and how it may be used.
type CreditMedia struct {
	Hash    string `json:"hash"`
	Source  string `json:"source"`
	Licence string `json:"licence"`
}

// Op is its name on the wire.
func (c *CreditMedia) Op() string { return "media.credit" }

func (c *CreditMedia) apply(e *editor) error {
	m := e.p.Media[c.Hash].Clone()
	if m == nil {
		return words.New("picture.gone")
	}
	m.Source, m.Licence = strings.TrimSpace(c.Source), strings.TrimSpace(c.Licence)
	e.p.Media[c.Hash] = m
	return nil
}

// ApplyPatch carries out a patch, as undo and redo do. It is refused where a field no longer holds what the patch found there.
type ApplyPatch struct {
	Changes patch.Patch `json:"changes"`
}

// Op is its name on the wire.
func (c *ApplyPatch) Op() string { return "patch" }

func (c *ApplyPatch) apply(e *editor) error {
	film := e.p.Shows()
	p, err := c.Changes.Apply(e.p)
	if err != nil {
		return err
	}
	e.p, e.cloned, e.thin, e.patched = shallow(p), map[string]*doc.Scene{}, nil, true
	return e.show(film)
}
