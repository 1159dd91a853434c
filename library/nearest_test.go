package library

import "testing"

// What a drawing names is found by its name, first among what the project has; generic names stand for a kind; of all else it is said that it is not there.
func TestTheNearestFamily(t *testing.T) {
	for _, c := range []struct {
		names, own []string
		want       string
		close      bool
	}{
		{[]string{"fredoka"}, nil, "Fredoka", true},
		{[]string{"Quayside", "Bitter"}, nil, "Bitter", true},
		{[]string{"Quayside", "Bitter"}, []string{"Quayside"}, "Quayside", true},
		{[]string{"Quayside", "monospace"}, nil, "Space Mono", true},
		{[]string{"sans-serif"}, nil, "Archivo", true},
		{[]string{"Quayside"}, nil, "Archivo", false},
		{nil, nil, "Archivo", false},
	} {
		if is, close := Nearest(c.names, c.own); is != c.want || close != c.close {
			t.Errorf("%v with %v is %s, %v", c.names, c.own, is, close)
		}
	}
}
