package session_test

import (
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/scope"
)

func TestScenesAreAddedContinuedAndJoinedByTransitions(t *testing.T) {
	s := opener(t)
	want(t, s, scope.Moment{Rest: true, Scene: 0}, "scene.continue", `{}`)
	v := s.FilmView()
	if len(v.Scenes) != 4 || v.Scenes[1].Name != "Scene 4" || v.Scenes[1].Transition != doc.Morph || v.Scenes[1].Into != 700 || v.Scenes[1].Start != 4600 {
		t.Errorf("continued: %+v", v.Scenes[1])
	}
	id := v.Scenes[1].ID
	for _, c := range []struct {
		kind string
		into int64
	}{{doc.Cut, 0}, {doc.Crossfade, 700}, {doc.Morph, 700}} {
		want(t, s, rest, "scene.transition", fmt.Sprintf(`{"ids":[%q],"patch":{"kind":%q}}`, id, c.kind))
		if h := s.FilmView().Scenes[1]; h.Transition != c.kind || h.Into != c.into {
			t.Errorf("%s takes %d ms", h.Transition, h.Into)
		}
	}
	if _, err := s.Intent("scene.transition", rest, []byte(fmt.Sprintf(`{"ids":[%q],"patch":{"kind":"morph"}}`, s.FilmView().Scenes[0].ID))); err == nil {
		t.Error("the first scene got a transition")
	}
}

func TestScenesAreSetTogether(t *testing.T) {
	s := strip(t)
	three, _ := s.Intent("scene.duplicate", scope.Moment{Rest: true, Scene: 1}, []byte(`{}`))
	if _, err := s.Apply(three); err != nil {
		t.Fatal(err)
	}
	ids := []string{}
	for _, h := range s.FilmView().Scenes {
		ids = append(ids, h.ID)
	}
	if own := s.OwnScenes(ids, "stay"); len(own) != 1 || own[0] != "one" {
		t.Errorf("a scene of 8 s among two of 4 s: %v", own)
	}
	want(t, s, rest, "scene.stay", fmt.Sprintf(`{"ids":%s,"stay":1200}`, marshal(t, ids)))
	want(t, s, rest, "scene.transition", fmt.Sprintf(`{"ids":%s,"patch":{"kind":"push","params":{"direction":90}}}`, marshal(t, ids)))
	v := s.FilmView()
	for i, h := range v.Scenes {
		if h.Stay != 1200 || i > 0 && (h.Transition != effect.Push || h.Into != 700 || h.Params["direction"] != 90.0) {
			t.Errorf("%+v", h)
		}
	}
	want(t, s, rest, "film.closing", `{"patch":{"kind":"morph"}}`)
	if v = s.FilmView(); v.Closing == nil || v.Closing.Duration != 700 || v.Length != 3*1200+3*700 {
		t.Errorf("%+v, length %d", v.Closing, v.Length)
	}
	want(t, s, rest, "film.closing", `{"patch":{"kind":"cut"}}`)
	if v = s.FilmView(); v.Closing != nil || v.Length != 3*1200+2*700 {
		t.Errorf("%+v, length %d", v.Closing, v.Length)
	}
	// A stay typed for a scene with waits is the stay that is seen.
	want(t, s, rest, "cue.add", `{"at":500}`)
	q := s.FilmView().Scenes[0].Cues[0]
	if _, err := s.Apply(sent(fmt.Sprintf(`{"op":"cue.set","scene":"one","id":%q,"patch":{"wait":2000}}`, q.ID))); err != nil {
		t.Fatal(err)
	}
	want(t, s, rest, "scene.stay", `{"ids":["one"],"stay":5000}`)
	if h := s.FilmView().Scenes[0]; h.Stay != 5000 {
		t.Errorf("stay %d", h.Stay)
	}
}
