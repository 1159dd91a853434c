package session_test

import (
	"fmt"
	"slices"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
)

func TestSplitTextsLookTheSameAndJoinAgain(t *testing.T) {
	plain := words("t", "KITE DAY\nat the quay", 160, 60, 40)
	plain.Place.Turn = 8
	two := words("t", "Kite ", 160, 60, 44)
	two.Text.Runs = append(two.Text.Runs, doc.Run{Text: "Day", Family: "Shrikhand", Weight: 400, Size: 60, Colour: "#17403c"})
	ring := words("t", "KITE DAY AT THE QUAY", 160, 120, 22)
	ring.Text.Ring = &doc.TextRing{Radius: 70, Start: -90, Share: 0.8}
	graded := words("t", "Kite Day", 160, 60, 60)
	graded.Fill = doc.Fill{Kind: doc.Linear, Gradient: &doc.Gradient{From: [2]float64{0, 0}, To: [2]float64{1, 0}, Stops: []doc.Stop{{Colour: "#d8573a"}, {At: 1, Colour: "#17403c"}}}}
	hebrew := words("t", "עפיפון גדול", 160, 120, 30)
	hebrew.Text.Ring = &doc.TextRing{Radius: 80, Start: -90}
	cased := words("t", "straße am quay", 160, 60, 36)
	cased.Text.Runs[0].Case, cased.Text.LetterSpacing = doc.UpperCase, 3
	for name, c := range map[string]struct {
		l     *doc.Layer
		parts map[string]int
	}{
		"two lines":      {plain, map[string]int{doc.ByLetter: 16, doc.ByWord: 5, doc.ByLine: 2}},
		"two runs":       {two, map[string]int{doc.ByLetter: 7, doc.ByWord: 2}},
		"on a ring":      {ring, map[string]int{doc.ByLetter: 16, doc.ByWord: 5}},
		"in a gradient":  {graded, map[string]int{doc.ByLetter: 7, doc.ByWord: 2}},
		"in capitals":    {cased, map[string]int{doc.ByWord: 3}},
		"from the right": {words("t", "עפיפון גדול kite 24", 160, 60, 36), map[string]int{doc.ByLetter: 16, doc.ByWord: 4}},
		"right, ringed":  {hebrew, map[string]int{doc.ByLetter: 10, doc.ByWord: 2}},
	} {
		for unit, n := range c.parts {
			t.Run(name+" by "+unit, func(t *testing.T) {
				s := open(t, with(c.l.Clone()))
				before := shotOf(t, s, rest)
				was, _ := s.Document().Write()
				want(t, s, rest, "text.split", fmt.Sprintf(`{"threads":["t"],"unit":%q}`, unit))
				g := layerOf(s, "t")
				if g.Kind != doc.Group || len(g.Children) != n {
					t.Fatalf("%d layers, want %d", len(g.Children), n)
				}
				// Letters alone may lack what two of them have together, but nothing moves.
				if d := differs(before, shotOf(t, s, rest), 40); d > 6 {
					t.Errorf("%d pixels differ", d)
				}
				threads := map[string]bool{}
				for _, k := range g.Children {
					if k.Kind != doc.TextKind || threads[k.Thread] || k.Name == "" {
						t.Errorf("%+v", k)
					}
					threads[k.Thread] = true
				}
				want(t, s, rest, "apart", `{"threads":["t"]}`)
				if now, _ := s.Document().Write(); string(now) != string(was) {
					t.Errorf("joined again it is not the same:\n%s\n%s", was, now)
				}
			})
		}
	}
}

func TestWhatIsOneLetterCannotBeSplit(t *testing.T) {
	s := open(t, with(words("t", "K", 160, 60, 40), shapeOf("a", doc.Ellipse, 40, 40, 20, 20)))
	refused(t, s, "nothing here to split", "text.split", `{"threads":["t","a"],"unit":"letter"}`)
	refused(t, s, "cannot be read", "text.split", `{"threads":["t"],"unit":"syllable"}`)
}

// A text that is set on a ring keeps its middle, and comes back to where it was.
func TestTextsGoOnARingAndOff(t *testing.T) {
	l := words("t", "KITE DAY AT FENNEL QUAY", 160, 100, 20)
	l.Place.Turn = 30
	s := open(t, with(l))
	before := shotOf(t, s, rest)
	want(t, s, rest, "text.ring", `{"threads":["t"],"on":true}`)
	if r := layerOf(s, "t").Text.Ring; r == nil || r.Radius < 40 || r.Radius > 90 {
		t.Fatalf("ring %+v", r)
	}
	want(t, s, rest, "text.ring", `{"threads":["t"],"on":false}`)
	if d := differs(before, shotOf(t, s, rest), 2); d > 0 {
		t.Errorf("%d pixels differ", d)
	}
}

