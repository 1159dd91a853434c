package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// View says how the list will be seen; it chooses the size of pictures to sample.
type View struct {
	Scale   float64    // device px a page px
	Repeats float64    // opacity of the copies of scrolls at rest, 0..1
	Under   *Paint     // what the page is filled with first; nil: nothing
	Bare    bool       // without the pages of scenes
	Layers  *[]Stretch // takes where each layer is written, those around others first; nil: nobody asks
}

// Stretch is where in a list's codes one layer is written, with all that is in it. A layer that is repeated has several.
type Stretch struct {
	Layer    *doc.Layer
	From, To int
	Plain    bool // it is painted as the document says, but for its place and how opaque it is
}

// Player answers times with display lists. It reuses its memory: a list is valid until the next call,
// and once warm a call allocates nothing. A Player belongs to one goroutine; a Film may have many.
type Player struct {
	film    *Film
	nodes   []node
	index   map[string]int // of nodes by the ids of layers, once it is asked for
	list    List
	tmp     geom.Path
	solo    map[string]bool // threads looked at alone; nil: all
	effects []Effects       // of morphs
	tilts   []geom.Projection
	lens    *geom.Projection // through which outlines are written; nil: as they are
	bent    geom.Path        // the last of these
	parts   []drawnPart      // of what is drawn
	strokes geom.Stroker
	tips    []tip
	sparks  int            // that were looked at for the list
	now     *motion.Clock  // scenes at rest show only what is on at this time; nil: all
	passage motion.Passage // of the morph that is shown
	apart   bool           // what lies edge to edge is painted as if it did not
	veils   motion.Veils
	scratch motion.Veils // of what is not kept
	when    when
	sight   sight // of the morph that is shown, where looked says that there is one
	looked  bool
	bends   *bends                    // of the run of morphs that is shown, where its positions lie on curves
	into    int                       // the scene it goes into now
	passed  float64                   // how far that morph is, eased
	kept    map[*motion.Tie][]float64 // of edges that never go back: how far they have been by a time of their scene
	cuts    []cut
	paints  []Paint      // of what several changes are at work on
	samples []geom.Point // of the last edge with an outline
	plateOf int          // the text whose plate is being written in parts, by its node, from 1 on; 0: none
	passing int          // how many layers are being seen through each other
}

// Player returns a new player of the film.
func (f *Film) Player() *Player { return &Player{film: f, kept: map[*motion.Tie][]float64{}} }

// Film returns the film that is played.
func (p *Player) Film() *Film { return p.film }

// SetFilm lets the player go on with another film, keeping its memory.
func (p *Player) SetFilm(f *Film) {
	p.film = f
	clear(p.kept)
}

// node is a layer as it stands at a time. Nodes lie in stacking order, parents before children.
type node struct {
	kind  nodeKind
	layer *layer
	piece int         // of a pieceNode
	m     geom.Matrix // local to page
	alpha float64
	veil  motion.Veil
	loops motion.Going
	blur  float64 // px, beside that of the layer
	tilt  int     // 1 + the place in Player.tilts of how it is turned out of the page, in its own axes; 0: not
	end   int     // nodes[i+1:end] lie inside
	paint Paint   // of a page
	// What a morph changes:
	other   *layer          // the layer of the other side, for its colours
	becomes *morph.Outlines // its outline on the way to that of other; nil: numbers say it
	share   float64         // eased progress towards other
	size    geom.Point
	corner  float64
	sized   bool
	grown   float64 // how much its matrix enlarges a text; 0: not at all
	mixed   int     // 1 + the place of its effects in Player.effects; 0: those of the layer
	painted int     // 1 + the place of the paints of its outlines in Player.paints; 0: as layer and other have them
	// Of a mask:
	rests geom.Point // at rest: the period of its scrolls, whose copies a view may show
	mask  string     // doc.Inside or doc.Outside
	draw  drawn
	gone  float64 // how much the others show where it does not cover, since only one side of a morph has it
}

