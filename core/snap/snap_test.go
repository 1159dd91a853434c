package snap_test

import (
	"math"
	"math/rand/v2"
	"strings"
	"testing"

	"capstan/core/geom"
	"capstan/core/snap"
)

func box(x, y, w, h float64) geom.Box {
	return geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + w, Y: y + h}}
}

func words(marks []snap.Mark) string {
	var out []string
	for _, m := range marks {
		out = append(out, m.Words)
	}
	return strings.Join(out, "; ")
}

func TestWhatABoxSnapsTo(t *testing.T) {
	f := &snap.Field{}
	f.Page(1000, 600)
	f.Box(box(100, 50, 80, 40), "Kite")
	f.Guide(snap.Down, 333, "a guide", 0, 1000)
	for _, c := range []struct {
		b    geom.Box
		by   geom.Point
		said string
	}{
		{box(448, 402, 100, 50), geom.Point{X: 2}, "middle of the page"},
		{box(3, 402, 100, 50), geom.Point{X: -3}, "left edge of the page"},
		{box(897, 546, 100, 50), geom.Point{X: 3, Y: 4}, "right edge of the page; lower edge of the page"},
		{box(103, 402, 30, 50), geom.Point{X: -3}, "left edge of Kite"},
		{box(184, 402, 30, 50), geom.Point{X: -4}, "right edge of Kite"},
		{box(123, 402, 30, 50), geom.Point{X: 2}, "middle of Kite"},
		{box(600, 331, 30, 50), geom.Point{Y: 2}, "a guide"},
		{box(600, 420, 30, 50), geom.Point{}, ""},
	} {
		by, marks := f.Move(c.b, 5)
		if by.Sub(c.by).Len() > 1e-9 || words(marks) != c.said {
			t.Errorf("%v goes by %v (%s), want %v (%s)", c.b, by, words(marks), c.by, c.said)
		}
	}
	if by, marks := f.Move(box(448, 402, 100, 50), 1); by != (geom.Point{}) || marks != nil {
		t.Errorf("beyond its reach it goes by %v to %s", by, words(marks))
	}
	// Two as near: a guide counts before the page, the page before a layer.
	f = &snap.Field{}
	f.Page(1000, 600)
	f.Box(box(300, 50, 400, 40), "Kite")
	if _, marks := f.Move(box(449, 300, 100, 50), 5); !strings.HasPrefix(words(marks), "middle of the page") {
		t.Errorf("to %s", words(marks))
	}
	f.Guide(snap.Across, 500, "a guide", 0, 600)
	if _, marks := f.Move(box(449, 300, 100, 50), 5); !strings.HasPrefix(words(marks), "a guide") {
		t.Errorf("to %s", words(marks))
	}
	f = &snap.Field{}
	f.Grid(25)
	if by, marks := f.Move(box(52, 101, 30, 30), 4); by != (geom.Point{X: -2, Y: -1}) || words(marks) != "the grid; the grid" {
		t.Errorf("on the grid by %v, %s", by, words(marks))
	}
}

// A box between two others has as much room on both sides; beside them it keeps the gap that they have.
func TestGapsBecomeEqual(t *testing.T) {
	f := &snap.Field{}
	f.Box(box(100, 100, 60, 50), "a")
	f.Box(box(300, 110, 60, 50), "b")
	for _, c := range []struct{ x, want, gap float64 }{{212, 210, 50}, {503, 500, 140}, {-78, -80, 140}} {
		by, marks := f.Move(box(c.x, 117, 40, 20), 5)
		if math.Abs(c.x+by.X-c.want) > 1e-9 {
			t.Errorf("from %v it goes to %v, want %v (%s)", c.x, c.x+by.X, c.want, words(marks))
		}
		if len(marks) == 0 || len(marks[0].Lines) != 2 {
			t.Fatalf("from %v it is shown by %v", c.x, marks)
		}
		for _, l := range marks[0].Lines {
			if math.Abs(l[2]-l[0]-c.gap) > 1e-9 {
				t.Errorf("a gap is shown as %v wide, want %v", l[2]-l[0], c.gap)
			}
		}
	}
	// What does not lie beside them has no gap to them.
	if by, marks := f.Move(box(212, 300, 40, 20), 5); by.X != 0 {
		t.Errorf("far below it goes by %v, %s", by, words(marks))
	}
}

