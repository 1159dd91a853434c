package frame

import (
	"capstan/core/display"
	"fmt"
	"math"
	"slices"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/state"
)

// drawing is how a layer, or a piece of a text, is drawn with a pen whose own lines are so wide.
type drawing struct {
	line    float64    // px
	lines   []line     // one after another
	length  float64    // px, of all in the layer's own axes
	fills   bool       // something is filled
	weight  float64    // length at rest, in px of the page: its share among the layers of a group
	middle  geom.Point // at rest, on the page
	pointer string
	tool    []shape    // what is drawn for that
	pieces  []*drawing // of a text whose moves divide it
}

// line is a part of an outline that is drawn in one go.
type line struct {
	path    *geom.Path
	measure *geom.Measure
	from    float64 // px of lines before it
	whole   uint32  // its stroke
	shape   int     // of the layer, that it belongs to
	pen     geom.Pen
	paint   Paint
	own     bool   // of the layer's own stroke: it stays
	side    string // of it
	of      uint32 // the outline whose side that is
}

// mostLines is into how many parts the outlines of one layer are divided at most: that many subpaths are each drawn by themselves, of more several
// at a time.
const mostLines = 1000

// pens returns those that a layer's moves draw with.
func pens(l *doc.Layer) (list []state.Pen) {
	for _, m := range l.Moves {
		if c := m.Comes(); c != nil && c.Pen != nil {
			list = append(list, c.Pen(m.Full()))
		}
	}
	return
}

// compileDrawings prepares the layers that are drawn, by themselves or with a group they are in, and notes what follows the tips.
func (f *Film) compileDrawings(s *scene, list []*layer, within []state.Pen, to geom.Matrix) {
	for _, l := range list {
		of := append(slices.Clip(within), pens(l.doc)...)
		if len(of) == 0 && len(l.children) == 0 {
			continue
		}
		m := to.Mul(l.rest)
		for i := range of {
			if k := s.byThread[of[i].Layer]; k != nil && !l.within(k) {
				if s.pointers == nil {
					s.pointers = map[*layer]bool{}
				}
				s.pointers[k] = true
			}
			if len(l.children) > 0 || l.drawingWith(&of[i]) != nil {
				continue
			}
			d := f.drawingOf(l, l.shapes, of[i].Line, m, l.box)
			d.pointer, d.tool = of[i].Pointer, f.tool(of[i].Pointer, s)
			for k := range l.pieces {
				p := f.drawingOf(l, l.pieces[k].shapes, of[i].Line, m, l.pieces[k].box)
				p.tool = d.tool
				d.pieces = append(d.pieces, p)
			}
			l.drawings = append(l.drawings, d)
		}
		f.compileDrawings(s, l.children, of, m)
	}
}

// within reports whether a layer is g, or lies in it.
func (l *layer) within(g *layer) bool {
	for ; l != nil; l = l.parent {
		if l == g {
			return true
		}
	}
	return false
}

// drawingWith returns how a layer is drawn with a pen; nil where it is not prepared for it.
func (l *layer) drawingWith(pen *state.Pen) *drawing {
	for _, d := range l.drawings {
		if d.line == pen.Line && d.pointer == pen.Pointer {
			return d
		}
	}
	return nil
}

// drawingOf divides outlines, in a layer's own axes, which m maps to the page at rest, into the lines they are drawn by. Those of a layer with a stroke
// are that stroke; those of one without are lines in its own colour. A picture is uncovered by one line (see band).
func (f *Film) drawingOf(l *layer, shapes []shape, width float64, m geom.Matrix, box geom.Box) *drawing {
	d := &drawing{line: width, middle: m.ApplyBox(box).Centre()}
	add := func(p *geom.Path, name string, v line) {
		measure := f.Geometry.measure(name, p)
		if v.path, v.measure, v.from = p, measure, d.length; measure.Length() > 0 {
			d.length += measure.Length()
		}
		d.lines = append(d.lines, v)
	}
	if kinds[l.doc.Kind].paint != nil {
		p, pen := band(box)
		add(p, fmt.Sprint("band", box), line{pen: pen})
	} else {
		stroked := slices.ContainsFunc(shapes, func(s shape) bool { return s.of != 0 })
		for i := range shapes {
			s := &shapes[i]
			d.fills = d.fills || s.of == 0 && !s.paint.Clear()
			if stroked != (s.of != 0) || s.paint.Clear() {
				continue
			}
			v := line{shape: i, paint: s.paint, own: stroked, side: s.side, of: s.of, pen: geom.Pen{Width: width, Cap: geom.RoundCap, Join: geom.RoundJoin}}
			outline := s.key
			if stroked {
				outline, v.pen = s.of, pen(l.doc.Stroke, l.doc.Stroke.Width)
			}
			whole := f.Geometry.Path(outline)
			if t := v.pen.Trim; t != nil {
				whole = whole.Part(t[0], t[1])
				v.pen.Trim = nil
			}
			parts := whole.Subpaths(mostLines)
			for k, part := range parts {
				name := fmt.Sprint("d", outline, "/", k, "/", len(parts), v.pen)
				v.whole = f.Geometry.key(name, func() *geom.Path { return part.Stroke(v.pen) })
				add(part, name, v)
			}
		}
	}
	d.weight = d.length * math.Sqrt(math.Abs(m.A*m.D-m.B*m.C))
	return d
}

// band is the course by which a picture is uncovered, as a hand would rub it in: a zigzag from its upper left downwards, eight strokes or more, each
// a little off by a number hashed from its place (display.NoiseAt), and the pen whose width covers all of the box by then.
func band(box geom.Box) (*geom.Path, geom.Pen) {
	rows := int(min(200, max(8, math.Ceil(box.H()/120))))
	step := box.H() / float64(rows)
	p := &geom.Path{}
	p.Move(geom.Point{X: box.Min.X, Y: box.Min.Y - step})
	for i := 0; i <= rows+2; i++ {
		x := box.Max.X
		if i%2 == 1 {
			x = box.Min.X
		}
		y := box.Min.Y + (float64(i)-0.5)*step
		p.Line(geom.Point{X: x, Y: y + 0.2*step*(display.NoiseAt(uint32(rows), false, float64(i), 0)-0.5)})
	}
	return p, geom.Pen{Width: 2.6 * step, Cap: geom.RoundCap, Join: geom.RoundJoin}
}

// Lines returns how long all lines are that a layer is drawn by, in px of its own axes, and 0 for an unknown layer.
func (f *Film) Lines(scene int, id string) (length float64) {
	l := f.scenes[scene].byID[id]
	if l == nil {
		return 0
	}
	return f.lines(l, 1)
}

func (f *Film) lines(l *layer, scale float64) (length float64) {
	if kinds[l.doc.Kind].paint != nil {
		p, _ := band(l.box)
		return scale * geom.NewMeasure(p).Length()
	}
	stroked := slices.ContainsFunc(l.shapes, func(s shape) bool { return s.of != 0 })
	for i := range l.shapes {
		switch s := &l.shapes[i]; {
		case s.paint.Clear() || stroked != (s.of != 0):
		case stroked:
			length += scale * geom.NewMeasure(f.Geometry.Path(s.of)).Length()
		default:
			length += scale * geom.NewMeasure(f.Geometry.Path(s.key)).Length()
		}
	}
	for _, c := range l.children {
		if !c.doc.Hidden && c.doc.Mask == "" {
			length += f.lines(c, scale)
		}
	}
	return length
}
