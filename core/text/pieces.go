package text

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Piece is one unit of a text: a line, a word or a letter. Letters are shaping clusters, so a ligature is one; words run
// between spaces and line ends; white space alone is no unit. Ordinals count from 0 through the whole text.
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
func SetIn(b *Book, t *doc.Text, width float64, unit string) *Layout { return set(b, t, width, unit) }

// cutter collects glyphs into pieces.
type cutter struct {
	unit                  string
	out                   *Layout
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

// ends is the place after the runes that a glyph stands for.
func (c *cutter) ends(g *Glyph) int {
	if next, ok := c.s.next[g.Cluster]; ok {
		return next
	}
	return g.Cluster + 1
}

func (c *cutter) line() { c.inLine, c.inWord, c.cluster = false, false, -1 }

func (c *cutter) glyph(g *Glyph, colour string, m geom.Matrix, box geom.Box, at spot) {
	if g.space {
		c.inWord = false
		return
	}
	fresh := false // a piece begins here
	if !c.inLine {
		c.inLine = true
		c.lines++
		fresh = fresh || c.unit == doc.ByLine
	}
	if !c.inWord {
		c.inWord = true
		c.words++
		fresh = fresh || c.unit == doc.ByWord
	}
	if g.Cluster != c.cluster {
		c.cluster = g.Cluster
		c.letters++
		fresh = fresh || c.unit == doc.ByLetter
	}
	if fresh {
		c.out.Pieces = append(c.out.Pieces, Piece{Line: c.lines - 1, Word: c.words - 1, Letter: c.letters - 1, Box: box, At: at.at, Turn: at.turn, Ring: at.ring, Spacing: at.spacing, From: c.mark(g.Cluster)})
	}
	p := &c.out.Pieces[len(c.out.Pieces)-1]
	p.Box = p.Box.Union(box)
	p.To = c.mark(c.ends(g))
	for i := range p.Outlines {
		if p.Outlines[i].Colour == colour {
			g.outline(p.Outlines[i].Path, m)
			return
		}
	}
	path := &geom.Path{}
	g.outline(path, m)
	p.Outlines = append(p.Outlines, Outline{colour, path})
}
