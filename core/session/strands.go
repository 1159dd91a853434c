package session

import (
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/morph"
	"capstan/core/words"
)

// Strand is how a thread goes through one morph.
type Strand struct {
	Scene   string  `json:"scene"` // that it leads into
	From    string  `json:"from"`  // names of both scenes
	To      string  `json:"to"`
	Closing bool    `json:"closing"` // it is the one back to the first scene
	Turn    string  `json:"turn"`    // which way it turns, as it is set; empty: as it comes
	Turns   int     `json:"turns"`   // whole turns more
	By      float64 `json:"by"`      // degrees, clockwise
}

// strandInto returns how a thread goes through the morph into scene i of the film, or, of the first, back to it. False: it does not.
func (s *Session) strandInto(i int, thread string) (Strand, bool) {
	f := &s.shown.Doc.Film
	shown := f.Shown()
	if i >= len(shown) {
		return Strand{}, false
	}
	t, from := &shown[i].Transition, i-1
	if i == 0 {
		t, from = f.Closing, len(shown)-1
		if !f.Loop || len(shown) < 2 {
			return Strand{}, false
		}
	}
	if t == nil || t.Kind != doc.Morph {
		return Strand{}, false
	}
	a, b := s.shown.Thread(from, thread), s.shown.Thread(i, thread)
	if a == nil || b == nil {
		return Strand{}, false
	}
	own := t.Threads[thread]
	by := morph.Turned(a.Place.Turn, b.Place.Turn, s.shown.Strand(i, thread)) - a.Place.Turn
	return Strand{shown[i].ID, shown[from].Name, shown[i].Name, i == 0, own.Turn, own.Turns, by}, true
}

// strandsOf returns the morphs that a thread goes through into a scene and, of the last, out of it.
func (s *Session) strandsOf(i int, thread string) []Strand {
	out := []Strand{}
	if v, ok := s.strandInto(i, thread); ok {
		out = append(out, v)
	}
	if n := len(s.shown.Doc.Film.Shown()); i == n-1 && n > 1 {
		if v, ok := s.strandInto(0, thread); ok {
			out = append(out, v)
		}
	}
	return out
}

var strandsAsked = table{
	// Which way threads turn through a morph.
	"strand.turn": of(func(s *Session, _ Moment, c *struct {
		Threads []string `json:"threads"`
		Scene   string   `json:"scene"` // that the morph leads into; the first: back to it
		Turn    *string  `json:"turn"`
		Turns   *int     `json:"turns"`
	}) (edit.Command, error) {
		i, sc := s.doc.Scene(c.Scene)
		if sc == nil {
			return nil, words.New("scene.gone")
		}
		t := &sc.Transition
		if i == 0 {
			t = s.doc.Film.Closing
		}
		if t == nil || t.Kind != doc.Morph {
			return nil, words.New("strand.none")
		}
		set := edit.Fields{}
		for _, thread := range c.Threads {
			own := t.Threads[thread]
			if c.Turn != nil {
				own.Turn = *c.Turn
			}
			if c.Turns != nil {
				own.Turns = *c.Turns
			}
			if set[thread] = nil; own != (doc.Strand{}) {
				set[thread] = own
			}
		}
		if i == 0 {
			return &edit.SetFilm{Patch: edit.Fields{"closing": edit.Fields{"threads": set}}}, nil
		}
		return &edit.SetScenes{IDs: []string{sc.ID}, Patch: edit.Fields{"transition": edit.Fields{"threads": set}}}, nil
	}),
}
