package view

import (
	"capstan/core/doc"
	"capstan/core/morph"
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
	Easing  string  `json:"easing"`  // of its own; empty: as the transition
	Delay   float64 `json:"delay"`   // share of the transition that it waits
	Arc     float64 `json:"arc"`     // share of its way that its arc is high; above 0 to the right
	Moves   bool    `json:"moves"`   // it goes from one place to another
}

// strandInto returns how a thread goes through the morph into scene i of the film, or, of the first, back to it. False: it does not.
func (s *Views) strandInto(i int, thread string) (Strand, bool) {
	f := &s.Shown.Doc.Film
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
	a, b := s.Shown.Thread(from, thread), s.Shown.Thread(i, thread)
	if a == nil || b == nil {
		return Strand{}, false
	}
	own := t.Threads[thread]
	by := morph.Turned(a.Place.Turn, b.Place.Turn, s.Shown.Strand(i, thread)) - a.Place.Turn
	return Strand{shown[i].ID, shown[from].Name, shown[i].Name, i == 0, own.Turn, own.Turns, by, own.Easing, own.Delay, own.Arc, a.Place.X != b.Place.X || a.Place.Y != b.Place.Y}, true
}

// strandsOf returns the morphs that a thread goes through into a scene and, of the last, out of it.
func (s *Views) strandsOf(i int, thread string) []Strand {
	out := []Strand{}
	if v, ok := s.strandInto(i, thread); ok {
		out = append(out, v)
	}
	if n := len(s.Shown.Doc.Film.Shown()); i == n-1 && n > 1 {
		if v, ok := s.strandInto(0, thread); ok {
			out = append(out, v)
		}
	}
	return out
}
