package session

import (
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/words"
)

// OwnFont is a font file of the document's own.
type OwnFont struct {
	Hash   string `json:"hash"`
	Family string `json:"family"`
	Weight int    `json:"weight"`
	Italic bool   `json:"italic"`
	Stays  bool   `json:"stays"` // it may not be handed on
}

// ownFonts lists the fonts of the document's own by family, weight and slope.
func (s *Session) ownFonts() []OwnFont {
	out := []OwnFont{}
	for hash, m := range s.shown.Doc.Media {
		if m.IsFont() {
			out = append(out, OwnFont{hash, m.Family, m.Weight, m.Italic, m.Stays})
		}
	}
	sort.Slice(out, func(i, k int) bool {
		a, b := out[i], out[k]
		return a.Family < b.Family || a.Family == b.Family && (a.Weight < b.Weight || a.Weight == b.Weight && a.Hash < b.Hash)
	})
	return out
}

// FontsWanted lists the fonts of the document's own that have not been added.
func (s *Session) FontsWanted() []OwnFont {
	return slices.DeleteFunc(s.ownFonts(), func(f OwnFont) bool { return s.own[f.Hash] != "" })
}

// AddOwnFont adds a font of the document's own.
func (s *Session) AddOwnFont(hash string, data []byte) error {
	m := s.shown.Doc.Media[hash]
	if m == nil || !m.IsFont() {
		return words.New("font.kind")
	}
	s.own[hash] = m.Family
	return s.fonts.Add(m.Family, m.Weight, m.Italic, data)
}

var ownfontsAsked = table{
	// A font file becomes one of the document's own.
	"font.add": of(func(s *Session, m Moment, c *struct {
		Hash  string     `json:"hash"`
		Media *doc.Media `json:"media"`
	}) (edit.Command, error) {
		if c.Media == nil || !c.Media.IsFont() {
			return nil, words.New("font.kind")
		}
		if s.doc.Media[c.Hash] != nil {
			return nil, nil // it is there
		}
		return &edit.AddMedia{Hash: c.Hash, Media: c.Media}, nil
	}),
}
