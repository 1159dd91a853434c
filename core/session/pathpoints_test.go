package session_test

import (
	"math"
	"testing"

	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/overlay"
)

// The points of a free path: dragged with their handles, added without changing the line, taken out again.
func TestFreePathsHavePoints(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "path.bend", `{"move":"ap","shape":"free"}`)
	d := func() *geom.Path {
		p, err := geom.ParseData(thread(t, s, 0, "ta").Moves[0].Path.D)
		if err != nil {
			t.Fatal(err)
		}
		return p
	}
	before := geom.NewMeasure(d()).Length()
	v := s.OverlayView(rest, []string{"ta"})
	if n := len(v.Paths[0].Knots); n != 7 { // three points, four handles
		t.Fatalf("%d knots", n)
	}
	want(t, s, rest, "path.knot.add", `{"move":"ap","x":560,"y":310}`)
	if got := geom.NewMeasure(d()).Length(); math.Abs(got-before) > before*1e-3 || len(d().Points) != 10 {
		t.Errorf("a point more makes the line %.3f instead of %.3f px long", got, before)
	}
	// The middle point takes its handles along; a handle turns the one across.
	v = s.OverlayView(rest, []string{"ta"})
	var knot overlay.Knot
	for _, k := range v.Paths[0].Knots {
		if k.Index == 3 {
			knot = k
		}
	}
	was := d()
	at := geom.Point{X: knot.At[0], Y: knot.At[1]}
	if err := s.Begin("path", rest, []string{"ta"}, "knot3", "ap", at); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Update(at.Add(geom.Point{X: 10, Y: -20}), gesture.Modifiers{}); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Apply(s.End()); err != nil {
		t.Fatal(err)
	}
	for _, k := range []int{2, 3, 4} {
		if got := d().Points[k].Sub(was.Points[k]); math.Abs(got.X-10) > 0.01 || math.Abs(got.Y+20) > 0.01 {
			t.Errorf("point %d went by %v", k, got)
		}
	}
	want(t, s, rest, "path.knot.remove", `{"move":"ap","index":3}`)
	if n := len(d().Points); n != 7 {
		t.Errorf("%d points are left", n)
	}
	refused(t, s, "keeps its begin and its end", "path.knot.remove", `{"move":"ap","index":0}`)
}
