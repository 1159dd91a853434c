package session_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/scope"
)

// What is set aside leaves the film and nothing else: times, thumbnails of scenes and later scenes stay; it comes back to the pixel, with its
// thread and its moves.
func TestLayersAreSetAsideAndComeBack(t *testing.T) {
	s := open(t, series())
	want(t, s, rest, "move.add", `{"threads":["a"],"kind":"entrance","effect":"fade"}`)
	length := s.Shown.Order.Length
	before := shotOf(t, s, rest)
	want(t, s, rest, "set.aside", `{"threads":["a"]}`)
	film := &s.Document().Film
	if len(film.Shown()) != 4 || len(film.Scenes) != 5 || !film.Scenes[4].Aside {
		t.Fatalf("%d scenes of %d are in the film", len(film.Shown()), len(film.Scenes))
	}
	if s.Shown.Order.Length != length {
		t.Errorf("the film lasts %d ms, it lasted %d", s.Shown.Order.Length, length)
	}
	if in(s, 0) != nil || in(s, 1) == nil {
		t.Error("it left another scene than its own")
	}
	aside := scope.Moment{Rest: true, Scene: 4}
	away := in(s, 4)
	if away == nil || len(away.Moves) != 1 || away.Place.X != 40 {
		t.Fatalf("aside there is %+v", away)
	}
	// At no time is it seen, and no later scene counts it.
	for _, m := range []scope.Moment{{Time: 100}, {Time: float64(length)}} {
		if s.SceneIndex(m) == 4 {
			t.Errorf("at %v the scene that is set aside is shown", m.Time)
		}
	}
	if v := s.Selection(scope.Moment{Rest: true, Scene: 1}, []string{"a"}); v[0].Later != 1 {
		t.Errorf("%d later scenes, want 1", v[0].Later)
	}
	if v := s.Selection(aside, []string{"a"}); len(v) != 1 || v[0].Later != 0 {
		t.Errorf("aside: %+v", v)
	}
	// A second layer goes to the same place; both come back.
	want(t, s, scope.Moment{Rest: true, Scene: 1}, "set.aside", `{"threads":["a"]}`)
	if n := len(s.Document().Film.Scenes[4].Layers); n != 2 {
		t.Fatalf("%d layers are set aside, want 2", n)
	}
	if _, err := s.Intent("set.aside", aside, []byte(`{"threads":["a"]}`)); err == nil {
		t.Error("what is set aside was set aside once more")
	}
	want(t, s, aside, "bring.back", `{"threads":["a"],"scene":0}`)
	if n := differs(before, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("brought back, %d pixels differ", n)
	}
	if l := in(s, 0); l == nil || len(l.Moves) != 1 {
		t.Errorf("brought back it is %+v", l)
	}
}

// Scenes are added, moved and deleted among those of the film; the last of these stays, whatever is set aside.
func TestTheFilmKeepsItsScenesBeforeWhatIsSetAside(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 10), shapeOf("b", doc.Rectangle, 80, 40, 20, 10)))
	want(t, s, rest, "set.aside", `{"threads":["a"]}`)
	aside := scope.Moment{Rest: true, Scene: 1}
	want(t, s, aside, "scene.add", `{}`)
	want(t, s, aside, "scene.duplicate", `{}`)
	shown := s.Document().Film.Shown()
	if len(shown) != 3 || len(s.Document().Film.Scenes) != 4 {
		t.Fatalf("%d of %d scenes are in the film", len(shown), len(s.Document().Film.Scenes))
	}
	first, away := shown[0].ID, s.Document().Film.Scenes[3].ID
	for _, c := range []string{
		`{"op":"scene.order","ids":["` + first + `"],"index":9}`, `{"op":"scene.order","ids":["` + first + `","` + shown[1].ID + `"],"index":3}`,
	} {
		if _, err := s.Apply(sent(c)); err != nil {
			t.Fatal(err)
		}
		if got := s.Document().Film.Scenes[3].ID; got != away {
			t.Errorf("%s: last comes %s", c, got)
		}
	}
	ids := ""
	for _, sc := range s.Document().Film.Shown() {
		ids += `"` + sc.ID + `",`
	}
	if _, err := s.Apply(sent(`{"op":"scene.delete","ids":[` + ids[:len(ids)-1] + `]}`)); err == nil {
		t.Error("the film has lost its last scene")
	}
	if _, err := s.Apply(sent(`{"op":"scene.set","ids":["` + first + `"],"patch":{"aside":true}}`)); err == nil {
		t.Error("a scene was set aside by its fields")
	}
	if _, err := s.Apply(sent(`{"op":"scene.delete","ids":["` + away + `"]}`)); err != nil {
		t.Errorf("what is set aside cannot be deleted: %v", err)
	}
}
