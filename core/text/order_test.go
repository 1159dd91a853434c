package text_test

import (
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/text"
)

// Words stand from the left as the Unicode Bidirectional Algorithm says (UAX 9, its rules worked through by hand): letters of
// scripts that run to the left are turned round, numbers among them are not.
func TestScriptsThatRunToTheLeftStandInOrder(t *testing.T) {
	b := book(t)
	for _, c := range []struct{ say, seen string }{
		{"abc אבג def", "abc גבא def"},
		{"אבג", "גבא"},
		{"abc אבג 123 def", "abc 123 גבא def"},
		{"אבג def", "def גבא"},       // begins to the left: so does the paragraph
		{"אבג 12 דהו", "והד 12 גבא"}, // numbers run to the right within
		{"a אב, גד b", "a דג ,בא b"}, // what stands between goes along
		{"kite", "kite"},
	} {
		l := text.SetIn(b, one(c.say, nil), text.Room{}, doc.ByLetter)
		type letter struct {
			x float64
			r rune
		}
		var got []letter
		for _, p := range l.Pieces {
			got = append(got, letter{p.Box.Min.X, []rune(c.say)[p.From.Rune]})
		}
		slices.SortFunc(got, func(a, b letter) int { return int((a.x - b.x) * 100) })
		var s strings.Builder
		for _, g := range got {
			s.WriteRune(g.r)
		}
		if want := strings.ReplaceAll(c.seen, " ", ""); s.String() != want {
			t.Errorf("%q stands as %q, want %q", c.say, s.String(), want)
		}
	}
}

// Lines are broken as they are read and turned then: the first words stay on the first line.
func TestLinesAreBrokenBeforeTheyAreTurned(t *testing.T) {
	v := one("עפיפון זנב רוח חוט ים גשר", func(v *doc.Text) { v.Wrap, v.Align = true, doc.Right })
	l := text.SetIn(book(t), v, text.Room{W: 260}, doc.ByWord)
	if len(l.Lines) < 2 {
		t.Fatalf("%d lines", len(l.Lines))
	}
	for _, p := range l.Pieces {
		if p.Line == 0 && p.From.Rune > 14 || p.Line > 0 && p.From.Rune < 7 {
			t.Errorf("the word at %d is on line %d", p.From.Rune, p.Line)
		}
	}
	for i, box := range l.Lines {
		if d := box.Max.X - 130; d > 0.01 || d < -0.01 {
			t.Errorf("line %d ends at %v, want the right edge", i, box.Max.X)
		}
	}
}

// Units are counted as they are read: a text that runs to the left begins on the right.
func TestUnitsAreCountedAsTheyAreRead(t *testing.T) {
	for _, say := range []string{"עפיפון גדול ברוח", "the עפיפון גדול day", "עפיפון kite day ברוח"} {
		for _, unit := range []string{doc.ByLetter, doc.ByWord} {
			last := -1
			for i, p := range text.SetIn(book(t), one(say, nil), text.Room{}, unit).Pieces {
				if p.From.Rune <= last {
					t.Errorf("%q by %s: unit %d begins at %d, after one at %d", say, unit, i, p.From.Rune, last)
				}
				last = p.From.Rune
			}
		}
	}
	v := one("עפיפון גדול", nil)
	list := text.SetIn(book(t), v, text.Room{}, doc.ByWord).Pieces
	if len(list) != 2 || list[0].Box.Min.X < list[1].Box.Max.X {
		t.Errorf("the first word stands at %v, the second at %v", list[0].Box, list[1].Box)
	}
}
