package session_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/patch"
	"capstan/core/session"
)

// moved puts layer a elsewhere, as a step of a row.
func moved(t *testing.T, s *session.Session, x float64, row session.Row) patch.Patch {
	t.Helper()
	p, err := s.Do(edit.SetPlaces([]edit.Part{edit.PlaceOf("a", edit.Fields{"x": x})}), row)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func TestSmallStepsOfARowAreUndoneAsOne(t *testing.T) {
	keys := func(now float64) session.Row { return session.Row{Of: "keys", Now: now, Pause: 800} }
	for name, c := range map[string]struct {
		rows []session.Row
		want int
	}{
		"each by itself":         {[]session.Row{{}, {}, {}}, 3},
		"a row":                  {[]session.Row{keys(0), keys(100), keys(850)}, 1},
		"a pause":                {[]session.Row{keys(0), keys(100), keys(900)}, 2},
		"another row":            {[]session.Row{keys(0), {Of: "words", Now: 10, Pause: 800}, keys(20)}, 3},
		"a row without a pause":  {[]session.Row{{Of: "words 1", Now: 0}, {Of: "words 1", Now: 1e6}}, 1},
		"a step by itself in it": {[]session.Row{keys(0), {}, keys(20)}, 3},
	} {
		s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
		for i, row := range c.rows {
			moved(t, s, float64(100+i), row)
		}
		if n, _ := s.Steps(); n != c.want {
			t.Errorf("%s: %d steps, want %d", name, n, c.want)
		}
		for range c.want {
			if _, err := s.Undo(); err != nil {
				t.Fatal(err)
			}
		}
		if x := thread(t, s, 0, "a").Place.X; x != 40 {
			t.Errorf("%s: undone to %v", name, x)
		}
	}
	// Another field is another step, also within the pause.
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	moved(t, s, 50, keys(0))
	if _, err := s.Do(sent(`{"op":"layer.set","set":[{"id":"a","patch":{"opacity":0.5}}]}`), keys(1)); err != nil {
		t.Fatal(err)
	}
	if n, _ := s.Steps(); n != 2 {
		t.Errorf("%d steps", n)
	}
}

// There are 200 steps at most, of some megabytes; the newest is kept whatever it takes. What is kept over a reload is the same.
func TestStepsAreBounded(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	for i := range session.MaxSteps + 50 {
		moved(t, s, float64(i+50), session.Row{})
	}
	if n, _ := s.Steps(); n != session.MaxSteps {
		t.Errorf("%d steps", n)
	}
	line := "M 0 0" + strings.Repeat(" L 1.5 2.5", 9000)
	for i := range 60 {
		l := shapeOf(fmt.Sprint("p", i), doc.PathKind, 1, 2, 0, 0)
		l.Path = line
		if _, err := s.Do(&edit.AddLayers{Scene: "s", Layers: []*doc.Layer{l}}, session.Row{}); err != nil {
			t.Fatal(err)
		}
	}
	n, _ := s.Steps()
	kept, err := s.KeepSteps()
	if err != nil || n < 20 || n > 50 || len(kept) > session.MaxStepBytes*2 {
		t.Errorf("%d steps of 90 KB, %d bytes kept: %v", n, len(kept), err)
	}
	raw, _ := s.Document().Write()
	again := session.New()
	if err := again.Open(raw); err != nil {
		t.Fatal(err)
	}
	if err := again.BringSteps(kept); err != nil {
		t.Fatal(err)
	}
	for range 3 {
		if _, err := again.Undo(); err != nil {
			t.Fatal(err)
		}
	}
	if done, undone := again.Steps(); done != n-3 || undone != 3 {
		t.Errorf("%d are left, %d can be done again", done, undone)
	}
	for range 3 {
		if _, err := again.Redo(); err != nil {
			t.Fatal(err)
		}
	}
	if now, _ := again.Document().Write(); !bytes.Equal(now, raw) {
		t.Error("undone and done again it is another document")
	}
	if again.BringSteps([]byte("{")) == nil {
		t.Error("broken steps were read")
	}
}

// What another window stores goes under the steps: undoing gives back what is there then, a step whose command no longer fits is gone, and
// one whose field was changed afterwards is refused, once.
func TestStepsOverWhatAnotherWindowStored(t *testing.T) {
	start := func() (here, there *session.Session) {
		two := func() *session.Session {
			return open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20), shapeOf("b", doc.Rectangle, 80, 40, 20, 20)))
		}
		return two(), two()
	}
	at := func(s *session.Session) float64 { return thread(t, s, 0, "a").Place.X }
	here, there := start()
	mine, theirs := moved(t, here, 50, session.Row{}), moved(t, there, 60, session.Row{})
	if _, err := here.CatchUp([]patch.Patch{theirs}, false); err != nil || at(here) != 50 {
		t.Fatal(err, at(here))
	}
	if _, err := here.Undo(); err != nil || at(here) != 60 {
		t.Errorf("undone to %v, want what the other window stored: %v (it was %v)", at(here), err, mine)
	}
	here, there = start()
	moved(t, here, 50, session.Row{})
	gone, err := there.Apply(&edit.DeleteLayers{IDs: []string{"a"}})
	if err != nil {
		t.Fatal(err)
	}
	failed, err := here.CatchUp([]patch.Patch{gone}, false)
	if n, _ := here.Steps(); err != nil || len(failed) != 1 || n != 0 {
		t.Errorf("%d steps are left of a command that no longer fits: %v, %v", n, failed, err)
	}
	here, there = start()
	moved(t, here, 50, session.Row{})
	if err := here.Acknowledge(); err != nil {
		t.Fatal(err)
	}
	if _, err := there.Apply(edit.SetPlaces([]edit.Part{edit.PlaceOf("a", edit.Fields{"x": 50})})); err != nil {
		t.Fatal(err)
	}
	if _, err := here.CatchUp([]patch.Patch{moved(t, there, 70, session.Row{})}, false); err != nil {
		t.Fatal(err)
	}
	if _, err := here.Undo(); err == nil || at(here) != 70 {
		t.Errorf("a step under another window's edit was undone to %v", at(here))
	}
	if c, err := here.Undo(); c != nil || err != nil {
		t.Errorf("it is still there: %v", fmt.Sprint(c, err))
	}
}
