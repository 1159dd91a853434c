package session_test

import (
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/session"
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
		if err := s.Begin(session.DragLayers, rest, []string{"a"}, "", "", geom.Point{X: 40, Y: 40}); err != nil {
			t.Fatal(err)
		}
		r, err := s.Update(c.to, session.Modifiers{Reach: 5, Free: c.free})
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
	if err := s.Begin(session.DragSize, rest, []string{"a"}, "e", "", geom.Point{X: 50, Y: 40}); err != nil {
		t.Fatal(err)
	}
	if r, _ := s.Update(geom.Point{X: 68, Y: 40}, session.Modifiers{Reach: 5}); !strings.Contains(r.Words, "as wide as b") || math.Abs(bounds(s, []string{"a"})[0].W()-40) > near {
		t.Errorf("says %q, is %v", r.Words, bounds(s, []string{"a"})[0])
	}
}
