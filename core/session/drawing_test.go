package session_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/pen"
	"capstan/core/session"
)

var free = gesture.Modifiers{}

func at(x, y float64) geom.Point { return geom.Point{X: x, Y: y} }

// pageOf is a drawn path of the first scene in page px.
func pageOf(t *testing.T, l *doc.Layer) []pen.Contour {
	t.Helper()
	p, err := geom.ParseData(l.Path)
	if err != nil {
		t.Fatal(err)
	}
	q := &geom.Path{}
	q.Append(p, geom.Translate(at(l.Place.X, l.Place.Y)))
	return pen.Contours(q)
}

func last(s *session.Session) *doc.Layer {
	list := s.Document().Film.Scenes[0].Layers
	return list[len(list)-1]
}

// A corner, a smooth point, and closed on the first one: what was pressed and dragged is what is drawn.
func TestThePenDrawsCornersAndSmoothPoints(t *testing.T) {
	s := open(t, with())
	press := func(x, y float64) gesture.PenView { return s.Pen(rest, "press", at(x, y), free, 4, "") }
	press(50, 50)
	s.Pen(rest, "release", at(50, 50), free, 4, "")
	press(150, 50)
	s.Pen(rest, "drag", at(190, 70), free, 4, "")
	s.Pen(rest, "release", at(190, 70), free, 4, "")
	v := s.Pen(rest, "hover", at(100, 150), free, 4, "")
	if v.Closes || v.Next == "" || !strings.Contains(v.Words, "px") {
		t.Errorf("hovering: %+v", v)
	}
	press(100, 150)
	s.Pen(rest, "release", at(100, 150), free, 4, "")
	if v = s.Pen(rest, "hover", at(52, 51), free, 4, ""); !v.Closes {
		t.Error("near its first point it does not say that it closes")
	}
	press(52, 51)
	if v = s.Pen(rest, "release", at(52, 51), free, 4, ""); !v.Done {
		t.Fatal("pressed on its first point it is not done")
	}
	if _, err := s.Apply(s.PenEnd(rest)); err != nil {
		t.Fatal(err)
	}
	c := pageOf(t, last(s))
	if len(c) != 1 || !c[0].Closed || len(c[0].Nodes) != 3 {
		t.Fatalf("drawn: %+v", c)
	}
	n := c[0].Nodes[1]
	if n.Out.Sub(at(190, 70)).Len() > 0.01 || n.In.Sub(at(110, 30)).Len() > 0.01 || !n.Smooth() {
		t.Errorf("the smooth point is %+v", n)
	}
	if l := last(s); l.Fill.Kind != doc.Solid || l.Stroke != nil {
		t.Errorf("a closed drawing has fill %s and stroke %v", l.Fill.Kind, l.Stroke)
	}
	// An open one has a stroke, and is gone on with from its end.
	for _, q := range []geom.Point{at(10, 10), at(60, 10)} {
		s.Pen(rest, "press", q, free, 4, "")
		s.Pen(rest, "release", q, free, 4, "")
	}
	s.Apply(s.PenEnd(rest))
	l := last(s)
	if l.Stroke == nil || l.Fill.Kind != doc.NoFill {
		t.Errorf("an open drawing has fill %s", l.Fill.Kind)
	}
	s.Pen(rest, "press", at(61, 11), free, 4, l.Thread)
	s.Pen(rest, "release", at(61, 11), free, 4, l.Thread)
	s.Pen(rest, "press", at(60, 90), gesture.Modifiers{Shift: true}, 4, l.Thread)
	s.Pen(rest, "release", at(60, 90), free, 4, l.Thread)
	if _, err := s.Apply(s.PenEnd(rest)); err != nil {
		t.Fatal(err)
	}
	if c := pageOf(t, last(s)); last(s).ID != l.ID || len(c[0].Nodes) != 3 || c[0].Nodes[2].At.Sub(at(60, 90)).Len() > 0.01 {
		t.Errorf("gone on: %+v", c)
	}
	if s.Pen(rest, "press", at(1, 1), free, 4, ""); s.PenEnd(rest) != nil {
		t.Error("a single point became a layer")
	}
}

// Half a wing, drawn beside an upright axis, is a whole one: closed, and the same on both sides.
func TestHalfIsDrawnAndBothSidesCome(t *testing.T) {
	s := open(t, with())
	s.Pen(rest, "mirror", at(0, 0), free, 4, "")
	for _, q := range []geom.Point{at(160, 50), at(220, 90), at(160.3, 200)} {
		s.Pen(rest, "press", q, free, 4, "")
		s.Pen(rest, "drag", q.Add(at(15, 5)), free, 4, "")
		s.Pen(rest, "release", q, free, 4, "")
	}
	if _, err := s.Apply(s.PenEnd(rest)); err != nil {
		t.Fatal(err)
	}
	c := pageOf(t, last(s))
	if len(c) != 1 || !c[0].Closed || len(c[0].Nodes) != 4 {
		t.Fatalf("drawn: %+v", c)
	}
	p := pen.Path(c)
	for _, q := range []geom.Point{at(170, 100), at(200, 90), at(165, 180)} {
		if a, b := p.Contains(q), p.Contains(at(320-q.X, q.Y)); a != b {
			t.Errorf("%v is inside: %v, its mirror image: %v", q, a, b)
		}
	}
}

