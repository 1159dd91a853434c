package session_test

import (
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
)

// Dragged near the middle of the page a layer comes to lie on it, and says so; not while Ctrl is held.
func TestADragSnapsAndSaysToWhat(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 40, 40, 20, 20), shapeOf("b", doc.Rectangle, 250, 200, 40, 20)))
	for _, c := range []struct {
		to   geom.Point
		free bool
		want geom.Point
		said string
	}{
		{geom.Point{X: 158, Y: 80}, false, geom.Point{X: 160, Y: 80}, "middle of the page"}, {geom.Point{X: 158, Y: 80}, true, geom.Point{X: 158, Y: 80}, ""},
		{geom.Point{X: 242, Y: 80}, false, geom.Point{X: 240, Y: 80}, "left edge of b"},
	} {
		if err := s.Begin("move", rest, []string{"a"}, "", "", geom.Point{X: 40, Y: 40}); err != nil {
			t.Fatal(err)
		}
		r, err := s.Update(c.to, gesture.Modifiers{Reach: 5, Free: c.free})
		if err != nil {
			t.Fatal(err)
		}
		b := bounds(s, []string{"a"})[0]
		if b.Centre().Sub(c.want).Len() > near || c.said != "" && (!strings.Contains(r.Words, c.said) || len(r.Lines) == 0) || c.said == "" && len(r.Lines) > 0 {
			t.Errorf("dragged to %v it lies at %v and says %q with %v", c.to, b.Centre(), r.Words, r.Lines)
		}
		s.End()
		s.ClearDraft()
	}
	// A side that is dragged snaps, too: to an edge, and to the size of another.
	if err := s.Begin("size", rest, []string{"a"}, "e", "", geom.Point{X: 50, Y: 40}); err != nil {
		t.Fatal(err)
	}
	if r, _ := s.Update(geom.Point{X: 68, Y: 40}, gesture.Modifiers{Reach: 5}); !strings.Contains(r.Words, "as wide as b") || math.Abs(bounds(s, []string{"a"})[0].W()-40) > near {
		t.Errorf("says %q, is %v", r.Words, bounds(s, []string{"a"})[0])
	}
}

// Dragged, a layer comes to lie on pivots and on points of drawn paths beside it, its own pivot on what lies around; a pivot that is dragged, too.
func TestPivotsAndPointsOfPathsAreSnappedTo(t *testing.T) {
	a, b := shapeOf("a", doc.Rectangle, 60, 60, 20, 20), shapeOf("b", doc.Rectangle, 250, 150, 60, 40)
	b.Place.Pivot = &[2]float64{-60, -60} // at 190, 90
	line := shapeOf("line", doc.PathKind, 100, 180, 0, 0)
	line.Path = "M0 0L31 -17L60 0"
	for _, c := range []struct {
		kind string
		own  bool
		from geom.Point
		to   geom.Point
		want geom.Point
		said string
	}{
		{"move", false, geom.Point{X: 60, Y: 60}, geom.Point{X: 192, Y: 88}, geom.Point{X: 190, Y: 90}, "pivot of b"},
		{"move", false, geom.Point{X: 60, Y: 60}, geom.Point{X: 132, Y: 165}, geom.Point{X: 131, Y: 163}, "a point of line"},
		{"pivot", false, geom.Point{X: 60, Y: 60}, geom.Point{X: 188, Y: 89}, geom.Point{X: 190, Y: 90}, "pivot of b"},
		{"pivot", false, geom.Point{X: 60, Y: 60}, geom.Point{X: 222, Y: 168}, geom.Point{X: 220, Y: 170}, "left edge of b"},
		{"move", true, geom.Point{X: 60, Y: 60}, geom.Point{X: 158, Y: 61}, geom.Point{X: 160, Y: 63}, "pivot of b"}, // its pivot lies 30 to the right and 27 down
	} {
		k := a.Clone()
		if c.own {
			k.Place.Pivot = &[2]float64{30, 27}
		}
		s := open(t, with(k, b.Clone(), line.Clone()))
		if err := s.Begin(c.kind, rest, []string{"a"}, "", "", c.from); err != nil {
			t.Fatal(err)
		}
		r, err := s.Update(c.to, gesture.Modifiers{Reach: 4})
		if err != nil {
			t.Fatal(err)
		}
		at := bounds(s, []string{"a"})[0].Centre()
		if c.kind == "pivot" {
			v := s.OverlayView(rest, []string{"a"}).Boxes[0].Pivot
			at = geom.Point{X: v[0], Y: v[1]}
		}
		if at.Sub(c.want).Len() > near || !strings.Contains(r.Words, c.said) || len(r.Lines) == 0 {
			t.Errorf("%s to %v: it is at %v, want %v; says %q", c.kind, c.to, at, c.want, r.Words)
		}
	}
}
