package view

import "sort"

// OwnFont is a font file of the document's own.
type OwnFont struct {
	Hash   string `json:"hash"`
	Family string `json:"family"`
	Weight int    `json:"weight"`
	Italic bool   `json:"italic"`
	Stays  bool   `json:"stays"` // it may not be handed on
}

// OwnFonts lists the fonts of the document's own by family, weight and slope.
func (s *Views) OwnFonts() []OwnFont {
	out := []OwnFont{}
	for hash, m := range s.Shown.Doc.Media {
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
