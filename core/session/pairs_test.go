package session_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/intent/scenes"
	"capstan/core/scope"
)

// A thread that was cut is offered to be joined again, by what its layers have in common, and joined it is what it was; nothing is joined that a
// scene would hold twice, or that goes on from another layer.
func TestThreadsAreJoined(t *testing.T) {
	s := open(t, series())
	written := func() string {
		raw, err := json.Marshal(s.Document().Film.Scenes)
		if err != nil {
			t.Fatal(err)
		}
		return string(raw)
	}
	was := written()
	second := scope.Moment{Rest: true, Scene: 1}
	if v := scenes.PairsInto(s.Desk, 1); len(v.Offers) != 0 || !v.Before[0].Paired || !v.After[0].Paired {
		t.Errorf("before anything is cut: %+v", v)
	}
	want(t, s, second, "thread.cut", `{"threads":["a"]}`)
	v := scenes.PairsInto(s.Desk, 1)
	if len(v.Offers) != 1 || v.Offers[0].From != "a" || v.Offers[0].Why != "the same name" || v.After[0].Paired {
		t.Fatalf("after the cut: %+v", v)
	}
	join := func(scene, from, to string) string {
		return fmt.Sprintf(`{"scene":%q,"pairs":[{"from":%q,"to":%q}]}`, scene, from, to)
	}
	refused(t, s, "there is none", "thread.join", join(s.Document().Film.Scenes[0].ID, "a", "a"))
	refused(t, s, "not in its scene", "thread.join", join(v.Scene, v.Offers[0].To, "a"))
	want(t, s, second, "thread.join", join(v.Scene, "a", v.Offers[0].To))
	if now := written(); now != was {
		t.Errorf("cut and joined it is\n%s\nand was\n%s", now, was)
	}
	refused(t, s, "goes on from another", "thread.join", join(v.Scene, "a", "a"))
	// Another layer of the second scene cannot go on from the one that is in it already.
	want(t, s, second, "add.shape", `{"kind":"rectangle"}`)
	layers := s.Document().Film.Scenes[1].Layers
	other := layers[len(layers)-1].Thread
	refused(t, s, "twice", "thread.join", join(v.Scene, "a", other))
	// What hangs on a layer by its thread goes along.
	want(t, s, second, "thread.cut", `{"threads":["a"]}`)
	cut := s.Document().Film.Scenes[1].Layers[0].Thread
	want(t, s, second, "move.add", fmt.Sprintf(`{"threads":[%q],"kind":"entrance","effect":"wipe"}`, other))
	move := thread(t, s, 1, other).Moves[0].ID
	want(t, s, second, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"params":{"tie":%q}}}`, move, cut))
	want(t, s, second, "thread.join", join(v.Scene, "a", cut))
	found := ""
	doc.Walk(s.Document().Film.Scenes[1].Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			found = m.Params.Word("tie")
		}
		return true
	})
	if found != "a" {
		t.Errorf("the edge is tied to %q", found)
	}
}