type nodeKind uint8

const (
	leafNode  nodeKind = iota
	groupNode          // a group of layers
	textNode           // a text in pieces
	pieceNode          // a piece of the text around it
	pageNode           // a scene's background
	mixNode            // first child shown by 1 - share, second by share
	wipeNode           // the second child over the first, as far as the veil shows it
	sideNode           // one side of a mixNode or wipeNode
	clipNode           // one side of a push, cut to its page
)

// At returns what the film shows at time t, counted from its start.
func (p *Player) At(t motion.Instant, v View) *List {
	p.Stand(t)
	n := len(p.nodes)
	p.caption(t)
	l := p.emit(v)
	p.nodes = p.nodes[:n] // nobody hits a caption
	return l
}

// AtRest returns scene i with every layer at its rest pose, nothing hidden by time.
func (p *Player) AtRest(i int, v View) *List {
	p.StandAtRest(i)
	return p.emit(v)
}

// Whole is AtRest with all layers, whichever are looked at alone.
func (p *Player) Whole(i int, v View) *List {
	defer p.unthinned()()
	p.StandAtRest(i)
	return p.emit(v)
}

// unthinned shows all layers until what it returns is called.
func (p *Player) unthinned() func() {
	solo, now := p.solo, p.now
	p.solo, p.now = nil, nil
	return func() { p.solo, p.now = solo, now }
}

// Solo shows only the layers of these threads, with what is in them and around them; none: all layers. It is for looking
// at some layers while working, not for files.
func (p *Player) Solo(threads []string) {
	p.solo = nil
	for _, t := range threads {
		if p.solo == nil {
			p.solo = map[string]bool{}
		}
		p.solo[t] = true
	}
}

// Thin makes scenes at rest show only what is on at a time of their clock; nil: all of it.
func (p *Player) Thin(at *motion.Clock) { p.now = at }

// Stand places everything as at time t, for Hit, Quad and Bounds, without making a list.
func (p *Player) Stand(t motion.Instant) {
	p.place(t)
	p.followTips()
	p.followEdges()
}

func (p *Player) place(t motion.Instant) {
	f := p.film
	w := f.Order.At(t)
	p.clear()
	p.looked, p.bends = false, nil
	s := f.scenes[w.Scene]
	if !w.Into {
		c := motion.Clock{At: w.Clock, Stay: s.timing.Stay}
		p.when = when{scene: s, entering: c}
		p.page(s.background, geom.Point{})
		p.seen(s, geom.Point{}, &c)
		return
	}
	w, e := f.Order.InRun(w, t, f.easeOf(w.Scene))
	s = f.scenes[w.Scene]
	from := f.scenes[w.From]
	st := f.strands[w.Scene]
	leaving := motion.Clock{At: w.Since.Add(from.timing.Stay), Side: motion.Leaving, Stay: from.timing.Stay}
	entering := motion.Clock{At: w.Clock, Side: motion.Entering, Stay: s.timing.Stay}
	p.when = when{into: true, from: from, scene: s, leaving: leaving, entering: entering}
	switch {
	case st.kind == doc.Morph:
		p.pages(&from.background, &s.background, e)
		list, second := st.plan(f)
		if w.Share >= 0.5 {
			list = second
		}
		p.bends, p.into = f.bendsOf(w.Scene), w.Scene
		p.passage = f.Order.Passage(w, f.easeOf(w.Scene), e)
		clock, seen := strandClock{leaving, entering, e, w.Share}, e
		if from.view != nil && s.view != nil {
			for _, q := range list {
				if q.a == from.view && q.b == s.view {
					seen = clock.of(q).p
				}
			}
		}
		p.beginSight(from, s, &leaving, &entering, seen)
		for _, q := range list {
			p.one(q, clock, p.outermost(q))
		}
	case st.crossing.Pushes:
		by := st.across(f.Doc.Film.Width, f.Doc.Film.Height)
		p.when.ahead, p.when.by = by.Mul(e), by.Mul(e-1)
		if by.X == 0 || by.Y == 0 {
			// Both pages share one edge: what it covers of a pixel for one it leaves to the other, as in a wipe.
			p.uncover(from, s, &leaving, &entering, by, &st.crossing, e)
			break
		}
		p.side(clipNode, from, &leaving, by.Mul(e))
		p.side(clipNode, s, &entering, by.Mul(e-1))
	case st.crossing.Uncovers():
		p.uncover(from, s, &leaving, &entering, geom.Point{}, &st.crossing, e)
	default:
		mix := p.open(node{kind: mixNode, share: min(1, max(0, e)), alpha: 1})
		p.side(sideNode, from, &leaving, geom.Point{})
		p.side(sideNode, s, &entering, geom.Point{})
		p.close(mix)
	}
}

