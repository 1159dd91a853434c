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

// touches reports whether a node is found at q: what scrolls at each of its copies, what is turned out of the page where it is seen, what is in a masked group where the mask shows it.
func (p *Player) touches(i int, q geom.Point, slack float64) bool {
	for k := 0; k <= i; k++ {
		g := &p.nodes[k]
		if g.end <= i || k != i && g.kind == leafNode {
			continue // the node does not lie in it
		}
		if g.loops.Period != (geom.Point{}) {
			inv, ok := g.m.Inverse()
			if !ok {
				return false
			}
			// Back to where the first copy lies.
			local, box := inv.Apply(q), g.layer.box
			to := local.Sub(g.loops.Scroll)
			if g.loops.Period.X > 0 {
				to.X -= math.Floor((to.X-box.Min.X)/g.loops.Period.X) * g.loops.Period.X
			}
			if g.loops.Period.Y > 0 {
				to.Y -= math.Floor((to.Y-box.Min.Y)/g.loops.Period.Y) * g.loops.Period.Y
			}
			q = g.m.Apply(to)
		}
		if g.tilt > 0 {
			var seen bool
			if q, seen = p.unturned(g, q); !seen {
				return false
			}
		}
		if p.veiledAt(k, q, slack) || g.kind == groupNode && p.hidden(k, i, q, slack) {
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
		if s.paint.Clear() && n.layer.doc.Kind != doc.Picture {
			continue
		}
		if f.Geometry.Path(s.key).Contains(local) && (s.side == "" || f.Geometry.Path(s.of).Contains(local) == (s.side == doc.Inside)) {
			return n.layer.seenAt(local)
		}
	}
	return false
}
