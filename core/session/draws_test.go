package session_test

import (
	"testing"

	"capstan/core/doc"
	"capstan/core/effect"
	"capstan/core/session"
)

// Layers are drawn one after another, each for its share of the time by the length of its lines, or equally; a border that is moved takes from one
// what it gives the other, and stops where nothing would be left; the ground is drawn only if wanted.
func TestLayersAreDrawnOneAfterAnother(t *testing.T) {
	made := func() *session.Session {
		return open(t, with(shapeOf("ground", doc.Rectangle, 960, 540, 1920, 1080), shapeOf("a", doc.Rectangle, 300, 300, 100, 50), shapeOf("b", doc.Rectangle, 600, 300, 50, 25)))
	}
	takes := func(s *session.Session, name string) int64 {
		for _, m := range thread(t, s, 0, name).Moves {
			if m.Effect == effect.DrawOn {
				return m.Duration
			}
		}
		return 0
	}
	s := made()
	want1(t, s, "moves.draw", `{"total":3000}`)
	if g, a, b := takes(s, "ground"), takes(s, "a"), takes(s, "b"); g != 0 || a != 2000 || b != 1000 {
		t.Errorf("by length: %d, %d, %d", g, a, b)
	}
	first, second := thread(t, s, 0, "a").Moves[0], thread(t, s, 0, "b").Moves[0]
	if second.Start.When != doc.WhenEnds || second.Start.Of != first.ID {
		t.Errorf("the second begins %+v", second.Start)
	}
	want1(t, s, "run.border", `{"move":"`+first.ID+`","by":250}`)
	if a, b := takes(s, "a"), takes(s, "b"); a != 2250 || b != 750 {
		t.Errorf("moved by 250: %d, %d", a, b)
	}
	want1(t, s, "run.border", `{"move":"`+first.ID+`","by":90000}`)
	if a, b := takes(s, "a"), takes(s, "b"); a != 3000-doc.MinDuration || b != doc.MinDuration {
		t.Errorf("moved beyond all: %d, %d", a, b)
	}
	refused(t, s, "no border", "run.border", `{"move":"`+second.ID+`","by":100}`)
	s = made()
	want1(t, s, "moves.draw", `{"threads":["b","a"],"total":3000,"equal":true,"pointer":"chalk"}`)
	if a, b := takes(s, "a"), takes(s, "b"); a != 1500 || b != 1500 || thread(t, s, 0, "a").Moves[0].Params.Word("pointer") != "chalk" {
		t.Errorf("equally: %d, %d", a, b)
	}
	if thread(t, s, 0, "b").Moves[0].Start.When != doc.AtTime {
		t.Error("it is not drawn in the order chosen")
	}
	s = made()
	want1(t, s, "moves.draw", `{"ground":true}`)
	if takes(s, "ground") == 0 {
		t.Error("the ground was wanted")
	}
	refused(t, s, "nothing here", "moves.draw", `{"threads":["nobody"]}`)
	refused(t, s, "two layers", "moves.turnOver", `{"threads":["a"]}`)
	want1(t, s, "moves.turnOver", `{"threads":["a","b"]}`)
	a, b := thread(t, s, 0, "a").Moves, thread(t, s, 0, "b").Moves
	out, in := a[len(a)-1], b[len(b)-1]
	if out.Kind != doc.Exit || in.Kind != doc.Entrance || in.Start.Of != out.ID || in.Start.When != doc.WhenEnds || out.Params.Word("axis") != "upright" {
		t.Errorf("turned over by %+v and %+v", out, in)
	}
}
