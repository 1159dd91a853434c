package frame

import (
	"capstan/core/display"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
)

// maxCopies is how often a layer is repeated at most on one page, each way.
const maxCopies = 2000

// copies writes a layer, repeated over the page along the axes it scrolls on, or as a flock.
func (p *Player) copies(i int, v View, alpha float64, by geom.Matrix) {
	n := &p.nodes[i]
	if n.loops.Flocks[0].Of != nil {
		p.flock(i, v, alpha, by)
		return
	}
	faint, resting := 1-n.loops.Repeats, v.Repeats > 0 && n.rests != (geom.Point{})
	if resting {
		n.loops.Period, faint = n.rests, 1-v.Repeats
		defer func() { n.loops.Period = geom.Point{} }() // a pointer finds the layer itself alone
	}
	if n.loops.Period == (geom.Point{}) {
		p.shown(i, v, alpha, by)
		return
	}
	x0, x1, y0, y1 := n.repeats(p.film, by)
	adjoin := faint == 0 && v.Layers == nil && n.adjoin()
	if adjoin && p.strip(i, x0, x1, y0, y1, alpha, by) {
		return
	}
	adjoin = adjoin && n.addable((x1-x0+1)*(y1-y0+1))
	whole, one := Effects{Opacity: 1}, Effects{Opacity: 1, Blend: display.Added}
	var all display.Mark
	if adjoin {
		all = p.list.Group(&whole)
	}
	for y := y0; y <= y1; y++ {
		for x := x0; x <= x1; x++ {
			at := n.loops.Scroll.Add(geom.Point{X: float64(x) * n.loops.Period.X, Y: float64(y) * n.loops.Period.Y})
			a := alpha
			if x != 0 || y != 0 {
				a *= 1 - faint
			}
			if !adjoin {
				p.shown(i, v, a, aside(by, n.m, at))
				continue
			}
			k := p.list.Group(&one)
			p.shown(i, v, a, aside(by, n.m, at))
			p.list.EndGroup(k, &one)
		}
	}
	if adjoin {
		p.list.EndGroup(all, &whole)
	}
}

// flock writes the copies of a layer that are there in its place.
func (p *Player) flock(i int, v View, alpha float64, by geom.Matrix) {
	n := &p.nodes[i]
	m := n.m
	inv, ok := m.Inverse()
	if !ok {
		return
	}
	page, own := p.film.pageBox(), 1.0
	for k := range n.loops.Flocks {
		f := &n.loops.Flocks[k]
		if f.Of == nil {
			continue
		}
		own -= f.Share
		for c := range f.Copies() {
			at, shows, there := f.Copy(c)
			if !there {
				continue
			}
			at = by.Mul(m.Mul(at).Mul(inv))
			if at.Mul(m).ApplyBox(n.layer.reaches).Intersect(page).Empty() {
				continue // it is off the page
			}
			p.shown(i, v, alpha*shows, at)
		}
	}
	if own > 1e-9 { // where a transition has it come or go, the layer itself takes over
		p.shown(i, v, alpha*own, by)
	}
}

// aside moves what by has moved already by a vector in the axes of a layer.
func aside(by, m geom.Matrix, at geom.Point) geom.Matrix {
	v := by.ApplyVector(m.ApplyVector(at))
	by.E += v.X
	by.F += v.Y
	return by
}

// maxAdjoining is how many copies are added up at most: each is painted by itself first.
const maxAdjoining = 24

// adjoin reports whether the copies of a scrolling layer touch without lying over each other.
func (n *node) adjoin() bool {
	touch := false
	for _, side := range [2][2]float64{{n.layer.reaches.W(), n.loops.Period.X}, {n.layer.reaches.H(), n.loops.Period.Y}} {
		if side[1] > 0 && side[0] > side[1]+1e-6 {
			return false
		}
		touch = touch || side[1] > 0 && side[0] > side[1]-1e-3
	}
	return touch
}

// addable reports whether copies that adjoin can be added up: each covers a share of the pixels along the edge, and both come to one. What moves
// in itself might reach over, what is blended needs what is behind it.
func (n *node) addable(copies int) bool {
	byUnit := func(m *doc.Move) bool { return m.Unit != "" }
	return copies > 1 && copies <= maxAdjoining && !n.sized && n.mixed == 0 && n.other == nil &&
		n.layer.effects.Blend == display.Normal && !slices.ContainsFunc(n.layer.doc.Moves, byUnit) && n.layer.rigid()
}

// rigid reports whether nothing in a layer moves or is blended.
func (l *layer) rigid() bool {
	for _, c := range l.children {
		if !c.track.Still() || c.effects.Blend != display.Normal || !c.rigid() {
			return false
		}
	}
	return true
}

// maxStrip is how many points the copies of an outline have at most that are painted as one.
const maxStrip = 20000

// strip writes the copies of a layer of plain colours as one outline for each of these, so that no line shows
// between; false where the layer is not so plain.
func (p *Player) strip(i, x0, x1, y0, y1 int, alpha float64, by geom.Matrix) bool {
	n := &p.nodes[i]
	a := n.alpha * alpha
	if n.kind != leafNode || n.other != nil || n.sized || n.grown != 0 || n.tilt > 0 || len(n.veil) > 0 || n.layer.plate != nil || n.layer.alone || n.layer.doc.Kind == doc.Picture || a <= 0 || a < 1 && p.overlaps(i) {
		return false
	}
	copies := (x1 - x0 + 1) * (y1 - y0 + 1)
	for k := range n.layer.shapes {
		s := &n.layer.shapes[k]
		if s.side != "" || s.paint.Gradient != nil || s.paint.Texture != nil || len(p.film.Geometry.Path(s.key).Points)*copies > maxStrip {
			return false
		}
	}
	for k := range n.layer.shapes {
		s := &n.layer.shapes[k]
		if s.paint.Clear() {
			continue
		}
		p.tmp.Reset()
		for y := y0; y <= y1; y++ {
			for x := x0; x <= x1; x++ {
				p.tmp.Append(p.film.Geometry.Path(s.key), geom.Translate(n.loops.Scroll.Add(geom.Point{X: float64(x) * n.loops.Period.X, Y: float64(y) * n.loops.Period.Y})))
			}
		}
		p.list.Outline(&p.tmp, by.Mul(n.m), &s.paint, a)
	}
	return true
}

// repeats returns which copies of a scrolling layer touch the page, along both of its axes.
func (n *node) repeats(f *Film, by geom.Matrix) (x0, x1, y0, y1 int) {
	inv, ok := by.Mul(n.m).Inverse()
	if !ok {
		return 0, -1, 0, -1
	}
	page, box := inv.ApplyBox(f.pageBox()), n.layer.reaches
	span := func(period, scroll, pageMin, pageMax, min, max float64) (int, int) {
		if period <= 0 {
			return 0, 0
		}
		a := math.Ceil((pageMin - max - scroll) / period)
		b := math.Floor((pageMax - min - scroll) / period)
		return int(math.Max(a, -maxCopies)), int(math.Min(b, maxCopies))
	}
	x0, x1 = span(n.loops.Period.X, n.loops.Scroll.X, page.Min.X, page.Max.X, box.Min.X, box.Max.X)
	y0, y1 = span(n.loops.Period.Y, n.loops.Scroll.Y, page.Min.Y, page.Max.Y, box.Min.Y, box.Max.Y)
	return
}
