package vector

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"capstan/core/display"
	"capstan/core/geom"
)

// How far colours and shares may be off: a part of a hundredth.
const nearShare = 0.006

// level writes what lies in one thing, back to front.
func (w *writer) level(b *strings.Builder, l *level) error {
	if l == nil {
		return nil
	}
	if done, err := w.leaf(b, l); done || err != nil {
		return err
	}
	for i, t := range l.tracks {
		if t.spans = slices.DeleteFunc(t.spans, func(s span) bool { return s.to <= s.from }); len(t.spans) == 0 {
			continue
		}
		if err := w.track(b, t); err != nil {
			return err
		}
		if most := w.o.MostBytes; most > 0 && b.Len()+w.css.Len()+w.defs.Len() > most {
			return w.tooLarge()
		}
		if i%16 == 0 {
			if err := w.goes(0.5 + float64(b.Len())/float64(b.Len()+1<<20)/2); err != nil {
				return err
			}
		}
	}
	return nil
}

func (w *writer) track(b *strings.Builder, t *track) error {
	switch {
	case t.inside[0] == nil && display.Holds(t.op) || t.op == display.OpTile:
		return w.strip(b, t)
	case t.op == opLayer:
		return w.named(b, t)
	case t.op == display.OpFill:
		return w.fill(b, t)
	case t.op == display.OpOutline:
		return w.outlines(b, t)
	case t.op == display.OpPicture:
		return w.picture(b, t)
	case t.op == display.OpGroup:
		return w.group(b, t)
	case t.op == display.OpMix:
		return w.mix(b, t)
	case t.op == display.OpClipPage:
		return w.clipPage(b, t)
	case t.op == display.OpClip:
		return w.clip(b, t)
	case t.op == display.OpMask:
		return w.mask(b, t)
	case t.op == display.OpVeil, t.op == display.OpWipe:
		return w.veil(b, t)
	}
	return fmt.Errorf("vector: unknown primitive %d", t.op)
}

// matrixAt reads a matrix among a reading's numbers.
func matrixAt(n int) func(r *reading) geom.Matrix {
	return func(r *reading) geom.Matrix {
		v := r.numbers[n:]
		return geom.Matrix{A: v[0], B: v[1], C: v[2], D: v[3], E: v[4], F: v[5]}
	}
}

// fill writes an outline that stays as it is.
func (w *writer) fill(b *strings.Builder, t *track) error {
	key := t.reads[0].codes[0]
	path := w.film.Geometry.Path(key)
	if path == nil || len(path.Points) == 0 {
		return nil
	}
	e := &element{}
	tag := "path"
	if w.uses[key] > 1 {
		id, ok := w.shared[key]
		if !ok {
			id = w.id()
			w.shared[key] = id
			d := w.data(path, w.largest(t))
			w.weights.Outlines += len(d)
			w.defs.WriteString(`<path id="` + id + `" d="` + d + `"/>` + "\n")
		}
		tag = "use"
		e.set("href", "#"+id)
	} else {
		d := w.data(path, w.largest(t))
		w.weights.Outlines += len(d)
		e.set("d", d)
	}
	w.visible(e, t.spans)
	w.moved(e, t, matrixAt(0), w.film.Geometry.Bounds(key))
	if err := w.paint(e, "fill", t, 6, t.reads[0].codes[1:]); err != nil {
		return err
	}
	w.open(e, b, tag)
	b.WriteString("/>\n")
	return nil
}

// largest is how much a track enlarges its axes at most.
func (w *writer) largest(t *track) (k float64) {
	for i := range t.reads {
		k = max(k, matrixAt(0)(&t.reads[i]).MaxScale())
	}
	return k
}

// outlines writes an outline that changes: an element for each time in which it keeps the kinds of its segments.
func (w *writer) outlines(b *strings.Builder, t *track) error {
	for i := 0; i < len(t.reads); {
		j := i + 1
		for j < len(t.reads) && slices.Equal(t.reads[j].codes, t.reads[i].codes) {
			j++
		}
		part := &track{op: t.op, kind: t.kind, reads: slices.Clone(t.reads[i:j])}
		part.spans = w.within(t, i, j)
		part.reads[0].begins = true
		if len(part.spans) > 0 {
			if err := w.outline(b, part); err != nil {
				return err
			}
		}
		i = j
	}
	return nil
}

