package text

import (
	"math"
	"slices"
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"

	"github.com/go-text/typesetting/bidi"
	"github.com/go-text/typesetting/di"
	"github.com/go-text/typesetting/font"
	"github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/shaping"
	"golang.org/x/image/math/fixed"
)

// Layout is a text set in lines. Coordinates are px from the text's origin: the middle of its upper
// edge, or its upper left (right) corner when it grows and is aligned left (right).
type Layout struct {
	Box      geom.Box // the set lines: widths by advance, heights by line
	Outlines []Outline
	Lines    []geom.Box // on a ring: of every letter
	Feet     []float64  // how far below the upper edge the letters of each line stand
	Missing  []rune     // drawn as the font's box for unknown characters
	Pieces   []Piece
	Over     float64 // px that the lines are higher than a box of fixed height
	Scale    float64 // of the sizes, where they were made to fit the box; else 1
}

// Outline is the glyphs of one colour.
type Outline struct {
	Colour string // empty: the layer's fill
	Path   *geom.Path
}

// Glyph is one shaped glyph, in font units of a face with Upem units an em.
type Glyph struct {
	ID               uint32
	Cluster          int // index of its first rune
	next             int // of the rune after its cluster
	Advance, DX, DY  float64
	Upem             float64
	face             *font.Face
	run              int
	size             float64
	rise             float64 // px above the line it is set on
	level            bidi.Level
	space, breakable bool
}

// Room is the box of a text, px: lines break at W where the text wraps; where its height is fixed too, it is H.
type Room struct{ W, H float64 }

// RoomOf is the room of a text at a place.
func RoomOf(p *doc.Place) Room { return Room{p.W, p.H} }

// Set lays t out in its room.
func Set(b *Book, t *doc.Text, in Room) *Layout { return set(b, t, in, "", false).out }

func set(b *Book, t *doc.Text, in Room, unit string, cells bool) *setter {
	press := b.pressed()
	press.Lock()
	defer press.Unlock()
	runes := []rune{}
	runOf := []int{}
	var from []int
	for i, r := range t.Runs {
		for _, c := range cased(r.Text, r.Case, runes) {
			runes = append(runes, c.rune)
			runOf = append(runOf, i)
			from = append(from, c.of)
		}
	}
	s := &setter{press: press, book: b, text: t, runes: runes, runOf: runOf, from: from, out: &Layout{Scale: 1}, unit: unit, wantCells: cells, scale: 1}
	s.cut.s = s
	start := 0
	for i := 0; i <= len(runes); i++ {
		if i == len(runes) || runes[i] == '\n' {
			s.paragraphs = append(s.paragraphs, s.shaped(start, i))
			start = i + 1
		}
	}
	if t.Room == doc.FitRoom && t.Wraps() {
		s.fit(in)
		s.out.Scale = s.scale
	}
	s.breakLines(in.W)
	if t.Ring != nil {
		s.placeOnRing(t.Ring)
	} else {
		s.place(in)
	}
	return s
}

// paragraph is what stands between line ends, shaped.
type paragraph struct {
	from, to int
	glyphs   []Glyph // as they are read; their sizes are those of the document
}

// breakLines breaks all paragraphs into lines no wider than width, where the text wraps.
func (s *setter) breakLines(width float64) {
	s.lines = s.lines[:0]
	limit := math.Inf(1)
	if s.text.Wraps() {
		limit = math.Max(width, 1)
	}
	for _, p := range s.paragraphs {
		s.paragraph(p, limit)
	}
}

type line struct {
	glyphs          []Glyph
	width           float64
	ascent, descent float64
	height          float64
	broken          bool // for want of room
	from, to        int  // the runes it holds, without a line end
}

type setter struct {
	press *press
	book  *Book
	text  *doc.Text
	runes []rune
	runOf []int
	from  []int // of each rune, its place in the text of its run as it is written
	lines []line
	out   *Layout
	unit  string // of the pieces that are wanted

	paragraphs []paragraph
	scale      float64 // of all sizes and of the space between letters, to fit a box

	cut       cutter
	row       []stood // of the line that is being set, where units or cells are wanted
	wantCells bool
	cells     []Cell
	begins    []int         // of the runs, in characters of the text as it is written
	head      [2]geom.Point // where the line begins, from its top to its foot
}

