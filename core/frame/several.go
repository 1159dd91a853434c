package frame

import (
	"slices"

	"capstan/core/geom"
)

// Only returns a list with just the layer id of scene i and what is inside it, at rest, and the box it
// fills on the page; for small pictures of single layers.
func (p *Player) Only(i int, id string, v View) (*List, geom.Box) {
	p.nodes = p.nodes[:0]
	l := p.film.scenes[i].byID[id]
	if l == nil {
		return p.emit(v), geom.Box{}
	}
	defer p.unthinned()()
	m := p.film.Ancestry(i, id)
	p.layer(l, m, restPose, 1, nil)
	return p.emit(v), m.Mul(l.at(restPose)).ApplyBox(l.box)
}

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
