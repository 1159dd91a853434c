package session_test

import (
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/scope"
	"capstan/core/session"
)

// Of several layers that are resized as one, and of groups, strokes, effects and letters grow along as far as that is wanted; places always.
func TestWhatGrowsAlong(t *testing.T) {
	p := func() *doc.Project {
		a := shapeOf("a", doc.Rectangle, 50, 50, 40, 40)
		a.Corner, a.Stroke, a.Blur = 6, &doc.Stroke{Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Width: 4, Dash: []float64{8, 2}}, 3
		a.Shadow = &doc.Shadow{X: 2, Y: 4, Blur: 5, Colour: "#000000"}
		inner := a.Clone()
		inner.ID, inner.Thread, inner.Place.X, inner.Place.Y = "in", "in", 10, 0
		nest := &doc.Layer{ID: "n", Thread: "n", Name: "n", Kind: doc.Group, Opacity: 1, Blur: 2, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 5}, Children: []*doc.Layer{inner}}
		g := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 200, Y: 60}, Children: []*doc.Layer{nest}}
		return with(a, g, words("w", "Kite", 120, 120, 20))
	}
	for _, c := range []struct {
		grows                   []string
		stroke, effect, letters float64
	}{
		{[]string{"strokes", "effects", "letters"}, 2, 2, 2}, {[]string{"strokes"}, 2, 1, 1}, {[]string{"effects"}, 1, 2, 1}, {[]string{"letters"}, 1, 1, 2}, {nil, 1, 1, 1},
	} {
		s := open(t, p())
		s.SetGrows(c.grows)
		threads := []string{"a", "g", "w"}
		if err := s.Begin("size", rest, threads, "se", "", geom.Point{}); err != nil {
			t.Fatal(err)
		}
		around := s.OverlayView(rest, threads).Around.Corners
		w, h := around[1][0]-around[0][0], around[3][1]-around[0][1]
		if _, err := s.Update(geom.Point{X: w, Y: h}, gesture.Modifiers{}); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Apply(s.End()); err != nil {
			t.Fatal(err)
		}
		check := func(what string, got, want float64) {
			t.Helper()
			if fmt.Sprintf("%.2f", got) != fmt.Sprintf("%.2f", want) {
				t.Errorf("with %v growing along: %s is %v, want %v", c.grows, what, got, want)
			}
		}
		for _, name := range []string{"a", "in"} {
			l := thread(t, s, 0, name)
			check(name+" is wide", l.Place.W, 80)
			check("corner of "+name, l.Corner, 6*c.stroke)
			check("stroke of "+name, l.Stroke.Width, 4*c.stroke)
			check("dash of "+name, l.Stroke.Dash[0], 8*c.stroke)
			check("blur of "+name, l.Blur, 3*c.effect)
			check("shadow of "+name, l.Shadow.Y, 4*c.effect)
		}
		check("blur of the group in the group", thread(t, s, 0, "n").Blur, 2*c.effect)
		check("its place", thread(t, s, 0, "n").Place.X, 10)
		check("letters", thread(t, s, 0, "w").Text.Runs[0].Size, 20*c.letters)
	}
	// A group whose size is typed, too.
	typed := open(t, p())
	typed.SetGrows([]string{"strokes"})
	want(t, typed, rest, "place", `{"threads":["g"],"w":80}`)
	if l := thread(t, typed, 0, "in"); l.Place.W != 80 || l.Stroke.Width != 8 || l.Blur != 3 || thread(t, typed, 0, "n").Blur != 2 {
		t.Errorf("typed: %+v", l)
	}
	// As commands stored before had it, and still have it where nothing is said.
	s := open(t, p())
	if _, err := s.Apply(sent(`{"op":"layer.scale","id":"a","kx":2,"ky":2,"x":50,"y":50}`)); err != nil {
		t.Fatal(err)
	}
	if l := thread(t, s, 0, "a"); l.Stroke.Width != 4 || l.Corner != 6 || l.Blur != 3 {
		t.Errorf("a command without a word of it: %+v", l)
	}
}

