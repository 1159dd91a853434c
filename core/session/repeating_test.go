package session_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
)

// A duplicate that was moved is duplicated as far again; so it is for one dragged off with Alt.
func TestDuplicatesGoOnAsFar(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20)))
	newest := func() *doc.Layer {
		return s.Document().Film.Scenes[0].Layers[len(s.Document().Film.Scenes[0].Layers)-1]
	}
	want(t, s, rest, "duplicate", `{"threads":["a"]}`)
	b := newest()
	if b.Place.X <= 40 {
		t.Fatalf("the duplicate lies at %v", b.Place)
	}
	want(t, s, rest, "place", `{"threads":["`+b.Thread+`"],"x":75,"y":52}`)
	want(t, s, rest, "duplicate", `{"threads":["`+b.Thread+`"]}`)
	if c := newest(); c.Place.X != 110 || c.Place.Y != 64 {
		t.Errorf("the next lies at %v, want 110, 64", c.Place)
	}
	drag(t, s, rest, "move", "a", "", "", geom.Point{X: 40, Y: 40}, geom.Point{X: 40, Y: 140}, gesture.Modifiers{Alt: true})
	if a := layerOf(s, "a"); a.Place.Y != 40 {
		t.Errorf("what was copied went to %v", a.Place)
	}
	k := s.Document().Film.Scenes[0].Layers[1]
	if k.Place.Y != 140 || k.Place.X != 40 {
		t.Errorf("the copy lies at %v", k.Place)
	}
	want(t, s, rest, "duplicate", `{"threads":["`+k.Thread+`"]}`)
	if n := s.Document().Film.Scenes[0].Layers[2]; n.Place.Y != 240 {
		t.Errorf("the one after it at %v", n.Place)
	}
}
