package text

import (
	"unicode"

	"capstan/core/doc"
)

// written is a rune that is set, and the place of the one it stands for in its run as it is written.
type written struct {
	rune rune
	of   int
}

// cased returns a run in its case. before is what has been set of the text so far: a word may go on from there.
func cased(text, c string, before []rune) []written {
	out := make([]written, 0, len(text))
	inside := len(before) > 0 && inWord(before[len(before)-1])
	for i, r := range []rune(text) {
		switch {
		case c == doc.UpperCase && r == '\u00df': // the sharp s has no capital of its own in most families
			out = append(out, written{'S', i}, written{'S', i})
			continue
		case c == doc.UpperCase, c == doc.TitleCase && !inside && unicode.IsLetter(r):
			out = append(out, written{unicode.ToUpper(r), i})
		case c == doc.LowerCase:
			out = append(out, written{unicode.ToLower(r), i})
		default:
			out = append(out, written{r, i})
		}
		inside = inWord(r)
	}
	return out
}

// inWord reports whether a word goes on after a rune: letters, digits, marks, apostrophes.
func inWord(r rune) bool {
	return unicode.IsLetter(r) || unicode.IsDigit(r) || unicode.IsMark(r) || r == '\'' || r == '\u2019'
}

// raised returns the size of a run's letters and how far they stand above the line, px. Three fifths of the size, a third of it up
// or a seventh down, as is common practice where a family has no letters of their own for it.
func raised(r *doc.Run) (size, rise float64) {
	switch r.Raise {
	case doc.Super:
		return r.Size * 0.6, r.Size * 0.34
	case doc.Sub:
		return r.Size * 0.6, -r.Size * 0.14
	}
	return r.Size, 0
}
