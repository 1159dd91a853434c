package session_test

import (
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/session"
)

// Tapped, moves begin when they were, on their scene's clock, to a hundredth of a second; one that hangs on another keeps hanging there.
func TestMovesBeginWhenTheyAreTapped(t *testing.T) {
	a, b := shapeOf("a", doc.Rectangle, 40, 40, 20, 20), shapeOf("b", doc.Rectangle, 80, 40, 20, 20)
	a.Moves, b.Moves = []*doc.Move{entrance("ma", 0)}, []*doc.Move{entrance("mb", 0)}
	b.Moves[0].Start = doc.Start{When: doc.WhenBegins, Of: "ma", Offset: 100}
	s := open(t, with(a, b))
	s.Watch(session.Watched{Moment: rest})
	begin := s.Film.Order.Begin(0)
	run(t, s, "moves.tapped", fmt.Sprintf(`{"taps":[{"move":"ma","at":%d},{"move":"mb","at":%d},{"move":"gone","at":5}]}`, begin+503, begin+1198))
	if got := times(s, "ma", "mb"); got != fmt.Sprintf("500-%d 1200-%d", 500+a.Moves[0].Duration, 1200+b.Moves[0].Duration) {
		t.Errorf("they go %s", got)
	}
	if m := thread(t, s, 0, "b").Moves[0]; m.Start.When != doc.WhenBegins || m.Start.Offset != 700 {
		t.Errorf("it hangs %+v", m.Start)
	}
}
