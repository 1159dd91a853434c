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
}

func (c *cutter) line() { c.inLine, c.inWord, c.cluster = false, false, -1 }

func (c *cutter) glyph(g *Glyph, colour string, m geom.Matrix, box geom.Box) {
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
		c.out.Pieces = append(c.out.Pieces, Piece{Line: c.lines - 1, Word: c.words - 1, Letter: c.letters - 1, Box: box})
	}
	p := &c.out.Pieces[len(c.out.Pieces)-1]
	p.Box = p.Box.Union(box)
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