// uncover places two scenes of which the second is shown as far as a front has come; both are moved by the share e of by.
func (p *Player) uncover(from, to *scene, leaving, entering *motion.Clock, by geom.Point, crossing *motion.Crossing, e float64) {
	veil := p.veils.Of(crossing.At(e))
	i := p.open(node{kind: wipeNode, m: geom.Identity, alpha: 1, veil: veil})
	p.side(sideNode, from, leaving, by.Mul(e))
	p.side(sideNode, to, entering, by.Mul(e-1))
	p.close(i)
}

// easeOf returns the easing of the transition into scene i: that of its run's first.
func (f *Film) easeOf(i int) motion.Easing {
	if run := f.Order.RunOf(i); run != nil {
		return f.strands[run[0]].ease
	}
	return f.strands[i].ease
}

// across returns how far a push moves both pages: they adjoin along one of eight directions.
func (st *strand) across(w, h int) geom.Point {
	v := geom.Rotate(math.Round(st.crossing.Toward/45) * 45).ApplyVector(geom.Point{X: 1})
	sign := func(x float64) float64 { return math.Round(x * 1.4) } // a half-diagonal counts as a whole step
	return geom.Point{X: sign(v.X) * float64(w), Y: sign(v.Y) * float64(h)}
}

// StandAtRest places scene i at rest, without making a list.
func (p *Player) StandAtRest(i int) {
	p.clear()
	p.when = when{}
	s := p.film.scenes[i]
	p.page(s.background, geom.Point{})
	p.layers(s.layers, geom.Identity, nil)
}

// clear forgets what was placed, and keeps the memory.
func (p *Player) clear() {
	p.nodes, p.effects, p.tilts = p.nodes[:0], p.effects[:0], p.tilts[:0]
	p.tips, p.cuts, p.paints = p.tips[:0], p.cuts[:0], p.paints[:0]
	p.veils.Reset()
}

// blank adds a leaf of which nothing is said yet, in its place.
func (p *Player) blank() *node {
	if len(p.nodes) < cap(p.nodes) {
		p.nodes = p.nodes[:len(p.nodes)+1]
		p.nodes[len(p.nodes)-1] = node{}
	} else {
		p.nodes = append(p.nodes, node{})
	}
	p.index = nil
	return &p.nodes[len(p.nodes)-1]
}

func (p *Player) open(n node) int {
	p.nodes = append(p.nodes, n)
	p.index = nil
	return len(p.nodes) - 1
}

func (p *Player) close(i int) { p.nodes[i].end = len(p.nodes) }

func (p *Player) page(c Paint, at geom.Point) {
	p.close(p.open(node{kind: pageNode, paint: c, m: geom.Translate(at)}))
}

