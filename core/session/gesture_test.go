package session_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/overlay"
	"capstan/core/scope"
	"capstan/demo"
)

// At any time, in any group, the layer follows the pointer: what is edited is the rest pose, mapped back (words-and-looks).
func TestALayerFollowsThePointerAtAnyTime(t *testing.T) {
	for _, m := range []scope.Moment{rest, {Time: 1200}, {Time: 2500}, {Time: 7000}} {
		for _, name := range []string{"t-kite", "t-panel-2", "t-wheel1", "t-cloud1"} {
			s := opener(t)
			before := corners(t, s, m, name)
			drag(t, s, m, "move", name, "", "", geom.Point{X: 100, Y: 100}, geom.Point{X: 183, Y: 61}, gesture.Modifiers{})
			for i, c := range corners(t, s, m, name) {
				if math.Abs(c[0]-before[i][0]-83)+math.Abs(c[1]-before[i][1]+39) > 0.01 {
					t.Errorf("%s at %+v: corner %d went from %v to %v", name, m, i, before[i], c)
					break
				}
			}
		}
	}
}

func TestResizingKeepsTheOppositeSide(t *testing.T) {
	for _, c := range []struct {
		name, handle string
		fixed        int // corner that stays
	}{{"t-plate", "se", 0}, {"t-plate", "nw", 2}, {"t-plate", "e", 0}, {"t-plate", "n", 2}, {"t-wheel1", "se", 0}, {"t-day", "nw", 2}} {
		s := opener(t)
		m := scope.Moment{Rest: true, Scene: 2}
		want(t, s, m, "place", fmt.Sprintf(`{"threads":[%q],"turn":24}`, c.name))
		before := corners(t, s, m, c.name)
		drag(t, s, m, "size", c.name, c.handle, "", geom.Point{X: 500, Y: 400}, geom.Point{X: 540, Y: 430}, gesture.Modifiers{})
		after := corners(t, s, m, c.name)
		f, g := before[c.fixed], after[c.fixed]
		// Letters are set in whole steps of a text's size, hence half a pixel.
		if math.Hypot(f[0]-g[0], f[1]-g[1]) > 0.5 {
			t.Errorf("%s by %s: the corner that stays went from %v to %v", c.name, c.handle, f, g)
		}
		if before == after {
			t.Errorf("%s by %s: nothing changed", c.name, c.handle)
		}
	}
}

func TestTurningCountsFullTurnsAboutThePivot(t *testing.T) {
	s := opener(t)
	l := thread(t, s, 0, "t-kite")
	from := l.Place.Turn
	o := s.OverlayView(rest, []string{"t-kite"}).Boxes[0]
	pivot := geom.Point{X: o.Pivot[0], Y: o.Pivot[1]}
	at := func(deg float64) geom.Point {
		return pivot.Add(geom.Rotate(deg).ApplyVector(geom.Point{X: 200}))
	}
	if err := s.Begin("turn", rest, []string{"t-kite"}, "", "", at(0)); err != nil {
		t.Fatal(err)
	}
	for d := 10.0; d <= 450; d += 10 {
		if _, err := s.Update(at(d), gesture.Modifiers{}); err != nil {
			t.Fatal(err)
		}
	}
	if _, err := s.Apply(s.End()); err != nil {
		t.Fatal(err)
	}
	if got := thread(t, s, 0, "t-kite").Place.Turn; math.Abs(got-from-450) > 0.11 {
		t.Errorf("turned from %v to %v, want 450 more", from, got)
	}
	if now := s.OverlayView(rest, []string{"t-kite"}).Boxes[0].Pivot; math.Hypot(now[0]-pivot.X, now[1]-pivot.Y) > 0.01 {
		t.Errorf("the pivot has moved from %v to %v", pivot, now)
	}
}