// At rest everything stands, or only what is on at the playhead: what has not entered and what has left is neither seen nor pressed.
func TestOnlyWhatIsOnNow(t *testing.T) {
	late, gone, always := shapeOf("late", doc.Rectangle, 50, 50, 40, 40), shapeOf("gone", doc.Rectangle, 150, 50, 40, 40), shapeOf("always", doc.Rectangle, 250, 50, 40, 40)
	late.Moves = []*doc.Move{{ID: "m1", Kind: doc.Entrance, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 1000}}}
	gone.Moves = []*doc.Move{{ID: "m2", Kind: doc.Exit, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 2000}}}
	s := open(t, with(late, gone, always))
	seen := func(m scope.Moment) string {
		out := ""
		shot := shotOf(t, s, m)
		for _, v := range []struct {
			name string
			x    int
		}{{"late", 50}, {"gone", 150}, {"always", 250}} {
			hit := s.Hit(m, geom.Point{X: float64(v.x), Y: 50}, 1)
			if shown := shot.RGBAAt(v.x, 50).B != 255; shown != (len(hit) > 0) {
				t.Errorf("%s is seen: %v, and pressed: %v", v.name, shown, hit)
			} else if shown {
				out += v.name + " "
			}
		}
		return out
	}
	for _, c := range []struct {
		on   bool
		time float64
		want string
	}{{false, 500, "late gone always "}, {true, 500, "gone always "}, {true, 1500, "late gone always "}, {true, 2500, "late always "}} {
		s.SetOnNow(c.on)
		if got := seen(scope.Moment{Rest: true, Time: c.time}); got != c.want {
			t.Errorf("at rest with the playhead at %v ms, thinned: %v: %s, want %s", c.time, c.on, got, c.want)
		}
	}
	// What is selected is shown where it is, also when it is not on.
	if o := s.OverlayView(scope.Moment{Rest: true, Time: 500}, []string{"late"}); len(o.Boxes) != 1 {
		t.Errorf("what is selected and not on has %d boxes", len(o.Boxes))
	}
	// The film and small pictures are as ever.
	if got := seen(scope.Moment{Time: 1500}); got != "late gone always " {
		t.Errorf("the film at 1.5 s shows %s", got)
	}
	s.SetOnNow(false)
	whole := list(s, 0)
	s.SetOnNow(true)
	s.Frame(scope.Moment{Rest: true}, 1)
	if list(s, 0) != whole {
		t.Error("the small picture of the scene is thinned, too")
	}
}

func list(s *session.Session, scene int) string { return fmt.Sprint(s.Thumb(scene, 0.1).Numbers) }

// The first and the last frame of a layer's moves: where it stands then, and it alone, faintly.
func TestFirstAndLastFrameOfMoves(t *testing.T) {
	a := shapeOf("a", doc.Rectangle, 160, 120, 40, 40)
	a.Moves = []*doc.Move{{ID: "m", Kind: doc.MotionPath, Effect: doc.Along, Start: doc.Start{When: doc.AtTime, Offset: 500}, Duration: 1000, Path: &doc.PathParams{D: "M0 0L100 0", Rest: doc.Departs}}}
	still := shapeOf("still", doc.Rectangle, 60, 60, 20, 20)
	s := open(t, with(a, still))
	ends := s.Ends(rest, []string{"a", "still"})
	if len(ends) != 2 || ends[0].Time != 500 || ends[1].Time != 1500 || ends[0].Corners[0][0] != 140 || ends[1].Corners[0][0] != 240 {
		t.Errorf("ends %+v", ends)
	}
	// What leaves is shown as it is just before it has gone.
	b := shapeOf("b", doc.Rectangle, 160, 120, 40, 40)
	b.Moves = []*doc.Move{{ID: "out", Kind: doc.Exit, Effect: effect.AtOnce, Start: doc.Start{When: doc.AtTime, Offset: 700}}}
	if ends := open(t, with(b)).Ends(rest, []string{"b"}); len(ends) == 0 || ends[len(ends)-1].Corners[0][0] != 140 {
		t.Errorf("of what leaves: %+v", ends)
	}
	l := s.EndsFrame(rest, []string{"a", "still"}, 1)
	fills := 0
	for _, c := range l.Codes {
		if c == 1 { // a fill
			fills++
		}
	}
	if fills < 2 || len(l.Numbers) == 0 {
		t.Errorf("a list of %v", l.Codes)
	}
	alpha := l.Numbers[len(l.Numbers)-1]
	if alpha < 0.3 || alpha > 0.5 {
		t.Errorf("it is shown by %v", alpha)
	}
}
