package frame

import (
	"math"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/morph"
	"capstan/core/motion"
)

// gathered is one part of a group that becomes a single outline, or comes of one: large ones all become it, the others go into it.
type gathered struct {
	part    *layer
	becomes *morph.Outlines // in the axes of the group on one side, of the other layer on the other
	main    bool            // the largest
	whole   bool            // it is all of the group
	back    geom.Matrix     // from the group's axes to the part's, as it stood when this was planned
}

// gatheredOf plans how the parts of a group become one outline, or come of it; nil where they dissolve into each other: of parts that are no single
// outlines, have masks or effects, or are moved by units.
func (f *Film) gatheredOf(a, b *layer, ca, cb motion.Clock, said *doc.Reshape, pause func()) []gathered {
	g, o, c := a, b, ca
	if b.doc.Kind == doc.Group {
		g, o, c = b, a, cb
	}
	into := f.drawn(o)
	if g.doc.Kind != doc.Group || o.doc.Kind == doc.Group || into == nil || g.track.ByUnit(c) != "" || o.alone {
		return nil
	}
	if o.doc.Kind == doc.TextKind {
		if out := f.rejoined(g, o, c, g == a); out != nil {
			return out
		}
	}
	var out []gathered
	var paths []*geom.Path
	largest := -1
	whole := geom.EmptyBox()
	ok := f.leaves(g, geom.Identity, c, func(l *layer, m geom.Matrix) bool {
		p, back, sound := f.drawn(l), geom.Matrix{}, false
		if back, sound = m.Inverse(); p == nil || !sound || l.alone || len(l.becomes) > 0 || len(out) >= maxOutlineParts {
			return false
		}
		q := &geom.Path{}
		q.Append(p, m)
		if largest < 0 || area(q) > area(paths[largest]) {
			largest = len(out)
		}
		whole = whole.Union(q.Bounds())
		out, paths = append(out, gathered{part: l, back: back}), append(paths, q)
		return true
	})
	if !ok || len(out) == 0 {
		return nil
	}
	box := into.Bounds()
	// Several that are all of it lie over each other at last: that looks like one where nothing of it is clear.
	clear := !o.shapes[0].paint.Opaque()
	for i := range out {
		of := said
		if i != largest {
			of = nil
		}
		out[i].main = i == largest
		all := i == largest || !clear && area(paths[i]) > alsoWhole*area(paths[largest])
		switch {
		case all && g == a:
			out[i].becomes = morph.NewOutlinesPausing(paths[i], into, of, pause)
		case all:
			out[i].becomes = morph.NewOutlinesPausing(into, paths[i], of, pause)
		default:
			at := paths[i].Bounds().Centre().Sub(whole.Min)
			at = geom.Point{X: at.X * box.W() / max(whole.W(), 1e-9), Y: at.Y * box.H() / max(whole.H(), 1e-9)}.Add(box.Min)
			out[i].becomes = morph.Shrinking(paths[i], into, at, g == a)
		}
	}
	return out
}

// rejoined lets the letters of a text that is split become those of the words that it is in the other scene, each once and in their order; nil where a
// part is no text, or they are not of one paint.
func (f *Film) rejoined(g, o *layer, c motion.Clock, goes bool) []gathered {
	var first *layer
	var letters []morph.Letter
	ok := f.leaves(g, geom.Identity, c, func(l *layer, m geom.Matrix) bool {
		if l.doc.Kind != doc.TextKind || f.drawn(l) == nil || l.alone || len(l.becomes) > 0 || l.track.ByUnit(c) != "" {
			return false
		}
		if first == nil {
			first = l
		}
		letters = append(letters, f.lettersIn(l, m)...)
		return l.shapes[0].paint == first.shapes[0].paint && len(letters) <= maxLetters
	})
	words := f.lettersIn(o, geom.Identity)
	if !ok || first == nil || len(words) == 0 || len(words) > maxLetters {
		return nil
	}
	v := gathered{part: first, whole: true}
	if v.becomes = morph.NewLetters(letters, words); !goes {
		v.becomes = morph.NewLetters(words, letters)
	}
	return []gathered{v}
}

// alsoWhole is how large a part is, against the largest, that becomes the whole as well.
const alsoWhole = 0.3

// area is how much an outline covers, its holes left out.
func area(p *geom.Path) float64 {
	sum := 0.0
	for _, list := range geom.Polygons(p) {
		for i, q := range list {
			n := list[(i+1)%len(list)]
			sum += (q.X*n.Y - q.Y*n.X) / 2
		}
	}
	return math.Abs(sum)
}

// leaves calls each for what is drawn inside a group at a clock, back to front, and how it lies in the group's axes, until it is false, or something is
// not drawn as simply as that.
func (f *Film) leaves(g *layer, m geom.Matrix, c motion.Clock, each func(l *layer, m geom.Matrix) bool) bool {
	for _, l := range g.children {
		pose := l.track.At(c, nil)
		switch {
		case l.doc.Hidden || !pose.Present:
			continue
		case l.doc.Mask != "" || l.doc.Through != nil || len(pose.Veil) > 0 || !f.simple(l, m.Mul(l.inside(c)), c, each):
			return false
		}
	}
	return true
}

func (f *Film) simple(l *layer, m geom.Matrix, c motion.Clock, each func(l *layer, m geom.Matrix) bool) bool {
	if l.doc.Kind != doc.Group {
		return each(l, m)
	}
	return !l.alone && l.track.ByUnit(c) == "" && f.leaves(l, m, c, each)
}

// inside maps the layer's axes to its parent's as it stands at a clock.
func (l *layer) inside(c motion.Clock) geom.Matrix {
	s := l.standing(c, nil)
	return s.Matrix()
}

// gather adds the parts of a group on their way to one outline, or from it, in axes that n has.
func (p *Player) gather(q *pair, gathers []gathered, n node, c strandClock) {
	g, clock, share := q.a, c.a, morph.Ease(1-c.p) // how much the group has to say
	if q.b.doc.Kind == doc.Group {
		g, clock, share = q.b, c.b, morph.Ease(c.p)
	}
	n.kind, n.sized, n.loops = groupNode, false, motion.Going{}
	n.layer, n.other = g, nil
	i := p.open(n)
	for _, k := range gathers {
		m, opacity := geom.Identity, 1.0
		for l := k.part; l != g && !k.whole; l = l.parent {
			s := l.standing(clock, &p.veils)
			m, opacity = s.Matrix().Mul(m), opacity*s.Opacity
		}
		one := node{kind: leafNode, layer: k.part, other: q.b, share: c.p, becomes: k.becomes, m: n.m.Mul(k.from(m, share)), alpha: 1 + (opacity-1)*share}
		if g == q.b {
			one.layer, one.other = q.a, k.part
		}
		p.close(p.open(one))
	}
	p.close(i)
}

// from is how what was planned for a part lies in its group's axes, when m maps the part's to these and the group has a share to say.
func (k *gathered) from(m geom.Matrix, share float64) geom.Matrix {
	if k.whole {
		return geom.Identity
	}
	return toward(m.Mul(k.back), share)
}

// toward is a share of the way from staying as it is to a matrix.
func toward(m geom.Matrix, share float64) geom.Matrix {
	if m == geom.Identity || math.IsNaN(m.A) {
		return geom.Identity
	}
	l := func(a, b float64) float64 { return a + (b-a)*share }
	return geom.Matrix{A: l(1, m.A), B: l(0, m.B), C: l(0, m.C), D: l(1, m.D), E: l(0, m.E), F: l(0, m.F)}
}
