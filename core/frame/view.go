package frame

import (
	"math"
	"math/cmplx"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// sight is what part of the page is seen: the page point in the middle, how many times as large it is shown, and how far it is turned, degrees
// clockwise as the frame around it is.
type sight struct {
	at     geom.Point
	zoom   float64
	turn   float64
	middle geom.Point // of the page
}

// all is the whole page.
func (f *Film) all() sight { return sight{f.pageBox().Centre(), 1, 0, f.pageBox().Centre()} }

// of is the map from the axes of a layer that is so many times as far away to what is seen: displacements and turns seem less, as similar
// triangles have it; the turn is full.
func (v *sight) of(away float64) geom.Matrix {
	zoom := v.zoom
	by := v.at.Sub(v.middle)
	if away != 1 {
		zoom, by = math.Pow(zoom, 1/away), by.Mul(1/away)
	}
	return geom.Translate(v.middle).Mul(geom.Scale(zoom, zoom)).Mul(geom.Rotate(-v.turn)).Mul(geom.Translate(v.middle.Add(by).Mul(-1)))
}

// through is the map for a layer that lies in nothing.
func (v *sight) through(l *layer) geom.Matrix {
	if l.doc.Stays {
		return geom.Identity
	}
	if l.doc.Kind == doc.ViewKind {
		return v.of(1)
	}
	return v.of(l.doc.Away())
}

// toward is a sight on its way to another, p of the way: it zooms evenly, z0 (z1 / z0)^p, about the point that both show at one place, and turns
// about that; where there is none it pans straight.
func (v sight) toward(to sight, p float64) sight {
	k := cmplx.Rect(v.zoom/to.zoom, (to.turn-v.turn)*math.Pi/180) // from the one frame to the other
	a, b := complex(v.at.X, v.at.Y), complex(to.at.X, to.at.Y)
	out := v
	out.zoom = v.zoom * math.Pow(to.zoom/v.zoom, p)
	out.turn = v.turn + (to.turn-v.turn)*p
	if cmplx.Abs(1-k) < 1e-9 {
		out.at = morph.Point(v.at, to.at, p)
		return out
	}
	c := (b - k*a) / (1 - k)
	way := cmplx.Rect(math.Pow(v.zoom/to.zoom, p), (to.turn-v.turn)*p*math.Pi/180)
	at := c + way*(a-c)
	out.at = geom.Point{X: real(at), Y: imag(at)}
	return out
}

// sightAt is what a scene shows at a clock.
func (f *Film) sightAt(s *scene, c motion.Clock, mem *motion.Veils) sight {
	if s.view == nil {
		return f.all()
	}
	v := f.sightAfter(s.view, c)
	pose := s.view.track.At(c, mem)
	v.at = v.at.Add(pose.Offset).Add(pose.Loops.Sway)
	v.turn += pose.Angle + pose.Loops.Turn
	v.zoom = min(max(v.zoom/max((1+pose.Growth)*(1+pose.Loops.Growth), 1e-9), 1.0/doc.MaxZoom), doc.MaxZoom)
	return v
}

// sightAfter is what the changes of a view have made of it at a clock.
func (f *Film) sightAfter(l *layer, c motion.Clock) sight {
	v := f.all()
	width := f.pageBox().W()
	zoomOf := func(w float64) float64 { return min(max(width/max(w, 1e-9), 1.0/doc.MaxZoom), doc.MaxZoom) }
	p := &l.doc.Place
	v.at, v.zoom, v.turn = geom.Point{X: p.X, Y: p.Y}, zoomOf(p.W), p.Turn
	for i := range l.becomes {
		b := &l.becomes[i]
		share := b.At(c)
		if share == 0 {
			continue
		}
		to := v
		if b.to.X != nil {
			to.at.X = *b.to.X
		}
		if b.to.Y != nil {
			to.at.Y = *b.to.Y
		}
		if b.to.Turn != nil {
			to.turn = *b.to.Turn
		}
		if b.to.W != nil {
			to.zoom = zoomOf(*b.to.W)
		}
		if b.to.Scale != nil { // of the frame: half as large, it shows twice as much
			to.zoom = min(max(to.zoom/max(*b.to.Scale, 1e-9), 1.0/doc.MaxZoom), doc.MaxZoom)
		}
		v = v.toward(to, share)
	}
	return v
}

// seen adds the layers of a scene as its view shows them, on a page that lies at a point; without a clock as they lie on the page.
func (p *Player) seen(s *scene, at geom.Point, c *motion.Clock) {
	page := geom.Translate(at)
	if s.view == nil || c == nil {
		p.layers(s.layers, page, c)
		return
	}
	p.scratch.Reset()
	v := p.film.sightAt(s, *c, &p.scratch)
	for _, l := range s.layers {
		p.sibling(l, page.Mul(v.through(l)), c)
	}
}

// beginSight works out what is seen in a morph: what both scenes show, mixed as a change of the view is.
func (p *Player) beginSight(a, b *scene, from, to *motion.Clock, e float64) {
	p.looked, p.passed = a.view != nil || b.view != nil, e
	if !p.looked {
		return
	}
	p.scratch.Reset()
	v := p.film.sightAt(a, *from, &p.scratch)
	p.scratch.Reset()
	p.sight = v.toward(p.film.sightAt(b, *to, &p.scratch), e)
}

// outermost is the map to what is seen of a pair that lies in nothing, in a morph.
func (p *Player) outermost(q *pair) geom.Matrix {
	if !p.looked {
		return geom.Identity
	}
	switch {
	case q.b == nil:
		return p.sight.through(root(q.a))
	case q.a == nil:
		return p.sight.through(root(q.b))
	}
	a, b := root(q.a), root(q.b)
	if a.doc.Stays != b.doc.Stays { // it comes to stay, or to move along
		m, n := p.sight.through(a), p.sight.through(b)
		x, t := func(x, y float64) float64 { return x + (y-x)*p.passed }, geom.Matrix{}
		t.A, t.B, t.C, t.D, t.E, t.F = x(m.A, n.A), x(m.B, n.B), x(m.C, n.C), x(m.D, n.D), x(m.E, n.E), x(m.F, n.F)
		return t
	}
	if a.doc.Stays || a.doc.Kind == doc.ViewKind {
		return p.sight.through(a)
	}
	return p.sight.of(morph.Number(a.doc.Away(), b.doc.Away(), p.passed))
}

// root is the outermost group that a layer lies in, or the layer itself.
func root(l *layer) *layer {
	for l.parent != nil {
		l = l.parent
	}
	return l
}

// shownThrough is the map to what is seen, as it was last placed, of a layer that lies in nothing.
func (p *Player) shownThrough(l *layer) geom.Matrix {
	s, c := p.when.scene, p.when.entering
	switch {
	case s == nil:
		return geom.Identity
	case p.when.into && p.looked:
		return p.sight.through(l)
	case p.when.into && p.when.from.byID[l.doc.ID] == l:
		s, c = p.when.from, p.when.leaving
	}
	if s.view == nil {
		return geom.Identity
	}
	p.scratch.Reset()
	v := p.film.sightAt(s, c, &p.scratch)
	return v.through(l)
}
