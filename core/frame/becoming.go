package frame

import (
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
)

// outlinesOf plans how the outline of a layer becomes that of another one; nil where they are alike but for numbers, or one of them is no single
// outline: they dissolve then. Words become other words by dissolving.
func (f *Film) outlinesOf(a, b *layer) *morph.Outlines {
	if alike(a, b) || a.doc.Kind == doc.TextKind && b.doc.Kind == doc.TextKind {
		return nil
	}
	x, y := f.drawn(a), f.drawn(b)
	if x == nil || y == nil {
		return nil
	}
	return morph.NewOutlines(x, y)
}

// plans keeps how outlines of changes become each other.
type plans struct {
	sync.Mutex
	by map[[2]*layer]*morph.Outlines
}

// becoming is outlinesOf for what a change makes of a layer, worked out once.
func (f *Film) becoming(a, b *layer) *morph.Outlines {
	f.plans.Lock()
	defer f.plans.Unlock()
	k := [2]*layer{a, b}
	o, known := f.plans.by[k]
	if !known {
		if f.plans.by == nil {
			f.plans.by = map[[2]*layer]*morph.Outlines{}
		}
		o = f.outlinesOf(a, b)
		f.plans.by[k] = o
	}
	return o
}

// maxOutlinePoints is of how many points an outline is at most that becomes another: what has more dissolves.
const maxOutlinePoints = 20000

// drawn is the one outline that a layer is drawn by, in its own axes; nil where it is more, or none.
func (f *Film) drawn(l *layer) *geom.Path {
	k := kinds[l.doc.Kind]
	if l.fills() != 1 || k.paint != nil || k.compile == nil || l.doc.Kind == doc.MarkerKind || l.plate != nil || len(l.children) > 0 {
		return nil
	}
	p := l.path
	if p == nil {
		p = f.Geometry.Path(l.shapes[0].key)
	}
	if p == nil || len(p.Points) == 0 || len(p.Points) > maxOutlinePoints {
		return nil
	}
	return p
}
