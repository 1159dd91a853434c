package session

import (
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
)

// FamiliesWanted names the font families that the document uses and that have not been added, in alphabetical order: families are
// loaded when they are used.
func (s *Session) FamiliesWanted() []string {
	var out []string
	want := func(family string) {
		if !s.fonts.Has(family) && !slices.Contains(out, family) {
			out = append(out, family)
		}
	}
	for _, sc := range s.shown.Doc.Film.Scenes {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			if l.Kind == doc.MarkerKind && l.Marker.Style == doc.Count {
				want(frame.MarkerFamily)
			}
			if l.Text == nil {
				return true
			}
			for _, r := range l.Text.Runs {
				want(r.Family)
				for _, c := range r.Text {
					if sign(c) {
						want(text.Signs)
					} else if beyondLatin(c) {
						want(text.Fallback)
					}
				}
			}
			return true
		})
	}
	sort.Strings(out)
	return out
}

// FamiliesUsed names the families that texts of the document are set in, in the order of the scenes.
func (s *Session) FamiliesUsed() []string {
	out := []string{}
	for _, sc := range s.shown.Doc.Film.Scenes {
		doc.Walk(sc.Layers, func(l, _ *doc.Layer) bool {
			if l.Text != nil {
				for _, r := range l.Text.Runs {
					if !slices.Contains(out, r.Family) {
						out = append(out, r.Family)
					}
				}
			}
			return true
		})
	}
	return out
}

// beyondLatin reports whether a character lies outside of what all families have: Latin letters, and common signs. A family may have
// it all the same.
func beyondLatin(c rune) bool { return c > 0x24f && (c < 0x2000 || c > 0x206f) }

// sign reports whether a character is a picture among letters, or chooses one.
func sign(c rune) bool {
	return c >= 0x1f000 && c < 0x20000 || c >= 0x2300 && c <= 0x27bf || c >= 0x2b00 && c <= 0x2bff || c == 0xfe0f
}

// Recompile makes the film anew, with fonts that were added.
func (s *Session) Recompile() error {
	f, err := frame.Compile(s.doc, s.assets(), s.film)
	if err != nil {
		return err
	}
	s.forgetWriting()
	s.showUnder(s.doc, f)
	return nil
}

// missing returns the characters of a text that no family has, each once.
func (s *Session) missing(l *doc.Layer) string {
	if l.Text == nil || len(l.Text.String()) > 4000 { // long ones would cost a moment at every edit
		return ""
	}
	var out []rune
	for _, c := range text.Set(&s.fonts, l.Text, text.RoomOf(&l.Place)).Missing {
		if !slices.Contains(out, c) && c != '\n' && len(out) < 12 {
			out = append(out, c)
		}
	}
	return string(out)
}
