package session_test

import (
	"bytes"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/frame"
	"capstan/core/gesture"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/core/text"
)

// A project has as many films as wanted: each is shown, edited and compiled by its id, patches say which one they are of, what is done in one
// leaves the others alone, and a thread lives in one of them.
func TestAnyFilmIsEditedByItsID(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	first, _ := s.Document().Write()
	if _, err := s.Do(&edit.AddFilm{ID: "tall", Name: "Upright", Width: 90, Height: 160, Scene: "t1"}, session.Row{}); err != nil {
		t.Fatal(err)
	}
	if err := s.ShowFilm("none"); err == nil || s.FilmID != "" {
		t.Errorf("a film that is not there is shown: %v", err)
	}
	if err := s.ShowFilm("tall"); err != nil {
		t.Fatal(err)
	}
	if v := s.FilmView(); v.Film != "tall" || v.Width != 90 || len(v.Scenes) != 1 {
		t.Errorf("%+v is shown", v)
	}
	there := scope.Moment{Film: "tall", Rest: true}
	if _, err := s.Intent("add.shape", rest, []byte(`{"kind":"star"}`)); err == nil {
		t.Error("a moment of one film was taken for one of another")
	}
	c, err := s.Intent("add.shape", there, []byte(`{"kind":"star"}`))
	if err != nil {
		t.Fatal(err)
	}
	wire, err := edit.Write(c)
	if err != nil || !strings.HasPrefix(string(wire), `{"op":"layer.add","film":"tall",`) {
		t.Errorf("%s: %v", wire, err)
	}
	patch, err := s.Do(sent(string(wire)), session.Row{})
	if err != nil {
		t.Fatal(err)
	}
	if len(s.Document().Film.Scenes[0].Layers) != 1 || len(s.Document().Films[0].Film.Scenes[0].Layers) != 1 || s.Rows(there)[0].Film != "tall" {
		t.Errorf("the star is not in its film: %s", patch[0].Part)
	}
	thread := s.Rows(there)[0].Thread
	if err := s.Begin("move", there, []string{thread}, "", "", s.Centre()); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Update(s.Centre().Mul(0.5), gesture.Modifiers{}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Do(s.EndDrag(), session.Row{}); err != nil {
		t.Fatal(err)
	}
	if x := s.Scene(there).Layers[0].Place.X; x != 22.5 {
		t.Errorf("dragged to %v", x)
	}
	if _, err := s.Do(&edit.In{Film: "tall", Command: &edit.SetFilm{Patch: edit.Fields{"height": 200}}}, session.Row{}); err != nil || s.FilmView().Height != 200 {
		t.Errorf("%d high: %v", s.FilmView().Height, err)
	}
	if _, err := s.Do(&edit.AddLayers{Scene: "s", Layers: []*doc.Layer{{ID: "b", Thread: thread, Name: "b", Kind: doc.Rectangle, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}}}}, session.Row{}); err == nil {
		t.Error("a thread lives in two films")
	}
	// Read again, and as a file by its id.
	raw, _ := s.Document().Write()
	again, err := doc.Read(raw)
	if err != nil {
		t.Fatal(err)
	}
	film, err := frame.CompileFilm(again, "tall", frame.Assets{Fonts: &text.Book{}})
	if err != nil || film.Doc.Film.Height != 200 {
		t.Fatal(err)
	}
	for n, _ := s.Steps(); n > 0; n-- {
		if _, err := s.Undo(); err != nil {
			t.Fatal(err)
		}
	}
	if now, _ := s.Document().Write(); !bytes.Equal(now, first) || s.FilmID != "" {
		t.Errorf("undone it is\n%s\nand film %q is shown", now, s.FilmID)
	}
}
