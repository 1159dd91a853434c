package edit

import (
	"capstan/core/doc"
	"capstan/core/words"
)

// CutOut lifts what is kept of pictures off its ground, or, without a cut-out, shows them whole again. A mask that nothing shows any more leaves the project's
// media.
type CutOut struct {
	IDs   []string    `json:"ids"`
	Cut   *doc.Cutout `json:"cut"`
	Media *doc.Media  `json:"media,omitzero"` // of the mask, where it is new
}

// Op is its name on the wire.
func (c *CutOut) Op() string { return "picture.cut" }

func (c *CutOut) apply(e *editor) error {
	if c.Cut != nil && c.Media != nil {
		if err := (&AddMedia{Hash: c.Cut.Mask, Media: c.Media}).apply(e); err != nil {
			return err
		}
	}
	old := map[string]bool{}
	for _, id := range c.IDs {
		l, err := e.head(id)
		if err != nil {
			return err
		}
		if l.Picture == nil {
			return words.New("picture.unselected")
		}
		if v := l.Picture.Cut; v != nil {
			old[v.Mask] = true
		}
		u := *l.Picture
		u.Cut = nil
		if c.Cut != nil {
			one := *c.Cut
			u.Cut = &one
		}
		l.Picture = &u
	}
	for hash := range old {
		used := false
		e.p.EachFilm(func(_ string, f *doc.Film) {
			for _, s := range f.Scenes {
				used = used || s.Background.Media == hash || doc.Uses(s.Layers, hash, e.p.Media[hash])
			}
		})
		if !used {
			delete(e.p.Media, hash)
		}
	}
	return nil
}
