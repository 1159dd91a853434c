package frame

import (
	"math"
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// driven is an edge with the layer that drives it.
type driven struct {
	scene  *scene
	driver *layer
	shape  *geom.Path     // what the driver covers, in its own axes; nil: its painted box counts
	spots  [][]geom.Point // the same as polygons, where the edge follows them

	since, until int64 // ms of the scene's clock between which the driver moves

	once  sync.Once // the curve of a move is worked out when it is first looked at, for its first edge
	curve TieCurve
}

// drives tells by which layers of a scene the edges of one can be driven, by their threads.
func drives(s *doc.Scene, l *doc.Layer) func(thread string) bool {
	return func(thread string) bool {
		o := s.Thread(thread)
		return o != nil && doc.Drives(o, l)
	}
}

// tie finds the layers that drive edges of those in a list.
func (f *Film) tie(s *scene, list []*layer) {
	for _, l := range list {
		l.track.EachTie(func(t *motion.Tie) {
			d := &driven{scene: s}
			for _, o := range s.byID {
				if o.doc.Thread == t.Layer {
					d.driver = o
				}
			}
			if t.Outline {
				p := &geom.Path{}
				if err := f.outline(d.driver, geom.Identity, p); err == nil && len(p.Points) > 0 {
					d.shape = p // what cannot be told counts as its box
				}
			}
			if t.Follows && d.shape != nil {
				d.spots = geom.Polygons(d.shape)
			}
			d.since, d.until = moving(s, d.driver)
			if s.driven == nil {
				s.driven = map[*motion.Tie]*driven{}
			}
			s.driven[t] = d
		})
		f.tie(s, l.children)
	}
}

// moving returns between which times of a scene's clock a layer or a group around it moves.
func moving(s *scene, l *layer) (since, until int64) {
	since = s.timing.Stay
	chain := []*layer{s.view}
	for ; l != nil; l = l.parent {
		chain = append(chain, l)
	}
	for _, l := range chain {
		if l == nil {
			continue
		}
		for _, m := range l.doc.Moves {
			iv := s.timing.Moves[m.ID]
			if m.Kind == doc.Loop || m.Lasts != "" {
				return 0, s.timing.Stay
			}
			since, until = min(since, iv.Begin), max(until, iv.End)
		}
	}
	until = min(max(until, 0), s.timing.Stay)
	return min(max(since, 0), until), until
}

// when is what is placed: the stay of a scene, or the way from one to another.
type when struct {
	into              bool
	from, scene       *scene
	leaving, entering motion.Clock // entering is that of the stay, too
	by                geom.Point   // how far a push has moved the page that comes; the other goes as far ahead of it
	ahead             geom.Point
}

// followEdges gives every edge that another layer drives its place: everything has been placed, in whatever order it lies.
func (p *Player) followEdges() {
	w := &p.when
	if w.scene == nil || len(w.scene.driven) == 0 && (!w.into || len(w.from.driven) == 0) {
		return
	}
	for i := range p.nodes {
		for k := range p.nodes[i].veil {
			if p.nodes[i].veil[k].Tie != nil {
				p.settle(i, k)
				p.beyond(i, k)
			}
		}
		if len(p.nodes[i].veil) > 0 {
			p.unveil(i)
		}
	}
}

// driving returns what an edge is driven by, the clock that counts for it, and how far a push has moved its page.
func (p *Player) driving(t *motion.Tie) (d *driven, c motion.Clock, by geom.Point) {
	w := &p.when
	if d = w.scene.driven[t]; d == nil && w.into {
		return w.from.driven[t], w.leaving, w.ahead
	}
	return d, w.entering, w.by
}

// settle gives term k of the veil of node i, a tie, its edge, and notes where that has the driver's outline.
func (p *Player) settle(i, k int) {
	n := &p.nodes[i]
	term := &n.veil[k]
	t := term.Tie
	d, c, by := p.driving(t)
	if d == nil {
		return
	}
	if t.Mirror {
		for j := range n.veil { // the other side
			if o := n.veil[j].Tie; o != nil && !o.Mirror && o.Layer == t.Layer && o.Toward == t.Toward.Mul(-1) {
				middle := n.m.ApplyBox(n.layer.box).Centre()
				term.Edge = p.edgeOf(o) - 2*(middle.X*o.Toward.X+middle.Y*o.Toward.Y)
			}
		}
		return
	}
	term.Edge = p.edgeOf(t)
	if t.Follows && !t.Keeps && len(d.spots) > 0 {
		p.cutAlong(i, k, d, p.driver(d.driver, c, by))
	}
}

// beyond takes an edge away that has left all of a node before it, or behind.
func (p *Player) beyond(i, k int) {
	term := &p.nodes[i].veil[k]
	t := term.Tie
	if t == nil {
		return
	}
	box := geom.EmptyBox()
	for j := i; j < p.nodes[i].end; j++ {
		switch n := &p.nodes[j]; {
		case n.layer == nil:
		case n.kind == pieceNode:
			box = box.Union(n.m.ApplyBox(n.layer.pieces[n.piece].reaches))
		case n.sized:
			box = box.Union(n.m.Mul(n.stretch()).ApplyBox(n.layer.reaches))
		default:
			box = box.Union(n.m.ApplyBox(n.layer.reaches))
		}
	}
	lo, hi := geom.Span(box.Corners(), t.Toward)
	const room = 1 // px: an edge is smoothed over one
	switch {
	case hi < term.Edge-t.Soft/2-room:
		term.Opacity = 1
	case lo > term.Edge+t.Soft/2+room:
		term.Opacity = 0
	default:
		return
	}
	if term.Inverted {
		term.Opacity = 1 - term.Opacity
	}
	term.Tie, term.Share, term.Inverted = nil, 1, false
}

// unveil takes a veil away that shows everything.
func (p *Player) unveil(i int) {
	n := &p.nodes[i]
	for k := range p.cuts {
		if p.cuts[k].node == i {
			return
		}
	}
	if n.veil.Whole() {
		n.veil = nil
	}
}

// edgeOf is where an edge stands.
func (p *Player) edgeOf(t *motion.Tie) float64 {
	d, c, by := p.driving(t)
	e := p.edge(t, d, p.driver(d.driver, c, by))
	if t.Keeps {
		e = max(e, p.furthest(t, d, c)+by.X*t.Toward.X+by.Y*t.Toward.Y)
	}
	return e
}

// driver returns how a driver stands: where it is drawn as it was placed, through a morph, too; else where it would be.
func (p *Player) driver(l *layer, c motion.Clock, by geom.Point) geom.Matrix {
	if i := p.placedLayer(l); i >= 0 {
		n := &p.nodes[i]
		if n.sized {
			return n.m.Mul(n.stretch())
		}
		return n.m
	}
	return geom.Translate(by).Mul(p.standsAt(l, c))
}

// placedLayer returns the index of the node that shows a layer on either side of a morph; -1 where it is not drawn.
func (p *Player) placedLayer(l *layer) int {
	for i := range p.nodes {
		if n := &p.nodes[i]; (n.layer.is(l) || n.other.is(l)) && n.kind != pieceNode {
			return i
		}
	}
	return -1
}

// sceneOf is the scene of a layer of those that are placed.
func (p *Player) sceneOf(l *layer) *scene {
	if w := &p.when; w.into && w.from.byID[l.doc.ID] == l {
		return w.from
	}
	return p.when.scene
}

// base is the layer itself, of what a change has made of it, too.
func (l *layer) base() *layer {
	if l.of != nil {
		return l.of
	}
	return l
}

// is reports whether a layer is another one, or what changes have made of that.
func (l *layer) is(o *layer) bool { return l != nil && (l == o || l.of == o) }

// standsAt is the map from a layer's own axes to the page at a clock, whether or not it is drawn.
func (p *Player) standsAt(l *layer, c motion.Clock) geom.Matrix {
	p.scratch.Reset()
	is := l.standing(c, &p.scratch)
	m := is.Matrix()
	g := l.parent
	if g == nil {
		if s := p.sceneOf(l); s.view != nil {
			p.scratch.Reset()
			v := p.film.sightAt(s, c, &p.scratch)
			return v.through(l.base()).Mul(m)
		}
		return m
	}
	outer := p.standsAt(g, c)
	if g.track.ByUnit(c) == doc.ByPart && l.doc.Mask == "" {
		p.scratch.Reset()
		unit := g.track.UnitAt(c, motion.Unit{Part: g.partOf(l)}, &p.scratch)
		outer = outer.Mul(g.unitAt(unit, l.rest.ApplyBox(l.box).Centre()))
	}
	return outer.Mul(m)
}

// edge returns where a driver's edge stands along a tie's direction; m maps its axes to the page.
func (p *Player) edge(t *motion.Tie, d *driven, m geom.Matrix) float64 {
	var lo, hi float64
	if d.shape != nil {
		// Turned so that the direction lies level, its box has the extremes of its curves.
		p.tmp.Reset()
		p.tmp.Append(d.shape, level(t.Toward).Mul(m))
		b := p.tmp.Bounds()
		lo, hi = b.Min.X, b.Max.X
	} else {
		lo, hi = geom.Span(geom.Quad(d.driver.reaches, m), t.Toward)
	}
	if t.Nearest {
		return lo + t.Offset
	}
	return hi + t.Offset
}

// level turns a direction to the right.
func level(v geom.Point) geom.Matrix { return geom.Matrix{A: v.X, B: -v.Y, C: v.Y, D: v.X} }

// mostKept is how many times of a scene's clock count at most for an edge that never goes back: each ms of the first 20 s in which its driver
// moves, of longer ones each of as many even steps.
const mostKept = 20000

// furthest returns the furthest place of an edge that never goes back, by a clock, since clock 0.
func (p *Player) furthest(t *motion.Tie, d *driven, c motion.Clock) float64 {
	at := min(c.At.Floor(), d.scene.timing.Stay)
	if at < 0 {
		return math.Inf(-1)
	}
	most := p.kept[t]
	step := (d.until-d.since)/mostKept + 1
	n := (min(max(at, d.since), d.until) - d.since) / step
	for k := int64(len(most)); k <= n; k++ {
		e := p.edge(t, d, p.standsAt(d.driver, motion.Clock{At: motion.Millis(d.since + k*step), Stay: d.scene.timing.Stay}))
		if k > 0 {
			e = max(e, most[k-1])
		}
		most = append(most, e)
		p.kept[t] = most
	}
	return most[n]
}