func TestAPathIsDrawnFromTheLayerOrFromTheWings(t *testing.T) {
	s := opener(t)
	want(t, s, rest, "add.shape", `{"kind":"ellipse","from":[900,500],"to":[1000,600]}`)
	rows := s.Rows(rest)
	name := rows[0].Thread
	want(t, s, rest, "path.draw", fmt.Sprintf(`{"threads":[%q],"from":[950,550],"to":[1450,550]}`, name))
	l := thread(t, s, 0, name)
	if p := l.Moves[0].Path; p.Rest != doc.Departs || p.D != "M 0 0L 500 0" || l.Moves[0].Duration != 1000 {
		t.Errorf("drawn from the layer: %+v, %d ms", p, l.Moves[0].Duration)
	}
	want(t, s, rest, "path.draw", fmt.Sprintf(`{"threads":[%q],"from":[-250,550],"to":[950,550]}`, name))
	l = thread(t, s, 0, name)
	if p := l.Moves[1].Path; p.Rest != doc.Arrives || p.D != "M-1200 0L 0 0" && p.D != "M -1200 0L 0 0" || l.Moves[1].Duration != 2400 {
		t.Errorf("drawn from the wings: %+v, %d ms", p, l.Moves[1].Duration)
	}
}

func TestDraggingAPathsEndEditsThePathAndItsRestEndMovesTheLayer(t *testing.T) {
	s := opener(t)
	move := thread(t, s, 0, "t-kite").Moves[0].ID
	p := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	from := geom.Point{X: p.From[0], Y: p.From[1]}
	drag(t, s, rest, "path", "t-kite", "from", move, from, from.Add(geom.Point{X: 60, Y: -40}), gesture.Modifiers{})
	q := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(q.From[0]-p.From[0]-60)+math.Abs(q.From[1]-p.From[1]+40) > 0.05 || math.Abs(q.To[0]-p.To[0]) > 0.05 {
		t.Errorf("its begin went from %v to %v, its end from %v to %v", p.From, q.From, p.To, q.To)
	}
	to := geom.Point{X: q.To[0], Y: q.To[1]}
	x := thread(t, s, 0, "t-kite").Place.X
	drag(t, s, rest, "path", "t-kite", "to", move, to, to.Add(geom.Point{X: 30}), gesture.Modifiers{})
	r := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(r.From[0]-q.From[0]) > 0.05 || math.Abs(r.To[0]-q.To[0]-30) > 0.05 || math.Abs(thread(t, s, 0, "t-kite").Place.X-x-30) > 0.01 {
		t.Errorf("the rest end: begin %v to %v, end %v to %v", q.From, r.From, q.To, r.To)
	}
}

func BenchmarkDrag(b *testing.B) {
	t := &testing.T{}
	s := open(t, demo.Opener(strings.Repeat("b", 64), &doc.Media{Name: "sky.jpg", Width: 1920, Height: 1080}))
	if err := s.Begin("move", rest, []string{"t-kite"}, "", "", geom.Point{}); err != nil {
		b.Fatal(err)
	}
	b.ReportAllocs()
	for i := 0; b.Loop(); i++ {
		if _, err := s.Update(geom.Point{X: float64(i % 300)}, gesture.Modifiers{}); err != nil {
			b.Fatal(err)
		}
	}
}

func TestAPathReachesWhereTypedAndKeepsItsBend(t *testing.T) {
	s := opener(t)
	move := thread(t, s, 0, "t-kite").Moves[0].ID
	before := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	want(t, s, rest, "path.reach", fmt.Sprintf(`{"move":%q,"x":900,"y":-100}`, move))
	p := s.OverlayView(rest, []string{"t-kite"}).Paths[0]
	if math.Abs(p.To[0]-p.From[0]-900)+math.Abs(p.To[1]-p.From[1]+100) > 0.05 || math.Abs(p.To[0]-before.To[0]) > 0.01 {
		t.Errorf("from %v to %v; its rest end was %v", p.From, p.To, before.To)
	}
	off := func(p overlay.Path) float64 { // how far its middle lies off the straight line, in lengths of it
		dx, dy := p.To[0]-p.From[0], p.To[1]-p.From[1]
		return ((p.Mid[0]-p.From[0])*dy - (p.Mid[1]-p.From[1])*dx) / (dx*dx + dy*dy)
	}
	if math.Abs(off(p)-off(before)) > 1e-3 {
		t.Errorf("the bend was %.3f and is %.3f", off(before), off(p))
	}
}
