package frame

import (
	"capstan/core/display"
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/state"
)

func (p *Player) emit(v View) *List {
	f := p.film
	l := &p.list
	l.Reset(float64(f.Doc.Film.Width), float64(f.Doc.Film.Height))
	p.sparks = 0
	if v.Under != nil {
		p.fill(f.page, geom.Identity, v.Under, 1)
	}
	p.apart = v.Layers != nil // who asks for layers wants these, not what keeps seams away
	p.paint(0, len(p.nodes), v, 1, geom.Identity)
	p.apart = false
	for i := range p.tips {
		p.tips[i].paint(p, v)
	}
	return l
}

// paint writes the nodes from..to, moved by a vector on the page; alpha is handed down by groups that need no layer of
// their own.
func (p *Player) paint(from, to int, v View, alpha float64, by geom.Matrix) {
	l := &p.list
	sheet, one := Effects{Opacity: 1}, Effects{Opacity: 1, Blend: display.Added}
	joined, share := from, 0.0 // the nodes up to here are added up, to a share
	var all, parted display.Mark
	for i := from; i < to; i = p.nodes[i].end {
		n := &p.nodes[i]
		if i == joined {
			if joined, share = p.joined(i, to); joined > i {
				if share < 1 {
					l.Op(display.OpMix)
					parted = l.OpenBox()
					l.Num(share)
					p.apart = true
					p.paint(i, joined, v, alpha, by)
					p.apart = v.Layers != nil
					l.Op(display.OpNext)
				}
				all = l.Group(&sheet)
			}
		}
		switch n.kind {
		case pageNode:
			if !n.paint.Clear() && !v.Bare {
				c := n.paint.Sized(by.Mul(n.m), v.Scale)
				key := p.film.page
				if n.m.E != 0 || n.m.F != 0 {
					key = p.film.broad
				}
				p.fill(key, by.Mul(n.m), &c, 1)
			}
		case mixNode, wipeNode:
			second := p.nodes[i+1].end
			var box display.Mark
			if n.kind == mixNode {
				l.Op(display.OpMix)
				box = l.OpenBox()
				l.Num(n.share)
			} else {
				l.Op(display.OpWipe)
				l.Terms(n.veil, p.film.pageBox())
				box = l.OpenBox()
				l.TermNumbers(n.veil, n.m, p.film.pageBox())
			}
			p.paint(i+1, second, v, 1, by)
			l.Op(display.OpNext)
			p.paint(second, n.end, v, 1, by)
			l.Op(display.OpEnd)
			l.CloseBox(box)
		case sideNode:
			p.paint(i+1, n.end, v, alpha, by)
		case clipNode:
			page := p.film.pageBox()
			clip := geom.Box{Min: geom.Point{X: n.m.E, Y: n.m.F}, Max: geom.Point{X: n.m.E + page.W(), Y: n.m.F + page.H()}}
			l.Op(display.OpClipPage)
			box := l.OpenBox()
			l.Num(clip.Min.X, clip.Min.Y, clip.W(), clip.H())
			p.paint(i+1, n.end, v, 1, by)
			l.Op(display.OpEnd)
			l.Reach = l.Reach.Intersect(clip)
			l.CloseBox(box)
		default:
			if j, _ := p.joint(n); i < joined && j.meet {
				k := l.Group(&one)
				p.copies(i, v, alpha, by)
				l.EndGroup(k, &one)
			} else {
				p.copies(i, v, alpha, by)
			}
			if n.end == joined {
				l.EndGroup(all, &sheet)
				if share < 1 {
					l.Op(display.OpEnd)
					l.CloseBox(parted)
				}
			}
		}
		joined = max(joined, n.end)
	}
}

func (f *Film) pageBox() geom.Box {
	return geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
}

