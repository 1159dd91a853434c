package session_test

import (
	"fmt"
	"slices"
	"testing"
)

// A key makes what is marked bold or italic, and takes it back where all of it is.
func TestBoldAndItalicAreToggled(t *testing.T) {
	s := open(t, with(words("t", "Kite Day", 160, 60, 24)))
	settings := func() (out []string) {
		for _, r := range layerOf(s, "t").Text.Runs {
			out = append(out, fmt.Sprint(r.Text, "/", r.Weight, "/", r.Italic))
		}
		return
	}
	for _, c := range []struct {
		args string
		want []string
	}{
		{`"what":"italic","from":0,"to":4`, []string{"Kite/700/true", " Day/700/false"}},
		{`"what":"italic"`, []string{"Kite Day/700/true"}},
		{`"what":"italic"`, []string{"Kite Day/700/false"}},
		{`"what":"bold"`, []string{"Kite Day/400/false"}},
		{`"what":"bold","from":5,"to":8`, []string{"Kite /400/false", "Day/700/false"}},
		{`"what":"bold"`, []string{"Kite Day/700/false"}},
	} {
		want(t, s, rest, "text.toggle", `{"threads":["t"],`+c.args+`}`)
		if got := settings(); !slices.Equal(got, c.want) {
			t.Errorf("%s: %q, want %q", c.args, got, c.want)
		}
	}
}
