package text

import (
	"capstan/core/doc"
	"capstan/core/geom"
)

// Plate returns the outline of a plate behind a text: a rounded box around every line that has letters, or around all of them; on a
// ring, around every letter or the whole ring.
func (l *Layout) Plate(p *doc.Plate) *geom.Path {
	out := &geom.Path{}
	all := geom.EmptyBox()
	for _, b := range l.Lines {
		if b.W() <= 0 {
			continue
		}
		all = all.Union(b)
		if !p.Whole {
			out.Append(geom.Rectangle(b.Grow(p.Padding), p.Corner), geom.Identity)
		}
	}
	if p.Whole && all.W() > 0 {
		out.Append(geom.Rectangle(all.Grow(p.Padding), p.Corner), geom.Identity)
	}
	return out
}
