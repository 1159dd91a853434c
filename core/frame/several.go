package frame

import (
	"slices"

	"capstan/core/geom"
)

// Several returns a list with just some layers of scene i and what is inside them, at rest, in their order, and a box of the page
// that holds all they paint. It is no smaller than need be for their strokes, blurs and shadows, but may be larger.
func (p *Player) Several(i int, ids []string, v View) (*List, geom.Box) {
	p.nodes, p.effects = p.nodes[:0], p.effects[:0]
	defer p.unthinned()()
	b := geom.EmptyBox()
	var walk func(list []*layer)
	walk = func(list []*layer) {
		for _, l := range list {
			if l.doc.Hidden {
				continue
			}
			if !slices.Contains(ids, l.doc.ID) {
				walk(l.children)
				continue
			}
			m := p.film.Ancestry(i, l.doc.ID)
			p.layer(l, m, restPose, 1, nil)
			b = b.Union(l.painted(m))
		}
	}
	walk(p.film.scenes[i].layers)
	if b.Max.X < b.Min.X {
		b = geom.Box{}
	}
	return p.emit(v), b
}

// Clear begins a list that AddPlaced adds to.
func (p *Player) Clear() {
	p.list.reset(float64(p.film.Doc.Film.Width), float64(p.film.Doc.Film.Height))
}

// AddPlaced adds a layer to the list as it was last placed, with what is inside it alone, alpha times as strong.
func (p *Player) AddPlaced(id string, alpha float64, v View) {
	if i := p.placed(id); i >= 0 {
		p.paint(i, p.nodes[i].end, v, alpha, geom.Point{})
	}
}

// List returns the list that was made last.
func (p *Player) List() *List { return &p.list }

// painted is a box of the page that holds all a layer paints at rest, m being the map from its parent's axes.
func (l *layer) painted(m geom.Matrix) geom.Box {
	own := m.Mul(l.at(restPose))
	b := own.ApplyBox(l.box)
	d := l.doc
	if d.Text != nil && d.Text.Plate != nil {
		b = own.ApplyBox(l.box.Grow(d.Text.Plate.Padding))
	}
	for _, c := range l.children {
		b = b.Union(c.painted(own))
	}
	if s := d.Stroke; s != nil {
		miter := 4.0
		if s.MiterLimit > 0 {
			miter = s.MiterLimit
		}
		if s.Join == geom.RoundJoin || s.Join == geom.BevelJoin {
			miter = 2
		}
		b = b.Grow(s.Width * max(miter, 6) * own.MaxScale()) // heads of lines reach three widths to either side
	}
	out := b
	if v := d.Shadow; v != nil {
		at := b.Grow(3 * v.Blur)
		out = out.Union(geom.Box{Min: at.Min.Add(geom.Point{X: v.X, Y: v.Y}), Max: at.Max.Add(geom.Point{X: v.X, Y: v.Y})})
	}
	if v := d.Glow; v != nil {
		out = out.Union(b.Grow(3 * v.Blur))
	}
	return out.Grow(3*d.Blur + 2)
}
