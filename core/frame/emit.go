package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/paint"
)

func (p *Player) emit(v View) *List {
	f := p.film
	l := &p.list
	l.reset(float64(f.Doc.Film.Width), float64(f.Doc.Film.Height))
	p.paint(0, len(p.nodes), v, 1, geom.Point{})
	return l
}

// paint writes the nodes from..to, moved by a vector on the page; alpha is handed down by groups that need no layer of
// their own.
func (p *Player) paint(from, to int, v View, alpha float64, by geom.Point) {
	l := &p.list
	for i := from; i < to; i = p.nodes[i].end {
		n := &p.nodes[i]
		switch n.kind {
		case pageNode:
			if n.colour.A > 0 {
				l.fill(p.film.page, moved(n.m, by), n.colour, 1)
			}
		case mixNode, wipeNode:
			second := p.nodes[i+1].end
			if n.kind == mixNode {
				l.op(OpMix)
				l.num(n.share)
			} else {
				l.op(OpWipe)
				l.matrix(n.m)
				l.wipe(&n.veil.Reveals[0], p.film.pageBox())
			}
			p.paint(i+1, second, v, 1, by)
			l.op(OpNext)
			p.paint(second, n.end, v, 1, by)
			l.op(OpEnd)
		case sideNode:
			p.paint(i+1, n.end, v, alpha, by)
		case clipNode:
			box := p.film.pageBox()
			l.op(OpClipPage)
			l.num(n.m.E, n.m.F, box.W(), box.H())
			p.paint(i+1, n.end, v, 1, by)
			l.op(OpEnd)
		default:
			p.copies(i, v, alpha, by)
		}
	}
}

func moved(m geom.Matrix, by geom.Point) geom.Matrix {
	m.E += by.X
	m.F += by.Y
	return m
}

func (f *Film) pageBox() geom.Box {
	return geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
}

// maxCopies is how often a layer is repeated at most on one page, each way.
const maxCopies = 2000

// copies writes a layer, repeated over the page along the axes it scrolls on.
func (p *Player) copies(i int, v View, alpha float64, by geom.Point) {
	n := &p.nodes[i]
	if n.period == (geom.Point{}) {
		p.shown(i, v, alpha, by)
		return
	}
	x0, x1, y0, y1 := n.repeats(p.film, by)
	for y := y0; y <= y1; y++ {
		for x := x0; x <= x1; x++ {
			at := n.scroll.Add(geom.Point{X: float64(x) * n.period.X, Y: float64(y) * n.period.Y})
			a := alpha
			if x != 0 || y != 0 {
				a *= 1 - n.faint
			}
			p.shown(i, v, a, by.Add(n.m.ApplyVector(at)))
		}
	}
}

// repeats returns which copies of a scrolling layer touch the page, along both of its axes.
func (n *node) repeats(f *Film, by geom.Point) (x0, x1, y0, y1 int) {
	inv, ok := moved(n.m, by).Inverse()
	if !ok {
		return 0, -1, 0, -1
	}
	page, box := inv.ApplyBox(f.pageBox()), n.layer.box
	span := func(period, scroll, pageMin, pageMax, min, max float64) (int, int) {
		if period <= 0 {
			return 0, 0
		}
		a := math.Ceil((pageMin - max - scroll) / period)
		b := math.Floor((pageMax - min - scroll) / period)
		return int(math.Max(a, -maxCopies)), int(math.Min(b, maxCopies))
	}
	x0, x1 = span(n.period.X, n.scroll.X, page.Min.X, page.Max.X, box.Min.X, box.Max.X)
	y0, y1 = span(n.period.Y, n.scroll.Y, page.Min.Y, page.Max.Y, box.Min.Y, box.Max.Y)
	return
}