// paragraph breaks a paragraph into lines no wider than limit.
func (s *setter) paragraph(p paragraph, limit float64) {
	if len(p.glyphs) == 0 {
		at := p.from
		if at >= len(s.runOf) {
			at = len(s.runOf) - 1
		}
		run := 0
		if at >= 0 {
			run = s.runOf[at]
		}
		l := s.finish(nil, run)
		l.from, l.to = p.from, p.to
		s.lines = append(s.lines, l)
		return
	}
	if s.text.Stacked {
		s.stack(p.glyphs)
		return
	}
	begin, last := 0, -1 // of the line, and where it may end
	width := 0.0
	end := func(to int, broken bool) {
		l := s.finish(p.glyphs[begin:to], p.glyphs[begin].run)
		l.broken, l.from, l.to = broken, p.glyphs[begin].Cluster, p.to
		if to < len(p.glyphs) {
			l.to = p.glyphs[to].Cluster
		}
		s.lines = append(s.lines, l)
	}
	for i, g := range p.glyphs {
		width += s.wide(g)
		if width > limit && !g.space && last >= 0 {
			end(last+1, true)
			begin, width, last = last+1, 0, -1
			for k := begin; k <= i; k++ {
				width += s.wide(p.glyphs[k])
				if p.glyphs[k].breakable {
					last = k
				}
			}
		} else if g.breakable {
			last = i
		}
	}
	end(len(p.glyphs), false)
}

// wide is how far a glyph of a paragraph moves on what follows it, px.
func (s *setter) wide(g Glyph) float64 {
	return (g.Advance/g.Upem*g.size + s.text.LetterSpacing) * s.scale
}

// advance is the same of a glyph of a line.
func (s *setter) advance(g Glyph) float64 { return g.Advance/g.Upem*g.size + s.spacing() }

// spacing is the space between letters, px.
func (s *setter) spacing() float64 { return s.text.LetterSpacing * s.scale }

// finish makes a line of glyphs of a paragraph, which stay as they are, and measures it; spaces at its end hang outside the measure,
// and letter spacing stands between letters only.
func (s *setter) finish(glyphs []Glyph, run int) line {
	glyphs = slices.Clone(glyphs)
	for i := range glyphs {
		glyphs[i].size *= s.scale
		glyphs[i].rise *= s.scale
	}
	end := len(glyphs)
	for end > 0 && glyphs[end-1].space {
		end--
	}
	ordered(glyphs[:end])
	l := line{glyphs: glyphs}
	for _, g := range glyphs[:end] {
		l.width += s.advance(g)
	}
	if end > 0 {
		l.width -= s.spacing()
	}
	runs := map[int]bool{run: true}
	for _, g := range glyphs {
		runs[g.run] = true
	}
	for i := range s.text.Runs {
		if !runs[i] {
			continue
		}
		r := s.text.Runs[i]
		up, down, gap := 0.8, 0.2, 0.0
		if st := s.book.Stack(r.Family, r.Weight, r.Italic); len(st) > 0 {
			if e, ok := st[0].FontHExtents(); ok {
				u := float64(st[0].Upem())
				up, down, gap = float64(e.Ascender)/u, -float64(e.Descender)/u, float64(e.LineGap)/u
			}
		}
		h := up + down + gap
		if s.text.LineHeight > 0 {
			h = s.text.LineHeight
		}
		// Half of what the line is higher than the letters goes above them (CSS half-leading).
		lead := (h - up - down) / 2
		l.ascent = math.Max(l.ascent, (up+lead)*r.Size*s.scale)
		l.descent = math.Max(l.descent, (down+lead)*r.Size*s.scale)
	}
	l.height = l.ascent + l.descent
	return l
}

