package svg

import (
	"math"
	"strings"
	"unicode"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/text"
)

// text makes texts of one: a layer for each stretch that has a place of its own, whose runs are what is of one look. Letters that each have a place, or stand
// along a line, become outlines. Families are the nearest there are.
func (w *walker) text(n *node, s state) []*doc.Layer {
	if s.style["visibility"] == "hidden" || w.o.Fonts == nil {
		if w.o.Fonts == nil {
			w.lost.add("words", n)
		}
		return nil
	}
	t := &texting{w: w, n: n}
	t.run(n, s, true)
	t.flush()
	return t.out
}

// mostLetters is how many letters of one text have a place each.
const mostLetters = 2000

// texting is one text being read.
type texting struct {
	w     *walker
	n     *node
	x, y  float64 // where the stretch begins
	first state   // how it does
	runs  []doc.Run
	out   []*doc.Layer
	along *geom.Path // that it stands on, in the axes of the first; nil: none
	turns []float64  // of its letters, degrees
	xs    []float64  // of its letters; nil: one after another
	long  int        // bytes of all its words so far
	wide  float64    // it is spread over that; 0: as it comes
}

// run reads the words of an element and of what lies in it.
func (t *texting) run(n *node, s state, first bool) {
	list := func(name string, side int) (v []float64) {
		for _, p := range strings.FieldsFunc(n.at[name], func(c rune) bool { return c == ',' || unicode.IsSpace(c) }) {
			if x, ok := s.g.length(p, side); ok {
				v = append(v, x)
			}
		}
		return v
	}
	xs, ys, dx, dy := list("x", across), list("y", down), list("dx", across), list("dy", down)
	if first || len(xs)+len(ys)+len(dx)+len(dy) > 0 {
		at := t.x + t.flush()
		if t.x = at; len(xs) > 0 {
			t.x = xs[0]
		}
		if len(ys) > 0 {
			t.y = ys[0]
		}
		if len(dx) > 0 {
			t.x += dx[0]
		}
		if len(dy) > 0 {
			t.y += dy[0]
		}
		if len(xs) > 1 {
			t.xs = xs
		}
		if len(ys) > 1 || len(dx) > 1 || len(dy) > 1 {
			t.w.lost.add("letters that are moved one by one", n)
		}
	}
	if v := list("rotate", across); len(v) > 0 {
		t.turns = v
	}
	if v := list("textLength", across); len(v) > 0 && v[0] > 0 {
		if t.wide = v[0]; n.at["lengthAdjust"] == "spacingAndGlyphs" {
			t.w.lost.add("letters that are stretched", n)
		}
	}
	if v := s.style["text-decoration"]; v != "" && v != "none" {
		t.w.lost.add("a line under or through words", n)
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
			t.flush()
			to := t.w.reference(c.at["href"], c)
			in := s
			in.style = inherited(s.style, c.style)
			if to == nil {
				continue
			}
			of := in
			of.style = inherited(in.style, to.style)
			line := t.w.outlineOf(to, of)
			if line == nil {
				continue
			}
			if m, ok := transform(to.style["transform"], in.g); ok {
				line = placed(line, m)
			}
			begin := c.at["startOffset"]
			v, _ := in.g.length(begin, across)
			if strings.HasSuffix(begin, "%") {
				v = geom.NewMeasure(line).Length() * share(begin, 0)
			}
			t.along, t.x, t.y = line, v, 0
			t.run(c, in, false)
			t.flush()
			t.along = nil
		}
	}
}

// put adds words to the stretch.
func (t *texting) put(words string, s state) {
	if v := s.style["white-space"]; t.n.at["space"] != "preserve" && v != "pre" && v != "pre-wrap" && v != "break-spaces" {
		var b strings.Builder
		blank := len(t.runs) == 0 || strings.HasSuffix(t.runs[len(t.runs)-1].Text, " ")
		for _, c := range words {
			if unicode.IsSpace(c) {
				c = ' '
			}
			if c == ' ' && blank {
				continue
			}
			blank = c == ' '
			b.WriteRune(c)
		}
		words = b.String()
	} else {
		words = strings.Map(func(c rune) rune {
			if unicode.IsSpace(c) {
				return ' '
			}
			return c
		}, words)
	}
	if t.long += len(words); t.long > doc.MaxText {
		t.w.lost.add("words beyond the first 20,000 letters", t.n)
		return
	}
	if words == "" {
		return
	}
	if len(t.runs) == 0 {
		t.first = s
	}
	run := t.look(s)
	run.Text = words
	if f, fills := t.w.fill(t.n, s, "fill", geom.Box{}); fills && f.kind == doc.Solid && f.pattern == nil && len(t.runs) > 0 {
		run.Colour = f.colour
	}
	t.runs = append(t.runs, run)
}

