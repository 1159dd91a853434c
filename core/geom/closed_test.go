package geom

import "testing"

// A fill reads every subpath as closed: SVG 2, 13.4 "Fill Properties" (open subpaths are closed by a line). Each line comes once,
// and none where the path is back at its start already.
func TestEachClosedAddsWhatIsOpen(t *testing.T) {
	for d, want := range map[string]int{
		"M0 0L10 0L10 10":                3,
		"M0 0L10 0L10 10Z":               3,
		"M0 0L10 0L10 10L0 0Z":           3,
		"M0 0L10 0L10 10M20 0L30 0L30 9": 6,
		"M5 5L9 5L9 9ZM0 0C1 1 2 1 3 0":  5,
		"M4 4":                           0,
		"":                               0,
	} {
		p, err := ParseData(d)
		if err != nil {
			t.Fatal(err)
		}
		n := 0
		var start, last Point
		p.EachClosed(func(s Segment) {
			if s.First {
				if last != start {
					t.Errorf("%q: a subpath ends at %v, not at %v", d, last, start)
				}
				start = s.P0
			} else if s.P0 != last {
				t.Errorf("%q: a gap from %v to %v", d, last, s.P0)
			}
			last = s.P3
			n++
		})
		if n != want || last != start {
			t.Errorf("%q: %d segments, want %d; ends at %v of %v", d, n, want, last, start)
		}
	}
}