func TestPointsAreEditedOnAnyShape(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 160, 120, 100, 80)))
	before, _ := s.Document().Write()
	c, err := s.Intent("points.begin", rest, []byte(`{"threads":["a"]}`))
	if err != nil {
		t.Fatal(err)
	}
	patch, err := s.Apply(c)
	if err != nil {
		t.Fatal(err)
	}
	if back, err := patch.Inverse().Apply(s.Document()); err != nil {
		t.Fatal(err)
	} else if raw, _ := back.Write(); string(raw) != string(before) {
		t.Error("undo does not give the rectangle its numbers back")
	}
	v := s.Outline(rest, "a")
	if v.Count() != 4 || v.Contours[0].Nodes[0].At != at(110, 80) {
		t.Fatalf("a rectangle has %d points, the first at %v", v.Count(), v.Contours[0].Nodes[0].At)
	}
	drag := func(handle, with string, from, to geom.Point, mod gesture.Modifiers) {
		t.Helper()
		if err := s.Begin("points", rest, []string{"a"}, handle, with, from); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Update(to, mod); err != nil {
			t.Fatal(err)
		}
		if _, err := s.Apply(s.End()); err != nil {
			t.Fatal(err)
		}
	}
	drag("0.0", "0.1", at(110, 80), at(100, 60), free)
	k := s.Outline(rest, "a").Contours[0].Nodes
	if k[0].At != at(100, 60) || k[1].At != at(200, 60) || k[2].At != at(210, 160) {
		t.Errorf("two points dragged: %v", k)
	}
	// The middle of the lower edge is bent: the line goes through where it was dragged to.
	drag("0.2.on.0.5", "", at(160, 160), at(160, 200), free)
	l := s.Document().Film.Scenes[0].Layers[0]
	if _, _, d := func() (int, float64, float64) { c := pageOf(t, l)[0]; return c.Nearest(at(160, 200)) }(); d > 0.5 {
		t.Errorf("the bent edge passes %v px from where it was taken", d)
	}
	want1(t, s, "points.insert", `{"thread":"a","x":100,"y":110}`)
	if v := s.Outline(rest, "a"); v.Count() != 5 {
		t.Errorf("with one more it has %d points", v.Count())
	}
	want1(t, s, "points.smooth", `{"thread":"a","ids":["0.0","0.1"]}`)
	smooth := 0
	for _, k := range s.Outline(rest, "a").Contours[0].Nodes {
		if k.Smooth() {
			smooth++
		}
	}
	if smooth < 2 {
		t.Errorf("%d points are smooth", smooth)
	}
	want1(t, s, "points.corner", `{"thread":"a","ids":["0.0","0.1"]}`)
	want1(t, s, "points.remove", `{"thread":"a","ids":["0.4","0.1"]}`)
	if v := s.Outline(rest, "a"); v.Count() != 3 {
		t.Errorf("two taken out of five leave %d", v.Count())
	}
	want1(t, s, "points.cut", `{"thread":"a","ids":["0.1"]}`)
	if v := s.Outline(rest, "a"); v.Count() != 4 || v.Contours[0].Closed {
		t.Errorf("cut open it has %d points", v.Count())
	}
	want1(t, s, "points.close", `{"thread":"a"}`)
	if _, err := s.Intent("points.remove", rest, []byte(`{"thread":"a","ids":["0.0","0.1","0.2","0.3"]}`)); err == nil || !strings.Contains(err.Error(), "Nothing was changed") {
		t.Errorf("all points taken out: %v", err)
	}
}

// A scribble along a circle comes back as a ring of few points within its tolerance.
func TestFreehandIsFittedAndClosed(t *testing.T) {
	s := open(t, with())
	var pts []string
	for k := 0; k <= 200; k++ {
		sin, cos := math.Sincos(2 * math.Pi * float64(k) / 200)
		pts = append(pts, fmt.Sprintf("[%.2f,%.2f]", 160+80*cos+0.4*float64(k%3), 120+80*sin))
	}
	want1(t, s, "draw.freehand", `{"points":[`+strings.Join(pts, ",")+`],"tolerance":3,"reach":10}`)
	c := pageOf(t, last(s))
	if len(c) != 1 || !c[0].Closed || len(c[0].Nodes) > 12 {
		t.Fatalf("%d lines of %d points", len(c), len(c[0].Nodes))
	}
	pen.Path(c).Each(func(seg geom.Segment) {
		for u := 0.0; u <= 1; u += 0.1 {
			if d := math.Abs(seg.At(u).Sub(at(160.4, 120)).Len() - 80); d > 4.5 {
				t.Errorf("it lies %v px off the circle", d)
			}
		}
	})
}
