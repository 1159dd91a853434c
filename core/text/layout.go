package text

import (
	"math"
	"slices"
	"sync"
	"unicode"

	"capstan/core/doc"
	"capstan/core/geom"

	"github.com/go-text/typesetting/bidi"
	"github.com/go-text/typesetting/di"
	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
	"github.com/go-text/typesetting/language"
	"github.com/go-text/typesetting/segmenter"
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
	Advance, DX, DY  float64
	Upem             float64
	face             *font.Face
	run              int
	size             float64
	rise             float64 // px above the line it is set on
	level            bidi.Level
	space, breakable bool
}

// Set lays t out. width is the width lines break at when t wraps, in px.
func Set(b *Book, t *doc.Text, width float64) *Layout { return set(b, t, width, "") }

func set(b *Book, t *doc.Text, width float64, unit string) *Layout {
	setting.Lock()
	defer setting.Unlock()
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
	s := setter{book: b, text: t, runes: runes, runOf: runOf, from: from, next: map[int]int{}, out: &Layout{}, unit: unit}
	limit := math.Inf(1)
	if t.Wrap && t.Ring == nil && !t.Stacked {
		limit = math.Max(width, 1)
	}
	start := 0
	for i := 0; i <= len(runes); i++ {
		if i == len(runes) || runes[i] == '\n' {
			s.paragraph(start, i, limit)
			start = i + 1
		}
	}
	if t.Ring != nil {
		s.placeOnRing(t.Ring)
	} else {
		s.place(width)
	}
	return s.out
}

type line struct {
	glyphs          []Glyph
	width           float64
	ascent, descent float64
	height          float64
	broken          bool // for want of room
}

type setter struct {
	book  *Book
	text  *doc.Text
	runes []rune
	runOf []int
	next  map[int]int // from the first rune of a cluster to that of the next
	from  []int       // of each rune, its place in the text of its run as it is written
	lines []line
	out   *Layout
	unit  string // of the pieces that are wanted
}

// paragraph breaks runes[from:to] into lines no wider than limit.
func (s *setter) paragraph(from, to int, limit float64) {
	glyphs := s.shape(from, to)
	if len(glyphs) == 0 {
		at := from
		if at >= len(s.runOf) {
			at = len(s.runOf) - 1
		}
		run := 0
		if at >= 0 {
			run = s.runOf[at]
		}
		s.lines = append(s.lines, s.finish(nil, run))
		return
	}
	if s.text.Stacked {
		s.stack(glyphs)
		return
	}
	cur, last := []Glyph{}, -1
	width := 0.0
	for _, g := range glyphs {
		cur = append(cur, g)
		width += s.advance(g)
		if width > limit && !g.space && last >= 0 {
			l := s.finish(cur[:last+1], cur[0].run)
			l.broken = true
			s.lines = append(s.lines, l)
			cur = append([]Glyph(nil), cur[last+1:]...)
			width, last = 0, -1
			for i, c := range cur {
				width += s.advance(c)
				if c.breakable {
					last = i
				}
			}
		} else if g.breakable {
			last = len(cur) - 1
		}
	}
	s.lines = append(s.lines, s.finish(cur, cur[0].run))
}

func (s *setter) advance(g Glyph) float64 {
	return g.Advance/g.Upem*g.size + s.text.LetterSpacing
}

// finish measures a line; spaces at its end hang outside the measure, and letter spacing stands between
// letters only.
func (s *setter) finish(glyphs []Glyph, run int) line {
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
		l.width -= s.text.LetterSpacing
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
		l.ascent = math.Max(l.ascent, (up+lead)*r.Size)
		l.descent = math.Max(l.descent, (down+lead)*r.Size)
	}
	l.height = l.ascent + l.descent
	return l
}

func (s *setter) place(width float64) {
	y, widest := 0.0, 0.0
	for _, l := range s.lines {
		widest = math.Max(widest, l.width)
		y += l.height
	}
	measure, left := widest, 0.0
	switch {
	case s.text.Wrap && !s.text.Stacked:
		measure = math.Max(width, 1)
		left = -measure / 2
	case s.text.Align == doc.Centre:
		left = -measure / 2
	case s.text.Align == doc.Right:
		left = -measure
	}
	s.out.Box = geom.Box{Min: geom.Point{X: left, Y: 0}, Max: geom.Point{X: left + measure, Y: y}}
	y = 0
	cut := cutter{unit: s.unit, out: s.out, s: s}
	for _, l := range s.lines {
		cut.line()
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
		for _, g := range l.glyphs {
			k := g.size / g.Upem
			colour := s.text.Runs[g.run].Colour
			m := geom.Matrix{A: k, D: -k, E: x + g.DX*k, F: base - g.rise - g.DY*k}
			g.outline(s.outlines(colour), m)
			next := x + s.advance(g)
			if g.space {
				next += wider
			}
			if s.unit != "" {
				cut.glyph(&g, colour, m, geom.Box{Min: geom.Point{X: x, Y: y}, Max: geom.Point{X: next - s.text.LetterSpacing, Y: y + l.height}}, spot{at: geom.Point{X: x, Y: base}})
			}
			x = next
		}
		y += l.height
	}
}

