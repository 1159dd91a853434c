package session_test

import (
	"strings"
	"testing"

	"capstan/core/doc"
)

// A selected move goes to the page as one flat object: its own fields and what is worked out of them.
func TestMovesInTheInspectorAreFlat(t *testing.T) {
	s := opener(t)
	raw, err := doc.Encode(s.Selection(rest, []string{"t-kite"}))
	if err != nil {
		t.Fatal(err)
	}
	for _, field := range []string{`"effect":`, `"words":`, `"easingUsed":`, `"profile":[`, `"units":[`, `"film":`} {
		if !strings.Contains(string(raw), field) {
			t.Errorf("no %s in %.300s", field, raw)
		}
	}
}
