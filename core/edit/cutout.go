package edit

import (
	"fmt"
	"slices"

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
	if c.Cut != nil {
		if of, mask := e.p.Media[c.Cut.Of], e.p.Media[c.Cut.Mask]; of != nil && mask != nil && (of.Width != mask.Width || of.Height != mask.Height) {
			return words.New("cutout.size", fmt.Sprintf("%d × %d", mask.Width, mask.Height), fmt.Sprintf("%d × %d", of.Width, of.Height))
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

// SplitPicture makes two of a picture that is cut out: what is kept of it stays in front, and where it was a ground without it comes. Both have its place, its
// looks and its moves.
type SplitPicture struct {
	ID     string     `json:"id"`
	Seed   string     `json:"seed"`
	Ground string     `json:"ground"` // hash of the picture behind
	Media  *doc.Media `json:"media"`  // of it
	Names  [2]string  `json:"names"`  // of what is in front, and of the ground
}

// Op is its name on the wire.
func (c *SplitPicture) Op() string { return "picture.split" }

func (c *SplitPicture) apply(e *editor) error {
	if c.Media == nil {
		return words.New("picture.none")
	}
	l, _, _, err := e.layer(c.ID)
	if err != nil {
		return err
	}
	if l.Picture == nil || l.Picture.Shows() == l.Picture.Media {
		return words.New("cutout.whole")
	}
	if err := (&AddMedia{Hash: c.Ground, Media: c.Media}).apply(e); err != nil {
		return err
	}
	if err := (&DuplicateLayers{IDs: []string{c.ID}, Seed: c.Seed}).apply(e); err != nil {
		return err
	}
	l, parent, s, err := e.layer(c.ID)
	if err != nil {
		return err
	}
	list := *siblings(s, parent)
	front := list[slices.Index(list, l)+1]
	// The thread goes on with what is kept of the picture.
	l.Thread, front.Thread = front.Thread, l.Thread
	front.Name, l.Name = c.Names[0], c.Names[1]
	front.Mask = l.Mask
	ground := *l.Picture
	ground.Media, ground.Cut = c.Ground, nil
	l.Picture = &ground
	// What falls around a picture is that of its ground.
	front.Shadow, front.Glow, front.Feather = nil, nil, 0
	return nil
}