func (s *setter) place(in Room) {
	y, widest := 0.0, 0.0
	for _, l := range s.lines {
		widest = math.Max(widest, l.width)
		y += l.height
	}
	measure, left, top, height := widest, 0.0, 0.0, y
	switch {
	case s.text.Wraps():
		measure = math.Max(in.W, 1)
		left = -measure / 2
	case s.text.Align == doc.Centre:
		left = -measure / 2
	case s.text.Align == doc.Right:
		left = -measure
	}
	if s.text.Wraps() && s.text.Room != "" {
		height = math.Max(in.H, 1)
		s.out.Over = math.Max(y-height, 0)
		switch s.text.Stand {
		case doc.Middle:
			top = (height - y) / 2
		case doc.Bottom:
			top = height - y
		}
	}
	s.out.Box = geom.Box{Min: geom.Point{X: left, Y: 0}, Max: geom.Point{X: left + measure, Y: height}}
	y = top
	for _, l := range s.lines {
		x := left
		switch s.text.Align {
		case doc.Centre:
			x += (measure - l.width) / 2
		case doc.Right:
			x += measure - l.width
		}
		wider := 0.0 // every space, in a justified line
		if s.text.Align == doc.Justified && l.broken {
			if n := l.spaces(); n > 0 {
				wider = (measure - l.width) / float64(n)
				l.width = measure
			}
		}
		s.out.Feet = append(s.out.Feet, y+l.ascent)
		s.out.Lines = append(s.out.Lines, geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: x + l.width, Y: y + l.height}})
		base := y + l.ascent
		s.begin(&l)
		s.foot(geom.Point{X: x, Y: y}, geom.Point{X: x, Y: y + l.height})
		for i := range l.glyphs {
			g := &l.glyphs[i]
			k := g.size / g.Upem
			m := geom.Matrix{A: k, D: -k, E: x + g.DX*k, F: base - g.rise - g.DY*k}
			next := x + s.advance(*g)
			if g.space {
				next += wider
			}
			box := geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: next - s.spacing(), Y: y + l.height}}
			s.glyph(stood{g: g, m: m, box: box, corners: box.Corners(), spot: spot{at: geom.Point{X: x + g.kept()*k, Y: base}}})
			x = next
		}
		s.end(&l)
		y += l.height
	}
}

// fit scales the words so that they fill their room as far as they can.
func (s *setter) fit(in Room) {
	most := 0.0
	for _, r := range s.text.Runs {
		most = math.Max(most, r.Size)
	}
	fits := func(k float64) bool {
		s.scale = k
		s.breakLines(in.W)
		high := 0.0
		for _, l := range s.lines {
			if l.width > in.W+1e-6 {
				return false
			}
			high += l.height
		}
		return high <= in.H+1e-6
	}
	// A larger size never makes fewer lines, so that the largest that fits is found by halving, to a part in 4,000.
	lo, hi := 0.5/most, 4000/most
	for hi/lo > 1.00025 {
		if mid := math.Sqrt(lo * hi); fits(mid) {
			lo = mid
		} else {
			hi = mid
		}
	}
	s.scale = lo
}

// press sets the texts of a book and of its copies, which share faces. It and the faces keep what they have worked out, so that one text is set
// at a time; other books have presses of their own.
type press struct {
	sync.Mutex
	shaper shaping.HarfbuzzShaper
}

// Shape shapes text[from:to] with the first face of the stack that has each character, in font units,
// as HarfBuzz does at a scale of one unit, in the order in which the glyphs stand from the left. missing is told of characters no face has.
func Shape(stack []*font.Face, text []rune, from, to int, rightToLeft bool, missing func(rune)) []Glyph {
	return new(press).shape(stack, nil, text, from, to, rightToLeft, nil, missing)
}

// unjoined switches off what a font does to letters that stand together: ligatures do not go with space between letters (CSS Text 3,
// section 8.2). Those a script cannot do without (rlig) stay.
var unjoined = []shaping.FontFeature{{Tag: opentype.MustNewTag("liga")}, {Tag: opentype.MustNewTag("clig")}}

// apart reports whether there is space between letters, or a ring spreads them.
func (s *setter) apart() bool {
	return s.text.LetterSpacing != 0 || s.text.Ring != nil && s.text.Ring.Share > 0
}

func (p *press) shape(stack []*font.Face, more func() []*font.Face, text []rune, from, to int, rightToLeft bool, features []shaping.FontFeature, missing func(rune)) []Glyph {
	in := shaping.Input{
		Text: text, RunStart: from, RunEnd: to, Direction: di.DirectionLTR, Language: language.NewLanguage("en"), FontFeatures: features,
	}
	if rightToLeft {
		in.Direction = di.DirectionRTL
	}
	var out []Glyph
	parts := stackMap{p, stack, more, missing}.split(in)
	if rightToLeft {
		slices.Reverse(parts)
	}
	for _, part := range parts {
		upem := int(part.Face.Upem())
		part.Size = fixed.I(upem)
		var run shaping.Output
		if !guarded(func() { run = p.shaper.Shape(part) }) {
			p.shaper = shaping.HarfbuzzShaper{} // what it has begun is of no use
			for _, c := range text[part.RunStart:part.RunEnd] {
				missing(c)
			}
			continue
		}
		for _, g := range run.Glyphs {
			out = append(out, Glyph{
				ID: uint32(g.GlyphID), Cluster: g.TextIndex(), Upem: float64(upem), face: part.Face,
				Advance: float64(g.Advance) / 64, DX: float64(g.XOffset) / 64, DY: float64(g.YOffset) / 64,
			})
		}
	}
	return out
}