func TestAnEdgeSnapsToLinesAndSizes(t *testing.T) {
	f := &snap.Field{}
	f.Page(1000, 600)
	f.Box(box(100, 50, 80, 40), "Kite")
	for _, c := range []struct {
		axis            int
		at, fixed, want float64
		said            string
	}{
		{snap.Across, 997, 800, 1000, "right edge of the page"}, {snap.Across, 683, 600, 680, "as wide as Kite"}, {snap.Across, 517, 600, 520, "as wide as Kite"},
		{snap.Down, 438, 400, 440, "as high as Kite"}, {snap.Down, 303, 200, 300, "middle of the page"},
	} {
		by, mark, ok := f.Edge(c.axis, c.at, c.fixed, 0, 10, 5)
		if !ok || math.Abs(c.at+by-c.want) > 1e-9 || mark.Words != c.said {
			t.Errorf("from %v to %v (%s), want %v (%s)", c.at, c.at+by, mark.Words, c.want, c.said)
		}
	}
}

// Snapping never goes beyond its reach, and what has snapped stays where it is.
func TestSnappingIsBoundedAndSettles(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	for range 200 {
		f := &snap.Field{}
		f.Page(800, 600)
		for range r.IntN(30) {
			f.Box(box(r.Float64()*800, r.Float64()*600, r.Float64()*200, r.Float64()*200), "x")
		}
		b := box(r.Float64()*800, r.Float64()*600, r.Float64()*200, r.Float64()*200)
		by, _ := f.Move(b, 6)
		if math.Abs(by.X) > 6+1e-9 || math.Abs(by.Y) > 6+1e-9 {
			t.Fatalf("it goes by %v", by)
		}
		b = geom.Box{Min: b.Min.Add(by), Max: b.Max.Add(by)}
		if again, _ := f.Move(b, 1e-6); by.X != 0 && math.Abs(again.X) > 1e-6 {
			t.Fatalf("it goes on by %v", again)
		}
	}
}

// BenchmarkSnap finds what a box snaps to among 500 layers.
func BenchmarkSnap(b *testing.B) {
	r := rand.New(rand.NewPCG(1, 1))
	f := &snap.Field{}
	f.Page(1920, 1080)
	for range 500 {
		f.Box(box(r.Float64()*1900, r.Float64()*1000, 20+r.Float64()*200, 20+r.Float64()*200), "x")
	}
	for b.Loop() {
		f.Move(box(r.Float64()*1900, r.Float64()*1000, 120, 90), 6)
	}
}

// A pivot, or a point of a drawn path, is snapped to both ways by itself; what is dragged may bring a point of its own.
func TestPointsAreSnappedTo(t *testing.T) {
	f := &snap.Field{}
	f.Point(geom.Point{X: 400, Y: 300}, "pivot of Kite")
	by, marks := f.Place(geom.Point{X: 404, Y: 297}, 6)
	if by != (geom.Point{X: -4, Y: 3}) || len(marks) != 2 || marks[0].Words != "pivot of Kite" {
		t.Errorf("a point goes on by %v: %v", by, marks)
	}
	if by, marks = f.Place(geom.Point{X: 404, Y: 280}, 6); by != (geom.Point{X: -4}) || len(marks) != 1 {
		t.Errorf("near it across alone: %v %v", by, marks)
	}
	// The box lies far away; its own point is near.
	by, marks = f.Move(box(100, 100, 50, 50), 6, geom.Point{X: 398, Y: 305})
	if by != (geom.Point{X: 2, Y: -5}) || len(marks) != 2 {
		t.Errorf("a box with a point of its own: %v %v", by, marks)
	}
	// An edge as near counts before a point.
	f.Box(box(404, 0, 40, 40), "Gull")
	if _, marks = f.Move(box(402, 100, 20, 20), 6); len(marks) == 0 || !strings.HasPrefix(marks[0].Words, "left edge of Gull") {
		t.Errorf("between an edge and a point: %v", marks)
	}
}
