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
	Alone   string  `json:"alone"`   // only one of the scenes has it: in, it comes in; out, it goes out
	Wing    string  `json:"wing"`    // and by which side of the page; empty: it fades
	Words   bool    `json:"words"`   // words become other words
	Letters bool    `json:"letters"` // and do so letter by letter
	Moves   bool    `json:"moves"`   // it goes from one place to another
	Outline string  `json:"outline"` // its outline becomes another: outlines; by numbers of one shape, or by the same steps: numbers; empty: it does not
	Way     string  `json:"way"`     // how its points go, where that is said: straight, turned, bent
	Given   int     `json:"given"`   // how many pairs of points and parts of it were given
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
	v := Strand{
		Scene: shown[i].ID, From: shown[from].Name, To: shown[i].Name, Closing: i == 0, Turn: own.Turn, Turns: own.Turns, By: by,
		Easing: own.Easing, Delay: own.Delay, Arc: own.Arc, Letters: own.Letters, Words: a.Text != nil && b.Text != nil && a.Text.String() != b.Text.String(), Moves: a.Place.X != b.Place.X || a.Place.Y != b.Place.Y,
		Outline: s.Shown.Reshapes(i, thread),
	}
	if said := own.Outline; said != nil {
		v.Way = said.Way
		for _, p := range said.Parts {
			v.Given += max(1, len(p.Points))
		}
	}
	return v, true
}

// strandsOf returns the morphs that a thread goes through into a scene and, of the last, out of it.
func (s *Views) strandsOf(i int, thread string) []Strand {
	out := []Strand{}
	if v, ok := s.strandInto(i, thread); ok {
		out = append(out, v)
	} else if v, ok := s.loneStrand(i, thread); ok {
		out = append(out, v)
	}
	if v, ok := s.loneStrand(i+1, thread); ok {
		out = append(out, v)
	}
	if n := len(s.Shown.Doc.Film.Shown()); i == n-1 && n > 1 {
		if v, ok := s.strandInto(0, thread); ok {
			out = append(out, v)
		}
	}
	return out
}

// loneStrand returns how a thread that only one of two scenes has goes through the morph into a scene of the film. Parts of groups that are not in both
// go with these.
func (s *Views) loneStrand(into int, thread string) (Strand, bool) {
	from, to := into-1, into
	shown := s.Shown.Doc.Film.Shown()
	if into < 1 || into >= len(shown) || shown[into].Transition.Kind != doc.Morph {
		return Strand{}, false
	}
	a, b := s.Shown.Thread(from, thread), s.Shown.Thread(to, thread)
	if (a == nil) == (b == nil) {
		return Strand{}, false
	}
	v, l, in := Strand{Alone: "in"}, b, shown[to]
	if b == nil {
		v, l, in = Strand{Alone: "out"}, a, shown[from]
	}
	for _, g := in.Layer(l.ID); g != nil; _, g = in.Layer(g.ID) {
		if s.Shown.Thread(from, g.Thread) == nil || s.Shown.Thread(to, g.Thread) == nil {
			return Strand{}, false
		}
	}
	own := shown[into].Transition.Threads[thread]
	v.Scene, v.From, v.To, v.Easing, v.Delay, v.Wing = shown[into].ID, shown[from].Name, shown[to].Name, own.Easing, own.Delay, own.Wing
	return v, true
}

// standsIn returns the name of the one scene, of those around scene i in which a thread lives, where it stands as in the scene before, though it moves into
// all the others, of which there are two at least; empty: there is none.
func (s *Views) standsIn(i int, thread string) string {
	shown := s.Shown.Doc.Film.Shown()
	if i >= len(shown) {
		return ""
	}
	first, last := i, i
	for first > 0 && s.Shown.Thread(first-1, thread) != nil {
		first--
	}
	for last+1 < len(shown) && s.Shown.Thread(last+1, thread) != nil {
		last++
	}
	still, moved := "", 0
	for k := first + 1; k <= last; k++ {
		switch {
		case elsewhere(&s.Shown.Thread(k-1, thread).Place, &s.Shown.Thread(k, thread).Place):
			moved++
		case still != "":
			return ""
		default:
			still = shown[k].Name
		}
	}
	if moved < 2 {
		return ""
	}
	return still
}

// elsewhere reports whether a layer lies elsewhere, is turned otherwise, or of another size.
func elsewhere(a, b *doc.Place) bool {
	return a.X != b.X || a.Y != b.Y || a.W != b.W || a.H != b.H || a.Turn != b.Turn
}
