package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

var restPose = motion.Rest

// Hit returns the ids of the front-most layer that shows at page point q, outermost group first, as
// everything was last placed (At, AtRest, Stand). Locked layers and what is in them let the pointer through;
// so do clear parts of shapes. slack is how far off, in page px, still counts for small layers.
func (p *Player) Hit(q geom.Point, slack float64) []string {
	for i := len(p.nodes) - 1; i >= 0; i-- {
		n := &p.nodes[i]
		if n.kind != leafNode && n.kind != pieceNode || n.alpha <= 0 || locked(n.layer) || n.layer.isMask() || !p.touches(i, q, slack) {
			continue
		}
		return chain(n.layer)
	}
	return nil
}

// HitAll returns the ids of all layers that show at page point q, each with its outer groups first, from the front; locked ones, too.
func (p *Player) HitAll(q geom.Point, slack float64) (out [][]string) {
	var last *layer
	for i := len(p.nodes) - 1; i >= 0; i-- {
		n := &p.nodes[i]
		if n.kind != leafNode && n.kind != pieceNode || n.alpha <= 0 || n.layer == last || !p.touches(i, q, slack) {
			continue
		}
		last = n.layer
		out = append(out, chain(n.layer))
	}
	return out
}

// Inside returns the ids of all layers without children whose box lies wholly in the page box b, each
// with its outer groups first; locked ones are left out.
func (p *Player) Inside(b geom.Box) [][]string {
	var out [][]string
	for i := range p.nodes {
		n := &p.nodes[i]
		if (n.kind == leafNode || n.kind == textNode) && !locked(n.layer) {
			if c := n.m.ApplyBox(n.layer.box); b.Contains(c.Min) && b.Contains(c.Max) {
				out = append(out, chain(n.layer))
			}
		}
	}
	return out
}

func chain(l *layer) []string {
	var ids []string
	for ; l != nil; l = l.parent {
		ids = append([]string{l.doc.ID}, ids...)
	}
	return ids
}

func locked(l *layer) bool {
	for ; l != nil; l = l.parent {
		if l.doc.Locked {
			return true
		}
	}
	return false
}

// touches reports whether a node is found at q: what scrolls at each of its copies, what is in a masked group where the mask shows it.
func (p *Player) touches(i int, q geom.Point, slack float64) bool {
	for k := 0; k <= i; k++ {
		g := &p.nodes[k]
		if g.end <= i || k != i && g.kind == leafNode {
			continue // the node does not lie in it
		}
		if g.period != (geom.Point{}) {
			inv, ok := g.m.Inverse()
			if !ok {
				return false
			}
			// Back to where the first copy lies.
			local, box := inv.Apply(q), g.layer.box
			to := local.Sub(g.scroll)
			if g.period.X > 0 {
				to.X -= math.Floor((to.X-box.Min.X)/g.period.X) * g.period.X
			}
			if g.period.Y > 0 {
				to.Y -= math.Floor((to.Y-box.Min.Y)/g.period.Y) * g.period.Y
			}
			q = g.m.Apply(to)
		}
		if g.kind == groupNode && p.hidden(k, i, q, slack) {
			return false
		}
	}
	return p.nodes[i].contains(p.film, q, slack)
}

func (n *node) contains(f *Film, q geom.Point, slack float64) bool {
	inv, ok := n.m.Inverse()
	if !ok {
		return false
	}
	local := inv.Apply(q)
	box := n.layer.box
	if n.kind == pieceNode {
		return n.layer.pieces[n.piece].box.Contains(local)
	}
	if scale := n.m.MaxScale(); scale > 0 && min(box.W(), box.H())*scale < 2*slack && box.Grow(slack/scale).Contains(local) {
		return true
	}
	if n.layer.doc.Kind == doc.TextKind {
		for _, l := range n.layer.lines {
			if l.Contains(local) {
				return true
			}
		}
		return false
	}
	for _, s := range n.layer.shapes {
		if s.paint.clear() && n.layer.doc.Kind != doc.Picture {
			continue
		}
		if f.Geometry.Path(s.key).Contains(local) && (s.side == "" || f.Geometry.Path(s.of).Contains(local) == (s.side == doc.Inside)) {
			return true
		}
	}
	return false
}

// placed returns the index of the node that shows a layer as it was last placed, groups and texts whole; -1 when it is not drawn.
func (p *Player) placed(id string) int {
	if p.index == nil {
		p.index = make(map[string]int, len(p.nodes))
		for i := range p.nodes {
			n := &p.nodes[i]
			if n.layer == nil || n.kind != leafNode && n.kind != groupNode && n.kind != textNode {
				continue
			}
			if _, ok := p.index[n.layer.doc.ID]; !ok {
				p.index[n.layer.doc.ID] = i
			}
		}
	}
	if i, ok := p.index[id]; ok {
		return i
	}
	return -1
}

// Quad returns the four corners of a layer's box on the page, from its own upper left clockwise, as it was
// last placed, and where its pivot lies; false when it is not drawn.
func (p *Player) Quad(id string) (corners [4]geom.Point, pivot geom.Point, ok bool) {
	i := p.placed(id)
	if i < 0 {
		return
	}
	n := &p.nodes[i]
	for k, c := range n.layer.box.Corners() {
		corners[k] = n.m.Apply(c)
	}
	return corners, n.m.Apply(n.layer.pivot), true
}