// within is when a track is seen from its i-th reading up to its j-th.
func (w *writer) within(t *track, i, j int) (spans []span) {
	from, to := t.reads[i].at, math.Inf(1)
	if j < len(t.reads) {
		to = t.reads[j].at
	}
	for _, s := range t.spans {
		if s.from, s.to = max(s.from, from), min(s.to, to); s.to > s.from {
			spans = append(spans, s)
		}
	}
	return spans
}

func (w *writer) outline(b *strings.Builder, t *track) error {
	r := &t.reads[0]
	count := int(r.codes[0])
	path := &geom.Path{}
	numbers := 0
	for _, v := range r.codes[1 : 1+count] {
		path.Verbs = append(path.Verbs, geom.Verb(v))
		numbers += 2 * geom.PointsOf[v&3]
	}
	if numbers == 0 {
		return nil
	}
	draw := func(v []float64) *geom.Path {
		path.Points = path.Points[:0]
		for k := 0; k+1 < len(v); k += 2 {
			path.Points = append(path.Points, geom.Point{X: v[k], Y: v[k+1]})
		}
		return path
	}
	box := geom.EmptyBox()
	for i := range t.reads {
		box = box.Union(draw(t.reads[i].numbers[6 : 6+numbers]).Bounds())
	}
	e := &element{}
	w.visible(e, t.spans)
	w.moved(e, t, matrixAt(0), box)
	k := w.largest(t)
	c := t.curveOf(func(r *reading) []float64 { return r.numbers[6 : 6+numbers] }, 0.7*w.near/max(k, 1e-6))
	keys := c.keys()
	if len(keys) > 1 && slices.ContainsFunc(keys, func(x key) bool { return !same(x.v, keys[0].v) }) {
		before := w.css.Len()
		w.animate(e, "d", keys, func(v []float64) string { return "path('" + w.data(draw(v), k) + "')" })
		w.weights.Outlines += w.css.Len() - before
		w.weights.Moves -= w.css.Len() - before
		e.style = e.style[:len(e.style)-1]
	}
	d := w.data(draw(valueAt(keys, float64(w.o.Still))), k)
	w.weights.Outlines += len(d)
	e.set("d", d)
	if err := w.paint(e, "fill", t, 6+numbers, r.codes[1+count:]); err != nil {
		return err
	}
	w.open(e, b, "path")
	b.WriteString("/>\n")
	return nil
}

// data is a path as SVG has it, exact to a tenth of what may be off where its axes are enlarged k times. Its numbers count from where the one before ended,
// which takes about half the bytes; what rounding leaves is made up for by the next.
func (w *writer) data(p *geom.Path, k float64) string {
	places := min(6, max(0, w.places()+int(math.Ceil(math.Log10(max(k, 1e-6))-0.3))))
	d := &pathWriter{unit: math.Pow(10, float64(places)), places: places}
	i := 0
	for _, v := range p.Verbs {
		q := p.Points[i : i+geom.PointsOf[v]]
		i += len(q)
		d.letter("mlcz"[v])
		for n, at := range q {
			d.point(at, n == len(q)-1)
		}
		if v == geom.MoveTo {
			d.start = d.at
		}
		if v == geom.Close {
			d.at = d.start
		}
	}
	return d.String()
}

// pathWriter writes path data in whole steps of a unit.
type pathWriter struct {
	strings.Builder
	unit      float64
	places    int
	at, start [2]int64 // where it stands, and where the subpath began, in steps
	last      byte     // letter
	number    bool     // a number came last
}

func (d *pathWriter) letter(l byte) {
	if l != d.last || l == 'm' {
		d.WriteByte(l)
		d.number = false
	}
	d.last = l
}

func (d *pathWriter) point(q geom.Point, ends bool) {
	to := [2]int64{int64(math.Round(q.X * d.unit)), int64(math.Round(q.Y * d.unit))}
	for k := range to {
		s := decimal(float64(to[k]-d.at[k])/d.unit, d.places)
		if r, ok := strings.CutPrefix(s, "0."); ok {
			s = "." + r
		} else if r, ok := strings.CutPrefix(s, "-0."); ok {
			s = "-." + r
		}
		if d.number && s[0] != '-' {
			d.WriteByte(' ')
		}
		d.WriteString(s)
		d.number = true
	}
	if ends {
		d.at = to
	}
}
