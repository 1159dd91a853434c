package session

import (
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/text"
	"capstan/core/view"
	"capstan/core/words"
)

// FontsWanted lists the fonts of the document's own that have not been added.
func (s *Session) FontsWanted() []view.OwnFont {
	return slices.DeleteFunc(s.OwnFonts(), func(f view.OwnFont) bool { return s.own[f.Hash] != "" })
}

// AddOwnFont adds a font of the document's own.
func (s *Session) AddOwnFont(hash string, data []byte) error {
	m := s.Shown.Doc.Media[hash]
	if m == nil || !m.IsFont() {
		return words.New("font.kind")
	}
	s.own[hash] = m.Family
	return s.Fonts.Add(m.Family, m.Weight, m.Italic, data)
}

// FamiliesWanted names the font families that the document uses and that have not been added, in alphabetical order: families are
// loaded when they are used.
func (s *Session) FamiliesWanted() []string {
	var out []string
	want := func(family string) {
		if !s.Fonts.Has(family) && !slices.Contains(out, family) {
			out = append(out, family)
		}
	}
	if film := &s.Shown.Doc.Film; film.Captions != nil && film.Speaking() {
		want(frame.CaptionFamily)
	}
	for _, sc := range s.Shown.Doc.Film.Scenes {
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
	for _, sc := range s.Shown.Doc.Film.Scenes {
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
