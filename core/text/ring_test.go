package text_test

import (
	"math"
	"strings"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
)

func one(say string, change func(*doc.Text)) *doc.Text {
	v := &doc.Text{Align: doc.Left, Runs: []doc.Run{{Text: say, Family: "Archivo", Weight: 600, Size: 40}}}
	if change != nil {
		change(v)
	}
	return v
}

// The middle of every letter, by its advance, lies on the circle; the text fills the share of it that is asked for: 94 % are 338.4
// degrees.
func TestLettersStandOnTheRingAndFillTheirShare(t *testing.T) {
	b := book(t)
	for _, r := range []doc.TextRing{
		{Radius: 200, Start: -90}, {Radius: 200, Start: -90, Share: 0.94}, {Radius: 120, Start: 30, Share: 1}, {Radius: 300, Start: 90, Flip: true, Share: 0.5},
		{Radius: 200, Start: 0, Inside: true, Flip: true, Share: 0.25},
	} {
		for _, align := range []string{doc.Left, doc.Centre, doc.Right} {
			v := one("KITE DAY AT FENNEL QUAY", func(v *doc.Text) { v.Ring, v.Align = &r, align })
			l := text.SetIn(b, v, text.Room{}, doc.ByLetter)
			// What stands on the ring itself: outwards as it comes, or inwards when it is flipped.
			onRing := r.Inside == r.Flip
			var angles []float64
			total := 0.0
			for _, p := range l.Pieces {
				single := text.Set(b, one(textOf(v, p), nil), text.Room{})
				wide := single.Box.W()
				total += wide
				mid := geom.Translate(p.At).Mul(geom.Rotate(p.Turn)).Apply(geom.Point{X: wide / 2})
				if d := math.Abs(mid.Len() - r.Radius); onRing && d > 0.1 {
					t.Errorf("%+v: the middle of %q lies %v px off the circle", r, textOf(v, p), d)
				}
				angles = append(angles, math.Atan2(mid.Y, mid.X)*180/math.Pi)
				// Feet inwards, or outwards when flipped: the letter's own down points to the middle.
				down := geom.Rotate(p.Turn).ApplyVector(geom.Point{Y: 1})
				if in := down.X*mid.X+down.Y*mid.Y < 0; in == r.Flip {
					t.Errorf("%+v: %q stands the wrong way up", r, textOf(v, p))
				}
			}
			if r.Share > 0 && r.Share < 1 && onRing {
				first, last := l.Pieces[0], l.Pieces[len(l.Pieces)-1]
				half := func(p text.Piece) float64 {
					return text.Set(b, one(textOf(v, p), nil), text.Room{}).Box.W() / 2 / r.Radius * 180 / math.Pi
				}
				span := turned(angles, r.Flip) + half(first) + half(last)
				if want := r.Share * 360; math.Abs(span-want) > 0.2 {
					t.Errorf("%+v aligned %s: fills %v degrees, want %v", r, align, span, want)
				}
			}
			// Where it begins, has its middle, or ends.
			at := map[string]float64{doc.Left: angles[0], doc.Right: angles[len(angles)-1]}
			if a, ok := at[align]; ok && r.Share < 1 && math.Abs(math.Remainder(a-r.Start, 360)) > 9 {
				t.Errorf("%+v aligned %s: its end is at %v degrees", r, align, a)
			}
		}
	}
}

// turned sums up the way from the first angle to the last.
func turned(a []float64, back bool) float64 {
	sum := 0.0
	for i := 1; i < len(a); i++ {
		d := a[i] - a[i-1]
		if back {
			d = -d
		}
		for d < 0 {
			d += 360
		}
		sum += d
	}
	return sum
}

func textOf(v *doc.Text, p text.Piece) string {
	return string([]rune(v.Runs[p.From.Run].Text)[p.From.Rune:p.To.Rune])
}

