package frame

import (
	"capstan/core/combine"
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/state"
)

// Outline returns what a layer of a scene covers, in its own axes without its mirroring, to be filled by the nonzero rule: the area
// of its shapes, letters or drawn path, of a group all that is in it, as far as its masks show it; of lines that enclose nothing, their
// stroke. An unknown layer covers nothing. It fails with combine.ErrUnclear where what masks show cannot be told.
func (f *Film) Outline(scene int, id string) (*geom.Path, error) {
	p := &geom.Path{}
	if l := f.scenes[scene].byID[id]; l != nil {
		if err := f.outline(l, l.flipped(), p); err != nil {
			return nil, err
		}
	}
	return p, nil
}

// flipped is the mirroring of a layer within its own axes.
func (l *layer) flipped() geom.Matrix {
	flip := state.State{Pivot: l.pivot, FlipX: l.doc.Place.FlipX, FlipY: l.doc.Place.FlipY}
	return flip.Matrix()
}

func (f *Film) outline(l *layer, m geom.Matrix, to *geom.Path) error {
	in := &geom.Path{}
	for _, c := range l.children {
		if !c.doc.Hidden && c.doc.Mask == "" {
			if err := f.outline(c, m.Mul(c.rest), in); err != nil {
				return err
			}
		}
	}
	for _, c := range l.children {
		if c.doc.Hidden || c.doc.Mask == "" {
			continue
		}
		mask, how := &geom.Path{}, combine.KeepOverlap
		if err := f.outline(c, m.Mul(c.rest), mask); err != nil {
			return err
		}
		if c.doc.Mask == doc.Outside {
			how = combine.CutAway
		}
		var err error
		if in, err = combine.Areas(how, combine.Area{Path: in}, combine.Area{Path: mask}); err != nil {
			return err
		}
	}
	to.Append(in, geom.Identity)
	lines := l.doc.Stroke != nil && !encloses(l)
	for _, s := range l.shapes {
		if lines == (s.of != 0) {
			to.Append(f.Geometry.Path(s.key), m)
		}
	}
	return nil
}

// StrokeOutline returns the outline of a layer's stroke, in its own axes without its mirroring; empty where it has none.
func (f *Film) StrokeOutline(scene int, id string) *geom.Path {
	p := &geom.Path{}
	if l := f.scenes[scene].byID[id]; l != nil {
		for _, s := range l.shapes {
			if s.of != 0 {
				p.Append(f.Geometry.Path(s.key), l.flipped())
			}
		}
	}
	return p
}

// Encloses reports whether a layer covers an area by itself: it has a fill, or a line of it is closed.
func (f *Film) Encloses(scene int, id string) bool {
	l := f.scenes[scene].byID[id]
	return l != nil && encloses(l)
}

func encloses(l *layer) bool {
	if l.doc.Fill.Kind != doc.NoFill || l.doc.Kind == doc.Group || l.doc.Kind == doc.TextKind {
		return true
	}
	if l.path != nil {
		for _, v := range l.path.Verbs {
			if v == geom.Close {
				return true
			}
		}
		return false
	}
	return !l.spec.Open()
}
