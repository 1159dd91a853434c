package session_test

import (
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/motion"
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

// A line by numbers keeps the ends of the path; one that is kept level or upright stays so while it is dragged and typed, until it is bent.
func TestLinesByNumbers(t *testing.T) {
	s := strip(t)
	m := func() *doc.Move { return thread(t, s, 0, "ta").Moves[0] }
	line := func() ([]geom.Point, motion.Preset) {
		p, err := geom.ParseData(m().Path.D)
		if err != nil {
			t.Fatal(err)
		}
		return p.Points, motion.PresetOf(p)
	}
	want(t, s, rest, "path.bend", `{"move":"ap","shape":"wave","count":3,"height":40}`)
	if p, is := line(); is != (motion.Preset{Shape: motion.Wave, Count: 3, Height: 40}) || p[0] != (geom.Point{}) || p[len(p)-1] != (geom.Point{X: 200, Y: 50}) {
		t.Errorf("%+v from %v to %v", is, p[0], p[len(p)-1])
	}
	want(t, s, rest, "path.bend", `{"move":"ap","shape":"ellipse","start":90,"back":true}`)
	if p, is := line(); is.Shape != motion.Ellipse || is.Start != 90 || !is.Back || p[len(p)-1] != p[0] {
		t.Errorf("%+v", is)
	}
	refused(t, s, "out of bounds", "path.bend", `{"move":"ap","shape":"wave","count":0}`)
	refused(t, s, "out of bounds", "path.bend", `{"move":"ap","shape":"arc","height":1e9}`)
	want(t, s, rest, "path.bend", `{"move":"ap","shape":"level"}`) // as wide as the ellipse was
	if p, _ := line(); p[1].Y != 0 || p[1].X < 100 {
		t.Fatalf("level it goes to %v", p[1])
	}
	page := s.OverlayView(rest, []string{"ta"}).Paths[0]
	to := geom.Point{X: page.To[0], Y: page.To[1]}
	if err := s.Begin("path", rest, []string{"ta"}, "to", "ap", to); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Update(to.Add(geom.Point{X: 30, Y: 77}), gesture.Modifiers{}); err != nil {
		t.Fatal(err)
	}
	was, _ := line()
	if _, err := s.Apply(s.End()); err != nil {
		t.Fatal(err)
	}
	if p, _ := line(); p[1].Y != 0 || math.Abs(p[1].X-was[1].X-30) > 0.01 {
		t.Errorf("dragged it goes to %v", p[1])
	}
	want(t, s, rest, "path.reach", `{"move":"ap","x":120,"y":-60}`)
	if p, _ := line(); p[1].Y != 0 || m().Path.Axis != doc.Level {
		t.Errorf("typed it goes to %v", p[1])
	}
	want(t, s, rest, "path.knot.add", `{"move":"ap","x":560,"y":310}`)
	if m().Path.Axis != "" {
		t.Error("with a point in it it is kept level")
	}
}
