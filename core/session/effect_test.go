package session_test

import (
	"fmt"
	"testing"

	"capstan/core/effect"
	"capstan/core/fields"
	"capstan/core/scope"
)

// Every move becomes every other of its kind and is one that the document takes; it starts when it did, and keeps its direction where both
// effects have one.
func TestAMoveGetsAnotherEffect(t *testing.T) {
	m := scope.Moment{Rest: true}
	s := opener(t)
	for _, o := range fields.Moves() {
		for _, from := range o.Moves {
			for _, to := range o.Moves {
				if from == to || from.Effect == to.Effect {
					continue
				}
				on := "t-kite"
				if from.Variant == "typed" { // of texts alone
					on = "t-title"
				}
				was := len(thread(t, s, 0, on).Moves)
				want(t, s, m, "move.add", fmt.Sprintf(`{"threads":[%q],"kind":%q,"effect":%q,"variant":%q,"at":700}`, on, from.Kind, from.Effect, from.Variant))
				a := thread(t, s, 0, on).Moves[was]
				if from.Effect == effect.Slide {
					want(t, s, m, "move.set", fmt.Sprintf(`{"move":%q,"patch":{"params":{"direction":90}}}`, a.ID))
				}
				want(t, s, m, "move.effect", fmt.Sprintf(`{"move":%q,"effect":%q}`, a.ID, to.Effect))
				b := thread(t, s, 0, on).Moves[was]
				if b.Effect != to.Effect || b.Start != a.Start || b.Kind != from.Kind {
					t.Errorf("%s to %s: %+v", from.Name, to.Name, b)
				}
				if from.Effect == effect.Slide && to.Effect == effect.Wipe && b.Params.Number("direction") != 90 {
					t.Errorf("the wipe goes to %v", b.Params["direction"])
				}
				if err := s.Document().Validate(); err != nil {
					t.Errorf("%s to %s: %v", from.Name, to.Name, err)
				}
			}
		}
	}
}
