package session_test

import (
	"testing"

	"capstan/core/doc"
)

func TestTheOrderOfAFewIsReversed(t *testing.T) {
	s := open(t, with(shapeOf("a", doc.Rectangle, 1, 1, 9, 9), shapeOf("x", doc.Rectangle, 1, 1, 9, 9), shapeOf("b", doc.Rectangle, 1, 1, 9, 9), shapeOf("c", doc.Rectangle, 1, 1, 9, 9)))
	want(t, s, rest, "order.reverse", `{"threads":["c","a","b"]}`)
	got := ""
	for _, l := range s.Document().Film.Scenes[0].Layers {
		got += l.ID
	}
	if got != "cxba" {
		t.Errorf("from the back: %s, want cxba", got)
	}
}

func TestAllAreLockedAndUnlocked(t *testing.T) {
	p, _ := scattered(1)
	s := open(t, p)
	want(t, s, rest, "lock.all", `{"on":true}`)
	if v := s.AllView(rest, ""); len(v.Threads) != 0 {
		t.Errorf("not locked: %v", v.Threads)
	}
	want(t, s, rest, "lock.all", `{"on":false}`)
	if v := s.AllView(rest, ""); len(v.Threads) != 5 {
		t.Errorf("free again: %v", v.Threads)
	}
}
