package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// mostLooks is at how many times of a scene at most it is looked whether a ground covers the page.
const mostLooks = 3000

// onItsWay calls f with where a layer lies on its way through scene i, as seen, at times of its clock, ms, each frame one and never farther apart than
// the stay has room for: with paths, changes, loops and the view, without how it comes and goes.
func (f *Film) onItsWay(i int, id string, do func(at int64, m geom.Matrix, box geom.Box)) {
	s, r := f.scenes[i], f.Doc.Film.Rate
	l := s.byID[id]
	if l == nil || l.parent != nil || l.doc.Kind == doc.ViewKind || l.track.Repeats() != (geom.Point{}) {
		return
	}
	still := l.track.Still() && (s.view == nil || s.view.track.Still())
	n := motion.Frames(s.timing.Stay, r.Num, r.Den)
	step := max(1, n/mostLooks)
	look := func(t motion.Instant) {
		c := motion.Clock{At: t, Stay: s.timing.Stay}
		pose := l.track.At(c, nil)
		if !pose.Present {
			return
		}
		pose.Offset, pose.Angle = l.track.Along(c)
		pose.Growth = 0
		m, _ := l.under(&pose, c)
		if s.view != nil {
			v := f.sightAt(s, c, nil)
			m = v.through(l).Mul(m)
		}
		box := l.box
		if size := l.restAt(c).Size; len(l.becomes) > 0 && (size.X != box.W() || size.Y != box.H()) {
			by := geom.Point{X: (size.X - box.W()) / 2, Y: (size.Y - box.H()) / 2}
			box.Min, box.Max = box.Min.Sub(by), box.Max.Add(by)
		}
		do(int64(t.Ms()+0.5), m, box)
	}
	for k := int64(0); k < n && !(still && k > 0); k += step {
		look(motion.FrameTime(k, r.Num, r.Den))
	}
	look(motion.Millis(s.timing.Stay))
}

// Covers reports whether a layer of scene i, that lies in no group, covers the page at rest.
func (f *Film) Covers(i int, id string) bool {
	l := f.scenes[i].byID[id]
	return l != nil && l.parent == nil && geom.Beyond(geom.Quad(l.box, l.rest), f.pageBox()) < barely
}

// barely is by how many px an edge of the page may show before it counts.
const barely = 0.02

// Bares returns how many px of the page a layer of scene i that covers it at rest leaves bare on its way at most, and when that is, ms of the scene's
// clock; 0: it covers it all along.
func (f *Film) Bares(i int, id string) (px float64, at int64) {
	f.onItsWay(i, id, func(t int64, m geom.Matrix, box geom.Box) {
		if v := geom.Beyond(geom.Quad(box, m), f.pageBox()); v > px+1e-9 && v >= barely {
			px, at = v, t
		}
	})
	return
}

// Room is the part of the page, and of what lies around it, that a layer of scene i has to cover at rest to cover the page all along its way.
func (f *Film) Room(i int, id string) geom.Box {
	b := f.pageBox()
	f.onItsWay(i, id, func(_ int64, m geom.Matrix, box geom.Box) {
		l := f.scenes[i].byID[id]
		k := geom.Identity // from the box at rest to what it is now
		if box != l.box && l.box.W() > 0 && l.box.H() > 0 {
			k = geom.Scale(box.W()/l.box.W(), box.H()/l.box.H()).About(l.box.Centre())
		}
		if inv, ok := m.Mul(k).Inverse(); ok {
			b = b.Union(l.rest.Mul(inv).ApplyBox(f.pageBox()))
		}
	})
	return b
}
