package frame

import (
	"capstan/core/display"
	"sort"

	"capstan/core/geom"
	"capstan/core/morph"
)

// far is beyond any plate, in px: where the first and the last part of one end.
const far = 1e5

// overlap is by how many px parts of an opaque plate lie over each other, so that no line shows between them.
const overlap = 0.75

// divide gives every piece of a text the part of its plate that comes with it: from half way to the piece before it in its line to half way to
// the next, and from half way to the line above to half way to that below. Texts on rings and stacked ones keep their plate whole.
func (f *Film) divide(l *layer) {
	if l.plate == nil || l.doc.Text.Ring != nil || l.doc.Text.Stacked || len(l.pieces) == 0 {
		return
	}
	over, plate := 0.0, f.Geometry.Bounds(l.plate.key)
	if l.plate.paint.Opaque() {
		over = overlap
	}
	// Lines from above, the pieces of each from the left: a boundary lies half way between neighbours, or beyond all where there is none.
	rows := map[int][]*piece{}
	boxes := map[int]geom.Box{}
	var order []int
	for i := range l.pieces {
		p := &l.pieces[i]
		if p.box.Empty() {
			continue
		}
		u := p.unit.Line
		if rows[u] == nil {
			order, boxes[u] = append(order, u), geom.EmptyBox()
		}
		rows[u], boxes[u] = append(rows[u], p), boxes[u].Union(p.box)
	}
	sort.SliceStable(order, func(a, b int) bool { return boxes[order[a]].Centre().Y < boxes[order[b]].Centre().Y })
	between := func(n int, gap func(k int) float64) func(i int) (from, to float64) {
		return func(i int) (from, to float64) {
			from, to = -far, far
			if i > 0 {
				from = gap(i-1) - over
			}
			if i < n-1 {
				to = gap(i) + over
			}
			return
		}
	}
	down := between(len(order), func(k int) float64 { return (boxes[order[k]].Max.Y + boxes[order[k+1]].Min.Y) / 2 })
	for i, u := range order {
		list := rows[u]
		sort.SliceStable(list, func(a, b int) bool { return list[a].box.Centre().X < list[b].box.Centre().X })
		across := between(len(list), func(k int) float64 { return (list[k].box.Max.X + list[k+1].box.Min.X) / 2 })
		for k, p := range list {
			var r geom.Box
			r.Min.X, r.Max.X = across(k)
			r.Min.Y, r.Max.Y = down(i)
			if r.Max.X > r.Min.X && r.Max.Y > r.Min.Y {
				p.region = f.Geometry.rectangle(r, 0)
				if part := r.Intersect(plate); !part.Empty() {
					p.reaches = p.reaches.Union(part)
				}
			}
		}
	}
}

// plates writes the plate behind a text in the parts that come with its pieces, as these are at this time; false: it stands as one.
func (p *Player) plates(i int, v View, alpha float64, by geom.Matrix) bool {
	n := &p.nodes[i]
	if n.kind != textNode || n.layer.plate == nil || len(n.layer.pieces) == 0 || n.layer.pieces[0].region == 0 {
		return false
	}
	p.plateOf = i + 1
	for k := i + 1; k < n.end; k = p.nodes[k].end {
		p.shown(k, v, alpha, by)
	}
	p.plateOf = 0
	return true
}

// platePart writes the part of a plate that comes with a piece.
func (p *Player) platePart(n *node, alpha float64, by geom.Matrix) {
	of := &p.nodes[p.plateOf-1]
	region := n.layer.pieces[n.piece].region
	if n.draw.pen != nil {
		alpha *= n.draw.fill
	}
	if region == 0 || alpha <= 0 {
		return
	}
	l := &p.list
	l.Op(display.OpClip, region, 0)
	k := l.OpenBox()
	l.Matrix(by.Mul(n.m))
	s := of.layer.plate
	c := s.paint
	if of.other != nil && of.other.plate != nil {
		c = morph.Paints(&c, &of.other.plate.paint, of.share)
	}
	if !c.Clear() {
		p.fill(s.key, by.Mul(n.m), &c, alpha)
	}
	l.Op(display.OpEnd)
	l.CloseBox(k)
}
