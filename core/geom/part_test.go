package geom

import (
	"math"
	"testing"
)

func TestAPartOfAPathIsAsLongAsItsShareAndLiesOnIt(t *testing.T) {
	two := Ellipse(Box{Max: Point{100, 60}})
	two.Append(Rectangle(Box{Point{200, 0}, Point{260, 40}}, 0), Identity)
	whole := NewMeasure(two)
	for _, c := range [][2]float64{{0, 0.25}, {0.1, 0.9}, {0.5, 1}, {0.3, 0.300001}, {0, 1}, {0.49, 0.62}} {
		part := two.Part(c[0], c[1])
		m := NewMeasure(part)
		if want := (c[1] - c[0]) * whole.Length(); math.Abs(m.Length()-want) > 1e-4*whole.Length() {
			t.Errorf("%v: %v long, want %v", c, m.Length(), want)
		}
		if len(part.Points) == 0 {
			continue
		}
		at, _ := whole.At(c[0])
		if d := part.Points[0].Sub(at).Len(); d > 1e-3 {
			t.Errorf("%v begins %v away from where it should", c, d)
		}
		at, _ = whole.At(c[1])
		end, _ := m.At(1)
		if d := end.Sub(at).Len(); d > 1e-3 {
			t.Errorf("%v ends %v away from where it should", c, d)
		}
	}
	if n := len(two.Part(0.5, 0.5).Verbs) + len(two.Part(0.8, 0.2).Verbs); n != 0 {
		t.Error("something is left of nothing")
	}
	// What is there whole stays closed; what is cut is open.
	closes := 0
	for _, v := range two.Part(0, 0.999).Verbs {
		if v == Close {
			closes++
		}
	}
	if closes != 1 {
		t.Errorf("%d subpaths are closed, want the first alone", closes)
	}
}
