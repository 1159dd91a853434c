package session_test

import (
	"fmt"
	"testing"

	"capstan/core/doc"
	"capstan/core/fields"
	"capstan/core/scope"
)

// Every move becomes every other of its kind and is one that the document takes; it starts when it did, and keeps its direction where both
// effects have one.
func TestAMoveGetsAnotherEffect(t *testing.T) {
	m := scope.Moment{Rest: true}
	s := opener(t)
	for _, o := range fields.Moves {
		for _, from := range o.Moves {
			for _, to := range o.Moves {
				if from == to || from.Effect == to.Effect {
					continue
				}
				was := len(thread(t, s, 0, "t-kite").Moves)
				want(t, s, m, "move.add", fmt.Sprintf(`{"threads":["t-kite"],"kind":%q,"effect":%q,"at":700}`, from.Kind, from.Effect))
				a := thread(t, s, 0, "t-kite").Moves[was]
				if from.Effect == doc.Slide {
					want(t, s, m, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"slide":{"direction":90}}}`, a.ID))
				}
				want(t, s, m, "move.effect", fmt.Sprintf(`{"move":%q,"effect":%q}`, a.ID, to.Effect))
				b := thread(t, s, 0, "t-kite").Moves[was]
				if b.Effect != to.Effect || b.Start != a.Start || b.Kind != from.Kind {
					t.Errorf("%s to %s: %+v", from.Name, to.Name, b)
				}
				if from.Effect == doc.Slide && to.Effect == doc.Wipe && b.Wipe.Direction != 90 {
					t.Errorf("the wipe goes to %v", b.Wipe.Direction)
				}
				if err := s.Document().Validate(); err != nil {
					t.Errorf("%s to %s: %v", from.Name, to.Name, err)
				}
			}
		}
	}
}
