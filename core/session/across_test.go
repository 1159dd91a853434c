package session_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/intent/scenes"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/session"
)

// series is a film of four scenes; thread a lives in all of them, each time elsewhere and in another colour, but for the third.
func series() *doc.Project {
	p := with(shapeOf("a", doc.Rectangle, 40, 40, 20, 10))
	for i := 1; i < 4; i++ {
		sc := doc.NewScene(fmt.Sprint("s", i+1), fmt.Sprint("Scene ", i+1))
		if i != 2 {
			l := shapeOf("a", doc.Rectangle, 40+float64(i)*50, 90, 30, 30)
			l.ID, l.Fill.Colour = fmt.Sprint("a", i), "#17403c"
			sc.Layers = []*doc.Layer{l}
		}
		p.Film.Scenes = append(p.Film.Scenes, sc)
	}
	return p
}

func in(s *session.Session, scene int) *doc.Layer { return s.Document().Film.Scenes[scene].Thread("a") }

// An edit that is done in later scenes, too, changes there what it changed here and nothing else.
func TestAnEditIsCarriedToLaterScenes(t *testing.T) {
	s := open(t, series())
	apply := func(command string) patch.Patch {
		t.Helper()
		patch, err := s.Apply(sent(command))
		if err != nil {
			t.Fatal(err)
		}
		return patch
	}
	patch := apply(`{"op":"layer.set","set":[{"id":"a","patch":{"place":{"turn":30},"opacity":0.5}}]}`)
	if v := scenes.Later(s.Desk, patch); v.Count != 2 || v.What != "opacity, turn" {
		t.Fatalf("told of %+v", v)
	}
	raw, err := doc.Encode(map[string]any{"changes": patch})
	if err != nil {
		t.Fatal(err)
	}
	want(t, s, rest, "edit.later", string(raw))
	for _, i := range []int{1, 3} {
		l := in(s, i)
		if l.Place.Turn != 30 || l.Opacity != 0.5 || l.Place.X != 40+float64(i)*50 || l.Place.W != 30 || l.Fill.Colour != "#17403c" {
			t.Errorf("scene %d: %+v %v %v", i+1, l.Place, l.Opacity, l.Fill.Colour)
		}
	}
	// What became nothing becomes nothing there.
	patch = apply(`{"op":"layer.set","set":[{"id":"a","patch":{"place":{"turn":null}}}]}`)
	raw, _ = doc.Encode(map[string]any{"changes": patch})
	want(t, s, rest, "edit.later", string(raw))
	if in(s, 3).Place.Turn != 0 {
		t.Errorf("it is turned by %v still", in(s, 3).Place.Turn)
	}
	if n := scenes.Later(s.Desk, apply(`{"op":"layer.set","set":[{"id":"a3","patch":{"opacity":1}}]}`)); n.Count != 0 {
		t.Errorf("the last scene has later ones: %+v", n)
	}
	if n := scenes.Later(s.Desk, apply(`{"op":"project.rename","name":"Kites"}`)); n.Count != 0 {
		t.Errorf("a project's name goes to %+v", n)
	}
}

// Of a text goes on what the edit changed alone: weight where the words are others, a stretch only where they are the same, words only where they
// were.
func TestOnlyWhatWasChangedOfATextIsCarried(t *testing.T) {
	p := with()
	phrase := func(id, say string) *doc.Layer {
		l := words(id, say, 60, 60, 20)
		l.Thread = "a"
		l.Text.Runs[0].Weight = 400
		return l
	}
	for i, w := range []string{"Bring a long tail", "Ends at four", "Bring a long tail"} {
		sc := p.Film.Scenes[0]
		if i > 0 {
			sc = doc.NewScene(fmt.Sprint("s", i+1), "")
			p.Film.Scenes = append(p.Film.Scenes, sc)
		}
		sc.Layers = []*doc.Layer{phrase(fmt.Sprint("a", i), w)}
	}
	for _, c := range []struct {
		intent, args string
		count        int
		what         string
		then         [2]string // words and weights of the runs in scenes 2 and 3
	}{
		{"text.style", `{"threads":["a"],"patch":{"weight":700}}`, 2, "weight", [2]string{"Ends at four/700", "Bring a long tail/700"}},
		{"text.style", `{"threads":["a"],"patch":{"weight":700},"from":0,"to":5}`, 1, "weight", [2]string{"Ends at four/400", "Bring/700  a long tail/400"}},
		{"text.style", `{"threads":["a"],"patch":{"size":33,"colour":"#112233"}}`, 2, "colour, size of letters", [2]string{"Ends at four/400", "Bring a long tail/400"}},
		{"text.words", `{"thread":"a","text":"Bring a short tail"}`, 1, "words", [2]string{"Ends at four/400", "Bring a short tail/400"}},
	} {
		s := open(t, p)
		cmd, err := s.Intent(c.intent, rest, []byte(c.args))
		if err != nil {
			t.Fatal(err)
		}
		patch, err := s.Apply(cmd)
		if err != nil {
			t.Fatal(err)
		}
		if v := scenes.Later(s.Desk, patch); v.Count != c.count || v.What != c.what {
			t.Errorf("%s %s: %+v, want %d of %q", c.intent, c.args, v, c.count, c.what)
		}
		raw, _ := doc.Encode(map[string]any{"changes": patch})
		want(t, s, rest, "edit.later", string(raw))
		for i := range c.then {
			var got []string
			for _, r := range in(s, i+1).Text.Runs {
				got = append(got, fmt.Sprintf("%s/%d", r.Text, r.Weight))
			}
			if strings.Join(got, " ") != c.then[i] {
				t.Errorf("%s %s: scene %d has %v, want %q", c.intent, c.args, i+2, got, c.then[i])
			}
		}
	}
}

func TestLayersAreShiftedAlongARunOfScenes(t *testing.T) {
	s := open(t, series())
	if c, err := s.Intent("carry.all", rest, []byte(`{"threads":["a"],"next":true}`)); c != nil || err != nil {
		t.Fatalf("it is in the next scene already: %s, %v", c, err)
	}
	want(t, s, rest, "shift.by", `{"threads":["a"],"dx":15,"dy":-4,"turn":10,"size":1.5,"opacity":-0.2}`)
	l := in(s, 1)
	if l.Place.X != 55 || l.Place.Y != 36 || l.Place.Turn != 10 || math.Abs(l.Opacity-0.8) > 1e-9 || math.Abs(l.Place.W-30) > 0.01 || math.Abs(l.Place.H-15) > 0.01 {
		t.Errorf("a step on: %+v, %v", l.Place, l.Opacity)
	}
	if in(s, 3).Place.X != 190 {
		t.Errorf("past the scene that lacks it, it was shifted to %v", in(s, 3).Place)
	}
	third := scope.Moment{Rest: true, Scene: 1}
	want(t, s, third, "carry.all", `{"threads":["a"],"next":true}`)
	want(t, s, rest, "shift.by", `{"threads":["a"],"dx":15}`)
	if in(s, 2).Place.X != 70 || in(s, 3).Place.X != 85 {
		t.Errorf("along all scenes: %v, %v", in(s, 2).Place.X, in(s, 3).Place.X)
	}
	last := scope.Moment{Rest: true, Scene: 3}
	if _, err := s.Intent("shift.by", last, []byte(`{"threads":["a"],"dx":15}`)); err == nil {
		t.Error("past the last scene")
	}
}
