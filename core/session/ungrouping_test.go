package session_test

import (
	"fmt"
	"image"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/scope"
)

// moving is a turned group of two with a path, a child with a path of its own, and something that begins when the group's path ends.
func moving() *doc.Project {
	one, two := shapeOf("one", doc.Rectangle, -40, 0, 40, 20), shapeOf("two", doc.Ellipse, 30, 10, 30, 30)
	two.Moves = []*doc.Move{{ID: "own", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.WhenBegins, Of: "path"}, Duration: 700, Path: &doc.PathParams{D: "M0 0L0 30"}}}
	other := shapeOf("other", doc.Rectangle, 260, 200, 20, 20)
	other.Moves = []*doc.Move{{ID: "after", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.WhenEnds, Of: "path", Offset: 50}, Duration: 500, Path: &doc.PathParams{D: "M0 0L-30 0"}}}
	g := &doc.Layer{ID: "g", Thread: "g", Name: "Pair", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 120, Y: 100, Turn: 35}, Children: []*doc.Layer{one, two}}
	g.Moves = []*doc.Move{
		{ID: "come", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 200}},
		{ID: "path", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: 300}, Duration: 900, Easing: "ease-in-out", Path: &doc.PathParams{D: "M0 0C20 0 40 20 60 40"}},
	}
	p := with(g, other)
	p.Film.Scenes[0].Stay = 3000
	return p
}

// Ungrouped, every frame is as before: paths and coming at once are handed down, and what hung on them hangs on.
func TestUngroupingHandsMovesDown(t *testing.T) {
	s := open(t, moving())
	times := []float64{0, 199, 250, 600, 900, 1199, 1300, 1700, 2500}
	shots := func() (list []*image.RGBA) {
		for _, ms := range times {
			list = append(list, shotOf(t, s, scope.Moment{Time: ms}))
		}
		return
	}
	before := shots()
	atRest := shotOf(t, s, rest)
	want(t, s, rest, "ungroup", `{"threads":["g"]}`)
	if n := len(s.Document().Film.Scenes[0].Layers); n != 3 {
		t.Fatalf("%d layers", n)
	}
	if n := differs(atRest, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("at rest %d pixels differ", n)
	}
	for i, now := range shots() {
		if n := differs(before[i], now, 3); n > 4 {
			t.Errorf("at %v ms %d pixels differ", times[i], n)
		}
	}
	_, other := s.Document().Film.Scenes[0].Move("after")
	if other == nil || other.Moves[0].Start.When != doc.WhenEnds || other.Moves[0].Start.Offset != 50 {
		t.Errorf("what hung on the group's path starts %+v", other.Moves[0].Start)
	}
}

// A spin or a rock goes on about the group's pivot in each of its layers, with the paths, where these stand still by themselves.
func TestUngroupingHandsTurnsDown(t *testing.T) {
	one, two := shapeOf("one", doc.Rectangle, -40, 0, 40, 20), words("two", "Kite", 40, -30, 30)
	one.Place.Turn = 20
	two.Moves = []*doc.Move{{ID: "fade", Kind: doc.Entrance, Effect: effect.Fade, Unit: doc.ByLetter, Overlap: 0.5, Start: doc.Start{When: doc.AtTime, Offset: 100}, Duration: 600}}
	g := &doc.Layer{ID: "g", Thread: "g", Name: "Pair", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 140, Y: 110, Turn: 35}, Children: []*doc.Layer{one, two}}
	g.Moves = []*doc.Move{
		{ID: "spin", Kind: doc.Loop, Effect: effect.Spin, Start: doc.Start{When: doc.AtTime, Offset: 200}, Duration: 1500, Repeat: 0.8, Params: effect.Params{"anticlockwise": true}},
		{ID: "rock", Kind: doc.Loop, Effect: effect.Rock, Start: doc.Start{When: doc.AtTime}, Duration: 900, Lasts: doc.WholeScene, Params: effect.Params{"angle": 14.0}},
		{ID: "path", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: 300}, Duration: 900, Path: &doc.PathParams{D: "M0 0C20 0 40 20 60 40"}},
	}
	for _, pivot := range []*[2]float64{nil, {-70, 20}} {
		k := g.Clone()
		k.Place.Pivot = pivot
		p := with(k)
		p.Film.Scenes[0].Stay = 2500
		s := open(t, p)
		times := []float64{0, 150, 400, 777, 1199, 1600, 2400}
		var before []*image.RGBA
		for _, ms := range times {
			before = append(before, shotOf(t, s, scope.Moment{Time: ms}))
		}
		want(t, s, rest, "ungroup", `{"threads":["g"]}`)
		if n := len(s.Document().Film.Scenes[0].Layers); n != 2 {
			t.Fatalf("%d layers", n)
		}
		for i, ms := range times {
			if n := differs(before[i], shotOf(t, s, scope.Moment{Time: ms}), 3); n > 4 {
				t.Errorf("pivot %v, at %v ms: %d pixels differ", pivot, ms, n)
			}
		}
	}
	// One that turns by itself cannot turn about both; a loop that goes on in the next scene would begin anew there.
	k := g.Clone()
	k.Children[0].Moves = []*doc.Move{{ID: "own", Kind: doc.Loop, Effect: effect.Spin, Start: doc.Start{When: doc.AtTime}, Duration: 1000}}
	refused(t, open(t, with(k)), "cannot have each by itself: Spin, Rock", "ungroup", `{"threads":["g"]}`)
	s := open(t, with(g.Clone()))
	want(t, s, rest, "scene.continue", `{}`)
	refused(t, s, "cannot have each by itself: Rock", "ungroup", `{"threads":["g"]}`)
}