func TestCasesAreASetting(t *testing.T) {
	b := book(t)
	for _, c := range []struct{ words, as, like string }{
		{"kite day", doc.UpperCase, "KITE DAY"}, {"KITE Day", doc.LowerCase, "kite day"}, {"a kite's long tail, 2nd", doc.TitleCase, "A Kite's Long Tail, 2nd"},
		{"straße", doc.UpperCase, "STRASSE"}, {"été à l'île", doc.UpperCase, "ÉTÉ À L'ÎLE"}, {"Kite", "", "Kite"},
	} {
		got := text.Set(b, one(c.words, func(v *doc.Text) { v.Runs[0].Case = c.as }), text.Room{})
		want := text.Set(b, one(c.like, nil), text.Room{})
		if got.Outlines[0].Path.Data() != want.Outlines[0].Path.Data() {
			t.Errorf("%q in %s is not set like %q", c.words, c.as, c.like)
		}
	}
	// A word that goes on from one run into the next is one word.
	v := one("kite ", nil)
	v.Runs = append(v.Runs, v.Runs[0], v.Runs[0])
	v.Runs[0].Text, v.Runs[1].Text, v.Runs[2].Text = "fly a ki", "te", " day"
	for i := range v.Runs {
		v.Runs[i].Case = doc.TitleCase
	}
	if got, want := text.Set(b, v, text.Room{}).Outlines[0].Path.Data(), text.Set(b, one("Fly A Kite Day", nil), text.Room{}).Outlines[0].Path.Data(); got != want {
		t.Error("the middle of a word begins large")
	}
}

func TestJustifiedLinesFillTheWidthButTheLast(t *testing.T) {
	b := book(t)
	v := one("A kite wants a long tail, a steady hand and a wind from the sea that does not tire before dusk", func(v *doc.Text) {
		v.Align, v.Wrap = doc.Justified, true
	})
	l := text.Set(b, v, text.Room{W: 420})
	if len(l.Lines) < 3 {
		t.Fatalf("%d lines", len(l.Lines))
	}
	for i, box := range l.Lines {
		if last := i == len(l.Lines)-1; !last && math.Abs(box.W()-420) > 0.01 {
			t.Errorf("line %d is %v px wide, want 420", i, box.W())
		} else if last && box.W() > 419 {
			t.Errorf("the last line is %v px wide", box.W())
		}
	}
	// The letters themselves reach the edge.
	if b := l.Outlines[0].Path.Bounds(); b.Max.X < 205 || b.Max.X > 211 {
		t.Errorf("letters reach to %v, the edge is at 210", b.Max.X)
	}
}

func TestStackedLettersStandBelowOneAnother(t *testing.T) {
	l := text.SetIn(book(t), one("KITE A", func(v *doc.Text) { v.Stacked, v.Align = true, doc.Centre }), text.Room{}, doc.ByLetter)
	if len(l.Pieces) != 5 || len(l.Lines) != 6 {
		t.Fatalf("%d letters on %d lines", len(l.Pieces), len(l.Lines))
	}
	for i := 1; i < len(l.Pieces); i++ {
		if l.Pieces[i].Box.Min.Y < l.Pieces[i-1].Box.Max.Y-0.01 {
			t.Errorf("letter %d begins at %v, the one above ends at %v", i, l.Pieces[i].Box.Min.Y, l.Pieces[i-1].Box.Max.Y)
		}
		if x := l.Pieces[i].Box.Centre().X; math.Abs(x) > 0.01 {
			t.Errorf("letter %d has its middle at %v", i, x)
		}
	}
}

func TestSuperscriptsAreSmallerAndHigher(t *testing.T) {
	b := book(t)
	v := one("12", nil)
	v.Runs = append(v.Runs, v.Runs[0])
	v.Runs[1].Text, v.Runs[1].Raise = "2", doc.Super
	l := text.SetIn(b, v, text.Room{}, doc.ByLetter)
	plain, small := l.Pieces[1].Outlines[0].Path.Bounds(), l.Pieces[2].Outlines[0].Path.Bounds()
	if k := small.H() / plain.H(); math.Abs(k-0.6) > 0.01 {
		t.Errorf("it is %v as high", k)
	}
	if up := plain.Max.Y - small.Max.Y; math.Abs(up-0.34*40) > 0.5 {
		t.Errorf("it stands %v px higher", up)
	}
	if text.Set(b, v, text.Room{}).Box.H() != text.Set(b, one("12", nil), text.Room{}).Box.H() {
		t.Error("it pushes the lines apart")
	}
}

func TestRingsOfHostileNumbersAreSetAllTheSame(t *testing.T) {
	b := book(t)
	for _, r := range []doc.TextRing{{Radius: 1, Share: 1}, {Radius: 1e6}, {Radius: 5, Inside: true}, {Radius: 3, Start: 1e6, Flip: true, Share: 0.001}} {
		l := text.SetIn(b, one(strings.Repeat("ab c\n", 40), func(v *doc.Text) { v.Ring = &r }), text.Room{}, doc.ByWord)
		for _, o := range l.Outlines {
			for _, q := range o.Path.Points {
				if math.IsNaN(q.X+q.Y) || math.IsInf(q.X+q.Y, 0) {
					t.Fatalf("%+v: %v", r, q)
				}
			}
		}
	}
}
