package frame

import (
	"capstan/core/display"
	"cmp"
	"slices"

	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/state"
)

// drawn is how far a node is drawn; without a pen it is all there.
type drawn struct {
	pen         *state.Pen
	lines, fill float64
	of          *drawing // how it is; nil: it has no outlines of its own
	as          *layer   // the layer whose outlines these are
}

// draw notes how far node i, and all that is in it, is drawn, and where the tip is.
func (p *Player) draw(i int, d state.Drawn) {
	if d.Pen == nil {
		return
	}
	p.parts = p.parts[:0]
	total, fills := 0.0, false
	for k := i; k < p.nodes[i].end; k++ {
		n := &p.nodes[k]
		if n.mask != "" && k > i {
			k = n.end - 1
			continue
		}
		of, as := n.drawnAs(d.Pen)
		if of == nil {
			continue
		}
		if n.draw.pen == nil {
			n.draw.of, n.draw.as = of, as
		}
		fills = fills || of.fills
		weight := of.weight
		if d.Pen.Equal {
			weight = 1
		}
		total += weight
		p.parts = append(p.parts, drawnPart{k, of, weight})
	}
	switch d.Pen.Order {
	case "front":
		slices.Reverse(p.parts)
	case "left":
		slices.SortStableFunc(p.parts, func(a, b drawnPart) int { return cmp.Compare(a.of.middle.X, b.of.middle.X) })
	case "top":
		slices.SortStableFunc(p.parts, func(a, b drawnPart) int { return cmp.Compare(a.of.middle.Y, b.of.middle.Y) })
	}
	if total == 0 { // nothing has a length: all take as long
		for k := range p.parts {
			p.parts[k].weight = 1
		}
		total = float64(len(p.parts))
	}
	lines, fill := d.Shares(fills)
	gone, tipped := lines*total, false
	for k := range p.parts {
		q := &p.parts[k]
		n := &p.nodes[q.node]
		share := 1.0
		if gone < q.weight {
			share = gone / q.weight
			if !tipped && lines < 1 {
				p.tip(n, q.of, share, d.Pen, lines)
				tipped = true
			}
		}
		gone = max(0, gone-q.weight)
		if lines >= 1 {
			share = 1
		}
		if n.draw.pen != nil { // drawn with its group, too
			share, fill := min(share, n.draw.lines), min(fill, n.draw.fill)
			n.draw.lines, n.draw.fill = share, fill
			continue
		}
		n.draw.pen, n.draw.lines, n.draw.fill = d.Pen, share, fill
	}
	for k := i; k < p.nodes[i].end; k++ { // the plates of texts come with the filling
		if n := &p.nodes[k]; n.kind == textNode && n.draw.pen == nil {
			n.draw.pen, n.draw.lines, n.draw.fill = d.Pen, 1, fill
		}
	}
}

// drawnPart is one of what is drawn one after another.
type drawnPart struct {
	node   int
	of     *drawing
	weight float64
}

// drawnAs returns how a node is drawn with a pen, and as which layer; nil where it has no outlines of its own. In a morph it is drawn as on the side it
// goes to, where it is drawn there.
func (n *node) drawnAs(pen *state.Pen) (*drawing, *layer) {
	for _, l := range [2]*layer{n.other, n.layer} {
		if l == nil {
			continue
		}
		switch d := l.drawingWith(pen); {
		case d == nil:
		case n.kind == leafNode:
			return d, l
		case n.kind == pieceNode && n.piece < len(d.pieces):
			return d.pieces[n.piece], l
		}
	}
	return nil, nil
}

// at returns the line that is being drawn when a share of all is, and how far that one is.
func (d *drawing) at(share float64) (i int, of float64) {
	want := share * d.length
	i, found := slices.BinarySearchFunc(d.lines, want, func(l line, want float64) int { return cmp.Compare(l.from, want) })
	if !found {
		i--
	}
	i = max(0, min(i, len(d.lines)-1))
	if length := d.lines[i].measure.Length(); length > 0 {
		of = min(1, (want-d.lines[i].from)/length)
	}
	return
}