// look is what words of a style are set in.
func (t *texting) look(s state) doc.Run {
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
	run := doc.Run{Family: family, Weight: 400, Italic: s.style["font-style"] == "italic" || s.style["font-style"] == "oblique", Size: round4(s.g.font * math.Sqrt(math.Abs(s.m.Det())))}
	switch v := s.style["font-weight"]; v {
	case "bold", "bolder":
		run.Weight = 700
	case "lighter":
		run.Weight = 300
	default:
		if w := numbers(v); len(w) == 1 && w[0] >= 100 && w[0] <= 900 {
			run.Weight = int(w[0])
		}
	}
	switch s.style["baseline-shift"] {
	case "super":
		run.Raise = doc.Super
	case "sub":
		run.Raise = doc.Sub
	}
	switch s.style["text-transform"] {
	case "uppercase":
		run.Case = doc.UpperCase
	case "lowercase":
		run.Case = doc.LowerCase
	}
	return run
}

// flush makes a layer of the stretch that was read and returns how far the next begins from where it began, in user units.
func (t *texting) flush() float64 {
	runs, s := t.runs, t.first
	xs, turns, wide := t.xs, t.turns, t.wide
	t.runs, t.xs, t.turns, t.wide = nil, nil, nil, 0
	if n := len(runs); n > 0 {
		runs[n-1].Text = strings.TrimRight(runs[n-1].Text, " ")
		for n > 0 && runs[n-1].Text == "" {
			n--
		}
		runs = runs[:n]
	}
	if len(runs) == 0 {
		return 0
	}
	w := t.w
	k := math.Sqrt(math.Abs(s.m.Det()))
	if !(k > 0) || !(runs[0].Size > 0) {
		return 0
	}
	words := ""
	for _, r := range runs {
		words += r.Text
	}
	l := w.layer(doc.TextKind, words)
	l.Text = &doc.Text{Align: doc.Left, LineHeight: 1, Runs: runs}
	switch s.style["text-anchor"] {
	case "middle":
		l.Text.Align = doc.Centre
	case "end":
		l.Text.Align = doc.Right
	}
	if v, ok := s.g.length(s.style["letter-spacing"], across); ok {
		l.Text.LetterSpacing = round4(v * k)
	}
	lay := text.Set(w.o.Fonts, l.Text, text.Room{})
	if len(lay.Feet) == 0 {
		return 0
	}
	if letters := len([]rune(words)); wide > 0 && letters > 1 {
		l.Text.LetterSpacing = round4(l.Text.LetterSpacing + (wide*k-lay.Lines[0].W())/float64(letters-1))
		lay = text.Set(w.o.Fonts, l.Text, text.Room{})
	}
	foot, length := lay.Feet[0], lay.Lines[0].W()/k
	y := t.y
	switch s.style["dominant-baseline"] {
	case "middle", "central", "mathematical":
		y += 0.3 * s.g.font // half way between their upper and lower edge (common practice)
	case "hanging", "text-before-edge", "text-top":
		y += 0.75 * s.g.font
	}
	if t.along != nil || xs != nil || turns != nil {
		t.letters(l, words, s, xs, turns, y, k)
		return length
	}
	t.painted(l, s, lay, y, k)
	at := s.m.Apply(geom.Point{X: t.x, Y: y})
	turn := math.Atan2(s.m.B, s.m.A) * 180 / math.Pi
	at = at.Sub(geom.Rotate(turn).Apply(geom.Point{Y: foot}))
	l.Place.X, l.Place.Y, l.Place.Turn = round4(at.X), round4(at.Y), round4(turn)
	if !similar(s.m) || s.m.Det() < 0 {
		w.lost.add("words that are slanted or stretched", t.n)
	}
	if l.Fill.Kind != doc.NoFill || l.Stroke != nil {
		t.out = append(t.out, l)
	}
	switch l.Text.Align {
	case doc.Centre:
		return length / 2
	case doc.Right:
		return 0
	}
	return length
}

