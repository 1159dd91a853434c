package session_test

import (
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/gesture"
)

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
	if err := s.Begin("move", rest, []string{"a"}, "", "", at(40, 40)); err != nil {
		t.Fatal(err)
	}
	if r, _ := s.Update(at(112, 60), gesture.Modifiers{Reach: 5}); r.Words != "+70, +20 · a guide" {
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
