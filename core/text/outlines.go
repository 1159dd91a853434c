package text

import (
	"slices"

	"capstan/core/geom"

	"github.com/go-text/typesetting/font"
	ot "github.com/go-text/typesetting/font/opentype"
)

// drawn names a glyph of a face.
type drawn struct {
	face *font.Face
	id   uint32
}

// maxDrawn is how many glyphs a book keeps the outlines of.
const maxDrawn = 4000

// outline returns the contours of a glyph in font units, y up. It is shared: reading it from the font costs more than all else of setting
// a letter, and texts use few letters many times.
func (b *Book) outline(g *Glyph) *geom.Path {
	key := drawn{g.face, g.ID}
	if p := b.drawn[key]; p != nil {
		return p
	}
	if len(b.drawn) >= maxDrawn || b.drawn == nil {
		b.drawn = map[drawn]*geom.Path{}
	}
	p := &geom.Path{}
	b.drawn[key] = p
	var o font.GlyphOutline
	var ok bool
	if !guarded(func() { o, ok = g.face.GlyphDataOutline(font.GID(g.ID)) }) || !ok {
		return p
	}
	at := func(q ot.SegmentPoint) geom.Point { return geom.Point{X: float64(q.X), Y: float64(q.Y)} }
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
	return p
}

// outlines is the path that glyphs of a colour are added to.
func (s *setter) outlines(colour string) *geom.Path {
	for _, o := range s.out.Outlines {
		if o.Colour == colour {
			return o.Path
		}
	}
	p := &geom.Path{}
	if len(s.out.Outlines) == 0 { // mostly the only one
		verbs, points := 0, 0
		for _, l := range s.lines {
			for i := range l.glyphs {
				o := s.book.outline(&l.glyphs[i])
				verbs, points = verbs+len(o.Verbs), points+len(o.Points)
			}
		}
		p.Verbs, p.Points = slices.Grow(p.Verbs, verbs), slices.Grow(p.Points, points)
	}
	s.out.Outlines = append(s.out.Outlines, Outline{colour, p})
	return p
}