// A move that is not the same for each by itself is told, and kept until it is said to go.
func TestUngroupingAsksWhereMovesWouldBeLost(t *testing.T) {
	p := moving()
	g := p.Film.Scenes[0].Layers[0]
	g.Moves = append(g.Moves, &doc.Move{ID: "rock", Kind: doc.Loop, Effect: effect.Rock, Start: doc.Start{When: doc.AtTime}, Duration: 800, Lasts: doc.WholeScene, Params: effect.Params{"angle": 8.0}})
	s := open(t, p)
	refused(t, s, "“Pair” has moves that its layers cannot have each by itself: Rock", "ungroup", `{"threads":["g"]}`)
	want(t, s, rest, "ungroup", `{"threads":["g"],"drop":true}`)
	var moves []string
	doc.Walk(s.Document().Film.Scenes[0].Layers, func(l, _ *doc.Layer) bool {
		for _, m := range l.Moves {
			moves = append(moves, fmt.Sprint(l.ID, " ", m.Effect))
		}
		return true
	})
	if got := strings.Join(moves, ", "); got != "one at-once, one along, two at-once, two along, two along, other along" {
		t.Errorf("left are %s", got)
	}
}

// Out of a mirrored group a layer would have to be mirrored by itself: that is refused; inside of it everything goes on.
func TestAMirroredGroupKeepsItsLayers(t *testing.T) {
	s := open(t, moving())
	want(t, s, rest, "moves.clear", `{"threads":["g"]}`)
	want(t, s, rest, "flip", `{"threads":["g"]}`)
	before := shotOf(t, s, rest)
	refused(t, s, "is mirrored", "ungroup", `{"threads":["g"]}`)
	refused(t, s, "is mirrored", "order.before", `{"threads":["one"],"target":"other","where":"above"}`)
	refused(t, s, "is mirrored", "group", `{"threads":["one","other"]}`)
	want(t, s, rest, "group", `{"threads":["one","two"]}`)
	if n := differs(before, shotOf(t, s, rest), 2); n > 0 {
		t.Errorf("grouped inside of it, %d pixels differ", n)
	}
	want(t, s, rest, "flip", `{"threads":["g"]}`)
	want(t, s, rest, "ungroup", `{"threads":["g"]}`)
}

// Grouping what lies behind others says what comes forward.
func TestGroupingSaysWhatComesForward(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 1, 1, 9, 9), shapeOf("b", doc.Rectangle, 1, 1, 9, 9), shapeOf("c", doc.Rectangle, 1, 1, 9, 9), shapeOf("d", doc.Rectangle, 1, 1, 9, 9)))
	for threads, want := range map[string]string{"a c": "[a]", "a b": "[]", "a b d": "[a b]", "c d": "[]", "b": "[]"} {
		if got := fmt.Sprint(s.Forward(rest, strings.Fields(threads))); got != want {
			t.Errorf("grouping %s: %s come forward, want %s", threads, got, want)
		}
	}
}

// Put into groups, in groups in groups, and taken out again, layers are painted as before, byte for byte.
func TestGroupsAreNotSeen(t *testing.T) {
	for seed := range uint64(6) {
		p, _ := scattered(seed)
		s := open(t, p)
		before := shotOf(t, s, rest)
		equal := func(what string) {
			t.Helper()
			if n := differs(before, shotOf(t, s, rest), 0); n > 0 {
				t.Errorf("seed %d: %s, %d pixels differ", seed, what, n)
			}
		}
		front := func() string { // the thread of what was grouped last
			for i := len(s.Document().Film.Scenes[0].Layers) - 1; ; i-- {
				if l := s.Document().Film.Scenes[0].Layers[i]; l.Kind == doc.Group && l.Thread != "g" {
					return l.Thread
				}
			}
		}
		// Neighbours in their order, so that none comes forward.
		want(t, s, rest, "group", `{"threads":["a1","a2"]}`)
		equal("two in a group")
		inner := front()
		want(t, s, rest, "group", fmt.Sprintf(`{"threads":[%q,"a0"]}`, inner))
		equal("a group in a group")
		outer := front()
		want(t, s, rest, "ungroup", fmt.Sprintf(`{"threads":[%q]}`, outer))
		equal("the outer one taken apart")
		want(t, s, rest, "ungroup", fmt.Sprintf(`{"threads":[%q]}`, inner))
		equal("both taken apart")
	}
}
