package vector

import (
	"slices"
	"strings"

	"capstan/core/display"
	"capstan/core/doc"
	"capstan/core/geom"
)

// leaf writes what one layer shows in the words that drawing programs have for it; false where it has to be written as it is painted.
func (w *writer) leaf(b *strings.Builder, l *level) (bool, error) {
	if w.layer == nil || len(l.tracks) == 0 || slices.ContainsFunc(l.tracks, func(t *track) bool {
		return t.op != display.OpFill || len(t.reads) != 1 || matrixAt(0)(&t.reads[0]) != matrixAt(0)(&l.tracks[0].reads[0])
	}) {
		return false, nil
	}
	layer := w.layer.Layer
	if layer.Kind == doc.TextKind {
		if w.words && w.layer.Plain && layer.Stroke == nil {
			return w.spoken(b, l.tracks)
		}
		return false, nil
	}
	fill, stroke := l.tracks[0], (*track)(nil)
	key := fill.reads[0].codes[0]
	if v := layer.Stroke; v != nil {
		last := l.tracks[len(l.tracks)-1]
		if of := w.film.Geometry.StrokeOf(last.reads[0].codes[0]); of != 0 {
			if v.Side != "" || v.StartHead != "" || v.EndHead != "" || v.Trim != nil {
				return false, nil
			}
			if stroke = last; len(l.tracks) == 1 {
				fill, key = nil, of
			} else if key != of {
				return false, nil
			}
		}
	}
	if len(l.tracks) > 2 || len(l.tracks) == 2 && stroke == nil {
		return false, nil
	}
	return w.shape(b, key, fill, stroke)
}

// shape writes an outline with its fill and its stroke, either of which may be nil.
func (w *writer) shape(b *strings.Builder, key uint32, fill, stroke *track) (bool, error) {
	path := w.film.Geometry.Path(key)
	if path == nil {
		return false, nil
	}
	one := fill
	if one == nil {
		one = stroke
	}
	if !path.Bounds().Empty() && w.uses[key] > 1 && stroke == nil && len(path.Points) > 20 {
		return false, nil // it is written once
	}
	e := &element{}
	tag := w.outlined(e, path, one)
	w.moved(e, one, matrixAt(0), path.Bounds())
	if fill == nil {
		e.set("fill", "none")
	} else if err := w.paint(e, "fill", fill, 6, fill.reads[0].codes[1:]); err != nil {
		return false, err
	}
	if stroke != nil {
		if err := w.paint(e, "stroke", stroke, 6, stroke.reads[0].codes[1:]); err != nil {
			return false, err
		}
		v := w.layer.Layer.Stroke
		e.set("stroke-width", w.px(v.Width))
		if v.Cap != "" {
			e.set("stroke-linecap", v.Cap)
		}
		if v.Join != "" {
			e.set("stroke-linejoin", v.Join)
		}
		if v.MiterLimit != 0 && v.MiterLimit != 4 {
			e.set("stroke-miterlimit", decimal(v.MiterLimit, 4))
		}
		if len(v.Dash) > 0 {
			var dash []string
			for _, d := range v.Dash {
				dash = append(dash, w.px(d))
			}
			e.set("stroke-dasharray", strings.Join(dash, " "))
			if v.DashOffset != 0 {
				e.set("stroke-dashoffset", w.px(v.DashOffset))
			}
		}
	}
	w.open(e, b, tag)
	b.WriteString("/>\n")
	return true, nil
}

