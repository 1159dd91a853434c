package frame

import (
	"capstan/core/display"
	"math"

	"capstan/core/geom"
	"capstan/core/motion"
	"capstan/core/state"
)

// cut shows of a node what lies before an edge that has the outline of its driver.
type cut struct {
	before   geom.Path // on the page
	node     int
	lift     float64 // how much of the rest shows, through a morph
	soft     float64 // page px
	inverted bool    // shows what lies beyond instead
}

// cutAlong notes the edge of term k of the veil of node i, which then shows all: it becomes a mask around the node. Of two edges of which what lies
// before either shows, the edges stay straight.
func (p *Player) cutAlong(i, k int, d *driven, m geom.Matrix) {
	n := &p.nodes[i]
	term := &n.veil[k]
	if term.Or {
		return
	}
	if len(p.cuts) < cap(p.cuts) {
		p.cuts = p.cuts[:len(p.cuts)+1]
	} else {
		p.cuts = append(p.cuts, cut{})
	}
	c := &p.cuts[len(p.cuts)-1]
	c.node, c.inverted, c.lift, c.soft = i, term.Inverted, 0, term.Tie.Soft
	if k+2 < len(n.veil) && n.veil[k+1].Join == motion.Shows && n.veil[k+1].Tie == nil && n.veil[k+1].Front == nil && n.veil[k+2].Join == motion.Over {
		c.lift = n.veil[k+1].Opacity
	}
	far := 8 * math.Max(p.film.pageBox().W(), p.film.pageBox().H())
	t := term.Tie
	p.samples = geom.Silhouette(p.samples[:0], d.spots, level(t.Toward).Mul(m), t.Nearest)
	back, _ := level(t.Toward).Inverse()
	at := func(u, w float64) geom.Point { return back.Apply(geom.Point{X: u, Y: w}) }
	c.before.Reset()
	e := p.samples
	ahead := t.Offset + t.Soft/2
	c.before.Move(at(-far, -far))
	c.before.Line(at(e[0].X+ahead, -far))
	for i, q := range e {
		if i > 0 && i < len(e)-1 && math.Abs(e[i-1].X+e[i+1].X-2*q.X) < 1e-9 {
			continue
		}
		c.before.Line(at(q.X+ahead, q.Y))
	}
	c.before.Line(at(e[len(e)-1].X+ahead, far))
	c.before.Line(at(-far, far))
	c.before.Close()
	term.Tie, term.Share, term.Inverted = nil, 1, false
}

// within writes what inside does, as far as the cuts of a node from number k on show it.
func (p *Player) within(i, k int, inside func()) {
	for k < len(p.cuts) && p.cuts[k].node != i {
		k++
	}
	if k == len(p.cuts) {
		inside()
		return
	}
	l, c := &p.list, &p.cuts[k]
	outside := uint32(0)
	if c.inverted {
		outside = 1
	}
	l.Op(display.OpMask, outside)
	box := l.OpenBox()
	l.Num(c.soft)
	p.within(i, k+1, inside)
	shown := l.Reach
	l.Op(display.OpNext)
	l.Outline(&c.before, geom.Identity, &state.White, 1)
	if c.lift > 0 && shown.Max.X >= shown.Min.X {
		strength := c.lift
		l.Outline(geom.Rectangle(shown.Grow(1), 0), geom.Identity, &state.White, strength)
	}
	l.Op(display.OpEnd)
	l.Reach = shown
	l.CloseBox(box)
}
