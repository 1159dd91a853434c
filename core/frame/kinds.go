package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// kind is what is done with layers of one kind; one that is not in kinds is a box that paints nothing.
type kind struct {
	// compile works out the outlines of a layer and its box, which is that of its place before.
	compile func(f *Film, s *scene, l *layer)
	// inked says that compile has given the outlines their paints, too.
	inked bool
	// paint writes what a layer shows; nil: its outlines.
	paint func(p *Player, n *node, v View, alpha float64, m geom.Matrix)
	// alike reports whether two layers of the kind differ in numbers and colours only; nil: never.
	alike func(a, b *layer) bool
}

var kinds = func() map[string]kind {
	all := map[string]kind{
		doc.PathKind: {
			compile: (*Film).compilePath,
			alike:   func(a, b *layer) bool { return a.doc.Path == b.doc.Path || a.blends(b) },
		},
		doc.TextKind: {
			compile: (*Film).compileText, inked: true,
			alike: func(a, b *layer) bool { return sameSetting(a.doc.Text, b.doc.Text) },
		},
		doc.Picture: {
			compile: (*Film).compilePicture, paint: (*Player).picture,
			alike: func(a, b *layer) bool { return a.doc.Picture.Shows() == b.doc.Picture.Shows() },
		},
		doc.ViewKind:   {alike: func(_, _ *layer) bool { return true }}, // nothing is painted of it
		doc.MarkerKind: {compile: func(f *Film, s *scene, l *layer) { f.compileMarker(l, s.marks[l.doc.ID]) }},
	}
	for _, name := range doc.Shapes {
		all[name] = kind{
			compile: func(f *Film, _ *scene, l *layer) { f.compileOutlines(l) },
			alike:   func(_, _ *layer) bool { return true },
		}
	}
	return all
}()
