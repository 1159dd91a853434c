package frame

import (
	"strings"
	"sync"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
)

// outlinesOf plans how the outline of a layer becomes that of another one; nil where they are alike but for numbers, or one of them is no single
// outline: they dissolve then. Words become other words by dissolving. Of what was said more than numbers goes by outlines, too.
func (f *Film) outlinesOf(a, b *layer, said *doc.Reshape, pause func()) *morph.Outlines {
	if alike(a, b) && (said == nil || said.Way == "" && len(said.Parts) == 0) || a.doc.Kind == doc.TextKind && b.doc.Kind == doc.TextKind {
		return nil
	}
	x, y := f.drawn(a), f.drawn(b)
	if x == nil || y == nil {
		return nil
	}
	return morph.NewOutlinesPausing(x, y, said, pause)
}

// lettersOf plans how words become other words letter by letter; nil where they are the same but for numbers, have more than one colour, or a plate.
func (f *Film) lettersOf(a, b *layer) *morph.Outlines {
	if alike(a, b) || a.doc.Kind != doc.TextKind || b.doc.Kind != doc.TextKind || f.drawn(a) == nil || f.drawn(b) == nil {
		return nil
	}
	x, y := f.lettersIn(a, geom.Identity), f.lettersIn(b, geom.Identity)
	if len(x) == 0 || len(y) == 0 || len(x) > maxLetters || len(y) > maxLetters {
		return nil
	}
	return morph.NewLetters(x, y)
}

// lettersIn are the letters of a text as they are drawn, in axes that m maps its own to.
func (f *Film) lettersIn(l *layer, m geom.Matrix) (list []morph.Letter) {
	lay, _ := f.layout(l.doc, doc.ByLetter)
	for i, p := range lay.Pieces {
		if len(p.Outlines) == 0 {
			continue
		}
		to := p.To
		if to == p.From && i+1 < len(lay.Pieces) {
			to = lay.Pieces[i+1].From
		}
		name := (&doc.Text{Runs: l.doc.Text.Stretch(p.From, to)}).String()
		q := &geom.Path{}
		q.Append(p.Outlines[0].Path, m)
		list = append(list, morph.Letter{Name: strings.TrimSpace(name), Path: q})
	}
	return
}

// plans keeps how outlines of changes become each other.
type plans struct {
	sync.Mutex
	by map[[2]*layer]*morph.Outlines
}

// becoming is outlinesOf for what a change makes of a layer, worked out once.
func (f *Film) becoming(a, b *layer, said *doc.Reshape) *morph.Outlines {
	f.plans.Lock()
	defer f.plans.Unlock()
	k := [2]*layer{a, b}
	o, known := f.plans.by[k]
	if !known {
		if f.plans.by == nil {
			f.plans.by = map[[2]*layer]*morph.Outlines{}
		}
		o = f.outlinesOf(a, b, said, func() {})
		f.plans.by[k] = o
	}
	return o
}

// maxOutlinePoints and maxOutlineParts are of how many points, and of how many parts, an outline is at most that becomes another, maxLetters how many
// letters go one by one: what has more dissolves.
const (
	maxOutlinePoints = 16000
	maxOutlineParts  = 300
	maxLetters       = 300
)

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
	parts := 0
	for _, v := range p.Verbs {
		if v == geom.MoveTo {
			parts++
		}
	}
	if parts > maxOutlineParts {
		return nil
	}
	return p
}
