package frame

import (
	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/state"
)

// masked writes what is in node i as far as its masks from node k on show it: those of a group, which are not painted themselves.
func (p *Player) masked(i, k int, v View, alpha float64, by geom.Matrix) {
	end, first := p.nodes[i].end, k == i+1
	for k < end && p.nodes[k].mask == "" {
		k = p.nodes[k].end
	}
	if k >= end && first {
		p.paint(i+1, end, v, alpha, by)
		return
	}
	if k >= end {
		from := i + 1
		for k = from; k < end; k = p.nodes[k].end {
			if p.nodes[k].mask != "" {
				p.paint(from, k, v, alpha, by)
				from = p.nodes[k].end
			}
		}
		p.paint(from, end, v, alpha, by)
		return
	}
	l, n := &p.list, &p.nodes[k]
	inside := n.mask == doc.Inside
	outside := uint32(1)
	if inside {
		outside = 0
	}
	l.Op(display.OpMask, outside)
	box := l.OpenBox()
	l.Num(0)
	p.masked(i, n.end, v, alpha, by)
	shown := l.Reach
	l.Op(display.OpNext)
	l.Reach = geom.EmptyBox()
	p.paint(k, n.end, v, 1, by)
	if n = &p.nodes[k]; inside && n.gone > 0 && shown.Max.X >= shown.Min.X {
		// m + (1 - m) gone, m being what it covers
		l.Outline(geom.Rectangle(shown.Grow(1), 0), geom.Identity, &state.White, n.gone)
	}
	l.Op(display.OpEnd)
	if inside {
		if shown = shown.Intersect(l.Reach); shown.Max.X < shown.Min.X || shown.Max.Y < shown.Min.Y {
			shown = geom.EmptyBox()
		}
	}
	l.Reach = shown
	l.CloseBox(box)
}

// hidden reports whether masks hide the page point q of node i, q being mapped to where the first copy of all around it lies: those of
// the group g that holds it.
func (p *Player) hidden(g, i int, q geom.Point, slack float64) bool {
	for k := g + 1; k < p.nodes[g].end; k = p.nodes[k].end {
		n := &p.nodes[k]
		if n.mask == "" || k <= i && i < n.end || n.gone > 0.5 {
			continue
		}
		if p.covers(k, q, slack) != (n.mask == doc.Inside) {
			return true
		}
	}
	return false
}

// Covering returns the id of a layer, after those of its groups, where it has something at page point q as it was last placed, whether or
// not that shows; else nil.
func (p *Player) Covering(id string, q geom.Point, slack float64) []string {
	if i := p.placed(id); i >= 0 && p.covers(i, q, slack) {
		return chain(p.nodes[i].layer)
	}
	return nil
}

// covers reports whether anything in node k shows at q.
func (p *Player) covers(k int, q geom.Point, slack float64) bool {
	for j := k; j < p.nodes[k].end; j++ {
		if n := &p.nodes[j]; (n.kind == leafNode || n.kind == pieceNode) && n.alpha > 0 && n.contains(p.film, q, slack) {
			return true
		}
	}
	return false
}

// isMask reports whether a layer is a mask, or lies in one.
func (l *layer) isMask() bool {
	for ; l != nil; l = l.parent {
		if l.doc.Mask != "" {
			return true
		}
	}
	return false
}

// groupBox is what a group takes up at rest, in its own axes: its layers, as far as they lie in the boxes of its masks.
func (l *layer) groupBox() geom.Box {
	if len(l.children) == 0 {
		return geom.Box{}
	}
	all, some, within := geom.EmptyBox(), geom.EmptyBox(), geom.EmptyBox()
	masked := false
	for _, c := range l.children {
		b := c.rest.ApplyBox(c.box)
		all = all.Union(b)
		switch {
		case c.doc.Mask == "":
			some = some.Union(b)
		case c.doc.Mask == doc.Inside && !c.doc.Hidden && !masked:
			within, masked = b, true
		case c.doc.Mask == doc.Inside && !c.doc.Hidden:
			within = within.Intersect(b)
		}
	}
	if masked {
		some = some.Intersect(within)
	}
	if some.Max.X < some.Min.X || some.Max.Y < some.Min.Y {
		return all
	}
	return some
}
