package frame

import (
	"capstan/core/display"
	"math"

	"capstan/core/geom"
	"capstan/core/state"
)

// nearest is the least w at which something is painted in perspective: nearer to the eye than that it would be 20 times as large.
const nearest = 0.05

// mostSheet is how many samples a sheet has at most, each way.
const mostSheet = 4096

// bendsWithin is how far an outline in perspective may lie off the true one, in px of the view.
const bendsWithin = 0.02

// tilted notes how something is turned out of the page about its box, and returns what a node holds of that.
func (p *Player) tilted(t *state.Tilts, box geom.Box) int {
	if t.None() {
		return 0
	}
	p.tilts = append(p.tilts, t.Projection(box))
	return len(p.tilts)
}

// boxOf is the layer's box in a size that a morph gives it.
func (l *layer) boxOf(size geom.Point) geom.Box {
	b := l.box
	b.Max = b.Min.Add(size)
	if l.box.W() > 0 && l.box.H() > 0 {
		k := geom.Scale(size.X/l.box.W(), size.Y/l.box.H())
		b = k.ApplyBox(l.box)
	}
	return b
}

// hinged writes a node that is turned out of the page: outlines in plain colours by projecting them, all else as a sheet. Its effects are done to
// what is seen; its veil lies on the thing itself.
func (p *Player) hinged(i int, v View, a float64, by geom.Matrix) {
	n := &p.nodes[i]
	h := &p.tilts[n.tilt-1]
	if _, ok := h.Inverse(); !ok {
		return // edge on
	}
	box := n.layer.reaches
	if n.kind == pieceNode {
		box = n.layer.pieces[n.piece].reaches
	}
	p.affected(i, a, by, func(alpha float64) {
		if p.plain(n) && inFront(h, box) {
			outer := p.lens
			p.lens = h
			p.body(i, v, alpha, by)
			p.lens = outer
			return
		}
		p.sheet(i, v, alpha, by, h, box)
	})
}

// plain reports whether a node shows nothing but outlines in plain colours, as they are stored.
func (p *Player) plain(n *node) bool {
	if n.kind != leafNode && n.kind != pieceNode || len(n.veil) > 0 || n.layer.plate != nil && (n.kind == leafNode || p.plateOf > 0) || kinds[n.layer.doc.Kind].paint != nil ||
		n.other != nil || n.sized || n.grown != 0 || n.draw.pen != nil || p.lens != nil {
		return false
	}
	shapes := n.layer.shapes
	if n.kind == pieceNode {
		shapes = n.layer.pieces[n.piece].shapes
	}
	for i := range shapes {
		if s := &shapes[i]; s.side != "" || s.paint.Gradient != nil || s.paint.Texture != nil {
			return false
		}
	}
	return true
}

func inFront(h *geom.Projection, box geom.Box) bool {
	for _, c := range box.Corners() {
		if _, w := h.Apply(c); w < nearest {
			return false
		}
	}
	return true
}

// stored writes an outline of the store, through the lens where there is one.
func (p *Player) stored(key uint32, m geom.Matrix, v View, c *Paint, alpha float64) {
	if p.lens == nil {
		p.fill(key, m, c, alpha)
		return
	}
	p.bent.Reset()
	p.bent.Project(p.film.Geometry.Path(key), p.lens, bendsWithin/max(m.MaxScale()*v.Scale, 1e-6))
	p.list.Outline(&p.bent, m, c, alpha)
}

// sheet writes a node flat, with as many samples along either of its axes as are seen where it is nearest, and shows that in perspective.
func (p *Player) sheet(i int, v View, alpha float64, by geom.Matrix, h *geom.Projection, box geom.Box) {
	n, l := &p.nodes[i], &p.list
	inv, ok := n.m.Inverse()
	if !ok {
		return
	}
	seen := geom.Flat(by.Mul(n.m)).Mul(*h)
	x, y := 1e-3, 1e-3
	box = clipped(h, box)
	for _, c := range box.Corners() {
		if _, w := seen.Apply(c); w > 0 {
			sx, sy := seen.Stretch(c)
			x, y = max(x, sx*v.Scale), max(y, sy*v.Scale)
		}
	}
	x, y = min(x, mostSheet/max(box.W(), 1)), min(y, mostSheet/max(box.H(), 1))
	to := geom.Scale(x, y)
	l.Op(display.OpProject)
	k := l.OpenBox()
	at := len(l.Numbers)
	l.Num(0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1)
	inside := to.Mul(inv)
	p.veiled(i, inside, func() { p.body(i, View{Scale: 1, Repeats: v.Repeats}, alpha, inside) })
	l.Op(display.OpEnd)
	back, _ := to.Inverse()
	flat := back.ApplyBox(l.Reach)
	if l.Reach.Empty() {
		flat = geom.Box{}
	}
	flat = clipped(h, flat)
	onSheet := to.ApplyBox(flat)
	l.Reach = geom.EmptyBox()
	if !onSheet.Empty() {
		scale := min(1, mostSheet/max(onSheet.W(), onSheet.H()))
		m := seen.Mul(geom.Flat(back))
		copy(l.Numbers[at:], []float64{onSheet.Min.X, onSheet.Min.Y, onSheet.W(), onSheet.H()})
		copy(l.Numbers[at+4:], m[:])
		l.Numbers[at+13] = scale
		for _, c := range flat.Corners() {
			q, _ := seen.Apply(c)
			l.Reach = l.Reach.Include(q)
		}
	}
	l.CloseBox(k)
}

// clipped is the part of a box that lies in front of the eye. One turn lets w change along one axis of the box alone; of several the box is cut
// along the axis that w changes most along.
func clipped(h *geom.Projection, box geom.Box) geom.Box {
	if box.Empty() || inFront(h, box) {
		return box
	}
	if math.Abs(h[6]) >= math.Abs(h[7]) {
		least := math.Inf(1)
		for _, y := range []float64{box.Min.Y, box.Max.Y} {
			least = min(least, h[7]*y)
		}
		x := (nearest - h[8] - least) / h[6]
		if h[6] > 0 {
			box.Min.X = max(box.Min.X, x)
		} else {
			box.Max.X = min(box.Max.X, x)
		}
		return box
	}
	least := math.Inf(1)
	for _, x := range []float64{box.Min.X, box.Max.X} {
		least = min(least, h[6]*x)
	}
	y := (nearest - h[8] - least) / h[7]
	if h[7] > 0 {
		box.Min.Y = max(box.Min.Y, y)
	} else {
		box.Max.Y = min(box.Max.Y, y)
	}
	return box
}

// unturned returns where a page point lies on the page that a node would be on if it were not turned out of it.
func (p *Player) unturned(n *node, q geom.Point) (geom.Point, bool) {
	seen := geom.Flat(n.m).Mul(p.tilts[n.tilt-1])
	back, ok := seen.Inverse()
	if !ok {
		return q, false
	}
	local, w := back.Apply(q)
	if _, front := seen.Apply(local); w == 0 || front <= 0 {
		return q, false
	}
	return n.m.Apply(local), true
}