// outlines is the path that glyphs of a colour are added to.
func (s *setter) outlines(colour string) *geom.Path {
	for _, o := range s.out.Outlines {
		if o.Colour == colour {
			return o.Path
		}
	}
	p := &geom.Path{}
	s.out.Outlines = append(s.out.Outlines, Outline{colour, p})
	return p
}

// outline adds the glyph's contours to p; m maps font units, y up, to the layout.
func (g *Glyph) outline(p *geom.Path, m geom.Matrix) {
	var o font.GlyphOutline
	var ok bool
	if !guarded(func() { o, ok = g.face.GlyphDataOutline(font.GID(g.ID)) }) || !ok {
		return
	}
	at := func(q ot.SegmentPoint) geom.Point { return m.Apply(geom.Point{X: float64(q.X), Y: float64(q.Y)}) }
	open := false
	for _, s := range o.Segments {
		switch s.Op {
		case ot.SegmentOpMoveTo:
			if open {
				p.Close()
			}
			p.Move(at(s.Args[0]))
			open = true
		case ot.SegmentOpLineTo:
			p.Line(at(s.Args[0]))
		case ot.SegmentOpQuadTo:
			p.Quad(at(s.Args[0]), at(s.Args[1]))
		case ot.SegmentOpCubeTo:
			p.Cubic(at(s.Args[0]), at(s.Args[1]), at(s.Args[2]))
		}
	}
	if open {
		p.Close()
	}
}

// stackMap picks the first face of a run's stack that has a rune.
type stackMap struct {
	stack   []*font.Face
	more    func() []*font.Face // asked only where the stack lacks something
	missing func(rune)
}

func (m stackMap) ResolveFace(r rune) *font.Face {
	for _, f := range m.stack {
		if _, ok := f.NominalGlyph(r); ok {
			return f
		}
	}
	if m.more != nil {
		for _, f := range m.more() {
			if _, ok := f.NominalGlyph(r); ok {
				return f
			}
		}
	}
	m.missing(r)
	return m.stack[0]
}

// shape shapes runes[from:to], one run of the text after the other.
func (s *setter) shape(from, to int) []Glyph {
	breaks := map[int]bool{}
	if to > from {
		var seg segmenter.Segmenter
		seg.Init(s.runes[from:to])
		for it := seg.LineIterator(); it.Next(); {
			l := it.Line()
			end := from + l.Offset + len(l.Text)
			// UAX 14 would break and/or, for the sake of addresses; no browser does.
			if s.runes[end-1] == '/' && end < to && unicode.IsLetter(s.runes[end]) {
				continue
			}
			breaks[end-1] = true
		}
	}
	var out []Glyph
	levels := s.levels(from, to)
	for i := from; i < to; {
		j := i
		for j < to && s.runOf[j] == s.runOf[i] && levels[j-from] == levels[i-from] {
			j++
		}
		level := levels[i-from]
		first := len(out)
		r := s.text.Runs[s.runOf[i]]
		stack := s.book.Stack(r.Family, r.Weight, r.Italic)
		if len(stack) > 0 {
			for _, g := range shapeWith(stack, func() []*font.Face { return s.book.fallback(r.Weight, r.Italic) }, s.runes, i, j, level%2 == 1, func(c rune) { s.out.Missing = append(s.out.Missing, c) }) {
				g.run, g.level = s.runOf[i], level
				g.size, g.rise = raised(&r)
				c := s.runes[g.Cluster]
				g.space = c == ' ' || c == '\t'
				out = append(out, g)
			}
		}
		if level%2 == 1 {
			slices.Reverse(out[first:]) // as it is read; lines are broken so, and then turned to how they look
		}
		i = j
	}
	for i := range out {
		next := to
		if i+1 < len(out) {
			next = out[i+1].Cluster
		}
		if next > out[i].Cluster {
			s.next[out[i].Cluster] = next
		}
		for k := out[i].Cluster; k < next && k >= 0; k++ {
			out[i].breakable = out[i].breakable || breaks[k]
		}
	}
	return out
}

// shaper and the faces keep what they have worked out, so only one text is set at a time.
var (
	shaper  shaping.HarfbuzzShaper
	setting sync.Mutex
)

// Shape shapes text[from:to] with the first face of the stack that has each character, in font units,
// as HarfBuzz does at a scale of one unit, in the order in which the glyphs stand from the left. missing is told of characters no face has.
func Shape(stack []*font.Face, text []rune, from, to int, rightToLeft bool, missing func(rune)) []Glyph {
	setting.Lock()
	defer setting.Unlock()
	return shapeWith(stack, nil, text, from, to, rightToLeft, missing)
}

func shapeWith(stack []*font.Face, more func() []*font.Face, text []rune, from, to int, rightToLeft bool, missing func(rune)) []Glyph {
	var seg shaping.Segmenter
	in := shaping.Input{
		Text: text, RunStart: from, RunEnd: to, Direction: di.DirectionLTR, Language: language.NewLanguage("en"),
	}
	if rightToLeft {
		in.Direction = di.DirectionRTL
	}
	var out []Glyph
	parts := seg.Split(in, stackMap{stack, more, missing})
	if rightToLeft {
		slices.Reverse(parts)
	}
	for _, part := range parts {
		upem := int(part.Face.Upem())
		part.Size = fixed.I(upem)
		var run shaping.Output
		if !guarded(func() { run = shaper.Shape(part) }) {
			shaper = shaping.HarfbuzzShaper{} // what it has begun is of no use
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
