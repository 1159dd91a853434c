package frame

import (
	"capstan/core/display"
	"math"

	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/state"
)

// Of a spark: the share of the front's way that it lives for, how far it rises and goes to the side, in grains, and its size, likewise.
const (
	sparkLives = 0.22
	sparkRises = 1.4
	sparkDrift = 0.5
	sparkSize  = 0.05
)

// mostSparks is how many are looked at in one list: of a layer with very many copies those of the first alone are seen.
const mostSparks = 4000

// smoulder writes what burns along the edges of a node's veil: a band of the node's own outline that chars, one within it that glows, and sparks.
func (p *Player) smoulder(i int, v View, a float64, by geom.Matrix) {
	n := &p.nodes[i]
	for k := range n.veil {
		r := &n.veil[k]
		if r.Front == nil || r.Front.Glow == nil || r.Share <= 0 || r.Share >= 1 {
			continue
		}
		glow := r.Front.Glow
		edge, char := Paint{Colour: glow.Edge}, Paint{Colour: glow.Char}
		box, m := n.layer.reaches, by.Mul(n.m)
		for b, fields := range r.Front.Rims(r.Share, r.Inverted) {
			l := &p.list
			l.Op(display.OpVeil, 3, display.VeilNoise, display.VeilNoise, display.VeilTimes)
			outer := l.OpenBox()
			for f := range fields {
				l.Matrix(m)
				l.Num(1)
				l.Num(fields[f].N[:fields[f].Count]...)
			}
			l.Op(display.OpMask, 0)
			box0 := l.OpenBox()
			l.Num(0)
			c := morph.Paints(&char, &edge, float64(b))
			p.bent.Reset()
			for k, q := range box.Corners() {
				if k == 0 {
					p.bent.Move(q)
				} else {
					p.bent.Line(q)
				}
			}
			p.bent.Close()
			l.Outline(&p.bent, m, &c, a)
			shown := l.Reach
			l.Op(display.OpNext)
			l.Reach = geom.EmptyBox()
			p.body(i, v, 1, by)
			l.Op(display.OpEnd)
			if l.Reach = shown.Intersect(l.Reach); l.Reach.Empty() {
				l.Reach = geom.EmptyBox()
			}
			l.CloseBox(box0)
			l.Op(display.OpEnd)
			l.CloseBox(outer)
		}
		p.sparkle(i, glow, r.Share, a, by)
	}
}

// sparkle writes the sparks that are in the air when a front has gone a share of its way: each rises from a place of the node when the front passes there.
func (p *Player) sparkle(i int, glow *state.Glow, share, a float64, by geom.Matrix) {
	n := &p.nodes[i]
	box := n.layer.box
	m := by.Mul(n.m)
	grain, scale := glow.Grain, m.MaxScale()
	edge, char := Paint{Colour: glow.Edge}, Paint{Colour: glow.Char}
	for k := range glow.Sparks {
		if p.sparks > mostSparks {
			return
		}
		p.sparks++
		of := func(what float64) float64 { return display.NoiseAt(glow.Seed^0x5eed, false, float64(k), what) }
		q := geom.Point{X: box.Min.X + of(1)*box.W(), Y: box.Min.Y + of(2)*box.H()}
		born := glow.Passes(display.NoiseAt(glow.Seed, true, q.X/grain, q.Y/grain))
		life := min(sparkLives*(0.5+of(3)), 1-born)
		age := (share - born) / life
		if !(age >= 0 && age < 1) || !p.covers(i, n.m.Apply(q), 0) {
			continue
		}
		at := m.Apply(q)
		at.Y -= sparkRises * grain * scale * (0.5 + of(4)) * age
		at.X += sparkDrift * grain * scale * (of(5) - 0.5 + 0.3*math.Sin(6*age+9*of(6))) * age
		c := morph.Paints(&edge, &char, age*age)
		r := max(0.8, sparkSize*grain*scale*(0.5+of(7))*(1-0.7*age))
		dot := &p.bent
		dot.Reset()
		dot.Append(&round, geom.Translate(at).Mul(geom.Scale(r, r)))
		p.list.Outline(dot, geom.Identity, &c, a*(1-age*age))
	}
}

// round is a circle about the origin.
var round = *geom.Ellipse(geom.Box{Min: geom.Point{X: -1, Y: -1}, Max: geom.Point{X: 1, Y: 1}})
