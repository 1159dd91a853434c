package text_test

import (
	"math"
	"testing"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
)

// What a caret goes among: a text set every way there is.
var written = map[string]*doc.Text{
	"one line":            one("Kite Day", nil),
	"wrapped":             one("Bring a long tail to Fennel Quay on Saturday", func(v *doc.Text) { v.Wrap = true }),
	"justified":           one("Bring a long tail to Fennel Quay on Saturday", func(v *doc.Text) { v.Wrap, v.Align = true, doc.Justified }),
	"fit to its box":      one("Bring a long tail", func(v *doc.Text) { v.Wrap, v.Room, v.Stand = true, doc.FitRoom, doc.Middle }),
	"lines without words": one("Kite\n\nDay\n", nil),
	"no words":            one("", nil),
	"wide letters":        one("wide", func(v *doc.Text) { v.LetterSpacing = 30 }),
	"sharp s in capitals": one("Gru\u00df am Kai", func(v *doc.Text) { v.Runs[0].Case = doc.UpperCase }),
	"marks on letters":    one("e\u0301te\u0301 \u0928\u092e\u0938\u094d\u0924\u0947", nil),
	"from the right":      one("\u05e2\u05e4\u05d9\u05e4\u05d5\u05df 24 \u05d1\u05e8\u05d5\u05d7", nil),
	"stacked":             one("KITE DAY", func(v *doc.Text) { v.Stacked = true }),
	"on a ring":           one("bring a long tail", func(v *doc.Text) { v.Ring = &doc.TextRing{Radius: 240, Start: -90, Share: 0.8} }),
	"on a flipped ring":   one("bring a long tail", func(v *doc.Text) { v.Ring = &doc.TextRing{Radius: 240, Start: 90, Flip: true, Inside: true} }),
}

var smallRoom = text.Room{W: 300, H: 200}

func TestCellsHoldEveryLetterOnce(t *testing.T) {
	b := book(t)
	for name, v := range written {
		c := text.CellsOf(b, v, smallRoom)
		if want := len([]rune(v.String())); c.Length != want {
			t.Errorf("%s: %d characters long, want %d", name, c.Length, want)
		}
		held := make([]int, c.Length)
		for _, k := range c.Cells {
			for i := k.From; i < k.To; i++ {
				held[i]++
			}
		}
		for i, r := range []rune(v.String()) {
			if want := 1; r == '\n' && held[i] != 0 || r != '\n' && held[i] != want {
				t.Errorf("%s: %q at %d is in %d cells", name, r, i, held[i])
			}
		}
	}
}

// A press on the left or right of a letter puts the caret where it is drawn: there and back.
func TestPressesFindTheCaretWhereItIsDrawn(t *testing.T) {
	b := book(t)
	for name, v := range written {
		c := text.CellsOf(b, v, smallRoom)
		for n, k := range c.Cells {
			// A quarter into the letter from the side at which it begins to be read, half way down.
			from, to := 0.25, 0.75
			if k.Left {
				from, to = to, from
			}
			mid := func(at float64) geom.Point {
				return k.Corners[0].Lerp(k.Corners[1], at).Lerp(k.Corners[3].Lerp(k.Corners[2], at), 0.5)
			}
			if got := c.Nearest(mid(from)); got != k.From {
				t.Errorf("%s: a press at the begin of letter %d..%d gives %d", name, k.From, k.To, got)
			}
			breaks := n+1 < len(c.Cells) && c.Cells[n+1].Line > k.Line && c.Cells[n+1].From == k.To
			if got := c.Nearest(mid(to)); got != k.To && !breaks {
				t.Errorf("%s: a press at the end of letter %d..%d gives %d", name, k.From, k.To, got)
			}
			top, foot := c.Caret(k.From)
			edge := [2]geom.Point{k.Corners[0], k.Corners[3]}
			if k.Left {
				edge = [2]geom.Point{k.Corners[1], k.Corners[2]}
			}
			if top.Sub(edge[0]).Len() > 1e-6 || foot.Sub(edge[1]).Len() > 1e-6 {
				t.Errorf("%s: the caret before letter %d stands from %v to %v, want %v", name, k.From, top, foot, edge)
			}
		}
	}
}

// Letters that are read to the right go on where the one before ends, and those read to the left the other way.
func TestCellsOfALineTouch(t *testing.T) {
	b := book(t)
	for name, v := range written {
		c := text.CellsOf(b, v, smallRoom)
		for i := 1; i < len(c.Cells); i++ {
			p, k := c.Cells[i-1], c.Cells[i]
			if p.Line != k.Line || p.Left != k.Left || v.LetterSpacing > 0 || v.Ring != nil {
				continue
			}
			end, begin := p.Corners[1], k.Corners[0]
			if k.Left {
				end, begin = p.Corners[0], k.Corners[1]
			}
			if !v.Stacked && math.Abs(end.X-begin.X) > 1e-6 {
				t.Errorf("%s: letter %d ends at %.2f, letter %d begins at %.2f", name, p.From, end.X, k.From, begin.X)
			}
		}
	}
}

