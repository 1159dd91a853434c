package session_test

import (
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/intent/points"
)

// Points of a shape that is turned by a quarter are put in line, turned and scaled as the page has it.
func TestPointsArePutInLineTurnedAndScaledOnThePage(t *testing.T) {
	shape := shapeOf("a", doc.Rectangle, 160, 120, 100, 80)
	shape.Place.Turn = 90
	s := open(t, with(shape))
	do := func(intent, args string) error {
		c, err := s.Intent(intent, rest, []byte(args))
		if err != nil {
			return err
		}
		_, err = s.Apply(c)
		return err
	}
	if err := do("points.begin", `{"threads":["a"]}`); err != nil {
		t.Fatal(err)
	}
	knot := func(i int) [2]float64 { q := s.Outline(rest, "a").Contours[0].Nodes[i].At; return [2]float64{q.X, q.Y} }
	near := func(what string, got, want [2]float64) {
		t.Helper()
		if math.Hypot(got[0]-want[0], got[1]-want[1]) > 0.01 {
			t.Errorf("%s: %v, not %v", what, got, want)
		}
	}
	// Its upper left corner lies at the upper right now: (200, 70), and so on round.
	near("the first corner", knot(0), [2]float64{200, 70})
	near("the second corner", knot(1), [2]float64{200, 170})
	if err := do("points.place", `{"thread":"a","ids":["0.0","0.1"],"degree":90}`); err != nil {
		t.Fatal(err)
	}
	near("turned", knot(0), [2]float64{250, 120})
	near("turned", knot(1), [2]float64{150, 120})
	if err := do("points.place", `{"thread":"a","ids":["0.0","0.1"],"scale":0.5}`); err != nil {
		t.Fatal(err)
	}
	near("scaled", knot(0), [2]float64{225, 120})
	near("scaled", knot(1), [2]float64{175, 120})
	if err := do("points.place", `{"thread":"a","ids":["0.1","0.2"],"line":"column"}`); err != nil {
		t.Fatal(err)
	}
	if a, b := knot(1), knot(2); math.Abs(a[0]-b[0]) > 0.01 || math.Abs(a[1]-120) > 0.01 || math.Abs(b[1]-170) > 0.01 {
		t.Errorf("in a column: %v and %v", a, b)
	}
	if err := do("points.place", `{"thread":"a","ids":["0.1"],"line":"row"}`); err == nil || !strings.Contains(err.Error(), "two or more") {
		t.Errorf("a single point in a row: %v", err)
	}
}

// The count that stands beside Simplify is the one that it keeps.
func TestTheCountOfSimplifyIsToldFirst(t *testing.T) {
	l := &doc.Layer{ID: "a", Thread: "a", Name: "a", Kind: doc.PathKind, Opacity: 1, Path: "M-40 0L-20 0.5L0 0L20 0.5L40 0L40 40"}
	l.Place = doc.Place{X: 160, Y: 120}
	l.Fill = doc.Fill{Kind: doc.Solid, Colour: "#112233"}
	s := open(t, with(l))
	told := points.Simplified(s.Desk, rest, "a", 2)
	if told != 3 {
		t.Errorf("told: %d points", told)
	}
	c, err := s.Intent("points.simplify", rest, []byte(`{"thread":"a","tolerance":2}`))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := s.Apply(c); err != nil {
		t.Fatal(err)
	}
	if n := s.Outline(rest, "a").Count(); n != told {
		t.Errorf("%d points are left, %d were told", n, told)
	}
	if n := points.Simplified(s.Desk, rest, "a", math.NaN()); n != told {
		t.Errorf("without a number: %d", n)
	}
}
