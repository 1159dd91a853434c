package text_test

import (
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/text"
	"capstan/library"
)

// However much was set with a book before, a text comes out as with a new one.
func TestTextsAreSetTheSameAfterOthers(t *testing.T) {
	used := book(t)
	r := rand.New(rand.NewPCG(1, 2))
	pick := func(list ...string) string { return list[r.IntN(len(list))] }
	for range 60 {
		v := &doc.Text{Align: pick(doc.Left, doc.Centre), Wrap: r.IntN(2) == 0}
		for range 1 + r.IntN(4) {
			var say strings.Builder
			for range r.IntN(6) {
				say.WriteString(pick("Kite ", "Day\n", "\n", "fi", "עפיפון ", "\U0001fa81", "straße ", "風"))
			}
			v.Runs = append(v.Runs, doc.Run{Text: say.String(), Family: pick("Archivo", "Bungee"), Weight: 400, Size: 20 + float64(r.IntN(3)), Case: pick("", doc.UpperCase), Raise: pick("", doc.Super), Colour: pick("", "#d8573a")})
		}
		in := text.Room{W: 150}
		got, want := text.SetIn(used, v, in, doc.ByLetter), text.SetIn(book(t), v, in, doc.ByLetter)
		if len(got.Outlines) != len(want.Outlines) || len(got.Pieces) != len(want.Pieces) || !slices.Equal(got.Missing, want.Missing) || !slices.Equal(got.Lines, want.Lines) {
			t.Fatalf("%q is set another way", v.String())
		}
		for i := range want.Outlines {
			if got.Outlines[i].Colour != want.Outlines[i].Colour || got.Outlines[i].Path.Data() != want.Outlines[i].Path.Data() {
				t.Fatalf("%q looks another way", v.String())
			}
		}
		for i := range want.Pieces {
			if got.Pieces[i].From != want.Pieces[i].From || got.Pieces[i].To != want.Pieces[i].To {
				t.Fatalf("%q is cut another way", v.String())
			}
		}
		if a, b := text.CellsOf(used, v, in), text.CellsOf(book(t), v, in); !slices.Equal(a.Cells, b.Cells) {
			t.Fatalf("a caret goes another way in %q", v.String())
		}
	}
}

// BenchmarkLongText sets 20,000 characters, of which one was typed.
func BenchmarkLongText(b *testing.B) {
	used, err := library.Book()
	if err != nil {
		b.Fatal(err)
	}
	v := &doc.Text{Align: doc.Left, Wrap: true, Runs: []doc.Run{{Text: strings.Repeat("bring a long tail to Fennel Quay. ", 588), Family: "Archivo", Weight: 400, Size: 5}}}
	for _, c := range []struct{ name, end string }{{"one paragraph", " "}, {"paragraphs", "\n"}} {
		b.Run(c.name, func(b *testing.B) {
			v.Runs[0].Text = strings.ReplaceAll(v.Runs[0].Text, "Quay. ", "Quay."+c.end)
			for b.Loop() {
				v.Runs[0].Text = v.Runs[0].Text[1:] + "a"
				text.Set(used, v, text.Room{W: 600})
				text.CellsOf(used, v, text.Room{W: 600})
			}
		})
	}
}