// shown writes one copy of a layer, as far as its veil shows it.
func (p *Player) shown(i int, v View, alpha float64, by geom.Matrix) {
	n := &p.nodes[i]
	if v.Layers != nil && n.kind != pieceNode {
		k := len(*v.Layers)
		*v.Layers = append(*v.Layers, Stretch{n.layer.doc, len(p.list.Codes), 0, n.kind == leafNode && n.draw.pen == nil && n.other == nil && n.painted == 0})
		defer func() { (*v.Layers)[k].To = len(p.list.Codes) }()
	}
	a := n.alpha * alpha * (1 - n.loops.Dim)
	if n.draw.pen != nil && n.draw.lines <= 0 && n.draw.fill <= 0 && n.kind != textNode {
		return // nothing of it is drawn yet
	}
	if a <= 0 || n.end == i+1 && n.layer.doc.Kind == doc.Group || n.veil.Nothing() {
		return
	}
	if n.layer.through != nil && n.kind != pieceNode {
		p.seenThrough(i, v, func() { p.bodily(i, v, a, by) })
		return
	}
	p.bodily(i, v, a, by)
}

// bodily writes a copy of a layer as far as its veil shows it, whatever it is seen through.
func (p *Player) bodily(i int, v View, a float64, by geom.Matrix) {
	n := &p.nodes[i]
	if n.tilt > 0 {
		p.hinged(i, v, a, by)
		return
	}
	if len(n.veil) == 0 {
		if _, alone := p.effectsOf(n); !alone && (a >= 1 || !p.overlaps(i)) { // most are as plain as that
			p.body(i, v, a, by)
			return
		}
	}
	p.veiled(i, by, func() {
		p.affected(i, a, by, func(alpha float64) { p.body(i, v, alpha, by) })
	})
	p.smoulder(i, v, a, by)
}

// veiled writes what inside does, as far as the veil of a node shows it.
func (p *Player) veiled(i int, by geom.Matrix, inside func()) {
	n, l := &p.nodes[i], &p.list
	if len(n.veil) == 0 {
		inside()
		return
	}
	if len(p.cuts) > 0 {
		outer := inside
		inside = func() { p.within(i, 0, outer) }
	}
	box := n.layer.reaches
	if n.kind == pieceNode {
		box = n.layer.pieces[n.piece].reaches
	}
	l.Op(display.OpVeil)
	l.Terms(n.veil, box)
	k := l.OpenBox()
	l.TermNumbers(n.veil, by.Mul(n.m), box)
	inside()
	l.Op(display.OpEnd)
	l.CloseBox(k)
}

// affected writes what inside does with the effects of a node; inside is told how opaque it is itself.
func (p *Player) affected(i int, a float64, by geom.Matrix, inside func(alpha float64)) {
	n, l := &p.nodes[i], &p.list
	e, alone := p.effectsOf(n)
	if !alone && (a >= 1 || !p.overlaps(i)) {
		inside(a)
		return
	}
	e = e.On(by.Mul(n.m))
	e.Opacity = a
	outer, inner, two := e.Layers()
	k := l.Group(&outer)
	if two {
		k := l.Group(&inner)
		inside(1)
		l.EndGroup(k, &inner)
	} else {
		inside(1)
	}
	l.EndGroup(k, &outer)
}

// effectsOf returns what is done to a node as a whole, and whether that is more than fading. What is done to a text in
// pieces is done to all of it.
func (p *Player) effectsOf(n *node) (Effects, bool) {
	e, alone := p.restingEffects(n)
	if n.blur > 0 {
		e.Blur, alone = math.Hypot(e.Blur, n.blur), true
	}
	return e, alone
}

func (p *Player) restingEffects(n *node) (Effects, bool) {
	switch {
	case n.mixed > 0:
		e := &p.effects[n.mixed-1]
		return *e, !e.None()
	case n.kind == pieceNode || !n.layer.alone:
		return Effects{}, false
	}
	return n.layer.effects, true
}

// overlaps reports whether parts of a node may lie over each other, so that it has to fade as one.
func (p *Player) overlaps(i int) bool {
	n := &p.nodes[i]
	if (n.kind == leafNode || n.kind == textNode) && n.layer.plate != nil {
		return true
	}
	switch n.kind {
	case leafNode:
		return n.draw.pen != nil || n.layer.doc.Stroke != nil || n.other != nil && n.other.doc.Stroke != nil
	case pieceNode:
		return n.draw.pen != nil || n.layer.doc.Stroke != nil
	}
	if n.end == i+1 {
		return false
	}
	first := &p.nodes[i+1]
	return first.end < n.end || first.kind != leafNode && first.kind != pieceNode || len(first.veil) > 0 || first.layer.alone || p.overlaps(i+1)
}

