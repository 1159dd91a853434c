package frame

import (
	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/geom"
)

// linkThrough finds the layers that those of a scene are seen through.
func (s *scene) linkThrough() {
	for _, l := range s.byID {
		l.through = nil
		if v := l.doc.Through; v != nil {
			if o := s.byThread[v.Thread]; o != nil && doc.Drives(o.doc, l.doc) {
				l.through = o
			}
		}
	}
}

// seenThrough writes what inside does, as far as the layer that node i is seen through shows it.
func (p *Player) seenThrough(i int, v View, inside func()) {
	n := &p.nodes[i]
	through := n.layer.through
	k := p.beside(i, through)
	if k < 0 && (p.solo != nil || hidden(through)) || p.passing > 0 { // validation lets none be seen through what is seen through another
		inside()
		return
	}
	d := n.layer.doc.Through
	if k < 0 { // it is not there
		if d.Outside {
			inside()
		}
		return
	}
	how := uint32(0)
	if d.Outside {
		how |= display.MaskOutside
	}
	if d.Light {
		how |= display.MaskLight
	}
	l := &p.list
	l.Op(display.OpMask, how)
	box := l.OpenBox()
	l.Num(0)
	inside()
	shown := l.Reach
	l.Op(display.OpNext)
	l.Reach = geom.EmptyBox()
	v.Layers = nil // it is no layer of its own here
	p.passing++
	p.copies(k, v, 1, geom.Identity)
	p.passing--
	l.Op(display.OpEnd)
	if !d.Outside {
		if shown = shown.Intersect(l.Reach); shown.Max.X < shown.Min.X || shown.Max.Y < shown.Min.Y {
			shown = geom.EmptyBox()
		}
	}
	l.Reach = shown
	l.CloseBox(box)
}

// hidden reports whether a layer, or what it lies in, is.
func hidden(l *layer) bool {
	for ; l != nil; l = l.parent {
		if l.doc.Hidden {
			return true
		}
	}
	return false
}

// beside is the node of a layer on the same side of a transition as node i; -1: there is none.
func (p *Player) beside(i int, l *layer) int {
	from, to := 0, len(p.nodes)
	for k := 0; k <= i; k++ {
		if n := &p.nodes[k]; n.end > i && (n.kind == sideNode || n.kind == clipNode) {
			from, to = k+1, n.end
		}
	}
	for k := from; k < to; k++ {
		n := &p.nodes[k]
		if n.layer != nil && n.kind != pieceNode && (n.layer == l || n.layer.doc.Thread == l.doc.Thread) && (k > i || n.end <= i) {
			return k
		}
	}
	return -1
}

// veiledAt reports whether the layer that node i is seen through hides the page point q of it.
func (p *Player) veiledAt(i int, q geom.Point, slack float64) bool {
	n := &p.nodes[i]
	if n.layer == nil || n.layer.through == nil || n.kind == pieceNode {
		return false
	}
	k := p.beside(i, n.layer.through)
	if k < 0 {
		return p.solo == nil && !hidden(n.layer.through) && !n.layer.doc.Through.Outside
	}
	return p.covers(k, q, slack) == n.layer.doc.Through.Outside
}
