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

// Dashes by their two lengths: one that is missing is that of the other, so that a typed gap never makes a stroke vanish.
func TestDashesHaveTwoLengths(t *testing.T) {
	s := opener(t)
	dash := func(args string) []float64 {
		t.Helper()
		want(t, s, rest, "stroke.dash", `{"threads":["t-title"],`+args+`}`)
		return thread(t, s, 0, "t-title").Stroke.Dash
	}
	want(t, s, rest, "stroke.set", `{"threads":["t-title"],"patch":{}}`)
	for _, c := range []struct {
		args string
		line float64
		gap  float64
	}{{`"gap":5`, 5, 5}, {`"line":12`, 12, 5}, {`"gap":0`, 0, 0}, {`"line":9`, 9, 9}, {`"line":0`, 0, 0}} {
		got := dash(c.args)
		if c.line == 0 && len(got) != 0 || c.line > 0 && (len(got) != 2 || got[0] != c.line || got[1] != c.gap) {
			t.Errorf("%s: %v, want %v %v", c.args, got, c.line, c.gap)
		}
	}
	want(t, s, rest, "stroke.set", `{"threads":["t-title"],"patch":{"cap":"round"}}`)
	if got := dash(`"gap":14`); len(got) != 2 || got[0] != 0 || got[1] != 14 {
		t.Errorf("round dots: %v", got)
	}
}