// pages adds what becomes of a background in a morph: one that cannot become the other by degrees dissolves into it.
func (p *Player) pages(a, b *Paint, e float64) {
	if morph.Steady(a, b) || e <= 0 || e >= 1 {
		p.page(morph.Paints(a, b, e), geom.Point{})
		return
	}
	mix := p.open(node{kind: mixNode, share: e, alpha: 1})
	for _, c := range []*Paint{a, b} {
		i := p.open(node{kind: sideNode, alpha: 1})
		p.page(*c, geom.Point{})
		p.close(i)
	}
	p.close(mix)
}

func (p *Player) side(kind nodeKind, s *scene, c *motion.Clock, at geom.Point) {
	i := p.open(node{kind: kind, alpha: 1, m: geom.Translate(at)})
	p.page(s.background, at)
	p.seen(s, at, c)
	p.close(i)
}

// layers adds a list of siblings; a nil clock means at rest.
func (p *Player) layers(list []*layer, parent geom.Matrix, c *motion.Clock) {
	for _, l := range list {
		p.sibling(l, parent, c)
	}
}

func (p *Player) sibling(l *layer, parent geom.Matrix, c *motion.Clock) {
	if l.doc.Hidden || p.solo != nil && l.doc.Mask == "" && !p.alone(l) {
		return
	}
	if c == nil && p.now != nil && !l.track.Still() && !l.track.At(*p.now, &p.veils).Present {
		return
	}
	if c == nil || l.track.Still() {
		if len(l.children) == 0 && c != nil && l.doc.Kind != doc.Group { // most are as plain as that
			n := p.blank()
			n.layer, n.m, n.alpha, n.mask, n.end = l, parent.Mul(l.rest), l.doc.Opacity, l.doc.Mask, len(p.nodes)
			return
		}
		p.layer(l, parent, &restPose, 1, c)
		return
	}
	pose := l.track.At(*c, &p.veils)
	if pose.Present {
		p.layer(l, parent, &pose, pose.Opacity, c)
	} else if l.doc.Mask == doc.Inside { // nothing shows in a mask that is not there
		p.layer(l, parent, &pose, 0, c)
	}
}

// alone reports whether a layer is seen while some are looked at alone: they, what is in them, what they are in.
func (p *Player) alone(l *layer) bool {
	for g := l; g != nil; g = g.parent {
		if p.solo[g.doc.Thread] {
			return true
		}
	}
	for _, c := range l.children {
		if p.alone(c) {
			return true
		}
	}
	return false
}

func (p *Player) layer(l *layer, parent geom.Matrix, pose *motion.Pose, alpha float64, c *motion.Clock) {
	m, opacity := l.rest, l.doc.Opacity
	switch {
	case c != nil && len(l.becomes) > 0:
		m, opacity = l.under(pose, *c)
	case pose != &restPose:
		m = l.at(*pose)
	}
	n := node{
		kind: leafNode, layer: l, m: parent.Mul(m), alpha: alpha * opacity,
		veil: pose.Veil, loops: pose.Loops, blur: pose.Blur, tilt: p.tilted(&pose.Tilts, l.box), mask: l.doc.Mask,
	}
	if l.doc.Kind == doc.Group {
		n.kind = groupNode
	}
	if c != nil && len(l.becomes) > 0 {
		var to *layer
		n, to = p.as(l, n, *c)
		if n.other != nil {
			switch {
			case !alike(n.layer, to):
				if n.becomes = p.film.becoming(n.layer, to, nil); n.becomes != nil && l.track.ByUnit(*c) == "" {
					n.sized = false
					p.close(p.open(n))
					return
				}
				n.becomes = nil
				if !p.respell(n, to, l.becomes.into(to), c) {
					p.dissolve(n, to, c)
				}
			case l.doc.Kind == doc.TextKind:
				p.words(&pair{a: n.layer, b: to}, n, strandClock{*c, *c, n.share, n.share})
			default:
				p.close(p.open(n))
			}
			return
		}
		l = n.layer
	}
	unit := ""
	if c != nil {
		unit = l.track.ByUnit(*c)
	} else if !l.track.Still() {
		n.rests = l.track.Repeats()
	}
	if n.kind == leafNode && unit != "" && len(l.pieces) > 0 {
		n.kind = textNode
	}
	i := p.open(n)
	switch {
	case n.kind == textNode:
		for k := range l.pieces {
			p.pieceOf(l, k, n.m, l.track.UnitAt(*c, l.pieces[k].unit, &p.veils))
		}
	case unit == doc.ByPart:
		k := 0
		for _, child := range l.children {
			if child.doc.Mask != "" {
				p.sibling(child, n.m, c)
				continue
			}
			if n.loops.Only > 0 && n.loops.Only != k+1 {
				k++
				continue
			}
			p.part(l, child, n.m, l.track.UnitAt(*c, motion.Unit{Part: k}, &p.veils), c)
			k++
		}
	case n.kind == groupNode && n.loops.Only > 0:
		for _, child := range l.children {
			if child.doc.Mask != "" || l.partOf(child)+1 == n.loops.Only {
				p.sibling(child, n.m, c)
			}
		}
	case n.kind == groupNode:
		p.layers(l.children, n.m, c)
	}
	p.close(i)
	p.draw(i, pose.Drawn)
}

