package session_test

import (
	"math"
	"strings"
	"testing"

	"capstan/core/geom"
	"capstan/core/gesture"
)

func TestThePivotIsDraggedAndTyped(t *testing.T) {
	s := strip(t)
	want(t, s, rest, "set", `{"threads":["ta"],"patch":{"place":{"flipX":true,"turn":30}}}`)
	corners := func() [4][2]float64 { return s.OverlayView(rest, []string{"ta"}).Boxes[0].Corners }
	before := corners()
	want(t, s, rest, "pivot", `{"threads":["ta"],"x":0,"y":1}`)
	after := corners()
	for i := range before {
		if math.Hypot(after[i][0]-before[i][0], after[i][1]-before[i][1]) > 1e-3 {
			t.Errorf("the layer moved: %v, %v", before[i], after[i])
		}
	}
	if p := s.Selection(rest, []string{"ta"})[0].Pivot; math.Abs(p[0]) > 1e-6 || math.Abs(p[1]-1) > 1e-6 {
		t.Errorf("the pivot stands at %v of the box", p)
	}
	b := s.OverlayView(rest, []string{"ta"}).Boxes[0]
	if err := s.Begin("pivot", rest, []string{"ta"}, "", "", geom.Point{X: b.Pivot[0], Y: b.Pivot[1]}); err != nil {
		t.Fatal(err)
	}
	r, err := s.Update(geom.Point{X: 501, Y: 302}, gesture.Modifiers{})
	if err != nil || !strings.Contains(r.Words, "the middle") {
		t.Errorf("near the middle it snaps: %q %v", r.Words, err)
	}
}
