package frame

import (
	"slices"

	"capstan/core/geom"
)

// Only returns a list with just the layer id of scene i and what is inside it, at rest, and the box it
// fills on the page; for small pictures of single layers.
func (p *Player) Only(i int, id string, v View) (*List, geom.Box) {
	p.clear()
	l := p.film.scenes[i].byID[id]
	if l == nil {
		return p.emit(v), geom.Box{}
	}
	defer p.unthinned()()
	m := p.film.Ancestry(i, id)
	p.layer(l, m, &restPose, 1, nil)
	return p.emit(v), m.Mul(l.rest).ApplyBox(l.box)
}

// Several returns a list with just some layers of scene i and what is inside them, at rest, in their order, and a box of the page
// that holds all they paint. It is no smaller than need be for their strokes, blurs and shadows, but may be larger.
func (p *Player) Several(i int, ids []string, v View) (*List, geom.Box) {
	p.clear()
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
			p.layer(l, m, &restPose, 1, nil)
			b = b.Union(m.Mul(l.rest).ApplyBox(l.reaches))
		}
	}
	walk(p.film.scenes[i].layers)
	if b.Max.X < b.Min.X {
		b = geom.Box{}
	}
	return p.emit(v), b
}