// body writes what a node shows, without its veil and effects.
func (p *Player) body(i int, v View, alpha float64, by geom.Matrix) {
	n := &p.nodes[i]
	if n.kind == pieceNode && p.plateOf > 0 {
		p.platePart(n, alpha, by)
		return
	}
	if n.kind == leafNode || n.kind == pieceNode {
		if n.kind == leafNode {
			p.plate(n, alpha, by)
		}
		p.leaf(n, v, alpha, by)
		return
	}
	if !p.plates(i, v, alpha, by) {
		p.plate(n, alpha, by)
	}
	p.masked(i, i+1, v, alpha, by)
}

// plate writes what lies behind a text.
func (p *Player) plate(n *node, alpha float64, by geom.Matrix) {
	if n.layer == nil || n.layer.plate == nil || alpha <= 0 {
		return
	}
	if n.draw.pen != nil {
		alpha *= n.draw.fill
	}
	s := n.layer.plate
	c := s.paint
	if n.other != nil && n.other.plate != nil {
		c = morph.Paints(&c, &n.other.plate.paint, n.share)
	}
	if !c.Clear() {
		p.fill(s.key, by.Mul(n.m), &c, alpha)
	}
}

func (p *Player) leaf(n *node, v View, alpha float64, by geom.Matrix) {
	if m := by.Mul(n.m); n.draw.pen != nil {
		p.drawnLeaf(n, v, alpha, m)
	} else {
		p.leafIn(n, v, alpha, m)
	}
}