// drawnLeaf writes a leaf as far as it is drawn. One that changes its form on the way to another scene is that form less and less, and more and more
// what is drawn there.
func (p *Player) drawnLeaf(n *node, v View, alpha float64, m geom.Matrix) {
	d, as := n.draw.of, n.draw.as
	if d == nil || len(d.lines) == 0 {
		p.finished(n, v, alpha*n.draw.fill, m)
		return
	}
	if n.other != nil && (n.sized || n.grown != 0 || n.other.doc.Path != n.layer.doc.Path) {
		e := min(1, max(0, n.share))
		if as == n.layer {
			e = 1 - e
		}
		p.finished(n, v, alpha*n.draw.lines*(1-e), m)
		alpha *= e
		if n.grown != 0 {
			m = m.Mul(geom.Scale(1/n.grown, 1/n.grown))
		}
		if w, h := as.box.W(), as.box.H(); n.size != (geom.Point{}) && w > 0 && h > 0 && n.kind == leafNode {
			m = m.Mul(geom.Scale(n.size.X/w, n.size.Y/h))
		}
	}
	if alpha <= 0 {
		return
	}
	if kinds[as.doc.Kind].paint != nil {
		p.rubbed(n, d, v, alpha, m)
		return
	}
	shapes, others := as.shapes, n.layer.shapes
	if n.kind == pieceNode {
		shapes = as.pieces[n.piece].shapes
		if n.piece < len(n.layer.pieces) {
			others = n.layer.pieces[n.piece].shapes
		}
	}
	paint := func(i int, own *Paint) Paint {
		if as == n.layer || len(others) != len(shapes) {
			return own.Sized(m, v.Scale)
		}
		c := morph.Paints(&others[i].paint, own, n.share)
		return c.Sized(m, v.Scale)
	}
	if n.draw.fill > 0 {
		for i := range shapes {
			if s := &shapes[i]; s.of == 0 && !s.paint.Clear() {
				c := paint(i, &s.paint)
				p.fill(s.key, m, &c, alpha*n.draw.fill)
			}
		}
	}
	if !d.lines[0].own { // the line it lends itself goes as the filling comes
		if alpha *= 1 - n.draw.fill; alpha <= 0 {
			return
		}
	}
	last, share := len(d.lines)-1, 1.0
	if n.draw.lines < 1 {
		last, share = d.at(n.draw.lines)
	}
	for i := range d.lines[:last+1] {
		s := &d.lines[i]
		c := paint(s.shape, &s.paint)
		if i == last && share < 1 {
			p.drawnPartly(s, share, m, &c, alpha)
			continue
		}
		p.sided(s, m, func() { p.fill(s.whole, m, &c, alpha) })
	}
}

func (p *Player) drawnPartly(s *line, share float64, m geom.Matrix, c *Paint, alpha float64) {
	if share > 0 {
		stroke := p.strokes.Part(s.path, s.measure, 0, share, s.pen)
		p.sided(s, m, func() { p.list.Outline(stroke, m, c, alpha) })
	}
}

// sided writes what inside does on the side of the outline that a line keeps to.
func (p *Player) sided(s *line, m geom.Matrix, inside func()) {
	if s.side == "" {
		inside()
		return
	}
	l := &p.list
	l.Op(display.OpClip, s.of, outsideCode(s.side))
	k := l.OpenBox()
	l.Matrix(m)
	inside()
	l.Op(display.OpEnd)
	l.CloseBox(k)
}

// finished writes a leaf as it is when all of it is drawn.
func (p *Player) finished(n *node, v View, alpha float64, m geom.Matrix) {
	if alpha <= 0 {
		return
	}
	was := n.draw
	n.draw = drawn{}
	p.leafIn(n, v, alpha, m)
	n.draw = was
}

// rubbed writes a picture as far as its band has uncovered it.
func (p *Player) rubbed(n *node, d *drawing, v View, alpha float64, m geom.Matrix) {
	if n.draw.lines >= 1 {
		p.finished(n, v, alpha, m)
		return
	}
	if n.draw.lines <= 0 {
		return
	}
	l, s := &p.list, &d.lines[0]
	l.Op(display.OpMask, 0)
	k := l.OpenBox()
	l.Num(0)
	p.finished(n, v, alpha, m)
	shown := l.Reach
	l.Op(display.OpNext)
	l.Reach = geom.EmptyBox()
	l.Outline(p.strokes.Part(s.path, s.measure, 0, n.draw.lines, s.pen), m, &state.White, 1)
	l.Op(display.OpEnd)
	if l.Reach = shown.Intersect(l.Reach); l.Reach.Empty() {
		l.Reach = geom.EmptyBox()
	}
	l.CloseBox(k)
}
