package session_test

import (
	"fmt"
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/overlay"
	"capstan/core/scope"
	"capstan/core/session"
)

// What becomes what of two outlines can be changed: a point goes along its outline, a pair is added, turned round, let go; parts are paired; what would
// cross is refused, and what no longer fits after an outline was changed is told.
func TestWhatBecomesWhatIsCorrected(t *testing.T) {
	p := doc.NewProject("p", "p", 1000, 600, "s0")
	p.Film.Scenes[0].Stay = 1000
	second := doc.NewScene("s1", "second")
	second.Transition = doc.Transition{Kind: doc.Morph, Duration: 1000, Easing: "linear"}
	p.Film.Scenes = append(p.Film.Scenes, second)
	const square = "M-80 -80L80 -80L80 80L-80 80Z"
	for i, d := range []string{square, "M0 -90L90 30L40 90L-60 70L-90 -10ZM-20 0L-20 20L20 20Z"} {
		p.Film.Scenes[i].Layers = []*doc.Layer{{ID: fmt.Sprint("l", i), Thread: "a", Name: "A", Kind: doc.PathKind, Path: d, Opacity: 1, Fill: doc.Fill{Kind: doc.Solid, Colour: "#000000"}, Place: doc.Place{X: 200 + 600*float64(i), Y: 300}}}
	}
	s := open(t, p)
	now := scope.Moment{Rest: true, Scene: 1}
	seen := func() *overlay.Outline {
		t.Helper()
		v := s.Watch(session.Watched{Moment: now, Threads: []string{"a"}, Outline: "s1"}).Outline
		if v == nil {
			t.Fatal("nothing becomes anything")
		}
		return v
	}
	said := func() doc.Reshape {
		if v := s.Document().Film.Scenes[1].Transition.Threads["a"].Outline; v != nil {
			return *v
		}
		return doc.Reshape{}
	}
	ask := func(intent, more string) { want(t, s, now, intent, `{"scene":"s1","thread":"a"`+more+`}`) }
	v := seen()
	if len(v.Marks) < 4 || len(v.Parts) != 2 || v.Apart || v.Changed || v.Marks[0].Given {
		t.Fatalf("found by itself: %+v", v)
	}
	if st := s.Selection(now, []string{"a"})[0].Strands[0]; st.Outline != "outlines" || st.Given != 0 {
		t.Errorf("told of the strand: %+v", st)
	}
	// The first point's end on the later outline is dragged to where that is lowest left.
	at := func(i int, later bool) [2]float64 {
		if m := v.Marks[i]; later {
			return m.B
		}
		return v.Marks[i].A
	}
	corner := at(1, true)
	ask("outline.point", fmt.Sprintf(`,"mark":0,"later":true,"x":%v,"y":%v`, (at(0, true)[0]+corner[0])/2, (at(0, true)[1]+corner[1])/2))
	if v = seen(); len(said().Parts) != 1 || len(said().Parts[0].Points) != 1 || said().From == "" {
		t.Fatalf("one point is given: %+v", said())
	}
	given := func() (n int) {
		for _, m := range v.Marks {
			if m.Given {
				n++
			}
		}
		return
	}
	if given() != 1 {
		t.Errorf("%d points are shown as given", given())
	}
	ask("outline.nudge", `,"mark":0,"by":0.01`)
	ask("outline.pair", "")
	ask("outline.pair", "")
	if v = seen(); given() != 3 {
		t.Errorf("with two pairs more %d are given", given())
	}
	// One end dragged beyond its neighbours would cross them.
	far := 0
	for i := range v.Marks {
		if v.Marks[i].Given && i > 0 {
			far = i
		}
	}
	x, y := at(0, true)[0], at(0, true)[1]
	for _, by := range []float64{0.35, 0.45, 0.55, 0.65} {
		raw := fmt.Sprintf(`{"scene":"s1","thread":"a","mark":%d,"later":true,"by":%v}`, far, by)
		if _, err := s.Intent("outline.nudge", now, []byte(raw)); err != nil {
			refused(t, s, "cross", "outline.nudge", raw)
			x = math.NaN()
		}
	}
	if !math.IsNaN(x) {
		t.Errorf("nothing is refused though points lie at %v %v", x, y)
	}
	refused(t, s, "no outline there", "outline.pair", `{"scene":"s1","thread":"a","from":[10,10],"to":[990,10]}`)
	ask("outline.turn", `,"part":0`)
	if q := said().Parts[0]; len(q.Points) > 2 {
		t.Errorf("turned round it goes by %d points", len(q.Points))
	}
	ask("outline.turn", `,"part":0`)
	v = seen()
	for i := range v.Marks {
		if v.Marks[i].Given {
			ask("outline.loose", fmt.Sprintf(`,"mark":%d`, i))
			break
		}
	}
	// The hole becomes the square, by a line drawn from one to the other.
	ask("outline.pair", fmt.Sprintf(`,"from":[%v,%v],"to":[%v,%v]`, 200, 220, 800, 320))
	if q := said().Parts; len(q) != 1 || q[0].To != 1 {
		t.Errorf("the square becomes %+v", q)
	}
	ask("outline.parts", `,"from":0,"to":0`)
	if q := said().Parts; len(q) != 1 || q[0].To != 0 || len(q[0].Points) != 0 {
		t.Errorf("the square becomes %+v", q)
	}
	// The later outline loses its hole after that was paired: it is told, and what fits stays.
	ask("outline.parts", `,"from":0,"to":1`)
	want(t, s, now, "set", `{"threads":["a"],"patch":{"path":"M0 -90L90 30L40 90L-60 70L-90 -10Z"}}`)
	if v = seen(); !v.Changed || v.Lost != 1 {
		t.Errorf("after the outline has changed: changed %v, %d lost", v.Changed, v.Lost)
	}
	ask("outline.keep", "")
	if v = seen(); v.Changed || v.Lost != 0 || len(said().Parts) != 0 {
		t.Errorf("what fits is kept: %+v, lost %d", said(), v.Lost)
	}
	want(t, s, now, "outline.way", `{"threads":["a"],"scene":"s1","way":"bent"}`)
	if v = seen(); v.Goes != "bent" {
		t.Errorf("asked to bend it goes %s", v.Goes)
	}
	ask("outline.pair", "")
	ask("outline.forget", "")
	if said().Way != "bent" || len(said().Parts) != 0 {
		t.Errorf("what was said of points goes, and nothing else: %+v", said())
	}
	refused(t, s, "No outline", "outline.forget", `{"scene":"s0","thread":"a"}`)
	refused(t, s, "no longer there", "outline.loose", `{"scene":"s1","thread":"a","mark":400}`)
}
