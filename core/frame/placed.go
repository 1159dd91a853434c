package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// placed returns the index of the node that shows a layer as it was last placed, groups and texts whole; -1 when it is not drawn.
func (p *Player) placed(id string) int {
	if p.index == nil {
		p.index = make(map[string]int, len(p.nodes))
		for i := range p.nodes {
			n := &p.nodes[i]
			if n.layer == nil || n.kind != leafNode && n.kind != groupNode && n.kind != textNode {
				continue
			}
			if _, ok := p.index[n.layer.doc.ID]; !ok {
				p.index[n.layer.doc.ID] = i
			}
		}
	}
	if i, ok := p.index[id]; ok {
		return i
	}
	return -1
}

// Quad returns the four corners of a layer's box on the page, from its own upper left clockwise, as it was
// last placed, and where its pivot lies; false when it is not drawn.
func (p *Player) Quad(id string) (corners [4]geom.Point, pivot geom.Point, ok bool) {
	i := p.placed(id)
	if i < 0 {
		return
	}
	n := &p.nodes[i]
	for k, c := range n.box().Corners() {
		corners[k] = n.m.Apply(c)
	}
	return corners, n.m.Apply(n.layer.pivot), true
}

// box is the layer's box in its own axes, in the size that a morph or a change gives it.
func (n *node) box() geom.Box {
	if n.sized {
		return n.layer.boxOf(n.size)
	}
	return n.layer.box
}

// EachPlaced calls f with every layer that is drawn as it was last placed: with the corners of its box on the page, from its own upper
// left clockwise, and its outer groups first.
func (p *Player) EachPlaced(f func(l *doc.Layer, corners [4]geom.Point, chain []string)) {
	for i := range p.nodes {
		n := &p.nodes[i]
		if n.layer == nil || n.kind != leafNode && n.kind != groupNode && n.kind != textNode {
			continue
		}
		var c [4]geom.Point
		for k, q := range n.box().Corners() {
			c[k] = n.m.Apply(q)
		}
		f(n.layer.doc, c, chain(n.layer))
	}
}

// Axes returns the map from a layer's own axes to the page, and from those its place is in, as it was last
// placed; false when it is not drawn.
func (p *Player) Axes(id string) (own, outer geom.Matrix, ok bool) {
	outer = geom.Identity
	i := p.placed(id)
	if i < 0 {
		return geom.Identity, outer, false
	}
	n := &p.nodes[i]
	if n.layer.parent == nil {
		return n.m, p.shownThrough(n.layer.base()), true
	}
	// Of two scenes that cross each other the later side counts, as it lies next before it.
	for k := i - 1; k >= 0 && n.layer.parent != nil; k-- {
		if g := &p.nodes[k]; g.kind == groupNode && g.end > i && g.layer == n.layer.parent {
			outer = g.m
			break
		}
	}
	return n.m, outer, true
}

// Ancestry returns the map from the axes a layer's place is in to the page, with everything at rest.
func (f *Film) Ancestry(scene int, id string) geom.Matrix {
	m := geom.Identity
	if l := f.scenes[scene].byID[id]; l != nil {
		for g := l.parent; g != nil; g = g.parent {
			m = g.rest.Mul(m)
		}
	}
	return m
}

// RestMatrix returns the map from a layer's own axes to its parent's at rest.
func (f *Film) RestMatrix(scene int, id string) geom.Matrix {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.rest
	}
	return geom.Identity
}

// Box returns a layer's box in its own axes, and its pivot there.
func (f *Film) Box(scene int, id string) (geom.Box, geom.Point) {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.box, l.pivot
	}
	return geom.Box{}, geom.Point{}
}

// Fit returns the factor by which the sizes of a text were scaled to fit its box, and by how many px its lines are higher than it.
func (f *Film) Fit(scene int, id string) (scale, over float64) {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.scale, l.over
	}
	return 1, 0
}

// Clear begins a list that AddPlaced adds to.
func (p *Player) Clear() {
	p.sparks = 0
	p.list.Reset(float64(p.film.Doc.Film.Width), float64(p.film.Doc.Film.Height))
}

// AddPlaced adds a layer to the list as it was last placed, with what is inside it alone, alpha times as strong.
func (p *Player) AddPlaced(id string, alpha float64, v View) {
	if i := p.placed(id); i >= 0 {
		p.paint(i, p.nodes[i].end, v, alpha, geom.Identity)
	}
}

// Behind is what lies behind a layer as it was last placed, or the outermost group that it lies in; of a layer that is not drawn all there is.
func (p *Player) Behind(id string, v View) *List {
	p.Clear()
	end := len(p.nodes)
	for i := 0; i < len(p.nodes); i = p.nodes[i].end {
		for k := i; k < p.nodes[i].end; k++ {
			if n := &p.nodes[k]; n.layer != nil && n.layer.doc.ID == id {
				end = i
			}
		}
		if end == i {
			break
		}
	}
	p.paint(0, end, v, 1, geom.Identity)
	return &p.list
}

// List returns the list that was made last.
func (p *Player) List() *List { return &p.list }

// StandsAt returns the corners of the box of a layer of scene i at a time of that scene's clock, in page px, as its moves and those of its groups have
// it then, whatever part of the page is seen; ok is false where it is not there.
func (f *Film) StandsAt(i int, id string, t motion.Instant) (q [4]geom.Point, ok bool) {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return q, false
	}
	c, m, box := motion.Clock{At: t, Stay: s.timing.Stay}, geom.Identity, l.box
	if len(l.becomes) > 0 {
		box = l.settledAt(c).box
	}
	for g := l; g != nil; g = g.parent {
		pose := g.track.At(c, nil)
		if !pose.Present {
			return q, false
		}
		own, _ := g.under(&pose, c)
		m = own.Mul(m)
	}
	return geom.Quad(box, m), true
}