// painted gives a text its fill and its stroke. Its own axes begin at its upper edge, k times as large as those of the user.
func (t *texting) painted(l *doc.Layer, s state, lay *text.Layout, y, k float64) {
	w := t.w
	own := geom.Scale(k, k).Mul(geom.Translate(geom.Point{X: -t.x, Y: lay.Feet[0]/k - y}))
	inv, _ := own.Inverse()
	local := inv.ApplyBox(lay.Box)
	if f, fills := w.fill(t.n, s, "fill", local); fills && f.pattern != nil {
		w.lost.add("a pattern in words", t.n)
		l.Fill = doc.Fill{Kind: doc.Solid, Colour: "#000000"}
	} else if fills {
		l.Fill = w.shares(f, local, own, lay.Box, t.n)
	}
	if f, strokes := w.fill(t.n, s, "stroke", local); strokes {
		width := 1.0
		if v, ok := s.g.length(s.style["stroke-width"], diagonal); ok {
			width = v
		}
		if width > 0 {
			l.Stroke = w.strokeOf(t.n, s, f, width, local, lay.Box)
			l.Stroke.Fill = w.shares(f, local, own, lay.Box, t.n)
		}
	}
}

// letters makes outlines of a text whose letters each have a place of their own: by numbers, turned, or along a line, on which their middles stand.
func (t *texting) letters(l *doc.Layer, words string, s state, xs, turns []float64, y, k float64) {
	w := t.w
	if len(xs) > mostLetters || len(words) > mostLetters {
		w.lost.add("very many letters that each have a place", t.n)
		return
	}
	all := &geom.Path{}
	var on *geom.Measure
	if t.along != nil {
		on = geom.NewMeasure(t.along)
	}
	at := t.x
	if on != nil && l.Text.Align != doc.Left { // it goes out from there
		whole := text.Set(w.o.Fonts, l.Text, text.Room{}).Lines[0].W() / k
		if at -= whole; l.Text.Align == doc.Centre {
			at += whole / 2
		}
	}
	i := 0
	for _, r := range l.Text.Runs {
		for _, c := range r.Text {
			one := r
			one.Text = string(c)
			lay := text.Set(w.o.Fonts, &doc.Text{Runs: []doc.Run{one}, Align: doc.Left, LineHeight: 1}, text.Room{})
			wide := (lay.Lines[0].W() + l.Text.LetterSpacing) / k
			if c == ' ' {
				wide = text.Set(w.o.Fonts, &doc.Text{Runs: []doc.Run{{Text: "n n", Family: r.Family, Weight: r.Weight, Size: r.Size}}, Align: doc.Left}, text.Room{}).Lines[0].W() / k
				wide -= text.Set(w.o.Fonts, &doc.Text{Runs: []doc.Run{{Text: "nn", Family: r.Family, Weight: r.Weight, Size: r.Size}}, Align: doc.Left}, text.Room{}).Lines[0].W() / k
			}
			if i < len(xs) {
				at = xs[i]
			}
			m := geom.Translate(geom.Point{X: at, Y: y})
			if on != nil {
				middle := at + wide/2
				if middle < 0 || middle > on.Length() {
					at, i = at+wide, i+1
					continue
				}
				p, angle := on.At(middle / on.Length())
				m = geom.Translate(p).Mul(geom.Rotate(angle)).Mul(geom.Translate(geom.Point{X: -wide / 2, Y: y}))
			}
			if len(turns) > 0 {
				m = m.Mul(geom.Rotate(turns[min(i, len(turns)-1)]))
			}
			m = s.m.Mul(m).Mul(geom.Scale(1/k, 1/k)).Mul(geom.Translate(geom.Point{Y: -lay.Feet[0]}))
			for _, o := range lay.Outlines {
				all.Append(o.Path, m)
			}
			at, i = at+wide, i+1
		}
	}
	if len(all.Points) == 0 {
		return
	}
	p := w.path(l.Name, all)
	inv, _ := s.m.Inverse()
	local := inv.ApplyBox(all.Bounds())
	if f, fills := w.fill(t.n, s, "fill", local); fills && f.pattern == nil {
		p.Fill = w.shares(f, local, s.m, all.Bounds(), t.n)
		t.out = append(t.out, p)
	}
}
