package session_test

import (
	"io/fs"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/session"
	"capstan/library"
)

// A document is open before its fonts are there; they are named, added, and the page looks as if they had been there.
func TestFamiliesAreLoadedWhenTheyAreUsed(t *testing.T) {
	greek := words("t", "Kite Δελφοί \U0001F600 \u98a8", 160, 60, 40)
	greek.Text.Runs = append(greek.Text.Runs, doc.Run{Text: " tail", Family: "Shrikhand", Weight: 400, Size: 30})
	p := with(greek)
	want := shotOf(t, open(t, p), rest)
	s := session.New()
	raw, err := p.Write()
	if err != nil {
		t.Fatal(err)
	}
	if err := s.Open(raw); err != nil {
		t.Fatal(err)
	}
	names := s.FamiliesWanted()
	if !slices.Equal(names, []string{"Archivo", "Noto Emoji", "Noto Sans", "Shrikhand"}) {
		t.Errorf("wants %q", names)
	}
	for _, f := range library.FontFiles() {
		if !slices.Contains(names, f.Family) {
			continue
		}
		data, err := fs.ReadFile(library.Fonts(), f.File)
		if err != nil {
			t.Fatal(err)
		}
		if err := s.AddFont(f.Family, f.Weight, f.Italic, data); err != nil {
			t.Fatal(err)
		}
	}
	if err := s.Recompile(); err != nil {
		t.Fatal(err)
	}
	if n := differs(want, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("%d pixels differ", n)
	}
	if names := s.FamiliesWanted(); len(names) > 0 {
		t.Errorf("still wants %q", names)
	}
	if v := s.Selection(rest, []string{"t"})[0]; v.Missing != "\u98a8" {
		t.Errorf("no family has %q", v.Missing)
	}
}