// outlined says the outline of an element: a rectangle or an ellipse where it is exactly that, else a path. Dashes begin elsewhere on those.
func (w *writer) outlined(e *element, path *geom.Path, one *track) string {
	layer, box := w.layer.Layer, path.Bounds()
	dashed := layer.Stroke != nil && len(layer.Stroke.Dash) > 0
	if box.W() > 0 && box.H() > 0 && !dashed {
		middle := box.Centre()
		switch layer.Kind {
		case doc.Rectangle:
			corner := min(layer.Corner, box.W()/2, box.H()/2)
			if geom.Rectangle(box, corner).Data() != path.Data() {
				break
			}
			e.set("x", w.px(box.Min.X))
			e.set("y", w.px(box.Min.Y))
			e.set("width", w.px(box.W()))
			e.set("height", w.px(box.H()))
			if corner > 0 {
				e.set("rx", w.px(corner))
			}
			return "rect"
		case doc.Ellipse:
			if geom.Ellipse(box).Data() != path.Data() {
				break
			}
			if middle != (geom.Point{}) {
				e.set("cx", w.px(middle.X))
				e.set("cy", w.px(middle.Y))
			}
			e.set("rx", w.px(box.W()/2))
			e.set("ry", w.px(box.H()/2))
			return "ellipse"
		}
	}
	e.set("d", w.data(path, w.largest(one)))
	return "path"
}

// spoken writes a text as words. Each stretch of one look on one line has its place, so that nothing depends on how others break lines.
func (w *writer) spoken(b *strings.Builder, tracks []*track) (bool, error) {
	layer := w.layer.Layer
	spans, outlines, ok := w.film.Spans(layer)
	plates := 0
	if layer.Text.Plate != nil {
		plates = 1
	}
	if !ok || len(spans) == 0 || len(tracks) != plates+len(outlines) {
		return false, nil
	}
	by := map[string]*track{} // of runs, by the colours they have of their own
	for i, o := range outlines {
		by[o.Colour] = tracks[plates+i]
	}
	first := &layer.Text.Runs[spans[0].Run]
	if by[first.Colour] == nil {
		return false, nil
	}
	say := func(e *element, from, to *doc.Run) { // what one run is set in, where another is around it
		if from == nil || from.Family != to.Family {
			e.set("font-family", escaped("'"+strings.ReplaceAll(to.Family, "'", "")+"', sans-serif"))
		}
		if from == nil && to.Weight != 400 || from != nil && from.Weight != to.Weight {
			e.set("font-weight", decimal(float64(to.Weight), 0))
		}
		if from == nil && to.Italic {
			e.set("font-style", "italic")
		} else if from != nil && from.Italic != to.Italic {
			e.set("font-style", map[bool]string{true: "italic", false: "normal"}[to.Italic])
		}
	}
	if plates > 0 {
		b.WriteString("<g>\n")
		if err := w.fill(b, tracks[0]); err != nil {
			return false, err
		}
	}
	outer := &element{}
	w.moved(outer, tracks[plates], matrixAt(0), geom.EmptyBox())
	say(outer, nil, first)
	outer.set("font-size", w.px(spans[0].Size))
	if v := layer.Text.LetterSpacing; v != 0 {
		outer.set("letter-spacing", w.px(v*spans[0].Size/first.Size))
	}
	outer.set("xml:space", "preserve")
	t := by[first.Colour]
	if err := w.paint(outer, "fill", t, 6, t.reads[0].codes[1:]); err != nil {
		return false, err
	}
	w.open(outer, b, "text")
	b.WriteString(">")
	for _, s := range spans {
		run := &layer.Text.Runs[s.Run]
		e := &element{}
		e.set("x", w.px(s.X))
		e.set("y", w.px(s.Foot))
		say(e, first, run)
		if s.Size != spans[0].Size {
			e.set("font-size", w.px(s.Size))
		}
		if t := by[run.Colour]; t != nil && run.Colour != first.Colour {
			if err := w.paint(e, "fill", t, 6, t.reads[0].codes[1:]); err != nil {
				return false, err
			}
		}
		w.open(e, b, "tspan")
		b.WriteString(">" + escaped(s.Text) + "</tspan>")
	}
	b.WriteString("</text>\n")
	if plates > 0 {
		b.WriteString("</g>\n")
	}
	return true, nil
}
