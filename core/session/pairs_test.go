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

// A layer that the next scene does not have goes out with the morph by a side that is chosen, one that the scene before does not have comes in; both
// are told where the layer is selected.
func TestWingsAreChosen(t *testing.T) {
	s := open(t, series())
	for i := 1; i < 4; i++ {
		want(t, s, rest, "scene.transition", fmt.Sprintf(`{"ids":[%q],"patch":{"kind":"morph"}}`, s.Document().Film.Scenes[i].ID))
	}
	strands := func(scene int) (list []string) {
		for _, v := range s.Selection(scope.Moment{Rest: true, Scene: scene}, []string{"a"})[0].Strands {
			list = append(list, v.To+" "+v.Alone+" "+v.Wing)
		}
		return
	}
	third := s.Document().Film.Scenes[2].ID
	want(t, s, rest, "strand.set", fmt.Sprintf(`{"threads":["a"],"scene":%q,"wing":"left"}`, third))
	for scene, wanted := range map[int]string{0: "[]", 1: "[Scene 2   Scene 3 out left]", 3: "[Scene 4 in ]"} {
		if got := fmt.Sprint(strands(scene)); got != wanted {
			t.Errorf("of scene %d: %s, want %s", scene, got, wanted)
		}
	}
	flights := s.Rows(rest)[0].Flights
	if len(flights) != 1 || flights[0].Scene != 1 || flights[0].In || flights[0].Side != "left" || flights[0].End <= flights[0].Begin {
		t.Errorf("in the timeline: %+v", flights)
	}
	refused(t, s, "none of left", "strand.set", fmt.Sprintf(`{"threads":["a"],"scene":%q,"wing":"behind"}`, third))
	refused(t, s, "delay", "strand.set", fmt.Sprintf(`{"threads":["a"],"scene":%q,"delay":2}`, third))
	refused(t, s, "easing", "strand.set", fmt.Sprintf(`{"threads":["a"],"scene":%q,"easing":"wobble"}`, third))
	want(t, s, rest, "strand.set", fmt.Sprintf(`{"threads":["a"],"scene":%q,"wing":""}`, third))
	if n := len(s.Document().Film.Scenes[2].Transition.Threads); n != 0 {
		t.Errorf("%d threads are still told of", n)
	}
}

// It is told where a thread stands in the one scene of several into which it does not move.
func TestWhereAThreadStandsStillIsTold(t *testing.T) {
	for _, c := range []struct {
		at   []float64
		want string
	}{{[]float64{0, 10, 10, 20}, "Scene 3"}, {[]float64{0, 0, 10, 20, 30}, "Scene 2"}, {[]float64{0, 10, 10, 10, 20}, ""}, {[]float64{0, 10, 10}, ""}, {[]float64{0, 10, 20, 30}, ""}} {
		p := with(shapeOf("a", doc.Rectangle, c.at[0], 40, 20, 10))
		for i, x := range c.at[1:] {
			sc := doc.NewScene(fmt.Sprint("s", i+2), fmt.Sprint("Scene ", i+2))
			l := shapeOf("a", doc.Rectangle, x, 40, 20, 10)
			l.ID = fmt.Sprint("a", i)
			sc.Layers = []*doc.Layer{l}
			p.Film.Scenes = append(p.Film.Scenes, sc)
		}
		if got := open(t, p).Selection(scope.Moment{Rest: true}, []string{"a"})[0].Stands; got != c.want {
			t.Errorf("at %v: %q, want %q", c.at, got, c.want)
		}
	}
}
