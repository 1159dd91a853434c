package text

import (
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
)

// Piece is one unit of a text: a line, a word or a letter. Letters are shaping clusters, so a ligature is one; words run
// between spaces and line ends; white space alone is no unit. Ordinals count from 0 through the whole text, as it is read.
type Piece struct {
	Line, Word, Letter int
	Box                geom.Box // by advance and line
	Outlines           []Outline
	From, To           doc.Mark   // the stretch of the text it is
	At                 geom.Point // where its first letter begins, on the line it stands on
	Turn               float64    // degrees, on a ring
	Ring               *doc.TextRing
	Spacing            float64 // px between its letters, on a ring
}

// spot is where a glyph begins, and how it is turned.
type spot struct {
	at      geom.Point
	turn    float64
	ring    *doc.TextRing // on which it would stand alone
	spacing float64
}

// SetIn is Set with the text cut into pieces of a unit: doc.ByLine, doc.ByWord or doc.ByLetter. Put together they are
// the outlines of the whole.
func SetIn(b *Book, t *doc.Text, in Room, unit string) *Layout { return set(b, t, in, unit, false).out }

// stood is a glyph where it stands.
type stood struct {
	g       *Glyph
	m       geom.Matrix // from font units, y up
	box     geom.Box
	corners [4]geom.Point // as box.Corners, on a ring turned with it
	spot
}

// kept is how far a letter was moved for its neighbours' sake: it stands there alone, too. Scripts that run to the left kern by it.
func (g *Glyph) kept() float64 {
	if g.Advance == 0 { // a mark, which moves onto its letter
		return 0
	}
	return g.DX
}

// begin begins a line, end ends it; between them its glyphs come from the left to the right.
func (s *setter) begin(*line) { s.row = s.row[:0] }

func (s *setter) glyph(v stood) {
	if !s.wantCells { // who asks where letters are does not ask how they look
		s.outlines(s.text.Runs[v.g.run].Colour).Append(s.book.outline(v.g), v.m)
	}
	if s.unit != "" || s.wantCells {
		s.row = append(s.row, v)
	}
}

// end cuts the line into units in the order in which they are read: where letters run to the left, from the right.
func (s *setter) end(l *line) {
	if !sort.SliceIsSorted(s.row, func(i, k int) bool { return s.row[i].g.Cluster < s.row[k].g.Cluster }) {
		sort.SliceStable(s.row, func(i, k int) bool { return s.row[i].g.Cluster < s.row[k].g.Cluster })
	}
	if s.wantCells {
		s.cellsOf(l)
	}
	if s.unit == "" {
		return
	}
	s.cut.line()
	for i := range s.row {
		s.cut.glyph(&s.row[i])
	}
}

// cutter collects glyphs into pieces.
type cutter struct {
	lines, words, letters int // begun so far
	inLine, inWord        bool
	cluster               int
	s                     *setter
}

// mark is a place among the runes that were set, in the text as it is written.
func (c *cutter) mark(i int) doc.Mark {
	if i < len(c.s.runes) {
		return doc.Mark{Run: c.s.runOf[i], Rune: c.s.from[i]}
	}
	last := len(c.s.text.Runs) - 1
	return doc.Mark{Run: last, Rune: len([]rune(c.s.text.Runs[last].Text))}
}

func (c *cutter) line() { c.inLine, c.inWord, c.cluster = false, false, -1 }

func (c *cutter) glyph(v *stood) {
	g, out, unit := v.g, c.s.out, c.s.unit
	colour := c.s.text.Runs[g.run].Colour
	if g.space {
		c.inWord = false
		return
	}
	fresh := false // a piece begins here
	if !c.inLine {
		c.inLine = true
		c.lines++
		fresh = fresh || unit == doc.ByLine
	}
	if !c.inWord {
		c.inWord = true
		c.words++
		fresh = fresh || unit == doc.ByWord
	}
	if g.Cluster != c.cluster {
		c.cluster = g.Cluster
		c.letters++
		fresh = fresh || unit == doc.ByLetter
	}
	if fresh {
		out.Pieces = append(out.Pieces, Piece{Line: c.lines - 1, Word: c.words - 1, Letter: c.letters - 1, Box: v.box, At: v.at, Turn: v.turn, Ring: v.ring, Spacing: v.spacing, From: c.mark(g.Cluster)})
	}
	p := &out.Pieces[len(out.Pieces)-1]
	p.Box = p.Box.Union(v.box)
	// Of what is read from the right, the last letter is where it begins on the page.
	if v.ring == nil && v.at.X < p.At.X || v.ring != nil && g.level%2 == 1 {
		p.At, p.Turn, p.Ring = v.at, v.turn, v.ring
	}
	p.To = c.mark(g.next)
	for i := range p.Outlines {
		if p.Outlines[i].Colour == colour {
			p.Outlines[i].Path.Append(c.s.book.outline(g), v.m)
			return
		}
	}
	path := &geom.Path{}
	path.Append(c.s.book.outline(g), v.m)
	p.Outlines = append(p.Outlines, Outline{colour, path})
}
