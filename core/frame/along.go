package frame

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// mostTravelled is how many lines an outline is divided into at most, of which the longest is travelled along.
const mostTravelled = 64

// layAlong lays the motion paths of layers along the outlines of others, as these rest: they follow when those are edited.
func (f *Film) layAlong(s *scene, list []*layer) {
	for _, l := range list {
		if travelsAlong(l.doc) {
			x := l.extent()
			x.Drives = drives(s.doc, l.doc)
			x.Lines = f.lineFor(s, l)
			l.track = motion.NewTrack(l.doc, s.timing, x, s.lasting[l.doc.Thread])
			l.becomes = nil
			f.compileChanges(s, l)
		}
		f.layAlong(s, l.children)
	}
}

// travelsAlong reports whether a motion path of a layer follows the outline of another.
func travelsAlong(d *doc.Layer) bool {
	for _, m := range d.Moves {
		if m.Path != nil && m.Path.Along != "" {
			return true
		}
	}
	return false
}

// lineFor returns what a motion path of a layer goes along, from where the middle of the layer rests; nil where it has its own line.
func (f *Film) lineFor(s *scene, l *layer) func(m *doc.Move) *geom.Path {
	return func(m *doc.Move) *geom.Path {
		line := f.alongIn(s, l, m)
		if line == nil {
			return nil
		}
		out := &geom.Path{}
		out.Append(line, geom.Translate(l.rest.Apply(l.box.Centre()).Mul(-1)))
		return out
	}
}

// alongIn is the line of another layer that a motion path goes along, in the axes of its own layer's parent; nil where there is none.
func (f *Film) alongIn(s *scene, l *layer, m *doc.Move) *geom.Path {
	if m.Path == nil || m.Path.Along == "" {
		return nil
	}
	o := s.byThread[m.Path.Along]
	if o == nil || !doc.Drives(o.doc, l.doc) {
		return nil
	}
	outline := &geom.Path{}
	if f.outline(o, geom.Identity, outline) != nil || len(outline.Points) < 2 {
		return nil
	}
	to := o.rest
	for g := o.parent; g != nil; g = g.parent {
		to = g.rest.Mul(to)
	}
	outer := geom.Identity
	for g := l.parent; g != nil; g = g.parent {
		outer = g.rest.Mul(outer)
	}
	inv, ok := outer.Inverse()
	if !ok {
		return nil
	}
	var longest *geom.Path
	length := -1.0
	for _, q := range outline.Subpaths(mostTravelled) {
		if n := geom.NewMeasure(q).Length(); n > length {
			longest, length = q, n
		}
	}
	line := &geom.Path{}
	line.Append(longest, inv.Mul(to))
	return line
}

// AlongLine returns the line of another layer that a motion path of a layer of scene i goes along, in the axes its place is in; nil where it has its
// own.
func (f *Film) AlongLine(i int, layerID string, m *doc.Move) *geom.Path {
	s := f.scenes[i]
	if l := s.byID[layerID]; l != nil {
		return f.alongIn(s, l, m)
	}
	return nil
}