// EachPlaced calls f with every layer that is drawn as it was last placed: with the corners of its box on the page, from its own upper
// left clockwise, and its outer groups first.
func (p *Player) EachPlaced(f func(l *doc.Layer, corners [4]geom.Point, chain []string)) {
	for i := range p.nodes {
		n := &p.nodes[i]
		if n.layer == nil || n.kind != leafNode && n.kind != groupNode && n.kind != textNode {
			continue
		}
		var c [4]geom.Point
		for k, q := range n.layer.box.Corners() {
			c[k] = n.m.Apply(q)
		}
		f(n.layer.doc, c, chain(n.layer))
	}
}

// Axes returns the map from a layer's own axes to the page, and from those its place is in, as it was last
// placed; false when it is not drawn.
func (p *Player) Axes(id string) (own, outer geom.Matrix, ok bool) {
	outer = geom.Identity
	i := p.placed(id)
	if i < 0 {
		return geom.Identity, outer, false
	}
	n := &p.nodes[i]
	// Of two scenes that cross each other the later side counts, as it lies next before it.
	for k := i - 1; k >= 0 && n.layer.parent != nil; k-- {
		if g := &p.nodes[k]; g.kind == groupNode && g.end > i && g.layer == n.layer.parent {
			outer = g.m
			break
		}
	}
	return n.m, outer, true
}

// Ancestry returns the map from the axes a layer's place is in to the page, with everything at rest.
func (f *Film) Ancestry(scene int, id string) geom.Matrix {
	m := geom.Identity
	if l := f.scenes[scene].byID[id]; l != nil {
		for g := l.parent; g != nil; g = g.parent {
			m = g.at(restPose).Mul(m)
		}
	}
	return m
}

// RestMatrix returns the map from a layer's own axes to its parent's at rest.
func (f *Film) RestMatrix(scene int, id string) geom.Matrix {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.at(restPose)
	}
	return geom.Identity
}

// Box returns a layer's box in its own axes, and its pivot there.
func (f *Film) Box(scene int, id string) (geom.Box, geom.Point) {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.box, l.pivot
	}
	return geom.Box{}, geom.Point{}
}

// Fit returns the factor by which the sizes of a text were scaled to fit its box, and by how many px its lines are higher than it.
func (f *Film) Fit(scene int, id string) (scale, over float64) {
	if l := f.scenes[scene].byID[id]; l != nil {
		return l.scale, l.over
	}
	return 1, 0
}

// Only returns a list with just the layer id of scene i and what is inside it, at rest, and the box it
// fills on the page; for small pictures of single layers.
func (p *Player) Only(i int, id string, v View) (*List, geom.Box) {
	p.nodes = p.nodes[:0]
	l := p.film.scenes[i].byID[id]
	if l == nil {
		return p.emit(v), geom.Box{}
	}
	defer p.unthinned()()
	m := p.film.Ancestry(i, id)
	p.layer(l, m, restPose, 1, nil)
	return p.emit(v), m.Mul(l.at(restPose)).ApplyBox(l.box)
}

// EndPose returns what the moves of a layer have made of it when scene i ends, without the paths that go on with its thread.
func (f *Film) EndPose(i int, id string) motion.Pose {
	s := f.scenes[i]
	l := s.byID[id]
	if l == nil {
		return motion.Pose{}
	}
	pose := l.track.At(s.endClock())
	off, angle := l.track.AlongThread(s.endClock())
	pose.Offset, pose.Angle = pose.Offset.Sub(off), pose.Angle-angle
	return pose
}

// Cycle returns after which time a loop of scene i is where it was, there and back counted, in ms; 0 for other moves.
func (f *Film) Cycle(i int, m *doc.Move, layerID string) int64 {
	if m.Effect == doc.Scroll {
		if l := f.scenes[i].byID[layerID]; l != nil {
			return motion.CycleOfScroll(m, l.box)
		}
	}
	return motion.CycleTime(m)
}

// Phase returns how far into its cycle a loop of scene i is at its begin, in ms.
func (f *Film) Phase(i int, move, layerID string) int64 {
	if l := f.scenes[i].byID[layerID]; l != nil {
		return l.track.PhaseOf(move)
	}
	return 0
}

// Lasting returns when a path that lasts as long as its thread begins and ends, on scene i's clock.
func (f *Film) Lasting(i int, thread, move string) (motion.Interval, bool) {
	for _, l := range f.scenes[i].lasting[thread] {
		if l.Move.ID == move {
			return l.Interval, true
		}
	}
	return motion.Interval{}, false
}

// EndTurn returns what one loop has turned its layer when scene i ends.
func (f *Film) EndTurn(i int, layerID, move string) float64 {
	s := f.scenes[i]
	if l := s.byID[layerID]; l != nil {
		return l.track.TurnOf(move, motion.Millis(s.timing.Stay))
	}
	return 0
}

func (s *scene) endClock() motion.Clock {
	return motion.Clock{At: motion.Millis(s.timing.Stay), Side: motion.Leaving, Stay: s.timing.Stay}
}
