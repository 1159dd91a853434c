package session_test

import (
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
)

// However the box of a text is to behave, the words stay where they are until it is made another size.
func TestABoxChangesItsWaysInPlace(t *testing.T) {
	for _, align := range []string{doc.Left, doc.Centre, doc.Right} {
		l := words("t", "Bring a long tail", 160, 60, 24)
		l.Text.Align, l.Place.Turn = align, 20
		s := open(t, with(l))
		before := shotOf(t, s, rest)
		for _, room := range []string{"wraps", "fixed", "wraps", "grows", "fixed", "grows"} {
			want(t, s, rest, "text.room", `{"threads":["t"],"room":"`+room+`"}`)
			if n := differs(before, shotOf(t, s, rest), 8); n > 0 {
				t.Errorf("%s, %s: %d pixels differ", align, room, n)
			}
		}
	}
}

// A side of the box that is dragged moves, the one opposite stays; the sizes of the words stay as they are set.
func TestTheBoxOfATextIsDraggedByItsSides(t *testing.T) {
	l := words("t", "Bring a long tail to the quay", 160, 60, 24)
	l.Text.Wrap, l.Text.Room, l.Place.W, l.Place.H, l.Place.Turn = true, doc.FixedRoom, 120, 80, 30
	for handle, c := range map[string]struct {
		by   geom.Point // in the layer's own axes
		w, h float64
		stay int // the corner that stays
	}{
		"e": {geom.Point{X: 40}, 160, 80, 0}, "w": {geom.Point{X: 40}, 80, 80, 1}, "s": {geom.Point{Y: 30}, 120, 110, 0}, "n": {geom.Point{Y: 30}, 120, 50, 2},
		"se": {geom.Point{X: -20, Y: 10}, 100, 90, 0}, "nw": {geom.Point{X: -20, Y: 10}, 140, 70, 2},
	} {
		s := open(t, with(l.Clone()))
		was := s.OverlayView(rest, []string{"t"}).Boxes[0]
		if was.Kind != "room" {
			t.Fatalf("it has the handles of a %s", was.Kind)
		}
		by := geom.Rotate(30).ApplyVector(c.by)
		drag(t, s, rest, "size", "t", handle, "", geom.Point{X: 100, Y: 100}, geom.Point{X: 100, Y: 100}.Add(by), gesture.Modifiers{})
		v, now := layerOf(s, "t"), s.OverlayView(rest, []string{"t"}).Boxes[0]
		if math.Abs(v.Place.W-c.w) > 0.02 || math.Abs(v.Place.H-c.h) > 0.02 || v.Text.Runs[0].Size != 24 {
			t.Errorf("%s: %v × %v at %v px, want %v × %v", handle, v.Place.W, v.Place.H, v.Text.Runs[0].Size, c.w, c.h)
		}
		if a, b := was.Corners[c.stay], now.Corners[c.stay]; math.Hypot(a[0]-b[0], a[1]-b[1]) > 0.05 {
			t.Errorf("%s: the corner that stays went from %v to %v", handle, a, b)
		}
	}
}

func TestATypedHeightIsTheBoxAndAFitIsTold(t *testing.T) {
	l := words("t", "Bring a long tail to the quay", 160, 60, 24)
	l.Text.Wrap, l.Place.W = true, 120
	s := open(t, with(l))
	want(t, s, rest, "text.room", `{"threads":["t"],"room":"fixed"}`)
	mid := s.Selection(rest, []string{"t"})[0].Box
	want(t, s, rest, "place", `{"threads":["t"],"h":40}`)
	v := s.Selection(rest, []string{"t"})[0]
	if v.Box[3] != 40 || math.Abs(v.Box[1]-mid[1]) > 0.02 || v.Layer.Text.Runs[0].Size != 24 {
		t.Errorf("its box is %v, was %v", v.Box, mid)
	}
	if v.Fit == nil || math.Abs(v.Fit.Over-(mid[3]-40)) > 1.01 {
		t.Errorf("told %+v of lines that need %v px", v.Fit, mid[3])
	}
	want(t, s, rest, "text.room", `{"threads":["t"],"room":"fit"}`)
	if v := s.Selection(rest, []string{"t"})[0]; v.Fit.Over > 0 || v.Fit.Scale >= 1 || v.Box[3] != 40 {
		t.Errorf("fitting it is %+v in %v", v.Fit, v.Box)
	}
	// Its letters, split, are as large as they were seen.
	before := shotOf(t, s, rest)
	want(t, s, rest, "text.split", `{"threads":["t"],"unit":"word"}`)
	if n := differs(before, shotOf(t, s, rest), 48); n > 10 {
		t.Errorf("split, %d pixels differ", n)
	}
}
