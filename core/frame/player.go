package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/paint"
)

// View says how the list will be seen; it chooses the size of pictures to sample.
type View struct {
	Scale float64 // device px a page px
}

// Player answers times with display lists. It reuses its memory: a list is valid until the next call,
// and once warm a call allocates nothing. A Player belongs to one goroutine; a Film may have many.
type Player struct {
	film  *Film
	nodes []node
	list  List
	tmp   geom.Path
}

// Player returns a new player of the film.
func (f *Film) Player() *Player { return &Player{film: f} }

// Film returns the film that is played.
func (p *Player) Film() *Film { return p.film }

// SetFilm lets the player go on with another film, keeping its memory.
func (p *Player) SetFilm(f *Film) { p.film = f }

// node is a layer as it stands at a time. Nodes lie in stacking order, parents before children.
type node struct {
	kind   nodeKind
	layer  *layer
	m      geom.Matrix // local to page
	alpha  float64
	end    int          // nodes[i+1:end] lie inside
	colour paint.Colour // of a page
	// What a morph changes:
	other  *layer  // the layer of the other side, for its colours
	share  float64 // eased progress towards other
	size   geom.Point
	corner float64
	sized  bool
}

type nodeKind uint8

const (
	leafNode  nodeKind = iota
	groupNode          // a group of layers
	pageNode           // a scene's background
	mixNode            // first child shown by 1 - share, second by share
	sideNode           // one side of a mixNode
)

// At returns what the film shows at time t, counted from its start.
func (p *Player) At(t motion.Instant, v View) *List {
	p.Stand(t)
	return p.emit(v)
}

// AtRest returns scene i with every layer at its rest pose, nothing hidden by time.
func (p *Player) AtRest(i int, v View) *List {
	p.StandAtRest(i)
	return p.emit(v)
}

// Stand places everything as at time t, for Hit, Quad and Bounds, without making a list.
func (p *Player) Stand(t motion.Instant) {
	f := p.film
	w := f.Order.At(t)
	p.nodes = p.nodes[:0]
	s := f.scenes[w.Scene]
	if !w.Into {
		c := motion.Clock{At: w.Clock, Stay: s.timing.Stay}
		p.page(s.background)
		p.layers(s.layers, geom.Identity, &c)
		return
	}
	from := f.scenes[w.From]
	st := &f.strands[w.Scene]
	leaving := motion.Clock{At: w.Since.Add(from.timing.Stay), Side: motion.Leaving, Stay: from.timing.Stay}
	entering := motion.Clock{At: w.Clock, Side: motion.Entering, Stay: s.timing.Stay}
	e := st.ease(w.Share)
	if st.kind == doc.Morph {
		p.page(paint.Mix(from.background, s.background, e))
		list := st.first
		if w.Share >= 0.5 {
			list = st.second
		}
		p.morph(list, strandClock{leaving, entering, e}, geom.Identity)
		return
	}
	mix := p.open(node{kind: mixNode, share: min(1, max(0, e)), alpha: 1})
	p.side(from, &leaving)
	p.side(s, &entering)
	p.close(mix)
}

// StandAtRest places scene i at rest, without making a list.
func (p *Player) StandAtRest(i int) {
	p.nodes = p.nodes[:0]
	s := p.film.scenes[i]
	p.page(s.background)
	p.layers(s.layers, geom.Identity, nil)
}

func (p *Player) open(n node) int {
	p.nodes = append(p.nodes, n)
	return len(p.nodes) - 1
}

func (p *Player) close(i int) { p.nodes[i].end = len(p.nodes) }

func (p *Player) page(c paint.Colour) {
	p.close(p.open(node{kind: pageNode, colour: c}))
}

func (p *Player) side(s *scene, c *motion.Clock) {
	i := p.open(node{kind: sideNode, alpha: 1})
	p.page(s.background)
	p.layers(s.layers, geom.Identity, c)
	p.close(i)
}

// layers adds a list of siblings; a nil clock means at rest.
func (p *Player) layers(list []*layer, parent geom.Matrix, c *motion.Clock) {
	for _, l := range list {
		if l.doc.Hidden {
			continue
		}
		pose := motion.Rest
		if c != nil && !l.track.Still() {
			pose = l.track.At(*c)
		}
		if pose.Present {
			p.layer(l, parent, pose, pose.Opacity, c)
		}
	}
}

func (p *Player) layer(l *layer, parent geom.Matrix, pose motion.Pose, alpha float64, c *motion.Clock) {
	n := node{kind: leafNode, layer: l, m: parent.Mul(l.at(pose)), alpha: alpha * l.doc.Opacity}
	if l.doc.Kind == doc.Group {
		n.kind = groupNode
	}
	i := p.open(n)
	if n.kind == groupNode {
		p.layers(l.children, n.m, c)
	}
	p.close(i)
}

func (p *Player) emit(v View) *List {
	f := p.film
	l := &p.list
	l.reset(float64(f.Doc.Film.Width), float64(f.Doc.Film.Height))
	p.paint(0, len(p.nodes), v, 1)
	return l
}

// paint writes the nodes from..to; alpha is handed down by groups that need no layer of their own.
func (p *Player) paint(from, to int, v View, alpha float64) {
	l := &p.list
	for i := from; i < to; i = p.nodes[i].end {
		n := &p.nodes[i]
		switch n.kind {
		case pageNode:
			if n.colour.A > 0 {
				l.fill(p.film.page, geom.Identity, n.colour, 1)
			}
		case mixNode:
			second := p.nodes[i+1].end
			l.op(OpMix)
			l.num(n.share)
			p.paint(i+1, second, v, 1)
			l.op(OpNext)
			p.paint(second, n.end, v, 1)
			l.op(OpEnd)
		case sideNode:
			p.paint(i+1, n.end, v, alpha)
		case groupNode:
			a := n.alpha * alpha
			switch {
			case a <= 0 || n.end == i+1:
			case a < 1 && p.nodes[i+1].end < n.end, a < 1 && p.nodes[i+1].kind != leafNode:
				l.op(OpGroup)
				l.num(a)
				p.paint(i+1, n.end, v, 1)
				l.op(OpEnd)
			default:
				p.paint(i+1, n.end, v, a)
			}
		case leafNode:
			if a := n.alpha * alpha; a > 0 {
				p.leaf(n, v, a)
			}
		}
	}
}

func (p *Player) leaf(n *node, v View, alpha float64) {
	d := n.layer.doc
	l := &p.list
	if d.Kind == doc.Picture {
		p.picture(n, v, alpha)
		return
	}
	// Outlines of one text in several colours do not overlap, so opacity may go into each.
	for i, s := range n.layer.shapes {
		c := s.colour
		if n.other != nil && i < len(n.other.shapes) {
			c = paint.Mix(c, n.other.shapes[i].colour, n.share)
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
			l.outline(&p.tmp, n.m, c, alpha)
			continue
		}
		if !n.sized {
			l.fill(s.key, n.m, c, alpha)
			continue
		}
		box := geom.BoxAt(geom.Point{}, n.size.X, n.size.Y)
		switch {
		case d.Kind == doc.Rectangle && n.corner > 0:
			p.tmp = *geom.Rectangle(box, n.corner)
			l.outline(&p.tmp, n.m, c, alpha)
		default:
			l.fill(s.key, n.m.Mul(n.stretch()), c, alpha)
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

func (p *Player) picture(n *node, v View, alpha float64) {
	d := n.layer.doc
	box, key, m := n.layer.box, n.layer.shapes[0].key, n.m
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
