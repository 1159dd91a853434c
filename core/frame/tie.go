package frame

import (
	"math"
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// driven is an edge with the layer that drives it and the one it uncovers.
type driven struct {
	scene  *scene
	driver *layer
	layer  *layer
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
			d := &driven{scene: s, layer: l}
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
	m := p.driver(d.driver, c, by)
	term.Edge = p.edge(t, d, m)
	if t.Keeps {
		term.Edge = max(term.Edge, p.furthest(t, d, c)+by.X*t.Toward.X+by.Y*t.Toward.Y)
	} else if t.Follows && len(d.spots) > 0 {
		p.cutAlong(i, k, d, m)
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
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, q := range box.Corners() {
		u := q.X*t.Toward.X + q.Y*t.Toward.Y
		lo, hi = min(lo, u), max(hi, u)
	}
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
	lo, hi := math.Inf(1), math.Inf(-1)
	if d.shape != nil {
		// Turned so that the direction lies level, its box has the extremes of its curves.
		p.tmp.Reset()
		p.tmp.Append(d.shape, level(t.Toward).Mul(m))
		b := p.tmp.Bounds()
		lo, hi = b.Min.X, b.Max.X
	} else {
		for _, q := range d.driver.reaches.Corners() {
			q = m.Apply(q)
			u := q.X*t.Toward.X + q.Y*t.Toward.Y
			lo, hi = min(lo, u), max(hi, u)
		}
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
	n := min(max(at, d.since), d.until)/step - d.since/step
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

// Travel returns how far the middle of a layer of a scene goes on the page, from before its moves begin to after they end.
func (f *Film) Travel(scene int, id string) geom.Point {
	s := f.scenes[scene]
	l := s.byID[id]
	if l == nil {
		return geom.Point{}
	}
	p := f.Player()
	p.when = when{scene: s}
	since, until := moving(s, l)
	at := func(ms int64) geom.Point {
		return p.standsAt(l, motion.Clock{At: motion.Millis(ms), Stay: s.timing.Stay}).Apply(l.box.Centre())
	}
	return at(until).Sub(at(since))
}

// TieCurve is how much of a layer the edges of a tied move show.
type TieCurve struct {
	Begin, End int64     // ms of the scene's clock between which that changes
	Shares     []float64 // 0..1 at equal steps from Begin to End
}

// curvePoints is how many steps a curve is divided into, and how many times of a stay are looked at first.
const (
	curvePoints = 96
	curveLooks  = 400
)

// TieCurve returns what the edges of a move of scene i show of its layer; ok is false of one that goes by its own time.
func (f *Film) TieCurve(i int, layerID, move string) (out TieCurve, ok bool) {
	s := f.scenes[i]
	l := s.byID[layerID]
	if l == nil {
		return out, false
	}
	sides, join, hides := l.track.TieOf(move)
	if len(sides) == 0 {
		return out, false
	}
	d := s.driven[sides[0]]
	d.once.Do(func() { d.curve = f.tieCurve(s, l, sides, join, hides) })
	return d.curve, true
}

// tieShare is how much of a layer the edges of a tied move show at a time of its scene's clock, 0..1.
func (p *Player) tieShare(s *scene, l *layer, sides []*motion.Tie, either, hides bool, ms int64) float64 {
	c := motion.Clock{At: motion.Millis(ms), Stay: s.timing.Stay}
	p.when = when{scene: s, entering: c}
	m := p.standsAt(l, c)
	v := sides[0].Toward
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, q := range l.box.Corners() {
		q = m.Apply(q)
		u := q.X*v.X + q.Y*v.Y
		lo, hi = min(lo, u), max(hi, u)
	}
	// What lies before the first edge, and beyond the other one's place along the same axis.
	edge := func(t *motion.Tie) float64 {
		if t.Mirror {
			return math.NaN()
		}
		return p.edgeOf(t)
	}
	a, b := edge(sides[0]), math.Inf(1)
	if len(sides) > 1 {
		b = edge(sides[1])
	}
	if middle := lo + hi; math.IsNaN(a) {
		a = b + middle
	} else if math.IsNaN(b) {
		b = a - middle
	}
	from := math.Inf(-1)
	if len(sides) > 1 {
		from = -b
	}
	within := func(x float64) float64 { return (min(max(x, lo), hi) - lo) / max(hi-lo, 1e-9) }
	shown := max(within(a)-within(from), 0)
	if either {
		shown = min(within(a)+1-within(from), 1)
	}
	if hides {
		shown = 1 - shown
	}
	return shown
}

// hidden reports whether ties let nothing of a layer show at a time of its scene's clock.
func (f *Film) hidden(s *scene, l *layer, ms int64) bool {
	if len(s.driven) == 0 {
		return false
	}
	for _, m := range l.doc.Moves {
		if sides, either, hides := l.track.TieOf(m.ID); len(sides) > 0 && f.Player().tieShare(s, l, sides, either, hides, ms) <= 0 {
			return true
		}
	}
	return false
}

func (f *Film) tieCurve(s *scene, l *layer, sides []*motion.Tie, either, hides bool) (out TieCurve) {
	p := f.Player()
	stay := s.timing.Stay
	share := func(ms int64) float64 { return p.tieShare(s, l, sides, either, hides, ms) }
	step := max(10, stay/curveLooks)
	first, last := int64(-1), int64(-1)
	was := share(0)
	for at := step; at < stay+step; at += step {
		is := share(min(at, stay))
		if math.Abs(is-was) > 1e-6 {
			if first < 0 {
				first = at - step
			}
			last = min(at, stay)
		}
		was = is
	}
	if first < 0 {
		return TieCurve{0, stay, []float64{was, was}}
	}
	for begin := share(first); first+1 < last && math.Abs(share(first+1)-begin) < 1e-6; {
		first++
	}
	for end := share(last); last-1 > first && math.Abs(share(last-1)-end) < 1e-6; {
		last--
	}
	out.Begin, out.End = first, last
	for k := range curvePoints + 1 {
		out.Shares = append(out.Shares, share(first+(last-first)*int64(k)/curvePoints))
	}
	return out
}
