package svg

import (
	"math"
	"strings"

	"capstan/core/doc"
	"capstan/core/geom"
)

// text makes texts of one: a layer for each stretch that has a place of its own. Its family is the nearest there is.
func (w *walker) text(n *node, s state) []*doc.Layer {
	if s.style["visibility"] == "hidden" {
		return nil
	}
	t := &texting{w: w, n: n}
	t.run(n, s, true)
	return t.out
}

// texting is one text being read.
type texting struct {
	w     *walker
	n     *node
	x, y  float64
	out   []*doc.Layer
	space bool // the last letter was a blank, or there was none
}

// run reads the words of an element and of what lies in it.
func (t *texting) run(n *node, s state, first bool) {
	place := func(name string, side int) (float64, bool) {
		for _, p := range strings.FieldsFunc(n.at[name], func(c rune) bool { return c == ',' || c == ' ' || c == '\n' }) {
			v, ok := s.g.length(p, side)
			return v, ok
		}
		return 0, false
	}
	moved := first
	if v, ok := place("x", across); ok {
		t.x, moved = v, true
	}
	if v, ok := place("y", down); ok {
		t.y, moved = v, true
	}
	if v, ok := place("dx", across); ok {
		t.x, moved = t.x+v, true
	}
	if v, ok := place("dy", down); ok {
		t.y, moved = t.y+v, true
	}
	for _, name := range []string{"rotate", "textLength"} {
		if n.at[name] != "" {
			t.w.lost.add("letters that are turned or spread one by one", n)
		}
	}
	if moved {
		t.space = true
	}
	for _, c := range n.children {
		switch c.name {
		case "":
			t.put(c.text, s)
		case "tspan", "a":
			in := s
			in.style = inherited(s.style, c.style)
			if in.style["display"] == "none" {
				continue
			}
			if v, ok := s.g.length(c.style["font-size"], across); ok {
				in.g.font = v
			}
			t.run(c, in, false)
		case "textPath":
			t.w.lost.add("words along a line", c)
		}
	}
}

// put adds words where the text stands.
func (t *texting) put(text string, s state) {
	words := strings.Join(strings.Fields(text), " ")
	if words == "" {
		return
	}
	var names []string
	for _, f := range strings.Split(s.style["font-family"], ",") {
		if f = strings.Trim(strings.TrimSpace(f), `"'`); f != "" {
			names = append(names, f)
		}
	}
	family, close := "Archivo", false
	if t.w.o.Family != nil {
		family, close = t.w.o.Family(names)
	}
	if !close {
		t.w.lost.add("the family of its words: they are set in "+family, t.n)
	}
	k := math.Sqrt(math.Abs(s.m.Det()))
	l := t.w.layer(doc.TextKind, words)
	weight := 400
	switch v := s.style["font-weight"]; v {
	case "bold", "bolder":
		weight = 700
	case "lighter":
		weight = 300
	default:
		if w := numbers(v); len(w) == 1 && w[0] >= 100 && w[0] <= 900 {
			weight = int(w[0])
		}
	}
	size := s.g.font
	l.Text = &doc.Text{Align: map[string]string{"middle": doc.Centre, "end": doc.Right}[s.style["text-anchor"]], LineHeight: 1,
		Runs: []doc.Run{{Text: words, Family: family, Weight: weight, Italic: s.style["font-style"] == "italic" || s.style["font-style"] == "oblique", Size: round4(size * k)}}}
	if l.Text.Align == "" {
		l.Text.Align = doc.Left
	}
	if v, ok := s.g.length(s.style["letter-spacing"], across); ok {
		l.Text.LetterSpacing = round4(v * k)
	}
	f, fills := t.w.fill(t.n, s, "fill", geom.Box{})
	if fills && f.kind == doc.Solid {
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: f.colour}
	} else if fills {
		t.w.lost.add("a gradient in words", t.n)
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: f.stops[0].Colour}
	}
	if !fills && s.style["stroke"] == "" {
		return
	}
	// A text hangs from the upper edge of its line; its foot lies about four fifths of a size lower (common practice).
	at := s.m.Apply(geom.Point{X: t.x, Y: t.y - 0.8*size})
	l.Place.X, l.Place.Y, l.Place.Turn = round4(at.X), round4(at.Y), round4(math.Atan2(s.m.B, s.m.A)*180/math.Pi)
	if !similar(s.m) {
		t.w.lost.add("words that are slanted or stretched", t.n)
	}
	t.out = append(t.out, l)
	t.x += 0.5 * size * float64(len([]rune(words))+1)
}