func TestPartsSpreadGatherAndScatter(t *testing.T) {
	s := open(t, with(words("t", "KITE DAY", 160, 100, 40)))
	want(t, s, rest, "text.split", `{"threads":["t"],"unit":"letter"}`)
	mids := func() (out []geom.Point) {
		for _, l := range layerOf(s, "t").Children {
			b, _ := s.Shown.Box(0, l.ID)
			out = append(out, s.Shown.RestMatrix(0, l.ID).Apply(b.Centre()))
		}
		return
	}
	sizes := func() (out []float64) {
		for _, l := range layerOf(s, "t").Children {
			out = append(out, l.Text.Runs[0].Size)
		}
		return
	}
	before, size := mids(), sizes()
	want(t, s, rest, "parts.spread", `{"threads":["t"],"by":2}`)
	wide := mids()
	for i := 1; i < len(before); i++ {
		a, b := before[i].Sub(before[0]), wide[i].Sub(wide[0])
		if b.Sub(a.Mul(2)).Len() > 0.02 {
			t.Errorf("letter %d stands %v from the first, not twice %v", i, b, a)
		}
	}
	want(t, s, rest, "parts.spread", `{"threads":["t"],"by":0.5}`)
	for i, q := range mids() {
		if q.Sub(before[i]).Len() > 0.02 {
			t.Errorf("gathered again, letter %d is at %v and was at %v", i, q, before[i])
		}
	}
	if !slices.Equal(size, sizes()) {
		t.Error("they have another size")
	}
	want(t, s, rest, "parts.scatter", `{"threads":["t"],"amount":30,"seed":7}`)
	far, moved := 0.0, 0
	first := mids()
	for i, q := range first {
		d := q.Sub(before[i]).Len()
		far = max(far, d)
		if d > 1 {
			moved++
		}
	}
	if far > 30.01 || moved < 5 {
		t.Errorf("%d scattered, up to %v px", moved, far)
	}
	s2 := open(t, with(words("t", "KITE DAY", 160, 100, 40)))
	want(t, s2, rest, "text.split", `{"threads":["t"],"unit":"letter"}`)
	want(t, s2, rest, "parts.scatter", `{"threads":["t"],"amount":30,"seed":7}`)
	s = s2
	for i, q := range mids() {
		if q.Sub(first[i]).Len() > 0.02 {
			t.Errorf("the same seed puts letter %d at %v, not %v (before %v)", i, q, first[i], before[i])
		}
	}
	refused(t, s, "no parts", "parts.scatter", `{"threads":["nobody"],"amount":3,"seed":1}`)
}

// A ring and a plate grow with their text, and with the group it is in.
func TestRingsAndPlatesGrowWithTheirText(t *testing.T) {
	l := words("t", "KITE DAY", 0, 0, 22)
	l.Text.Ring, l.Text.Plate = &doc.TextRing{Radius: 70, Start: -90}, &doc.Plate{Colour: "#17403c", Padding: 6, Corner: 4}
	g := &doc.Layer{ID: "g", Thread: "g", Name: "g", Kind: doc.Group, Opacity: 1, Fill: doc.Fill{Kind: doc.NoFill}, Place: doc.Place{X: 160, Y: 120}, Children: []*doc.Layer{l}}
	s := open(t, with(g))
	for _, id := range []string{"t", "g"} {
		was := *layerOf(s, "t").Text
		if _, err := s.Apply(sent(`{"op":"layer.scale","id":"` + id + `","x":160,"y":120,"kx":2,"ky":2}`)); err != nil {
			t.Fatal(err)
		}
		v := layerOf(s, "t").Text
		if v.Ring.Radius != 2*was.Ring.Radius || v.Plate.Padding != 2*was.Plate.Padding || v.Plate.Corner != 2*was.Plate.Corner || v.Runs[0].Size != 2*was.Runs[0].Size {
			t.Errorf("scaling %s: ring %+v, plate %+v", id, v.Ring, v.Plate)
		}
	}
	if b := s.OverlayView(rest, []string{"t"}).Boxes[0]; b.Kind != doc.Group {
		t.Errorf("a text on a ring has handles of a %s", b.Kind)
	}
}