func TestGoingUpAndDownKeepsToTheColumn(t *testing.T) {
	c := text.CellsOf(book(t), one("mmmm\niiii\nmmmm", nil), text.Room{})
	top, foot := c.Caret(3)
	goal := top.Lerp(foot, 0.5)
	down := c.Across(3, 1, goal)
	if down != 9 { // past the narrow letters, the end of their line
		t.Errorf("down from 3 is %d, want 9", down)
	}
	if again := c.Across(down, 1, goal); again != 13 {
		t.Errorf("down once more is %d, want 13", again)
	}
	if c.Across(1, -1, goal) != 0 || c.Across(13, 1, goal) != 14 {
		t.Error("past the first and the last line lie the begin and the end")
	}
}

func TestLinesAndWordsAreFound(t *testing.T) {
	v := one("Bring a long tail to the quay", func(v *doc.Text) { v.Wrap = true })
	c := text.CellsOf(book(t), v, text.Room{W: 240})
	lines := 0
	for at := 0; at < c.Length; lines++ {
		from, to := c.LineOf(at)
		if from != at {
			t.Fatalf("line %d begins at %d, want %d", lines, from, at)
		}
		if to < c.Length && []rune(v.String())[to] != ' ' {
			t.Errorf("line %d ends before %q, want the space it is broken at", lines, []rune(v.String())[to])
		}
		if top, _ := c.Caret(to); to < c.Length && top.Y > c.Cells[from].Corners[0].Y+1 {
			t.Errorf("the end of line %d stands in the next", lines)
		}
		at = to + 1
	}
	if lines < 2 {
		t.Fatal("it was not broken")
	}
	for _, w := range []struct {
		text         string
		at, from, to int
	}{
		{"a long tail", 3, 2, 6}, {"a long tail", 6, 2, 6}, {"a long tail", 11, 7, 11}, {"the club’s kite", 6, 4, 10}, {"up, up", 2, 0, 2}, {"up -- up", 4, 3, 5}, {"", 0, 0, 0}, {"a\nb", 1, 0, 1},
	} {
		if from, to := text.WordAt([]rune(w.text), w.at); from != w.from || to != w.to {
			t.Errorf("the word at %d of %q is %d..%d, want %d..%d", w.at, w.text, from, to, w.from, w.to)
		}
	}
}

// What is marked covers the letters of the stretch and no others.
func TestMarkedStretches(t *testing.T) {
	b := book(t)
	c := text.CellsOf(b, one("Kite\nDay", nil), text.Room{})
	list := c.Stretch(2, 6)
	if len(list) != 2 {
		t.Fatalf("marked as %d pieces, want one a line", len(list))
	}
	if list[0][0] != c.Cells[2].Corners[0] || list[0][1] != c.Cells[3].Corners[1] || list[1][0] != c.Cells[4].Corners[0] || list[1][1] != c.Cells[4].Corners[1] {
		t.Errorf("marked %v", list)
	}
	ring := text.CellsOf(b, written["on a ring"], text.Room{})
	if n := len(ring.Stretch(0, 5)); n != 5 {
		t.Errorf("on a ring %d pieces, want one a letter", n)
	}
}

// The letters of a text in a fit room are as large as they can be, and of one in a fixed room stand where they are told to.
func TestRooms(t *testing.T) {
	b := book(t)
	for _, words := range []string{"Kite", "Bring a long tail to Fennel Quay on Saturday", "Kite\nDay\nat the\nquay"} {
		for _, in := range []text.Room{{W: 600, H: 200}, {W: 200, H: 600}, {W: 90, H: 90}} {
			v := one(words, func(v *doc.Text) { v.Wrap, v.Room = true, doc.FitRoom })
			l := text.Set(b, v, in)
			larger := one(words, func(v *doc.Text) { v.Wrap = true })
			larger.Runs[0].Size *= l.Scale * 1.01
			over := text.Set(b, larger, in)
			wide := false
			for _, line := range over.Lines {
				wide = wide || line.W() > in.W
			}
			last := l.Lines[len(l.Lines)-1]
			if l.Over > 0.01 || last.Max.Y > in.H+0.01 || l.Box.W() != in.W || l.Box.H() != in.H {
				t.Errorf("%q in %v: reaches down to %.1f, its box is %v", words, in, last.Max.Y, l.Box)
			}
			if !wide && over.Box.H() <= in.H {
				t.Errorf("%q in %v: a hundredth larger fits, too", words, in)
			}
			for _, line := range l.Lines {
				if line.W() > in.W+0.01 {
					t.Errorf("%q in %v: a line is %.1f wide", words, in, line.W())
				}
			}
		}
	}
	in := text.Room{W: 500, H: 400}
	high := text.Set(b, one("Kite Day", nil), text.Room{}).Box.H()
	for stand, want := range map[string]float64{"": 0, doc.Middle: (400 - high) / 2, doc.Bottom: 400 - high} {
		l := text.Set(b, one("Kite Day", func(v *doc.Text) { v.Wrap, v.Room, v.Stand = true, doc.FixedRoom, stand }), in)
		if got := l.Lines[0].Min.Y; math.Abs(got-want) > 1e-6 {
			t.Errorf("stands %q: the line begins at %.2f, want %.2f", stand, got, want)
		}
	}
	if l := text.Set(b, one("Kite\nDay\nat\nthe\nquay", func(v *doc.Text) { v.Wrap, v.Room = true, doc.FixedRoom }), text.Room{W: 500, H: high}); math.Abs(l.Over-4*high) > 1e-6 {
		t.Errorf("five lines in a box for one are %.2f over, want %.2f", l.Over, 4*high)
	}
}
