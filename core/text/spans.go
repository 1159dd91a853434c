package text

import (
	"capstan/core/doc"
)

// Span is words of one run that stand beside each other on one line.
type Span struct {
	Run     int
	Text    string  // as it is set, in its case
	X, Foot float64 // px: where its first letter begins, and the line that its letters stand on
	Size    float64 // px
}

// SpansOf are the words of a text as Set lays them out, line after line, for who sets them by their names and not by their outlines. ok is false where they
// are more than lines of words from the left: on a ring, stacked, raised, or read from the right.
func SpansOf(b *Book, t *doc.Text, in Room) (spans []Span, ok bool) {
	if t.Ring != nil || t.Stacked {
		return nil, false
	}
	s := set(b, t, in, "", true)
	var runs []int // of each rune as it is written
	var set [][]rune
	var before []rune
	for i, r := range t.Runs {
		if r.Raise != "" {
			return nil, false
		}
		written := []rune(r.Text)
		first := len(runs)
		for range written {
			runs, set = append(runs, i), append(set, nil)
		}
		for _, c := range cased(r.Text, r.Case, before) {
			before = append(before, c.rune)
			set[first+c.of] = append(set[first+c.of], c.rune)
		}
	}
	line, apart := -1, true
	for _, c := range s.cells {
		if c.Left {
			return nil, false
		}
		if c.From >= c.To || c.From >= len(runs) || c.Line >= len(s.out.Feet) {
			continue
		}
		run := runs[c.From]
		if n := len(spans); n == 0 || c.Line != line || spans[n-1].Run != run || apart {
			spans = append(spans, Span{Run: run, X: c.Corners[0].X, Foot: s.out.Feet[c.Line], Size: t.Runs[run].Size * s.scale})
		}
		line, apart = c.Line, t.Align == doc.Justified && c.hangs
		last := &spans[len(spans)-1]
		for _, letters := range set[c.From:c.To] {
			for _, r := range letters {
				if r != '\n' {
					last.Text += string(r)
				}
			}
		}
	}
	return spans, true
}
