package session_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/view"
	"capstan/demo/fonttest"
)

// A document's own font is wanted until it is added, sets its words then, and is gone with the document.
func TestFontsOfADocumentsOwnComeAndGoWithIt(t *testing.T) {
	const hash = "bbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbbb"
	mine := func(family string) *doc.Project {
		l := words("t", "Kite Day", 160, 60, 40)
		l.Text.Runs[0].Family, l.Text.Runs[0].Weight = family, 400
		p := with(l)
		if family == "Quilly" {
			p.Media = map[string]*doc.Media{hash: {Name: "q.ttf", Type: "font/ttf", Family: "Quilly", Weight: 400}}
		}
		return p
	}
	like := shotOf(t, open(t, mine("Bungee")), rest)
	s := open(t, mine("Quilly"))
	if list := s.FontsWanted(); len(list) != 1 || list[0] != (view.OwnFont{Hash: hash, Family: "Quilly", Weight: 400}) {
		t.Fatalf("wanted: %v", list)
	}
	without := shotOf(t, s, rest)
	if err := s.AddOwnFont(hash, fonttest.Quill(t, 0)); err != nil {
		t.Fatal(err)
	}
	if err := s.Recompile(); err != nil {
		t.Fatal(err)
	}
	if n := differs(like, shotOf(t, s, rest), 0); n > 0 || len(s.FontsWanted()) > 0 || len(s.FilmView().Fonts) != 1 {
		t.Errorf("%d pixels differ, wanted still: %v", n, s.FontsWanted())
	}
	if err := s.AddOwnFont("cc", nil); err == nil {
		t.Error("a font that the document has not was added")
	}
	// Another document, which calls one of its own the same.
	raw, err := mine("Quilly").Write()
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Open(raw); err != nil {
		t.Fatal(err)
	}
	if n := differs(without, shotOf(t, s, rest), 0); n > 0 || len(s.FontsWanted()) != 1 {
		t.Errorf("the font of the document before is there still: %d pixels differ", n)
	}
}
