package session_test

import (
	"fmt"
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/edit"
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
	apply := func(command string) edit.Patch {
		t.Helper()
		patch, err := s.Apply([]byte(command))
		if err != nil {
			t.Fatal(err)
		}
		return patch
	}
	patch := apply(`{"op":"layer.set","set":[{"id":"a","patch":{"place":{"turn":30},"opacity":0.5}}]}`)
	if n := s.Later(patch); n != 2 {
		t.Fatalf("told of %d later scenes, want 2", n)
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
	if n := s.Later(apply(`{"op":"layer.set","set":[{"id":"a3","patch":{"opacity":1}}]}`)); n != 0 {
		t.Errorf("the last scene has %d later ones", n)
	}
	if n := s.Later(apply(`{"op":"project.rename","name":"Kites"}`)); n != 0 {
		t.Errorf("a project's name goes to %d scenes", n)
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
	third := session.Moment{Rest: true, Scene: 1}
	want(t, s, third, "carry.all", `{"threads":["a"],"next":true}`)
	want(t, s, rest, "shift.by", `{"threads":["a"],"dx":15}`)
	if in(s, 2).Place.X != 70 || in(s, 3).Place.X != 85 {
		t.Errorf("along all scenes: %v, %v", in(s, 2).Place.X, in(s, 3).Place.X)
	}
	last := session.Moment{Rest: true, Scene: 3}
	if _, err := s.Intent("shift.by", last, []byte(`{"threads":["a"],"dx":15}`)); err == nil {
		t.Error("past the last scene")
	}
}

// Guides are put down, moved, made of layers, snapped to, inherited by the scene that continues, and taken away; they are never seen.
func TestGuidesBelongToTheirScene(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 10)))
	before := shotOf(t, s, rest)
	guides := func(i int) string { return fmt.Sprint(s.Document().Film.Scenes[i].Guides) }
	want(t, s, rest, "guide", `{"axis":"upright","at":100}`)
	want(t, s, rest, "guide", `{"axis":"level","at":77}`)
	want(t, s, rest, "guide", `{"index":0,"at":120}`)
	if guides(0) != "[{upright 120} {level 77}]" {
		t.Errorf("guides %s", guides(0))
	}
	if err := s.Begin(session.DragLayers, rest, []string{"a"}, "", "", at(40, 40)); err != nil {
		t.Fatal(err)
	}
	if r, _ := s.Update(at(112, 60), session.Modifiers{Reach: 5}); r.Words != "+70, +20 · a guide" {
		t.Errorf("says %q", r.Words)
	}
	s.ClearDraft()
	if n := differs(before, shotOf(t, s, rest), 0); n > 0 {
		t.Errorf("guides are seen: %d pixels differ", n)
	}
	want(t, s, rest, "scene.continue", `{}`)
	if guides(1) != guides(0) {
		t.Errorf("the scene that continues has %s", guides(1))
	}
	want(t, s, rest, "guide", `{"index":1}`)
	want(t, s, rest, "guides.of", `{"threads":["a"]}`)
	if guides(0) != "[{upright 120} {upright 30} {upright 40} {upright 50} {level 35} {level 40} {level 45}]" {
		t.Errorf("made of a layer: %s", guides(0))
	}
	want(t, s, rest, "guides.of", `{"threads":[]}`)
	if guides(0) != "[]" {
		t.Errorf("left are %s", guides(0))
	}
	refused(t, s, "cannot be read", "guide", `{"index":3,"at":1}`)
}

func TestSafeAreasAreThoseOfTheStandard(t *testing.T) {
	// SMPTE ST 2046-1: action 93 %, titles 90 % of either side, about the middle.
	p := with()
	p.Film.Width, p.Film.Height = 1920, 1080
	s := open(t, p)
	list := s.SafeAreas()
	if len(list) != 2 || list[0].Box != [4]float64{67.2, 37.8, 1785.6, 1004.4} || list[1].Box != [4]float64{96, 54, 1728, 972} {
		t.Errorf("areas %v", list)
	}
	p.Film.Width, p.Film.Height = 1080, 1920
	if list := open(t, p).SafeAreas(); len(list) != 3 || list[2].Box != [4]float64{67.5, 240, 945, 1296} {
		t.Errorf("upright: %v", list)
	}
}

// Pasted into a scene that lacks it, a layer keeps its thread, unless it is pasted as new; pasted in place it does not move aside.
func TestPastingInPlaceAndAsNew(t *testing.T) {
	third := session.Moment{Rest: true, Scene: 2}
	for _, c := range []struct {
		where  session.Moment
		args   string
		thread bool
		x      float64
	}{
		{third, ``, true, 40}, {third, `,"new":true`, false, 40}, {rest, ``, false, 45}, {rest, `,"place":true`, false, 40},
	} {
		s := open(t, series())
		raw, err := doc.Encode(s.Copy(rest, []string{"a"}))
		if err != nil {
			t.Fatal(err)
		}
		want(t, s, c.where, "paste", string(raw[:len(raw)-1])+c.args+"}")
		list := s.Document().Film.Scenes[c.where.Scene].Layers
		l := list[len(list)-1]
		if (l.Thread == "a") != c.thread || l.Place.X != c.x {
			t.Errorf("scene %d%s: thread %s at %v", c.where.Scene+1, c.args, l.Thread, l.Place.X)
		}
	}
}
