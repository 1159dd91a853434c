package frame_test

import (
	"testing"

	"capstan/core/display"
	"capstan/core/frame"
	"capstan/core/motion"
)

// Walking a list by what is declared of primitives comes out at its end, at every moment of a film; and where a list breaks off that is said.
func TestListsAreWhatIsDeclared(t *testing.T) {
	p, a := opener(t)
	f := compile(t, p, a)
	pl := f.Player()
	seen := map[uint32]bool{}
	for ms := int64(0); ms < f.Order.Length; ms += 77 {
		l := pl.At(motion.Millis(ms), frame.View{Scale: 1})
		c, n, ok := 0, 0, true
		for c < len(l.Codes) {
			seen[l.Codes[c]] = true
			if c, n, ok = display.Skip(l.Codes, l.Numbers, c, n); !ok {
				t.Fatalf("at %d ms it breaks off at code %d", ms, c)
			}
		}
		if c != len(l.Codes) || n != len(l.Numbers) {
			t.Fatalf("at %d ms the walk ends at %d of %d codes, %d of %d numbers", ms, c, len(l.Codes), n, len(l.Numbers))
		}
		cut := l.Codes[:len(l.Codes)-1]
		for c, n, ok = 0, 0, true; ok && c < len(cut); {
			c, n, ok = display.Skip(cut, l.Numbers, c, n)
		}
		if ok {
			t.Fatalf("at %d ms a list that breaks off is whole", ms)
		}
	}
	if len(seen) < 4 || len(display.Blends) != int(display.Added)+1 {
		t.Errorf("only %d kinds were seen", len(seen))
	}
}
