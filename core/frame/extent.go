package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// extent says how large the layer is and into how many units it can be divided.
func (l *layer) extent() motion.Extent {
	x := motion.Extent{Away: l.doc.Away(), Box: l.box, Counts: motion.Counts{Parts: l.partOf(nil)}, Units: l.units}
	if n := len(l.lines); n > 0 {
		x.Line = l.lines[0].H()
	} else if n := len(l.children); n > 0 {
		x.Line = l.children[0].box.H()
	}
	if n := len(l.pieces); n > 0 {
		last := l.pieces[n-1].unit
		x.Counts.Lines, x.Counts.Words, x.Counts.Letters = last.Line+1, last.Word+1, last.Letter+1
	}
	return x
}

// reach is how far beyond what it blurs a Gaussian of three box passes paints, in deviations.
const reach = 3

// paintedBox is what a layer paints in at rest, in its own axes: its outlines with their strokes, its plate, what is in a group as far as its masks
// let it show, and the effects around all of it. Wipes go over it, and slides bring it off the page.
func (f *Film) paintedBox(l *layer) geom.Box {
	b := l.box
	for i := range l.shapes {
		if v := f.Geometry.Bounds(l.shapes[i].key); !v.Empty() {
			b = b.Union(v)
		}
	}
	if l.plate != nil {
		b = b.Union(f.Geometry.Bounds(l.plate.key))
	}
	masked := false
	for _, c := range l.children {
		masked = masked || c.doc.Mask == doc.Inside && !c.doc.Hidden
	}
	if !masked {
		for _, c := range l.children {
			if !c.doc.Hidden && c.doc.Mask == "" {
				b = b.Union(c.rest.ApplyBox(c.reaches))
			}
		}
	}
	e := &l.effects
	by := reach * e.Blur
	if e.Glow.Colour.A > 0 {
		by = max(by, reach*e.Glow.Blur)
	}
	if e.Shadow.Colour.A > 0 {
		by = max(by, reach*e.Shadow.Blur+max(math.Abs(e.Shadow.X), math.Abs(e.Shadow.Y)))
	}
	return b.Grow(by)
}

// units returns the boxes of the units that a layer is divided into, in its own axes, white space left out.
func (l *layer) units(unit string) (boxes []geom.Box) {
	if unit == doc.ByPart {
		for _, c := range l.children {
			if c.doc.Mask == "" {
				boxes = append(boxes, c.rest.ApplyBox(c.box))
			}
		}
		return boxes
	}
	for i := range l.pieces {
		p := &l.pieces[i]
		k := map[string]int{doc.ByLine: p.unit.Line, doc.ByWord: p.unit.Word, doc.ByLetter: p.unit.Letter}[unit]
		for len(boxes) <= k {
			boxes = append(boxes, geom.EmptyBox())
		}
		boxes[k] = boxes[k].Union(p.box)
	}
	return boxes
}

// partOf returns which part of the group a child is, counted without masks; of none: how many there are.
func (l *layer) partOf(child *layer) int {
	n := 0
	for _, c := range l.children {
		if c == child {
			break
		}
		if c.doc.Mask == "" {
			n++
		}
	}
	return n
}

// measureSlides tells what rolls by what it does, and every slide off the page how far that is: with the layer and its groups where paths have brought them
// when the slide begins (an entrance) or ends (an exit), loops and other presence moves left out.
func (f *Film) measureSlides(s *scene, list []*layer, was *scene) {
	page := geom.Box{Max: geom.Point{X: float64(f.Doc.Film.Width), Y: float64(f.Doc.Film.Height)}}
	for _, l := range list {
		if was != nil && was.byID[l.doc.ID] == l {
			continue // kept with all that is inside it
		}
		if l.track.Rolls() {
			var outer []*motion.Track
			for g := l.parent; g != nil; g = g.parent {
				outer = append(outer, g.track)
			}
			l.track.SetRolls(outer, s.trackOf)
		}
		l.track.SetTravel(func(v geom.Point, at int64) float64 {
			c := motion.Clock{At: motion.Millis(at), Stay: s.timing.Stay}
			outer := f.outer(s, l, c)
			m := outer.Mul(l.alongPaths(c))
			return geom.Leaving(geom.Quad(l.reaches, m), outer.ApplyVector(v), page)
		})
		f.measureSlides(s, l.children, was)
	}
}

// outer is the map from a layer's parent to what is seen of the page, with nothing but paths and the view at work.
func (f *Film) outer(s *scene, l *layer, c motion.Clock) geom.Matrix {
	m := geom.Identity
	for g := l.parent; g != nil; g = g.parent {
		m = g.alongPaths(c).Mul(m)
	}
	if s.view != nil {
		v := f.sightAt(s, c, nil)
		m = v.through(root(l)).Mul(m)
	}
	return m
}

// trackOf returns the track that a move of the scene is part of.
func (s *scene) trackOf(move string) *motion.Track {
	if _, l := s.doc.Move(move); l != nil && s.byID[l.ID] != nil {
		return s.byID[l.ID].track
	}
	return nil
}

// alongPaths is the layer's map to its parent's axes with nothing but paths at work.
func (l *layer) alongPaths(c motion.Clock) geom.Matrix {
	pose := motion.Rest
	pose.Offset, pose.Angle = l.track.Along(c)
	m, _ := l.under(&pose, c)
	return m
}