// shown writes one copy of a layer, as far as its veil shows it.
func (p *Player) shown(i int, v View, alpha float64, by geom.Point) {
	n := &p.nodes[i]
	l := &p.list
	a := n.alpha * alpha
	if a <= 0 {
		return
	}
	if n.veil.Count > 0 {
		box := n.layer.box
		if n.kind == pieceNode {
			box = n.layer.pieces[n.piece].box
		}
		// Reveals that join are one veil, others lie one in the other.
		for k := 0; k < n.veil.Count; k++ {
			if k == 0 || !n.veil.Join {
				count := 1
				if n.veil.Join {
					count = n.veil.Count
				}
				l.op(OpVeil, uint32(count))
				l.matrix(moved(n.m, by))
			}
			r := &n.veil.Reveals[k]
			l.num(r.Opacity)
			l.wipe(r, box)
		}
	}
	switch n.kind {
	case leafNode, pieceNode:
		p.leaf(n, v, a, by)
	default:
		switch {
		case n.end == i+1:
		case a < 1 && (p.nodes[i+1].end < n.end || p.nodes[i+1].kind != leafNode && p.nodes[i+1].kind != pieceNode || p.nodes[i+1].veil.Count > 0):
			l.op(OpGroup)
			l.num(a)
			p.paint(i+1, n.end, v, 1, by)
			l.op(OpEnd)
		default:
			p.paint(i+1, n.end, v, a, by)
		}
	}
	if n.veil.Count > 0 {
		l.op(OpEnd)
		if n.veil.Count > 1 && !n.veil.Join {
			l.op(OpEnd)
		}
	}
}

func (p *Player) leaf(n *node, v View, alpha float64, by geom.Point) {
	d := n.layer.doc
	l := &p.list
	m := moved(n.m, by)
	if d.Kind == doc.Picture {
		p.picture(n, v, alpha, m)
		return
	}
	shapes := n.layer.shapes
	var others []shape
	if n.other != nil {
		others = n.other.shapes
	}
	if n.kind == pieceNode {
		shapes = n.layer.pieces[n.piece].shapes
		if n.other != nil && n.piece < len(n.other.pieces) {
			others = n.other.pieces[n.piece].shapes
		}
	}
	// Outlines of one text in several colours do not overlap, so opacity may go into each.
	for i, s := range shapes {
		c := s.colour
		if i < len(others) {
			c = paint.Mix(c, others[i].colour, n.share)
		}
		if c.A*alpha <= 0 {
			continue
		}
		if n.other != nil && d.Kind == doc.PathKind && d.Path != n.other.doc.Path {
			p.tmp.Reset()
			p.tmp.Verbs = append(p.tmp.Verbs, n.layer.path.Verbs...)
			for k, q := range n.layer.path.Points {
				p.tmp.Points = append(p.tmp.Points, q.Lerp(n.other.path.Points[k], n.share))
			}
			l.outline(&p.tmp, m, c, alpha)
			continue
		}
		if !n.sized {
			l.fill(s.key, m, c, alpha)
			continue
		}
		box := geom.BoxAt(geom.Point{}, n.size.X, n.size.Y)
		switch {
		case d.Kind == doc.Rectangle && n.corner > 0:
			p.tmp = *geom.Rectangle(box, n.corner)
			l.outline(&p.tmp, m, c, alpha)
		default:
			l.fill(s.key, m.Mul(n.stretch()), c, alpha)
		}
	}
}

// stretch maps the layer's own box to the size a morph gives it, about its origin.
func (n *node) stretch() geom.Matrix {
	w, h := n.layer.box.W(), n.layer.box.H()
	if w <= 0 || h <= 0 {
		return geom.Identity
	}
	return geom.Scale(n.size.X/w, n.size.Y/h)
}

func (p *Player) picture(n *node, v View, alpha float64, m geom.Matrix) {
	d := n.layer.doc
	box, key := n.layer.box, n.layer.shapes[0].key
	if n.sized {
		m = m.Mul(n.stretch())
	}
	crop := [4]float64{0, 0, 1, 1}
	if c := d.Picture.Crop; c != nil {
		crop = *c
	}
	media := p.film.Doc.Media[d.Picture.Media]
	mip := uint32(0)
	if media != nil && box.W() > 0 && box.H() > 0 {
		// The mip with at least one sample a device pixel along the denser side, but less than two.
		across := geom.Point{X: m.A, Y: m.B}.Len() * box.W() * v.Scale / (float64(media.Width) * (crop[2] - crop[0]))
		down := geom.Point{X: m.C, Y: m.D}.Len() * box.H() * v.Scale / (float64(media.Height) * (crop[3] - crop[1]))
		for k := max(across, down); k <= 0.5 && k > 0 && mip < 12 && min(media.Width, media.Height)>>(mip+1) >= 1; k *= 2 {
			mip++
		}
	}
	p.list.op(OpPicture, n.layer.picture, mip, key)
	p.list.matrix(m)
	p.list.num(box.Min.X, box.Min.Y, box.W(), box.H(), crop[0], crop[1], crop[2], crop[3], alpha)
}