// pieceOf adds a piece of a text that moves by itself; m maps the text's axes to the page.
func (p *Player) pieceOf(l *layer, k int, m geom.Matrix, unit motion.Pose) {
	if !unit.Present || unit.Opacity <= 0 {
		return
	}
	q := m.Mul(l.unitAt(unit, l.pieces[k].box.Centre()))
	i := p.open(node{kind: pieceNode, layer: l, piece: k, m: q, alpha: unit.Opacity, veil: unit.Veil, loops: unit.Loops, blur: unit.Blur, tilt: p.tilted(&unit.Tilts, l.pieces[k].box)})
	p.close(i)
	p.draw(i, unit.Drawn)
}

// unitAt returns the map, in the layer's own axes, that its unit's pose makes: turns and growth about the unit's middle, how far that lies from the
// layer's pivot, and offsets that are given in the parent's axes.
func (l *layer) unitAt(unit motion.Pose, middle geom.Point) geom.Matrix {
	m := geom.Translate(middle.Sub(l.pivot).Mul(unit.Apart))
	if by := unit.Offset.Add(unit.Loops.Sway); by != (geom.Point{}) {
		if inv, ok := l.rest.Inverse(); ok {
			m = geom.Translate(inv.ApplyVector(by)).Mul(m)
		}
	}
	if unit.Loops.Turn != 0 {
		m = m.Mul(geom.Rotate(unit.Loops.Turn).About(middle))
	}
	if k := (1 + unit.Growth) * (1 + unit.Loops.Growth); k != 1 {
		m = m.Mul(geom.Scale(k, k).About(middle))
	}
	return m
}

// part adds a child of a group whose parts move by themselves: its own pose goes on inside that of the part.
func (p *Player) part(g, child *layer, m geom.Matrix, unit motion.Pose, c *motion.Clock) {
	if !unit.Present || unit.Opacity <= 0 || child.doc.Hidden || p.solo != nil && !p.alone(child) {
		return
	}
	pose := child.track.At(*c, &p.veils)
	if !pose.Present {
		return
	}
	pose.Veil, pose.Blur = p.veils.With(pose.Veil, unit.Veil), math.Hypot(pose.Blur, unit.Blur)
	if !unit.Tilts.None() {
		pose.Tilts = pose.Tilts.And(unit.Tilts[0])
	}
	if unit.Drawn.Pen != nil {
		pose.Drawn = unit.Drawn
	}
	pose.Loops.Dim = 1 - (1-pose.Loops.Dim)*(1-unit.Loops.Dim)
	middle := child.rest.ApplyBox(child.box).Centre()
	p.layer(child, m.Mul(g.unitAt(unit, middle)), &pose, pose.Opacity*unit.Opacity, c)
}