// leafIn writes a leaf whose axes m maps to the page.
func (p *Player) leafIn(n *node, v View, alpha float64, m geom.Matrix) {
	d := n.layer.doc
	l := &p.list
	if paint := kinds[d.Kind].paint; paint != nil {
		paint(p, n, v, alpha, m)
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
	restroked := n.becomes != nil || n.sized || n.grown != 0 || n.other != nil && !(d.Stroke.Equal(n.other.doc.Stroke) && d.Path == n.other.doc.Path)
	// Outlines of one text in several colours do not overlap, so opacity may go into each.
	for i := range shapes {
		s := &shapes[i]
		if s.of != 0 && restroked {
			break
		}
		c := s.paint
		if n.painted > 0 {
			c = p.paints[n.painted-1+i]
		} else if i < len(others) && n.other != nil {
			c = morph.Paints(&c, &others[i].paint, n.share)
		}
		if c.Clear() || alpha <= 0 {
			continue
		}
		c = c.Sized(m, v.Scale)
		switch own := p.ownOutline(n, s); {
		case s.side != "":
			l.Op(display.OpClip, s.of, outsideCode(s.side))
			k := l.OpenBox()
			l.Matrix(m)
			p.fill(s.key, m, &c, alpha)
			l.Op(display.OpEnd)
			l.CloseBox(k)
		case own != nil:
			l.Outline(own, m, &c, alpha)
		case n.sized:
			stretch := n.stretch()
			if inv, ok := stretch.Inverse(); ok && (c.Gradient != nil || c.Texture != nil) {
				c.Axes = inv.Mul(c.Axes)
			}
			p.fill(s.key, m.Mul(stretch), &c, alpha)
		default:
			p.stored(s.key, m, v, &c, alpha)
		}
	}
	if restroked {
		p.restroke(n, shapes, others, m, alpha)
	}
}

func outsideCode(side string) uint32 {
	if side == doc.Outside {
		return 1
	}
	return 0
}

// ownOutline returns the outline that a morph gives a shape at this time, in the layer's axes, or nil where a stretched or
// stored one will do. It is valid until the next call.
func (p *Player) ownOutline(n *node, s *shape) *geom.Path {
	d := n.layer.doc
	switch {
	case n.becomes != nil:
		n.becomes.At(n.share, &p.tmp)
		return &p.tmp
	case n.other != nil && d.Kind == doc.PathKind && d.Path != n.other.doc.Path:
		p.tmp.Reset()
		p.tmp.Verbs = append(p.tmp.Verbs, n.layer.path.Verbs...)
		for k, q := range n.layer.path.Points {
			p.tmp.Points = append(p.tmp.Points, q.Lerp(n.other.path.Points[k], n.share))
		}
		return &p.tmp
	case n.sized && d.IsShape() && d.Kind != doc.Ellipse && (d.Kind != doc.Rectangle || n.corner > 0 || d.Shape != nil):
		spec := n.layer.spec
		if n.other != nil && n.other.spec.Kind == spec.Kind {
			spec = state.ShapeBetween(spec, n.other.spec, n.share)
		}
		spec.W, spec.H, spec.Corner = n.size.X, n.size.Y, n.corner
		for i, part := range spec.Parts() {
			if i < len(n.layer.shapes) && n.layer.shapes[i].key == s.key || i == 0 && len(n.layer.shapes) == 1 {
				p.tmp = *part.Path
				return &p.tmp
			}
		}
	}
	return nil
}

// restroke strokes outlines as they are at this time: a stretched stroke would not have one width.
func (p *Player) restroke(n *node, shapes, others []shape, m geom.Matrix, alpha float64) {
	a, b := n.layer.doc.Stroke, n.layer.doc.Stroke
	if n.other != nil {
		b = n.other.doc.Stroke
	}
	if a == nil && b == nil {
		return
	}
	paintIn := func(list []shape) (c Paint) {
		for _, s := range list {
			if s.of != 0 {
				return s.paint
			}
		}
		return
	}
	c, with := paintIn(shapes), a
	width := 0.0
	switch {
	case a == nil:
		c, with, width = paintIn(others), b, b.Width*n.share
	case b == nil:
		width = a.Width * (1 - n.share)
	default:
		width = a.Width + (b.Width-a.Width)*n.share
		if n.other != nil {
			other := paintIn(others)
			c = morph.Paints(&c, &other, n.share)
			if n.share >= 0.5 {
				with = b
			}
		}
	}
	if n.grown > 0 {
		width /= n.grown
	}
	if c.Clear() || width <= 0 {
		return
	}
	l := &p.list
	for i := range shapes {
		s := &shapes[i]
		if s.of != 0 {
			return
		}
		o := p.ownOutline(n, s)
		if o == nil {
			stretch := geom.Identity
			if n.sized {
				stretch = n.stretch()
			}
			o = &geom.Path{}
			o.Append(p.film.Geometry.Path(s.key), stretch)
		}
		as := pen(with, width)
		as.Trim = mixTrims(a, b, n.share)
		line := o.Stroke(as)
		if with.Side == "" {
			l.Outline(line, m, &c, alpha)
			continue
		}
		l.Op(display.OpMask, outsideCode(with.Side))
		k := l.OpenBox()
		l.Num(0)
		l.Outline(line, m, &c, alpha)
		l.Op(display.OpNext)
		l.Outline(o, m, &state.White, 1)
		l.Op(display.OpEnd)
		l.CloseBox(k)
	}
}

// mixTrims returns how much of a line is drawn between two strokes, either of which may be nil; it takes the other's trim then.
func mixTrims(a, b *doc.Stroke, share float64) *[2]float64 {
	if a == nil {
		a = b
	}
	if b == nil {
		b = a
	}
	if a.Trim == nil && b.Trim == nil {
		return nil
	}
	x, y := [2]float64{0, 1}, [2]float64{0, 1}
	if a.Trim != nil {
		x = *a.Trim
	}
	if b.Trim != nil {
		y = *b.Trim
	}
	return &[2]float64{x[0] + (y[0]-x[0])*share, x[1] + (y[1]-x[1])*share}
}

// stretch maps the layer's own box to the size a morph gives it, about its origin.
func (n *node) stretch() geom.Matrix {
	w, h := n.layer.box.W(), n.layer.box.H()
	if w <= 0 || h <= 0 {
		return geom.Identity
	}
	return geom.Scale(n.size.X/w, n.size.Y/h)
}
